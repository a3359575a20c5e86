package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.format.ChainFile;
import harpel.param.ParamException;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.theory.Chord;
import harpel.theory.Voicing;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ChordKeysTest {
    private static Played chordKeys(String settings) {
        return Played.through("{'effect':'chord-keys'" + (settings.isEmpty() ? "" : "," + settings) + "}");
    }

    private static List<Integer> numbers(String text) {
        return Arrays.stream(text.trim().split(" ")).map(Integer::valueOf).toList();
    }

    /** Common practice: A C E G is a minor seventh; D F A C stands on the second degree of C major. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "C4 | 3 | 60 64 67",
                "D4 | 4 | 62 65 69 72",
                "A4 | 4 | 69 72 76 79",
                "B4 | 3 | 71 74 77",
                "G4 | 5 | 67 71 74 77 81"
            })
    void keysOfTheScaleGetTheirChord(String key, int notes, String pitches) {
        assertThat(chordKeys("'notes':" + notes).note(key, 0, 1).pitches(1)).isEqualTo(numbers(pitches));
    }

    @Test
    void theExampleOfTheDesignIsDMajor() {
        Played played =
                chordKeys("'fill':'diatonic','root':'D','scale':'major','notes':4,'voicing':'close','others':'pass'");
        assertThat(played.note("D3", 0, 1).pitches(1)).containsExactly(50, 54, 57, 61);
    }

    @Test
    void otherKeysPassOrAreDropped() {
        assertThat(chordKeys("").note("C#4", 0, 1).pitches(1)).containsExactly(61);
        assertThat(chordKeys("'others':'drop'").note("C#4", 0, 1).pitches(1)).isEmpty();
        assertThat(chordKeys("'fill':'none'").note("C4", 0, 1).pitches(1)).containsExactly(60);
    }

    @Test
    void aTableGivesSymbolsPitchesAndDistances() {
        String table = "'keys':{'C3':'Cm7','D3':[50,57,60,65],'E3':{'relative':[0,4,7]},'F3':'B'}";
        assertThat(chordKeys(table).note("C3", 0, 1).pitches(1)).containsExactly(48, 51, 55, 58);
        assertThat(chordKeys(table).note("D3", 0, 1).pitches(1)).containsExactly(50, 57, 60, 65);
        assertThat(chordKeys(table).note("E3", 0, 1).pitches(1)).containsExactly(52, 56, 59);
        // B is as near above F as below: below.
        assertThat(chordKeys(table).note("F3", 0, 1).pitches(1)).containsExactly(47, 51, 54);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "close | 0 | 60 64 67 71",
                "close | 1 | 64 67 71 72",
                "close | 3 | 71 72 76 79",
                "open | 0 | 60 67 76 83",
                "drop-2 | 0 | 55 60 64 71",
                "spread | 0 | 48 67 76 83"
            })
    void voicings(String voicing, int inversion, String pitches) {
        assertThat(chordKeys("'notes':4,'voicing':'" + voicing + "','inversion':" + inversion)
                        .note("C4", 0, 1)
                        .pitches(1))
                .isEqualTo(numbers(pitches));
    }

    /** C to F to G to C: with lead the common notes stay and the others move by steps. */
    @Test
    void leadMovesTheNotesLeast() {
        Played played = chordKeys("'voicing':'lead'")
                .note("C4", 0, 1)
                .note("F4", 1, 1)
                .note("G4", 2, 1)
                .note("C4", 3, 1);
        assertThat(played.pitches(1)).containsExactly(60, 64, 67, 60, 65, 69, 59, 62, 67, 60, 64, 67);
    }

    @Test
    void leadNeverMovesFurtherThanAnyInversion() {
        List<Integer> last = Voicing.CLOSE.of(List.of(60, 64, 67), 0, List.of());
        for (String symbol : List.of("Am", "F", "Dm7", "G7", "Eb", "F#dim7", "C")) {
            List<Integer> close = Chord.parse(symbol).pitchesNear(60);
            List<Integer> led = Voicing.LEAD.of(close, 0, last);
            assertThat(led).hasSameSizeAs(close);
            for (int inversion = 0; inversion < 4; inversion++) {
                int other = distance(last, Voicing.CLOSE.of(close, inversion, List.of()));
                assertThat(distance(last, led)).as(symbol).isLessThanOrEqualTo(other);
            }
            last = led;
        }
    }

    private static int distance(List<Integer> from, List<Integer> to) {
        int sum = 0;
        for (int i = 0; i < Math.max(from.size(), to.size()); i++) {
            sum += Math.abs(from.get(Math.min(i, from.size() - 1)) - to.get(Math.min(i, to.size() - 1)));
        }
        return sum;
    }

    @Test
    void velocityAndLengthAreThePlayedOnes() {
        assertThat(chordKeys("").note("C4", 0.5, 1.5, 77).bars(1))
                .containsExactly(
                        new Heard(0.5, 1.5, 60, 77, 1), new Heard(0.5, 1.5, 64, 77, 1), new Heard(0.5, 1.5, 67, 77, 1));
    }

    @Test
    void symbolsAreReadWithSharpsAndFlats() {
        assertThat(Chord.parse("F#maj7").symbol()).isEqualTo("F♯maj7");
        assertThat(Chord.parse("B♭sus4").root()).isEqualTo(10);
        assertThatThrownBy(() -> Chord.parse("Cwide"))
                .hasMessageContaining("\"Cwide\"")
                .hasMessageContaining("maj7");
        assertThatThrownBy(() -> Chord.parse("H7")).hasMessageContaining("begins with its root");
    }

    @Test
    void aWrongChordNamesItsKey() {
        String file =
                "{\"harpel\":1,\"chain\":[{\"effect\":\"chord-keys\",\"keys\":{\"C3\":\"Cm7\",\"D3\":\"Dwide\"}}]}";
        assertThatThrownBy(() -> ChainFile.read(file))
                .isInstanceOf(ParamException.class)
                .hasMessageStartingWith("chain[0].keys.D3: unknown chord \"Dwide\"");
    }
}
