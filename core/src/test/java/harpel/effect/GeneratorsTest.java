package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.effect.held.Polymeter;
import harpel.param.ParamSet;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.theory.EvenSpread;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Effects that play by themselves, and those in which held notes drive lanes and cycles. */
class GeneratorsTest {
    private static Played through(String stage) {
        return Played.through(stage);
    }

    @Test
    void everyEightWithOffsetFourIsTheBackbeat() {
        // Common practice: the backbeat is beats 2 and 4. Source of the key: General MIDI 1 percussion, 38 acoustic
        // snare.
        List<Heard> notes = through(
                        "{'effect':'pulse','steps':16,'pace':'1/16','must-every':8,'offset':4,'fill':0,'root':38,'follow-keys':false}")
                .bars(2);
        assertThat(notes).extracting(Heard::beat).containsExactly(1.0, 3.0, 5.0, 7.0);
        assertThat(notes).extracting(Heard::pitch).containsOnly(38);
    }

    @Test
    void everyFourOfSixteenIsFourOnTheFloor() {
        assertThat(through("{'effect':'pulse','must-every':4}").beats(1)).containsExactly(0.0, 1.0, 2.0, 3.0);
    }

    @Test
    void mustStepsAreCountedAnewEachCycle() {
        assertThat(through("{'effect':'pulse','steps':5,'pace':'1/4','must-every':3}")
                        .beats(3))
                .containsExactly(0.0, 3.0, 5.0, 8.0, 10.0);
    }

    /** G. Toussaint, The Euclidean Algorithm Generates Traditional Musical Rhythms, 2005, as printed there. */
    @ParameterizedTest
    @CsvSource({
        "2, 5, x.x..",
        "3, 4, x.xx",
        "3, 5, x.x.x",
        "3, 7, x.x.x..",
        "3, 8, x..x..x.",
        "4, 7, x.x.x.x",
        "4, 9, x.x.x.x..",
        "4, 11, x..x..x..x.",
        "5, 6, x.xxxx",
        "5, 7, x.xx.xx",
        "5, 8, x.xx.xx.",
        "5, 9, x.x.x.x.x",
        "5, 11, x.x.x.x.x..",
        "5, 12, x..x.x..x.x.",
        "5, 16, x..x..x..x..x....",
        "7, 8, x.xxxxxx",
        "7, 12, x.xx.x.xx.x.",
        "7, 16, x..x.x.x..x.x.x.",
        "9, 16, x.xx.x.x.xx.x.x.",
        "11, 24, x..x.x.x.x.x..x.x.x.x.x.",
        "13, 24, x.xx.x.x.x.x.xx.x.x.x.x."
    })
    void onsetsAreSpreadAsPublished(int onsets, int steps, String published) {
        StringBuilder made = new StringBuilder();
        for (boolean sounds : EvenSpread.of(onsets, steps)) {
            made.append(sounds ? 'x' : '.');
        }
        String rhythm = published.substring(0, steps);
        assertThat(made.toString()).as("E(%d,%d)", onsets, steps).isEqualTo(rhythm);
    }

    @Test
    void evenSpreadSoundsInPlaceOfMustSteps() {
        assertThat(through("{'effect':'pulse','steps':8,'pace':'1/8','even-spread':3}")
                        .beats(1))
                .containsExactly(0.0, 1.5, 3.0);
        assertThat(through("{'effect':'pulse','steps':8,'pace':'1/8','even-spread':3,'offset':1}")
                        .beats(1))
                .containsExactly(0.5, 2.0, 3.5);
    }

    @Test
    void fillIsTheChanceOfEveryOtherStep() {
        int all =
                through("{'effect':'pulse','must-every':4,'fill':100}").beats(4).size();
        int some =
                through("{'effect':'pulse','must-every':4,'fill':30}").beats(64).size();
        assertThat(all).isEqualTo(64);
        // 256 must-steps and 768 others with a chance of 0.3: 230 on average, standard deviation 12.7.
        assertThat(some - 256).isBetween(230 - 51, 230 + 51);
    }

    @Test
    void rootWeightSharesOutTheSoundingSteps() {
        List<Integer> pitches = through(
                        "{'effect':'pulse','must-every':1,'root':60,'notes':3,'scale':'major','root-weight':40}")
                .pitches(64);
        long roots = pitches.stream().filter(pitch -> pitch == 60).count();
        assertThat(pitches).containsOnly(60, 62, 64, 65);
        // 1024 steps: 409.6 roots and 204.8 of each other on average.
        assertThat(roots).isBetween(346L, 473L);
        for (int other : List.of(62, 64, 65)) {
            assertThat(pitches.stream().filter(pitch -> pitch == other).count()).isBetween(153L, 257L);
        }
    }

    @Test
    void voicesAtOnceAreDifferentNotes() {
        List<Heard> notes = through("{'effect':'pulse','must-every':16,'notes':2,'voices':3,'scale':'major'}")
                .bars(1);
        assertThat(notes).extracting(Heard::pitch).containsExactlyInAnyOrder(60, 62, 64);
        assertThat(notes).extracting(Heard::beat).containsOnly(0.0);
    }

    @Test
    void aPlayedKeyBecomesTheRootOfAPulseAndOthersPass() {
        assertThat(through("{'effect':'pulse','must-every':4}")
                        .note("D3", 1.5, 0.25)
                        .pitches(1))
                .containsExactly(60, 60, 50, 50);
        assertThat(through("{'effect':'pulse','must-every':4,'follow-keys':false}")
                        .note("D3", 1.5, 0.25)
                        .pitches(1))
                .containsExactly(60, 60, 50, 60, 60);
    }

    @Test
    void accentsMarkMustSteps() {
        assertThat(through(
                                "{'effect':'pulse','steps':2,'pace':'1/4','must-every':2,'fill':100,'velocity':70,'accent':25}")
                        .velocities(1))
                .containsExactly(95, 70, 95, 70);
    }

    private static final String CYCLES =
            "{'effect':'polymeter','start':'transport','root':52,'scale':'dorian','pace':'1/16','octave':[0,1,0],"
                    + "'degree':[0,2,4,1],'length':[50],'velocity':[100,70],'chance':[100]}";

    @Test
    void eachCycleGivesItsOwnValueAtEachStep() {
        List<Heard> notes = through(CYCLES).bars(1);
        // E dorian: E F♯ G A B C♯ D; degrees 0, 2, 4, 1 are 52, 55, 59, 54.
        int[] degrees = {52, 55, 59, 54};
        int[] octaves = {0, 12, 0};
        for (int n = 0; n < 16; n++) {
            Heard note = notes.get(n);
            assertThat(note.beat()).isEqualTo(n / 4.0);
            assertThat(note.pitch()).as("step %d", n).isEqualTo(degrees[n % 4] + octaves[n % 3]);
            assertThat(note.velocity()).isEqualTo(n % 2 == 0 ? 100 : 70);
            assertThat(note.length()).isEqualTo(0.125);
        }
    }

    @Test
    void fourAgainstThreeMeetAgainAfterTwelve() {
        // Common practice: an octave cycle of 4 against a degree cycle of 3 meets again after 12 steps.
        ParamSet values = ParamSet.read(
                EffectCatalog.of("polymeter").spec(),
                Map.of("octave", List.of(0, 1, 0, 2), "degree", List.of(0, 2, 4), "length", List.of(50)));
        assertThat(Polymeter.commonPeriod(values)).isEqualTo(12);
        assertThat(Polymeter.commonPeriod(values.withPlain(Polymeter.OCTAVE_SPEED, "half")))
                .isEqualTo(24);
        assertThat(Polymeter.commonPeriod(values.withPlain(Polymeter.DEGREE_SPEED, "triplet")))
                .isEqualTo(4);
    }

    @Test
    void aCycleAtHalfSpeedHoldsEachValueForTwoSteps() {
        assertThat(through("{'effect':'polymeter','start':'transport','pace':'1/4','scale':'major','degree':[0,1],"
                                + "'degree-speed':'half'}")
                        .pitches(2))
                .containsExactly(60, 60, 62, 62, 60, 60, 62, 62);
    }

    @Test
    void aKeyStartsThePolymeterAndIsItsRoot() {
        List<Heard> notes = through(
                        "{'effect':'polymeter','start':'key','pace':'1/4','scale':'major','degree':[0,2,4]}")
                .note("D4", 0.3, 2.9)
                .bars(2);
        assertThat(notes).extracting(Heard::pitch).containsExactly(62, 66, 69);
        assertThat(notes).extracting(Heard::beat).containsExactly(0.3, 1.3, 2.3);
    }

    @Test
    void withTheTransportTheRootIsFixedUnlessKeysShallSteerIt() {
        assertThat(through("{'effect':'polymeter','start':'transport','root':52,'pace':'1/4'}")
                        .note("C3", 1.5, 0.2)
                        .pitches(1))
                .containsExactly(52, 52, 48, 52, 52);
        assertThat(through("{'effect':'polymeter','start':'transport','root':52,'pace':'1/4','follow-keys':'always'}")
                        .note("C3", 1.5, 0.2)
                        .pitches(1))
                .containsExactly(52, 52, 48, 48);
    }

    @Test
    void withoutWordsAboutItsStartItPlaysWithTheTransport() {
        assertThat(through(CYCLES.replace("'start':'transport',", "")).bars(1))
                .isEqualTo(through(CYCLES).bars(1))
                .hasSize(16);
    }

    @Test
    void allCyclesReAlignAtBars() {
        assertThat(through("{'effect':'polymeter','start':'transport','pace':'1/4','scale':'major','degree':[0,1,2],"
                                + "'re-align-every':1}")
                        .pitches(2))
                .containsExactly(60, 62, 64, 60, 60, 62, 64, 60);
    }

    @Test
    void eachRankDrivesItsLane() {
        List<Heard> notes = through("{'effect':'lanes','lanes':[{'steps':'x..x.','pace':'1/16'},"
                        + "{'steps':'.x','pace':'1/8','octave':1,'velocity':50}]}")
                .chord("E4 C4", 0, 1)
                .bars(1);
        assertThat(notes.stream().filter(note -> note.pitch() == 60).map(Heard::beat))
                .containsExactly(0.0, 0.75);
        assertThat(notes.stream().filter(note -> note.pitch() == 76).map(Heard::beat))
                .containsExactly(0.5);
        assertThat(notes.stream().filter(note -> note.pitch() == 76).map(Heard::velocity))
                .containsExactly(50);
    }

    @Test
    void aLengthOfNoughtIsARest() {
        assertThat(through("{'effect':'lanes','lanes':[{'steps':'x','pace':'1/4','length':0}]}")
                        .note("C4", 0, 4)
                        .bars(1))
                .isEmpty();
        assertThat(through("{'effect':'polymeter','pace':'1/4','length':[50,0]}")
                        .beats(1))
                .containsExactly(0.0, 2.0);
        assertThat(through("{'effect':'pulse','must-every':4,'length':0}").beats(1))
                .isEmpty();
    }

    @Test
    void aLanesTenthsAreExact() {
        // 45 × 0.7 is 31.5, which is 32 half up; in binary fractions it is a hair less.
        assertThat(through("{'effect':'lanes','lanes':[{'steps':'7','pace':'1/4'}]}")
                        .note("C4", 0, 1, 45)
                        .velocities(1))
                .containsExactly(32);
    }

    @Test
    void lanesOfUnlikeLengthRunAgainstEachOtherUntilTheyStartOver() {
        String lanes = "'lanes':[{'steps':'x..x.','pace':'1/16'}]";
        assertThat(through("{'effect':'lanes'," + lanes + "}").note("C4", 0, 8).beats(2))
                .startsWith(0.0, 0.75, 1.25, 2.0, 2.5, 3.25, 3.75, 4.5);
        assertThat(through("{'effect':'lanes'," + lanes + ",'start-over-every':1}")
                        .note("C4", 0, 8)
                        .beats(2))
                .startsWith(0.0, 0.75, 1.25, 2.0, 2.5, 3.25, 3.75, 4.0, 4.75);
    }

    @Test
    void aReleasedNoteMovesTheHigherOnesDownOrNot() {
        String lanes = "'lanes':[{'steps':'x...'},{'steps':'..x.'}]";
        Played closing = through("{'effect':'lanes'," + lanes + "}");
        Played staying = through("{'effect':'lanes','rank':'stay'," + lanes + "}");
        for (Played played : List.of(closing, staying)) {
            played.note("C4", 0, 0.9).note("E4", 0, 2);
        }
        assertThat(closing.pitches(1)).containsExactly(60, 64, 64);
        assertThat(closing.beats(1)).containsExactly(0.0, 0.5, 1.0);
        assertThat(staying.beats(1)).containsExactly(0.0, 0.5, 1.5);
    }

    @Test
    void aLaneSendsToItsChannel() {
        List<Heard> notes = through("{'effect':'lanes','lanes':[{'steps':'x','pace':'1/4','send-to':2}]}")
                .note("C4", 0, 2)
                .bars(1);
        assertThat(notes).hasSize(2).extracting(Heard::channel).containsOnly(2);
    }

    private static String carom(String marbles, String more) {
        return "{'effect':'carom','marbles':[" + marbles + "]" + more + "}";
    }

    @Test
    void aMarbleSoundsWhereAPegStands() {
        // From column 1 to the right, one cell an eighth; the peg in column 4 is reached after three moves, and again
        // on the way back.
        List<Heard> notes = through(carom("{'column':1,'row':1}", ",'size':4,'pegs':[{'column':3,'row':1}],'root':48"))
                .key("C major")
                .bars(1);
        assertThat(notes).extracting(Heard::beat).containsExactly(1.0, 2.0);
        assertThat(notes).extracting(Heard::pitch).containsOnly(52);
    }

    @Test
    void twoMarblesThatMeetOrWouldSwapBothSound() {
        String meeting = "{'column':1,'row':1,'note':36},{'column':3,'row':1,'direction':'left','note':38}";
        assertThat(through(carom(meeting, "")).bars(1).subList(0, 2))
                .extracting(Heard::pitch)
                .containsExactly(36, 38);
        String swapping = "{'column':1,'row':1,'note':36},{'column':2,'row':1,'direction':'left','note':38}";
        List<Heard> swapped = through(carom(swapping, "")).bars(1);
        assertThat(swapped.get(0).beat()).isEqualTo(0.5);
        assertThat(swapped).extracting(Heard::pitch).startsWith(36, 38);
    }

    @Test
    void pathsBounceWrapRetraceAndSpiral() {
        String pegs = ",'size':4,'pegs':[{'column':1,'row':1}],'length':'1/64'";
        assertThat(through(carom("{'path':'wrap'}", pegs)).beats(1)).containsExactly(2.0);
        assertThat(through(carom("{'path':'straight-bounce'}", pegs)).beats(1)).containsExactly(3.0);
        assertThat(through(carom("{'path':'retrace','direction':'up-right'}", pegs))
                        .beats(1))
                .containsExactly(3.0);
        // Up the left side, along the top, down and back along the bottom, then inwards: 16 cells, then launched anew.
        assertThat(through(carom("{'path':'inward-spiral','direction':'up'}", pegs))
                        .beats(3))
                .containsExactly(8.0);
    }

    @Test
    void theSameMarblesMakeTheSameMusicAndANudgeTurnsThem() {
        String random = carom("{'path':'random-turns'},{'column':5,'row':5,'path':'random-turns'}", "");
        assertThat(through(random).bars(32)).isEqualTo(through(random).bars(32)).isNotEmpty();
        assertThat(through(random).variation(2).bars(32))
                .isNotEqualTo(through(random).bars(32));
        assertThat(through(carom("{'direction':'right'}", ",'nudge':'up','pegs':[{'column':1,'row':3}]"))
                        .beats(1))
                .containsExactly(1.0);
    }

    @Test
    void aPadLaunchesAMarbleWhileItIsHeld() {
        List<Heard> notes = through(
                        carom("", ",'keys':'pads','pad-lowest':36,'pad-row':8,'pegs':[{'column':2,'row':3}]"))
                .note(37, 0, 1.1, 77, 1)
                .bars(2);
        assertThat(notes).hasSize(1);
        assertThat(notes.get(0).beat()).isEqualTo(1.0);
        assertThat(notes.get(0).velocity()).isEqualTo(77);
    }
}
