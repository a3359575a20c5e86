package harpel.piece;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.format.PieceFile;
import harpel.param.ParamException;
import harpel.phrase.Phrase;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.piece.perform.Pad.Does;
import harpel.piece.perform.When;
import harpel.time.MeterMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pads and moments: what they make of a piece, and how they stand in its file. */
class StagePiecesTest {
    private static final long BAR = 61_440;

    private final Piece piece = Piece.empty()
            .withParts(List.of(
                    Part.of("Bells", new Chain(List.of(Stage.of("echo", EffectCatalog.of("echo"))))),
                    Part.of("Bass", Chain.EMPTY)))
            .withPhrase(Phrase.of("Tide", BAR, List.of()))
            .withLevers(List.of(Lever.of("Tide", 30)));

    @ParameterizedTest
    @CsvSource({
        "now, 100, 100",
        "beat, 1, 15360",
        "beat, 15360, 15360",
        "bar, 1, 61440",
        "bar, 61440, 61440",
        "4, 1, 245760",
        "4, 61440, 245760",
        "4, 245760, 245760",
        "4, 245761, 491520"
    })
    void whatIsAskedForIsDoneAtTheFirstTickThatFits(String when, long tick, long due) {
        assertThat(When.parse(when).due(MeterMap.FOUR_FOUR, tick)).isEqualTo(due);
        assertThat(When.parse(When.parse(when).toString())).isEqualTo(When.parse(when));
    }

    @Test
    void aTimeThatIsNoneIsRefusedInWords() {
        assertThatThrownBy(() -> When.parse("soon"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("now, beat, bar or a number of bars");
    }

    @Test
    void aMomentBringsBackWhatWasOnAndWhereLeversStood() {
        Moment lit = Moment.of("Lamp is lit", piece);
        Piece changed = piece.withLevers(List.of(Lever.of("Tide", 90)))
                .withPart(
                        "bells",
                        part -> part.withChain(new Chain(List.of(
                                Stage.of("echo", EffectCatalog.of("echo")).with(EffectKind.ON, false)))))
                .withPart(
                        "bass", part -> part.withMix(part.mix().withMute(true)).withPhrase("tide"))
                .withMoments(List.of(lit));
        assertThat(lit.isNow(changed)).isFalse();
        Piece back = lit.on(changed);
        assertThat(back).isEqualTo(piece.withMoments(List.of(lit)));
        assertThat(lit.isNow(back)).isTrue();
        assertThat(lit.taken(changed).on(back)).isEqualTo(changed);
    }

    @Test
    void aLeverStandsOnItsPlaces() throws Exception {
        Lever lever = Lever.of("Tide", 0)
                .withSteps(5)
                .withReturns(true)
                .withCurve(-30)
                .withControllers(List.of(74, 1));
        assertThat(lever.nearest(37)).isEqualTo(25);
        assertThat(lever.nearest(38)).isEqualTo(50);
        assertThat(Lever.of("Tide", 0).nearest(37.3)).isEqualTo(37.3);
        assertThatThrownBy(() -> lever.withSteps(1))
                .hasMessageContaining("2–128 places")
                .hasMessageContaining("on 1");
        Piece with = piece.withLevers(List.of(lever));
        assertThat(PieceFile.read(PieceFile.write(with))).isEqualTo(with);
    }

    @Test
    void aLeverThatIsRenamedIsItAlsoInMomentsAndBetweenChains() {
        Piece full = piece.withMoments(List.of(Moment.of("Storm", piece)))
                .withPart(
                        "bells",
                        part -> part.withOtherChain()
                                .withRack(part.withOtherChain().rack().withBetween("Tide")));
        Piece renamed = full.withLeverRenamed(0, "Ebb");
        assertThat(renamed.moments().get(0).levers()).containsExactly(Map.entry("Ebb", 30.0));
        assertThat(renamed.part("bells").orElseThrow().rack().between()).isEqualTo("Ebb");
        assertThat(renamed.withoutLever(0).part("bells").orElseThrow().rack().between())
                .isEmpty();
    }

    @Test
    void aMomentPassesOverWhatIsGoneAndLeavesWhatIsNew() {
        Moment lit = Moment.of("Lamp is lit", piece.withPart("bells", part -> part.withPhrase("tide")));
        Piece other = Piece.empty().withParts(List.of(Part.of("Bells", Chain.EMPTY), Part.of("Gull", Chain.EMPTY)));
        assertThat(lit.on(other)).isEqualTo(other);
    }

    @Test
    void aMomentTurnsToTheChainThatWasHeard() {
        Piece both = piece.withPart("bells", Part::withOtherChain);
        Moment b = Moment.of("B", both);
        Piece a = both.withPart("bells", Part::withOtherChain);
        assertThat(a.part("bells").orElseThrow().rack().letter()).isEqualTo('A');
        assertThat(b.on(a)).isEqualTo(both);
    }

    @Test
    void padsSwitchWhatTheyAreAbout() {
        Pad mute = Pad.of(0, Does.MUTE, "bass", "", When.BAR);
        Pad echo = Pad.of(1, Does.STAGE, "bells", "bells/echo", When.NOW);
        Pad next = Pad.of(2, Does.VARIATION, "", "", When.NOW);
        assertThat(mute.isOn(piece)).as("it is heard").isTrue();
        assertThat(mute.isOn(mute.pressed(piece))).isFalse();
        assertThat(mute.pressed(mute.pressed(piece))).isEqualTo(piece);
        assertThat(echo.isOn(piece)).isTrue();
        assertThat(echo.about(echo.pressed(piece))).isEqualTo("off");
        assertThat(echo.title(piece)).isEqualTo("Echo");
        assertThat(next.pressed(piece).variation()).isEqualTo(piece.variation() + 1);
        assertThat(Pad.of(3, Does.SOLO, "gone", "", When.NOW).pressed(piece)).isEqualTo(piece);
    }

    @Test
    void whateverAFileSaysAPadIsAboutItIsShownAndWhatIsMissingIsNamed() {
        for (Does does : Does.values()) {
            Pad strange = Pad.of(0, does, "bells", "no such/thing!", When.NOW);
            assertThat(strange.pressed(piece)).as("%s", does).isNotNull();
            assertThat(strange.title(piece)).isNotNull();
            assertThat(strange.about(piece)).isNotNull();
        }
        assertThat(Pad.of(0, Does.STAGE, "bells", "", When.NOW).missing(piece)).isEqualTo("the stage “”");
        assertThat(Pad.of(0, Does.FILL, "bells", "crab", When.NOW).missing(piece))
                .isEqualTo("the phrase “crab”");
        assertThat(Pad.of(0, Does.MUTE, "gone", "", When.NOW).missing(piece)).isEqualTo("the part “gone”");
        assertThat(Pad.of(0, Does.STAGE, "bells", "bells/echo", When.NOW).missing(piece))
                .isEmpty();
        assertThat(Pad.of(0, Does.TAP, "", "", When.NOW).missing(piece)).isEmpty();
    }

    @Test
    void aMomentWhoseStagesCannotBeReadIsRefusedByItsPath() {
        Piece with = piece.withMoments(List.of(Moment.of("Storm", piece)));
        assertThatThrownBy(() -> PieceFile.read(PieceFile.write(with).replace("bells/echo", "bells echo")))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("moments[0].parts.bells.stages")
                .hasMessageContaining("written like lead/split.2/echo");
    }

    @Test
    void padsAndMomentsAreKeptInTheFileAndWhatIsUnknownWithThem() throws Exception {
        Piece full = piece.withPads(List.of(
                        new Pad(17, "Boom", Does.CHORD, "bells", "Dm7", new When(4), Map.of()),
                        Pad.of(0, Does.MOMENT, "", "Storm", When.BEAT)))
                .withMoments(
                        List.of(Moment.of("Storm", piece).withGlide(2.5).withWhen(When.NOW), Moment.of("Ebb", piece)));
        assertThat(PieceFile.read(PieceFile.write(full))).isEqualTo(full);
        String newer = PieceFile.write(full)
                .replaceFirst("\"harpel\": \\d+", "\"harpel\": 99")
                .replace("\"name\": \"Boom\"", "\"name\": \"Boom\", \"light\": 5");
        assertThat(PieceFile.unknown(PieceFile.read(newer))).contains("\"light\" of a pad");
        assertThatThrownBy(() -> PieceFile.read(PieceFile.write(full).replace("\"beat\"", "\"soon\"")))
                .isInstanceOf(ParamException.class)
                .hasMessageContaining("when is now, beat, bar");
        assertThatThrownBy(() -> full.withMoments(List.of(Moment.of("A", piece), Moment.of("A", piece))))
                .hasMessageContaining("two moments are called \"A\"");
    }
}
