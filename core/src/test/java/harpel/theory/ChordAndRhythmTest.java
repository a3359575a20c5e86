package harpel.theory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Chords in a key, and evenly spread rhythms. */
class ChordAndRhythmTest {
    /** Common practice: the chords on the degrees of a major key. */
    @ParameterizedTest
    @CsvSource({
        "C, I",
        "Dm, IIm",
        "Em, IIIm",
        "F, IV",
        "G7, V7",
        "Am, VIm",
        "Bm7b5, VIIm7b5",
        "Bb, ♭VII",
        "F#dim, ♯IVdim"
    })
    void aChordHasItsNumeralInC(String symbol, String numeral) {
        assertThat(Chord.parse(symbol).romanIn(Key.C_MAJOR)).isEqualTo(numeral);
    }

    @ParameterizedTest
    @CsvSource({"0, 4", "1, 7", "4, 4", "5, 13", "12, 17", "64, 64"})
    void aSpreadHasAsManyOnsetsAsAskedForAndIsEven(int onsets, int steps) {
        boolean[] rhythm = EvenSpread.of(onsets, steps);
        int count = 0;
        for (boolean sounds : rhythm) {
            count += sounds ? 1 : 0;
        }
        assertThat(rhythm).hasSize(steps);
        assertThat(count).isEqualTo(onsets);
        int shortest = steps;
        int longest = 0;
        for (int i = 0; i < steps && onsets > 0; i++) {
            if (rhythm[i]) {
                int gap = 1;
                while (!rhythm[(i + gap) % steps]) {
                    gap++;
                }
                shortest = Math.min(shortest, gap);
                longest = Math.max(longest, gap);
            }
        }
        assertThat(onsets == 0 ? 0 : longest - shortest)
                .as("gaps differ by one step at most")
                .isLessThanOrEqualTo(1);
    }

    @Test
    void aSpreadOfMoreOnsetsThanStepsIsRefused() {
        assertThatThrownBy(() -> EvenSpread.of(5, 4)).hasMessage("onsets must be 0–4 but were 5");
        assertThatThrownBy(() -> EvenSpread.of(1, 0)).isInstanceOf(IllegalArgumentException.class);
    }
}
