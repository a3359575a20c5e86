package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.testkit.Heard;
import harpel.testkit.Played;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ArpeggioTest {
    private static Played arpeggio(String settings) {
        return Played.through("{'effect':'arpeggio','pace':'1/4'" + (settings.isEmpty() ? "" : "," + settings) + "}");
    }

    /** Pitches of held C4 E4 G4 (pressed E C G) over two bars of quarters. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "up | 60 64 67 60 64 67 60 64",
                "down | 67 64 60 67 64 60 67 64",
                "up-down | 60 64 67 64 60 64 67 64",
                "up-down-ends-twice | 60 64 67 67 64 60 60 64",
                "down-up | 67 64 60 64 67 64 60 64",
                "edges-first | 60 67 64 60 67 64 60 67",
                "middle-first | 64 67 60 64 67 60 64 67",
                "as-played | 64 60 67 64 60 67 64 60",
                "as-played-reversed | 67 60 64 67 60 64 67 60"
            })
    void ordersGoAsTheirNamesSay(String order, String pitches) {
        assertThat(arpeggio("'order':'" + order + "'").chord("E4 C4 G4", 0, 8).pitches(2))
                .isEqualTo(numbers(pitches));
    }

    private static List<Integer> numbers(String text) {
        return java.util.Arrays.stream(text.trim().split(" "))
                .map(Integer::valueOf)
                .toList();
    }

    @Test
    void togetherPlaysAllOnEachStep() {
        assertThat(arpeggio("'order':'together'").chord("C4 E4", 0, 4).pitches(1))
                .containsExactly(60, 64, 60, 64, 60, 64, 60, 64);
    }

    @Test
    void randomPlaysOnlyWhatIsHeldAndRepeatsByVariation() {
        List<Integer> once =
                arpeggio("'order':'random'").chord("C4 E4 G4", 0, 64).pitches(16);
        assertThat(once).hasSize(64).containsOnly(60, 64, 67);
        assertThat(arpeggio("'order':'random'").chord("C4 E4 G4", 0, 64).pitches(16))
                .isEqualTo(once);
        assertThat(arpeggio("'order':'random'")
                        .variation(2)
                        .chord("C4 E4 G4", 0, 64)
                        .pitches(16))
                .isNotEqualTo(once);
    }

    @Test
    void shufflePlaysEachNoteOnceAPass() {
        List<Integer> pitches =
                arpeggio("'order':'shuffle'").chord("C4 E4 G4 B4", 0, 64).pitches(16);
        for (int pass = 0; pass < 16; pass++) {
            assertThat(pitches.subList(4 * pass, 4 * pass + 4)).containsExactlyInAnyOrder(60, 64, 67, 71);
        }
        assertThat(pitches.subList(0, 4)).as("not always the same order").isNotEqualTo(pitches.subList(4, 8));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "up | 60 64 67 72 76 79 60 64 67 72 76 79",
                "up-down | 60 64 67 72 76 79 76 72 67 64 60 64",
                "down | 79 76 72 67 64 60 79 76 72 67 64 60"
            })
    void theWholeOrderIsLaidOverTheOctaves(String order, String pitches) {
        assertThat(arpeggio("'octaves':2,'order':'" + order + "'")
                        .chord("C4 E4 G4", 0, 12)
                        .pitches(3))
                .isEqualTo(numbers(pitches));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"up | 2 | 45 52 59 45", "up-down | 2 | 45 52 59 52", "up | 0 | 45 45 45 45"})
    void climbingAddsLevels(String order, int times, String pitches) {
        assertThat(arpeggio("'order':'" + order + "','climb-by':7,'climb-times':" + times)
                        .note("A2", 0, 4)
                        .pitches(1))
                .isEqualTo(numbers(pitches));
    }

    @Test
    void climbingByDegreesStaysInTheKey() {
        assertThat(arpeggio("'climb-by':{'degrees':2},'climb-times':3")
                        .key("D dorian")
                        .note("D3", 0, 4)
                        .pitches(1))
                .containsExactly(50, 53, 57, 60);
    }

    @Test
    void gateIsAShareOfTheStep() {
        assertThat(arpeggio("'gate':50").note("C4", 0, 4).bars(1))
                .extracting(Heard::length)
                .containsOnly(0.5);
        // Common practice: a gate of 100 % is legato.
        assertThat(arpeggio("'gate':100").chord("C4 E4", 0, 4).bars(1))
                .extracting(Heard::length)
                .containsOnly(1.0);
    }

    @Test
    void swingDelaysEverySecondStep() {
        assertThat(Played.through("{'effect':'arpeggio','pace':'1/8','swing':75,'gate':10}")
                        .note("C4", 0, 2)
                        .beats(1))
                .containsExactly(0.0, 0.75, 1.0, 1.75);
    }

    @Test
    void aKeyPressedOrLetGoBetweenStepsCountsFromTheNextAndNothingRestarts() {
        Played played = arpeggio("").note("C4", 0, 8).note("E4", 0, 2.5).note("G4", 1.5, 6.5);
        // Counter mod length: steps 0,1 of C E; 2 of C E G; 3 mod 2 of C G …
        assertThat(played.pitches(2)).containsExactly(60, 64, 67, 67, 60, 67, 60, 67);
    }

    @Test
    void aKeyLetGoExactlyOnAStepNoLongerCounts() {
        assertThat(arpeggio("").note("C4", 0, 4).note("E4", 0, 1).pitches(1)).containsExactly(60, 60, 60, 60);
    }

    @Test
    void aKeyALittleLateStillPlaysItsStep() {
        // 30 ms at 120 bpm are 0.06 of a beat.
        assertThat(arpeggio("").note("C4", 0.05, 1.5).beats(1)).containsExactly(0.05, 1.0);
        assertThat(arpeggio("").note("C4", 0.07, 1.5).beats(1)).containsExactly(1.0);
        assertThat(arpeggio("'late-catch':0").note("C4", 0.05, 1.5).beats(1)).containsExactly(1.0);
    }

    @Test
    void stepsMayBeCountedFromTheFirstKey() {
        assertThat(arpeggio("'steps-lie-on':'first-key'").note("C4", 0.3, 2).beats(1))
                .containsExactly(0.3, 1.3)
                .doesNotContain(1.0);
    }

    @Test
    void startingOver() {
        // Two chords of three notes, two steps each.
        Played eachChord =
                arpeggio("'start-over':'each-chord'").chord("C4 E4 G4", 0, 2).chord("C4 E4 G4", 2, 2);
        assertThat(eachChord.pitches(1)).containsExactly(60, 64, 60, 64);
        Played never = arpeggio("'start-over':'never'").chord("C4 E4 G4", 0, 2).chord("C4 E4 G4", 2, 2);
        assertThat(never.pitches(1)).containsExactly(60, 64, 67, 60);
        Played eachNote = arpeggio("'start-over':'each-note'").note("C4", 0, 4).note("E4", 1.5, 2.5);
        assertThat(eachNote.pitches(1)).containsExactly(60, 60, 60, 64);
        Played bars = arpeggio("'start-over':'every-bars','start-over-every':1").chord("C4 E4 G4", 0, 8);
        assertThat(bars.pitches(2)).containsExactly(60, 64, 67, 60, 60, 64, 67, 60);
    }

    @Test
    void aChordThatBeginsInMidBarStartsTheOrderToo() {
        Played bars = arpeggio("'start-over':'every-bars','start-over-every':2").chord("C4 E4 G4", 1, 5);
        assertThat(bars.pitches(1)).containsExactly(60, 64, 67);
        Played late = arpeggio("'start-over':'every-bars','start-over-every':2,'late-catch':60")
                .chord("C4 E4 G4", 1.02, 5);
        assertThat(late.pitches(1))
                .as("a step that was played late is the first")
                .containsExactly(60, 64, 67);
    }

    @Test
    void theStruckStepSaysHowFarTheLastTiedOneSounds() {
        String struck = "'pattern':[{'gate':40},{'play':'tie'},{'play':'rest'},{'play':'rest'}]";
        assertThat(arpeggio(struck).note("C4", 0, 4).bars(1)).containsExactly(new Heard(0, 1.4, 60, 100, 1));
        String own = "'pattern':[{'gate':40},{'play':'tie','gate':90},{'play':'rest'},{'play':'rest'}]";
        assertThat(arpeggio(own).note("C4", 0, 4).bars(1)).containsExactly(new Heard(0, 1.9, 60, 100, 1));
    }

    /** A chord of four and one of three: with keep-even the rhythm of the order does not shift (common practice). */
    @Test
    void keepEvenGivesEveryChordTheSameSlots() {
        Played three = arpeggio("'keep-even':4").chord("C4 E4 G4", 0, 8);
        assertThat(three.pitches(2)).containsExactly(60, 64, 67, 60, 60, 64, 67, 60);
        Played five = arpeggio("'keep-even':3").chord("C4 E4 G4 B4 D5", 0, 4);
        assertThat(five.pitches(1)).containsExactly(60, 64, 67, 60);
    }

    @Test
    void thePatternHasRestsTiesChordsAndItsOwnVelocities() {
        Played played = arpeggio(
                        "'pattern':[{'play':'chord','velocity':100},{'play':'tie'},{'play':'rest'},{'play':'next','gate':50}]")
                .note(60, 0, 4, 70, 1)
                .note(64, 0, 4, 70, 1);
        assertThat(played.bars(1))
                .containsExactly(
                        new Heard(0, 1.8, 60, 100, 1), new Heard(0, 1.8, 64, 100, 1), new Heard(3, 0.5, 60, 70, 1));
    }

    @Test
    void onlyStepsThatTakeTheNextNoteMoveTheOrderOn() {
        Played played =
                arpeggio("'pattern':[{},{'play':'lowest','octave':-1},{}]").chord("C4 E4 G4", 0, 8);
        assertThat(played.pitches(2)).containsExactly(60, 48, 64, 67, 48, 60, 64, 48);
    }

    @Test
    void theNthNoteIsSilentWhenThereIsNone() {
        Played played =
                arpeggio("'pattern':[{'play':'nth','n':3},{'play':'highest'}]").chord("C4 E4", 0, 4);
        assertThat(played.pitches(1)).containsExactly(64, 64);
    }

    @Test
    void velocityIsAsPlayedFixedOrThePatterns() {
        assertThat(arpeggio("'velocity':'fixed','fixed-velocity':33")
                        .note("C4", 0, 2)
                        .velocities(1))
                .containsOnly(33);
        assertThat(arpeggio("'velocity':'as-played','pattern':[{'velocity':5}]")
                        .note("C4", 0, 2)
                        .velocities(1))
                .containsOnly(100);
    }

    @Test
    void latchHoldsUntilTheNextChord() {
        Played replace = arpeggio("'latch':'replace'").note("C4", 0, 0.5).note("E4", 2, 0.5);
        assertThat(replace.pitches(1)).containsExactly(60, 60, 64, 64);
        Played add = arpeggio("'latch':'add'").note("C4", 0, 0.5).note("E4", 2, 0.5);
        assertThat(add.pitches(1)).containsExactly(60, 60, 60, 64);
    }

    @Test
    void thePedalCanHold() {
        Played held = arpeggio("'pedal':'hold'")
                .control(64, 127, 0)
                .note("C4", 0, 0.5)
                .control(64, 0, 2.5);
        assertThat(held.pitches(1)).containsExactly(60, 60, 60);
        Played passed = arpeggio("").control(64, 127, 0).note("C4", 0, 0.5).control(64, 0, 2.5);
        assertThat(passed.pitches(1)).containsExactly(60);
    }

    @Test
    void keysLetGoWhileThePedalIsDownCountAsHeld() {
        Played joined = arpeggio("'pedal':'hold','latch':'replace'")
                .control(64, 127, 0)
                .note("C4", 0, 0.5)
                .note("E4", 1.5, 0.25);
        assertThat(joined.pitches(1)).as("the second key joins the first").containsExactly(60, 60, 60, 64);
        Played anew = arpeggio("'pedal':'hold','latch':'replace'")
                .control(64, 127, 0)
                .note("C4", 0, 0.5)
                .control(64, 0, 1.2)
                .note("E4", 1.5, 0.25);
        assertThat(anew.pitches(1)).as("after the pedal it is another chord").containsExactly(60, 60, 64, 64);
    }

    @Test
    void stepsInMillisecondsFollowTheClockNotTheTempo() {
        assertThat(Played.through("{'effect':'arpeggio','pace':'250 ms','gate':10}")
                        .bpm(60)
                        .note("C4", 0, 1)
                        .beats(1))
                .containsExactly(0.0, 0.25, 0.5, 0.75);
    }
}
