package harpel.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Against the signals that ITU-R BS.1770-5 and EBU Tech 3341 name, made by code (figures of both from memory). */
class LoudnessTest {
    /** Takes a sine of a level in dB against full scale, for so many seconds, on both channels or the left alone. */
    private static void sine(Loudness loudness, double rate, double hertz, double db, double seconds, boolean both) {
        float[] samples = new float[2 * (int) Math.round(rate * seconds)];
        double height = Math.pow(10, db / 20);
        for (int i = 0; i < samples.length / 2; i++) {
            float sample = (float) (height * Math.sin(2 * Math.PI * hertz * i / rate));
            samples[2 * i] = sample;
            samples[2 * i + 1] = both ? sample : 0;
        }
        loudness.take(samples, samples.length);
    }

    /** BS.1770: a sine of 997 Hz and 0 dBFS in one channel reads −3.01 LKFS. */
    @ParameterizedTest
    @ValueSource(doubles = {44_100, 48_000})
    void aSineOf997HertzInOneChannel(double rate) {
        Loudness loudness = new Loudness(rate, true);
        sine(loudness, rate, 997, 0, 5, false);
        assertThat(loudness.integrated()).isCloseTo(-3.01, within(0.01));
        assertThat(loudness.momentary()).isCloseTo(-3.01, within(0.01));
        assertThat(loudness.truePeak()).isCloseTo(0, within(0.1));
    }

    /** BS.1770's table for 48 kHz. */
    @Test
    void theFiltersAreThoseOfTheTable() {
        Loudness.Filter shelf = Loudness.Filter.shelf(48_000);
        assertThat(new double[] {shelf.b0, shelf.b1, shelf.b2, shelf.a1, shelf.a2})
                .containsExactly(
                        new double[] {
                            1.53512485958697, -2.69169618940638, 1.19839281085285, -1.69065929318241, 0.73248077421585
                        },
                        within(1e-9));
        Loudness.Filter highPass = Loudness.Filter.highPass(48_000);
        assertThat(new double[] {highPass.b0, highPass.b1, highPass.b2, highPass.a1, highPass.a2})
                .containsExactly(new double[] {1, -2, 1, -1.99004745483398, 0.99007225036621}, within(1e-9));
    }

    /** EBU Tech 3341, minimum requirements 1 and 2: 1 kHz on both channels for 20 s; M, S and I within 0.1 LU. */
    @ParameterizedTest
    @CsvSource({"-23, 48000", "-33, 48000", "-23, 44100"})
    void aSteadyTone(double level, double rate) {
        Loudness loudness = new Loudness(rate, true);
        sine(loudness, rate, 1000, level, 20, true);
        assertThat(loudness.momentary()).isCloseTo(level, within(0.1));
        assertThat(loudness.shortTerm()).isCloseTo(level, within(0.1));
        assertThat(loudness.integrated()).isCloseTo(level, within(0.1));
        assertThat(loudness.truePeak()).isCloseTo(level, within(0.2));
    }

    /** EBU Tech 3341, minimum requirements 3 to 5: what is soft counts for nothing beside what is loud. */
    @ParameterizedTest
    @ValueSource(strings = {"-36 10,-23 60,-36 10", "-72 10,-36 10,-23 60,-36 10,-72 10", "-26 20,-20 20.1,-26 20"})
    void tonesOneAfterAnother(String tones) {
        Loudness loudness = new Loudness(48_000, true);
        for (String tone : tones.split(",")) {
            String[] both = tone.split(" ");
            sine(loudness, 48_000, 1000, Double.parseDouble(both[0]), Double.parseDouble(both[1]), true);
        }
        assertThat(loudness.integrated()).isCloseTo(-23, within(0.1));
    }

    /** EBU Tech 3341: a sine of a quarter of the rate whose samples miss its peaks by 45° reads its true peak, +0.2/−0.4 dB. */
    @Test
    void theTruePeakLiesBetweenSamples() {
        Loudness loudness = new Loudness(48_000, false);
        float[] samples = new float[2 * 48_000];
        for (int i = 0; i < 48_000; i++) {
            samples[2 * i] = (float) (0.5 * Math.sin(Math.PI / 2 * i + Math.PI / 4));
        }
        loudness.take(samples, samples.length);
        assertThat(loudness.truePeak()).isBetween(-6.02 - 0.4, -6.02 + 0.2);
    }

    @Test
    void silenceIsNothing() {
        Loudness loudness = new Loudness(48_000, true);
        loudness.take(new float[96_000], 96_000);
        assertThat(loudness.momentary()).isEqualTo(Double.NEGATIVE_INFINITY);
        assertThat(loudness.integrated()).isEqualTo(Double.NEGATIVE_INFINITY);
        assertThat(loudness.truePeak()).isEqualTo(Double.NEGATIVE_INFINITY);
    }

    @Test
    void theShortTermForgetsWhatIsOlder() {
        Loudness loudness = new Loudness(48_000, false);
        sine(loudness, 48_000, 1000, -10, 5, true);
        sine(loudness, 48_000, 1000, -30, 3.2, true);
        assertThat(loudness.shortTerm()).isCloseTo(-30, within(0.1));
    }
}
