package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.effect.held.Strum;
import harpel.effect.notes.ChordKeys;
import harpel.effect.notes.Echo;
import harpel.param.ParamSet;
import harpel.testkit.Played;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What editors draw is worked out by the effects themselves, and is what they play. */
class ShownValuesTest {
    private static ParamSet values(String stage) {
        return Played.chain(stage).stages().get(0).params();
    }

    /** The seven triads of a major key: major on I, IV and V, minor on II, III and VI, diminished on VII (common practice). */
    @ParameterizedTest
    @CsvSource({"60,4,7", "62,3,7", "64,3,7", "65,4,7", "67,4,7", "69,3,7", "71,3,6"})
    void theTriadsOfAMajorKey(int key, int third, int fifth) {
        List<Integer> chord = ChordKeys.chord(values("{'effect':'chord-keys'}"), Key.C_MAJOR, key, List.of());
        assertThat(chord).containsExactly(key, key + third, key + fifth);
    }

    @Test
    void aKeysOwnChordAndAKeyWithoutOne() {
        ParamSet own = values("{'effect':'chord-keys','keys':{'C4':[50,57],'D4':'Am7','E4':{'relative':[0,7]}}}");
        assertThat(ChordKeys.chord(own, Key.C_MAJOR, 60, List.of())).containsExactly(50, 57);
        assertThat(ChordKeys.chord(own, Key.C_MAJOR, 62, List.of()))
                .as("A, as near to the key as can be")
                .containsExactly(57, 60, 64, 67);
        assertThat(ChordKeys.chord(own, Key.C_MAJOR, 64, List.of())).containsExactly(64, 71);
        assertThat(ChordKeys.chord(own, Key.C_MAJOR, 61, List.of()))
                .as("outside the key it passes")
                .containsExactly(61);
        ParamSet drops = values("{'effect':'chord-keys','others':'drop'}");
        assertThat(ChordKeys.chord(drops, Key.C_MAJOR, 61, List.of())).isEmpty();
        ParamSet elsewhere = values("{'effect':'chord-keys','root':'D','scale':'dorian'}");
        Key dorian = ChordKeys.key(elsewhere, Key.C_MAJOR);
        assertThat(dorian).isEqualTo(Key.parse("D dorian"));
        assertThat(ChordKeys.chord(elsewhere, dorian, 62, List.of())).containsExactly(62, 65, 69);
        ParamSet leads = values("{'effect':'chord-keys','voicing':'lead'}");
        List<Integer> first = ChordKeys.chord(leads, Key.C_MAJOR, 60, List.of());
        assertThat(ChordKeys.chord(leads, Key.C_MAJOR, 65, first))
                .as("C E G to C F A: one voice stays, two move by step")
                .containsExactly(60, 65, 69);
    }

    @Test
    void lanesComeTogetherAtTheLeastCommonMultiple() {
        ParamSet three =
                values("{'effect':'lanes','lanes':[{'steps':'x..'},{'steps':'x...'},{'steps':'x.','pace':'1/8'}]}");
        assertThat(EffectCatalog.of("lanes").nature().roundTicks(three, TimeMap.DEFAULT))
                .as("3, 4 and 4 sixteenths")
                .isEqualTo(3 * Ticks.PER_QUARTER);
        ParamSet off = values("{'effect':'lanes','lanes':[{'steps':'x..','on':false},{'steps':'x...'}]}");
        assertThat(EffectCatalog.of("lanes").nature().roundTicks(off, TimeMap.DEFAULT))
                .isEqualTo(Ticks.PER_QUARTER);
        ParamSet barred =
                values("{'effect':'lanes','start-over-every':1,'lanes':[{'steps':'x....'},{'steps':'x......'}]}");
        assertThat(EffectCatalog.of("lanes").nature().roundTicks(barred, TimeMap.DEFAULT))
                .as("35 sixteenths, but all start over with the bar")
                .isEqualTo(4 * Ticks.PER_QUARTER);
        ParamSet free = values("{'effect':'lanes','lanes':[{'pace':'130 ms'},{'steps':'x.'}]}");
        assertThat(EffectCatalog.of("lanes").nature().roundTicks(free, TimeMap.DEFAULT))
                .isNaN();
        TimeMap sixEight = new TimeMap(TempoMap.of(90), new MeterMap(List.of(MeterMap.Change.parse(0, "6/8"))));
        ParamSet beat = values("{'effect':'lanes','lanes':[{'steps':'x.','pace':'1 beat'}]}");
        assertThat(EffectCatalog.of("lanes").nature().roundTicks(beat, sixEight))
                .as("two eighths")
                .isEqualTo(Ticks.PER_QUARTER);
    }

    @Test
    void repeatsFadeAsTheReferenceSays() {
        ParamSet echo = values("{'effect':'echo','fade':40}");
        assertThat(IntStream.rangeClosed(0, 4)
                        .map(k -> (int) Math.round(Echo.velocity(echo, 100, k)))
                        .boxed()
                        .toList())
                .containsExactly(100, 60, 36, 22, 13);
    }

    @Test
    void stringsAreStruckEvenlyOrNot() {
        ParamSet even = values("{'effect':'strum','slope':-50}");
        for (int k = 0; k < 4; k++) {
            assertThat(Strum.place(even, k, 4)).isCloseTo(k / 3.0, within(1e-12));
        }
        assertThat(Strum.velocity(even, 100, 3, 4))
                .as("half as loud at the last")
                .isEqualTo(50);
        assertThat(Strum.place(even, 0, 1)).as("one string alone").isZero();
        assertThat(Strum.place(values("{'effect':'strum','curve':100}"), 1, 3)).isCloseTo(Math.sqrt(0.5), within(1e-9));
        assertThat(Strum.place(values("{'effect':'strum','curve':-100}"), 1, 3)).isCloseTo(0.25, within(1e-9));
    }
}
