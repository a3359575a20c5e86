package harpel.move;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.held.Arpeggio;
import harpel.effect.notes.Echo;
import harpel.effect.pitch.Transpose;
import harpel.param.ParamSet;
import harpel.param.music.TimeType;
import harpel.param.type.IntType;
import harpel.param.type.SpanType.Span;
import harpel.time.TimeValue;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MoverTest {
    private static Mover lever(String name) {
        Mover mover = Mover.of(Source.LEVER, Arpeggio.GATE);
        return mover.withSettings(mover.settings().with(Source.NAME, name));
    }

    /** A source at so much of its way adds so much of the amount; outside its part it stands at the end of it. */
    @ParameterizedTest
    @CsvSource({
        "0, 100, 0, 0, 0",
        "0, 100, 1, 0, 0.5",
        "0, 100, 0.5, 0, 0.25",
        "20, 60, 0.2, 0, 0",
        "20, 60, 0.1, 0, 0",
        "20, 60, 0.4, 0, 0.25",
        "20, 60, 0.9, 0, 0.5",
        "50, 50, 0.5, 0, 0.5",
        "50, 50, 0.49, 0, 0",
        "0, 100, 0.25, 100, 0.25",
        "0, 100, 0.5, -100, 0.125"
    })
    void theAmountFollowsThePlaceWithinItsPart(int low, int high, double place, int curve, double offset) {
        Mover mover = Mover.of(Source.VELOCITY, Arpeggio.GATE);
        ParamSet settings = mover.settings()
                .with(Source.RANGE, new Span(low, high))
                .with(Source.BEND, curve)
                .with(Source.AMOUNT, 50);
        assertThat(mover.withSettings(settings).offset(place)).isCloseTo(offset, within(1e-12));
        assertThat(mover.withSettings(settings.with(Source.BOTH_WAYS, true)).offset(place))
                .as("both ways: the middle adds nothing")
                .isCloseTo(2 * offset - 0.5, within(1e-12));
    }

    @Test
    void aLeverMovesAParameterOnceHoweverOftenItIsGivenIt() {
        Mover again = lever("Tide").withSettings(lever("Tide").settings().with(Source.AMOUNT, 20));
        Moves moves = Moves.NONE
                .plus(Arpeggio.GATE, lever("Tide"))
                .plus(Arpeggio.GATE, lever("Lamp"))
                .plus(Arpeggio.GATE, again);
        assertThat(moves.of(Arpeggio.GATE)).containsExactly(again, lever("Lamp"));
    }

    @Test
    void whatCountsSemitonesIsProposedByAnOctave() {
        Mover octave = Mover.proposed(Source.CURVE, Transpose.SEMITONES);
        IntType type = (IntType) Transpose.SEMITONES.type();
        assertThat(type.moved(0, octave.offset(1))).isEqualTo(12);
        assertThat(Mover.proposed(Source.CURVE, Arpeggio.GATE)).isEqualTo(Mover.of(Source.CURVE, Arpeggio.GATE));
    }

    /** Where a pace comes to by a fifth of its range upwards from 1/16, and which note values it may come to. */
    @ParameterizedTest
    @CsvSource({"straight, 1/8", "dotted-too, 1/8d", "triplets-too, 1/4t", "all, 1/4t"})
    void aPaceThatIsMovedKeepsToTheNoteValuesThatAreAllowed(String allowed, String pace) {
        Mover plain = Mover.of(Source.LEVER, Arpeggio.PACE);
        Mover mover = plain.withSettings(plain.settings().withPlain(Source.NOTE_VALUES, allowed));
        TimeValue sixteenth = TimeValue.ofNote("1/16");
        assertThat(Mover.moved(TimeType.TIME, sixteenth, 4.0 / 22, List.of(mover)))
                .hasToString(pace);
        assertThat(Mover.moved(TimeType.TIME, TimeValue.ofNote("1/8t"), 0, List.of(mover)))
                .as("what is not moved stays")
                .hasToString("1/8t");
        Mover dotted = plain.withSettings(plain.settings().withPlain(Source.NOTE_VALUES, "dotted-too"));
        Mover triplets = plain.withSettings(plain.settings().withPlain(Source.NOTE_VALUES, "triplets-too"));
        assertThat(Mover.moved(TimeType.TIME, sixteenth, 4.0 / 22, List.of(dotted, triplets)))
                .as("what either allows")
                .hasToString("1/4t");
        assertThat(mover.settings().spec().has(Source.NOTE_VALUES)).isTrue();
        assertThat(Source.LEVER.spec(Arpeggio.GATE).has(Source.NOTE_VALUES)).isFalse();
    }

    @Test
    void whileTimeStandsLeversAloneSayWhereAValueIs() {
        Moves moves =
                Moves.NONE.plus(Arpeggio.GATE, lever("Tide")).plus(Arpeggio.GATE, Mover.of(Source.LFO, Arpeggio.GATE));
        ParamSet values = EffectCatalog.of("arpeggio").spec().defaults().with(Arpeggio.GATE, 50);
        int full = moves.byLevers(values, name -> 1).get(Arpeggio.GATE);
        assertThat(full).isGreaterThan(50);
        assertThat(moves.byLevers(values, name -> 0)).isSameAs(values);
        assertThat(moves.byLevers(values, name -> Double.NaN))
                .as("no such lever")
                .isSameAs(values);
    }

    @Test
    void aMoverSaysWhatMoves() {
        assertThat(lever("Tide").shown()).isEqualTo("lever Tide");
        assertThat(Mover.of(Source.CONTROLLER, Arpeggio.GATE).shown()).isEqualTo("controller 1 (modulation wheel)");
        assertThat(Mover.of(Source.LFO, Arpeggio.GATE).shown()).isEqualTo("sine wave 1/1");
        assertThat(Mover.of(Source.CURVE, Arpeggio.GATE).shown()).isEqualTo("curve over 1 bar");
        assertThat(Mover.of(Source.KEYS_HELD, Arpeggio.GATE).shown()).isEqualTo("keys held");
        assertThat(Mover.of(Source.VELOCITY, Arpeggio.GATE).shown()).isEqualTo("velocity");
    }

    @Test
    void aLeverIsRenamedOrTakenAwayAndAllElseStays() {
        Mover velocity = Mover.of(Source.VELOCITY, Arpeggio.GATE);
        Moves moves = Moves.NONE
                .with(Arpeggio.GATE, List.of(lever("Tide"), velocity))
                .with(Arpeggio.OCTAVES, List.of(lever("Tide")))
                .with(Arpeggio.SWING, List.of(lever("Moon")));
        Moves renamed = moves.withLeverRenamed("Tide", "Ebb");
        assertThat(renamed.of(Arpeggio.GATE)).containsExactly(lever("Ebb"), velocity);
        assertThat(renamed.of(Arpeggio.OCTAVES)).containsExactly(lever("Ebb"));
        assertThat(renamed.of(Arpeggio.SWING)).containsExactly(lever("Moon"));
        Moves without = moves.withoutLever("Tide");
        assertThat(without.of(Arpeggio.GATE)).containsExactly(velocity);
        assertThat(without.byParam()).doesNotContainKey(Arpeggio.OCTAVES.id());
        assertThat(without.of(Arpeggio.SWING)).containsExactly(lever("Moon"));
        assertThat(without.withoutLever("Moon").plus(Arpeggio.SWING, velocity).of(Arpeggio.SWING))
                .containsExactly(velocity);
        Moves newer = new Moves(Map.of(), Map.of("gate", "a newer one"));
        assertThat(newer.isEmpty()).isFalse();
        assertThat(newer.withLeverRenamed("Tide", "Ebb").unknown()).isEqualTo(newer.unknown());
        assertThat(newer.withoutLever("Tide").unknown()).isEqualTo(newer.unknown());
    }

    @Test
    void onlyWhatHasAPlaceCanBeMoved() {
        EffectKind echo = EffectCatalog.of("echo");
        assertThat(Moves.canMove(echo, Echo.FADE)).isTrue();
        assertThat(Moves.canMove(echo, EffectKind.SEED)).isFalse();
        assertThat(Moves.canMove(echo, EffectKind.LABEL)).isFalse();
        assertThat(Moves.canMove(EffectCatalog.of("split"), EffectKind.CHANNEL)).isFalse();
        assertThat(Moves.movable(echo, echo.spec(), "fade")).isEqualTo(Echo.FADE);
    }

    /** Automation's points have values of the moved control; one spec serves all that move the same. */
    @Test
    void settingsAreThoseOfTheSource() {
        assertThat(Source.AUTOMATION.spec(Arpeggio.GATE))
                .isSameAs(Source.AUTOMATION.spec(Arpeggio.GATE))
                .isNotSameAs(Source.AUTOMATION.spec(Arpeggio.OCTAVES));
        assertThat(Source.AUTOMATION.spec(Arpeggio.GATE).ids())
                .contains("points")
                .doesNotContain("amount");
        assertThat(Source.LEVER.spec(Arpeggio.GATE)).isSameAs(Source.LEVER.spec(Arpeggio.OCTAVES));
        assertThat(Source.LEVER.spec(Arpeggio.GATE).ids()).contains("lever", "amount", "curve");
        assertThat(Source.LFO.spec(Arpeggio.GATE).ids()).contains("shape", "pace", "phase");
        assertThat(Source.VELOCITY.spec(Arpeggio.GATE).ids()).contains("amount", "both-ways", "range");
    }
}
