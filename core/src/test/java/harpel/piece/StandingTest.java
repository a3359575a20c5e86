package harpel.piece;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.format.FileException;
import harpel.format.PieceFile;
import org.junit.jupiter.api.Test;

class StandingTest {
    private static final long BAR = 61_440;

    private final Piece piece;

    StandingTest() throws FileException {
        piece = PieceFile.read("""
            {"harpel":1,"plays":"timeline","parts":[
              {"name":"Bells","chain":[],"phrase":"printed","blocks":[
                {"at":122880,"length":61440,"phrase":"drawn"},
                {"at":184320,"length":61440,"phrase":"drawn","chain":false}]},
              {"name":"Gull","chain":[]}],
             "phrases":[{"id":"printed","name":"Printed","length":61440,"notes":[],"ready":true},
                        {"id":"drawn","name":"Drawn","length":61440,"notes":[]}]}""");
    }

    private static String of(Piece one, long bar) {
        return Standing.of(one, one.parts().get(0), (bar - 1) * BAR).words();
    }

    private Piece with(java.util.function.UnaryOperator<Mix> change) {
        return piece.withPart("bells", part -> part.withMix(change.apply(part.mix())));
    }

    @Test
    void beyondItsBlocksAPartHasNothingToPlay() {
        assertThat(of(piece, 1)).isEqualTo("nothing here until bar 3");
        assertThat(of(piece, 3)).isEmpty();
        assertThat(of(piece, 4)).isEqualTo("past the chain: “Drawn”");
        assertThat(of(piece, 5)).isEqualTo("nothing here any more");
        assertThat(Standing.of(piece, piece.parts().get(1), 0))
                .as("a part without blocks plays its loop")
                .isEqualTo(Standing.HEARD);
    }

    @Test
    void asLoopsAReadyPhraseGoesPastTheChainAndIsHeard() {
        Standing standing = Standing.of(piece.withTimeline(false), piece.parts().get(0), 0);
        assertThat(standing).isEqualTo(new Standing("past the chain: “Printed”", "ready", false, true));
    }

    @Test
    void whatIsNotHeardSaysWhy() {
        assertThat(of(with(mix -> mix.withMute(true)), 3)).isEqualTo("muted");
        assertThat(of(with(mix -> mix.withLevel(0)), 3)).isEqualTo("level 0 %");
        Piece solo = piece.withPart("gull", part -> part.withMix(part.mix().withSolo(true)));
        assertThat(of(solo, 3)).isEqualTo("others are solo");
        assertThat(Standing.of(solo, solo.parts().get(0), 2 * BAR).silent()).isTrue();
    }
}
