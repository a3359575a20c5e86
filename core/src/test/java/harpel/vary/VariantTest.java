package harpel.vary;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.notes.Echo;
import harpel.format.ChainFile;
import harpel.format.PieceFile;
import harpel.make.Recipe;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.PrintOrder;
import harpel.testkit.Played;
import harpel.testkit.Randoms;
import harpel.theory.Key;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.vary.Likeness.Spot;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Variations by chance and by settings, and how unlike ones are found. */
class VariantTest {
    private static final long QUARTER = Ticks.PER_QUARTER;

    private static Piece piece(Chain chain) {
        return Piece.empty()
                .withPhrase(Phrase.of(
                        "Tide", 4 * QUARTER, List.of(Note.of(0, QUARTER, 60, 90), Note.of(QUARTER, QUARTER, 67, 80))))
                .withParts(List.of(Part.of("Lead", chain).withPhrase("tide")));
    }

    private static Chain chain(Piece piece) {
        return piece.part("lead").orElseThrow().chain();
    }

    @Test
    void byChanceOnlyTheNumberDiffers() throws InterruptedException {
        Piece piece = piece(Played.chain("{'effect':'stray','amount':60}"));
        Variant seven = Variant.of(piece, "lead", Way.CHANCE, 7);
        assertThat(seven.piece()).isEqualTo(piece.withVariation(7));
        assertThat(seven.differs()).isEmpty();
        Set<Notes> results = new HashSet<>();
        for (long number = 0; number < 12; number++) {
            results.add(
                    PrintOrder.of(Variant.of(piece, "lead", Way.CHANCE, number).piece(), "lead", Tail.CUT)
                            .print(done -> {})
                            .phrase("lead", piece)
                            .notes());
        }
        assertThat(results.size()).as("twelve numbers, several results").isGreaterThan(4);
    }

    static Iterable<EffectKind> kinds() {
        return EffectCatalog.kinds();
    }

    /** Whatever is drawn for a kind lies in its ranges, is the same each time, and says what differs. */
    @ParameterizedTest
    @MethodSource("kinds")
    void drawnSettingsFitAreRepeatableAndAreTold(EffectKind kind) throws Exception {
        Chain chain = new Randoms(kind.id().hashCode()).chainAround(kind);
        Piece piece = piece(chain);
        for (Way way : List.of(Way.LITTLE, Way.LOT)) {
            assertThat(Variant.of(piece, "lead", way, 0).piece())
                    .as("0 is as it is set")
                    .isEqualTo(piece);
            for (long number = 1; number <= 20; number++) {
                Variant variant = Variant.of(piece, "lead", way, number);
                Chain drawn = chain(variant.piece());
                assertThat(ChainFile.chainOf(ChainFile.plain(drawn))).isEqualTo(drawn);
                assertThat(Variant.of(piece, "lead", way, number)).isEqualTo(variant);
                assertThat(variant.differs().isEmpty()).isEqualTo(drawn.equals(chain));
                assertThat(drawn.stages().stream().map(Stage::id))
                        .containsExactlyElementsOf(
                                chain.stages().stream().map(Stage::id).toList());
                assertThat(variant.piece().variation())
                        .as("chance stays as it is")
                        .isEqualTo(piece.variation());
                if (way == Way.LITTLE) {
                    assertThat(drawn.stages().stream().map(Stage::on))
                            .as("no stage is switched")
                            .containsExactlyElementsOf(
                                    chain.stages().stream().map(Stage::on).toList());
                }
            }
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = Way.class,
            names = {"LITTLE", "LOT"})
    void aSettingIsMovedSoFarAtMostAndALotIsMoreThanALittle(Way way) {
        Piece piece = piece(Played.chain("{'effect':'echo','fade':50,'repeats':8}"));
        int moved = 0;
        for (long number = 1; number <= 200; number++) {
            var values = chain(Variant.of(piece, "lead", way, number).piece())
                    .stages()
                    .get(0)
                    .params();
            assertThat((double) values.get(Echo.FADE)).isBetween(50 - 100 * way.far - 1, 50 + 100 * way.far + 1);
            moved += values.get(Echo.FADE).intValue() == 50 ? 0 : 1;
        }
        assertThat(moved / 200.0).isBetween(way.often - 0.12, way.often + 0.12);
    }

    @Test
    void whatIsSetOfOneStageChangesNoDrawOfAnother() {
        Piece one = piece(Played.chain("{'effect':'echo','fade':50},{'effect':'touch'}"));
        Piece other = piece(Played.chain("{'effect':'echo','fade':20,'repeats':7},{'effect':'touch'}"));
        for (long number = 1; number <= 30; number++) {
            Stage a = chain(Variant.of(one, "lead", Way.LOT, number).piece())
                    .stages()
                    .get(1);
            Stage b = chain(Variant.of(other, "lead", Way.LOT, number).piece())
                    .stages()
                    .get(1);
            assertThat(a).isEqualTo(b);
        }
    }

    private static Set<Spot> spots(int... ticks) {
        Set<Spot> spots = new HashSet<>();
        IntStream.of(ticks).forEach(tick -> spots.add(new Spot(tick, 60)));
        return spots;
    }

    /** By hand: two of four different notes in common are a half. */
    @Test
    void whatWasMadeIsMadeAnewWhateverItsLength() {
        for (Recipe.Kind kind : List.of(Recipe.Kind.MELODY, Recipe.Kind.CHORDS)) {
            Recipe recipe = kind.plain();
            Recipe.Result made = recipe.make(Key.C_MAJOR, TimeMap.DEFAULT);
            Piece piece = piece(Chain.EMPTY)
                    .withPhrase(Phrase.of("Tide", made.length(), made.notes()).withOrigin(recipe.origin()));
            assertThat(Variant.of(piece, "lead", Way.MADE, 0).piece()).isEqualTo(piece);
            for (int number = 1; number <= 40; number++) {
                Recipe other = recipe.another(number);
                Variant variant = Variant.of(piece, "lead", Way.MADE, number);
                Phrase phrase = variant.piece().phrase("tide").orElseThrow();
                Recipe.Result wanted = other.make(piece.key(), piece.time());
                assertThat(phrase.notes()).hasSameSizeAs(wanted.notes());
                assertThat(phrase.length()).isEqualTo(wanted.length());
                assertThat(phrase.origin()).isEqualTo(other.origin());
                assertThat(variant.differs()).containsExactly(other.origin().details());
            }
        }
        assertThat(Variant.recipe(piece(Chain.EMPTY), "lead")).isEmpty();
    }

    @Test
    void likenessIsWhatIsInCommonOverAll() {
        assertThat(Likeness.between(spots(1, 2, 3), spots(2, 3, 4))).isEqualTo(0.5);
        assertThat(Likeness.between(spots(1, 2), spots(1, 2))).isEqualTo(1);
        assertThat(Likeness.between(spots(1), spots(2))).isZero();
        assertThat(Likeness.between(spots(), spots())).isEqualTo(1);
        assertThat(Likeness.differing(
                        Notes.of(List.of(Note.of(1, 9, 60, 90), Note.of(1, 9, 61, 90), Note.of(5, 9, 60, 90))),
                        spots(1)))
                .isEqualTo(2);
    }

    /** The first is taken; then the one with nothing in common; then that which is a third like its nearest before that which is a half. */
    @Test
    void theFarthestIsTakenFirst() {
        List<Set<Spot>> all = List.of(spots(1, 2), spots(1, 2), spots(1, 2, 3, 4), spots(8, 9), spots(9, 2, 5, 6));
        assertThat(Likeness.farthestFirst(all, 4)).containsExactly(0, 3, 4, 2);
        assertThat(Likeness.farthestFirst(all, 9)).hasSize(5).doesNotHaveDuplicates();
    }

    /** Rounds with variations 41 and 43 in turn: the first is as the card of 41, the second as that of 43, the third as the first. */
    @Test
    void variationsAreTakenInTurnOneARound() throws Exception {
        Piece one = piece(Played.chain("{'effect':'stray','amount':60},{'effect':'touch','loosen':30}"));
        Phrase tide = one.phrase("tide").orElseThrow();
        Piece piece = one.withPhrase(tide.withNotes(
                tide.notes().plus(Note.of(2 * QUARTER, QUARTER, 62, 90).withTraits(Traits.of(50, false, Map.of())))));
        Piece turns = piece.withPart("lead", part -> part.withVariations(List.of(41L, 43L)));
        Piece read = PieceFile.read(PieceFile.write(turns));
        assertThat(read).isEqualTo(turns);
        long round = 4 * QUARTER;
        List<Notes> rounds = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            rounds.add(new PrintOrder(read, Set.of("lead"), i * round, (i + 1) * round, Tail.CUT)
                    .print(done -> {})
                    .phrase("lead", read)
                    .notes());
        }
        for (int i = 0; i < 4; i++) {
            Piece card =
                    Variant.of(piece, "lead", Way.CHANCE, i % 2 == 0 ? 41 : 43).piece();
            assertThat(rounds.get(i))
                    .as("round %d", i)
                    .isEqualTo(PrintOrder.of(card, "lead", Tail.ROUND)
                            .print(done -> {})
                            .phrase("lead", card)
                            .notes());
        }
        assertThat(rounds.get(0)).isNotEqualTo(rounds.get(1));
        assertThatThrownBy(() -> PieceFile.read(PieceFile.write(turns).replace("41", "-1")))
                .hasMessageContaining("variations");
    }
}
