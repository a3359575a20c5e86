package harpel.offline;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.held.Arpeggio;
import harpel.offline.BeforeAfter.Sounding;
import harpel.piece.Piece;
import harpel.theory.Key;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The picture of what an effect does is made by the engine, with the present settings, in the key of the piece. */
class BeforeAfterTest {
    private static final Piece PIECE = Piece.empty().withKey(Key.parse("D minor"));

    private static BeforeAfter of(String effect) throws InterruptedException {
        return BeforeAfter.of(PIECE, Stage.of("one", EffectCatalog.of(effect)));
    }

    @Test
    void heldNotesAreTheChordOfTheKeyAndBecomeAPattern() throws Exception {
        BeforeAfter picture = of("arpeggio");
        assertThat(picture.before()).extracting(Sounding::pitch).containsExactly(62, 65, 69);
        assertThat(picture.after()).hasSize(16).allMatch(one -> List.of(2, 5, 9).contains(one.pitch() % 12));
        assertThat(picture.words()).isEqualTo("D F A held for a bar: 16 notes with these settings");
        Stage slower = Stage.of("one", EffectCatalog.of("arpeggio"));
        Stage eighths = slower.withParams(slower.params().withPlain(Arpeggio.PACE, "1/8"));
        assertThat(BeforeAfter.of(PIECE, eighths).after()).as("as it is set").hasSize(8);
    }

    @Test
    void otherEffectsAreShownByAScale() throws Exception {
        BeforeAfter picture = of("transpose");
        assertThat(picture.before()).extracting(Sounding::pitch).containsExactly(62, 64, 65, 67, 69, 70, 72, 74);
        assertThat(picture.after()).hasSize(8);
        assertThat(picture.words()).startsWith("a scale of 8 notes for a bar: 8 notes");
    }

    static List<EffectKind> kinds() {
        return EffectCatalog.kinds();
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void everyEffectHasOneAndTheSameEachTime(EffectKind kind) throws Exception {
        BeforeAfter picture = BeforeAfter.of(PIECE, Stage.of("one", kind));
        assertThat(picture.before()).isNotEmpty();
        assertThat(picture.after()).allMatch(one -> one.tick() >= 0 && one.end() <= picture.length());
        assertThat(BeforeAfter.of(PIECE, Stage.of("one", kind))).isEqualTo(picture);
    }
}
