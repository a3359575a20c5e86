package harpel.sound;

import java.util.ArrayList;
import java.util.List;

/**
 * How loud stereo sound is, by ITU-R BS.1770-5 and EBU R 128: momentary (0.4 s), short-term (3 s) and of the whole, in LUFS, and the true
 * peak. Samples are 1 at full scale. Used by one thread.
 */
public final class Loudness {
    private static final int CHANNELS = 2;
    private static final double STEP_SECONDS = 0.1;
    private static final int STEPS_OF_MOMENTARY = 4;
    private static final int STEPS_OF_SHORT_TERM = 30;
    private static final double OFFSET = -0.691;
    /** Blocks below it count for nothing, then those this much below the rest. */
    private static final double SILENCE_LUFS = -70;

    private static final double BELOW_LU = 10;

    private final Filter[] shelf = new Filter[CHANNELS];
    private final Filter[] highPass = new Filter[CHANNELS];
    private final TruePeak[] peaks = {new TruePeak(), new TruePeak()};
    private final int stepFrames;
    /** The mean square of each tenth of a second, both channels added. */
    private final List<Double> steps = new ArrayList<>();

    private final boolean whole;
    private double sum;
    private int frames;

    /**
     * @param rate frames a second
     * @param whole whether that of the whole is wanted, for which all steps are kept
     */
    public Loudness(double rate, boolean whole) {
        this.whole = whole;
        stepFrames = (int) Math.round(rate * STEP_SECONDS);
        for (int channel = 0; channel < CHANNELS; channel++) {
            shelf[channel] = Filter.shelf(rate);
            highPass[channel] = Filter.highPass(rate);
        }
    }

    /** Takes frames of two samples. */
    public void take(float[] samples, int count) {
        for (int i = 0; i + 1 < count; i += CHANNELS) {
            for (int channel = 0; channel < CHANNELS; channel++) {
                double sample = samples[i + channel];
                peaks[channel].take(sample);
                double weighted = highPass[channel].of(shelf[channel].of(sample));
                sum += weighted * weighted;
            }
            if (++frames == stepFrames) {
                steps.add(sum / frames);
                sum = 0;
                frames = 0;
                if (!whole && steps.size() > STEPS_OF_SHORT_TERM) {
                    steps.remove(0);
                }
            }
        }
    }

    private static double lufs(double square) {
        return OFFSET + 10 * Math.log10(square);
    }

    private double last(int count) {
        int from = Math.max(0, steps.size() - count);
        return lufs(steps.subList(from, steps.size()).stream()
                .mapToDouble(Double::doubleValue)
                .average()
                .orElse(0));
    }

    /** Of the last 0.4 s, in LUFS; −∞ for silence. */
    public double momentary() {
        return last(STEPS_OF_MOMENTARY);
    }

    /** Of the last 3 s. */
    public double shortTerm() {
        return last(STEPS_OF_SHORT_TERM);
    }

    /** Of the whole so far: of blocks of 0.4 s, a tenth of a second apart, those that count. */
    public double integrated() {
        List<Double> blocks = new ArrayList<>();
        for (int i = 0; i + STEPS_OF_MOMENTARY <= steps.size(); i++) {
            double mean = 0;
            for (int k = 0; k < STEPS_OF_MOMENTARY; k++) {
                mean += steps.get(i + k) / STEPS_OF_MOMENTARY;
            }
            if (lufs(mean) > SILENCE_LUFS) {
                blocks.add(mean);
            }
        }
        double gate = lufs(mean(blocks)) - BELOW_LU;
        return lufs(mean(blocks.stream().filter(one -> lufs(one) > gate).toList()));
    }

    private static double mean(List<Double> blocks) {
        return blocks.stream().mapToDouble(Double::doubleValue).average().orElse(0);
    }

    /** The true peak so far, in dB against full scale (dBTP). */
    public double truePeak() {
        return 20 * Math.log10(Math.max(peaks[0].highest, peaks[1].highest));
    }

    /** One of the two filters of BS.1770's K-weighting, for any rate; its table is for 48 kHz. */
    static final class Filter {
        final double b0;
        final double b1;
        final double b2;
        final double a1;
        final double a2;
        private double z1;
        private double z2;

        private Filter(double b0, double b1, double b2, double a1, double a2) {
            this.b0 = b0;
            this.b1 = b1;
            this.b2 = b2;
            this.a1 = a1;
            this.a2 = a2;
        }

        /** What a head does to high tones. Frequency, gain and Q are those from which the table was worked out (from memory). */
        static Filter shelf(double rate) {
            double k = Math.tan(Math.PI * 1681.974450955533 / rate);
            double q = 0.7071752369554196;
            double high = Math.pow(10, 3.999843853973347 / 20);
            double band = Math.pow(high, 0.4996667741545416);
            double a0 = 1 + k / q + k * k;
            return new Filter(
                    (high + band * k / q + k * k) / a0,
                    2 * (k * k - high) / a0,
                    (high - band * k / q + k * k) / a0,
                    2 * (k * k - 1) / a0,
                    (1 - k / q + k * k) / a0);
        }

        /** Low tones count for less. */
        static Filter highPass(double rate) {
            double k = Math.tan(Math.PI * 38.13547087602444 / rate);
            double q = 0.5003270373238773;
            double a0 = 1 + k / q + k * k;
            return new Filter(1, -2, 1, 2 * (k * k - 1) / a0, (1 - k / q + k * k) / a0);
        }

        double of(double in) {
            double out = b0 * in + z1;
            z1 = b1 * in - a1 * out + z2;
            z2 = b2 * in - a2 * out;
            return out;
        }
    }

    /** The highest value between samples, too: four times as many, by a sinc of twelve samples under a Hann window. */
    private static final class TruePeak {
        private static final int TIMES = 4;
        private static final int TAPS = 12;
        private static final double[][] PHASES = new double[TIMES][TAPS];

        static {
            for (int phase = 0; phase < TIMES; phase++) {
                double all = 0;
                for (int tap = 0; tap < TAPS; tap++) {
                    double x = tap - TAPS / 2.0 + 1 - phase / (double) TIMES;
                    double window = 0.5 + 0.5 * Math.cos(2 * Math.PI * x / (TAPS + 1));
                    PHASES[phase][tap] = (x == 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x)) * window;
                    all += PHASES[phase][tap];
                }
                for (int tap = 0; tap < TAPS; tap++) {
                    PHASES[phase][tap] /= all;
                }
            }
        }

        /** The last samples twice over, so that they lie in a row from wherever the oldest is. */
        private final double[] last = new double[2 * TAPS];

        private int at;
        private double highest;
        /** How many more samples belong to one that is loud. */
        private int loud;

        private void take(double sample) {
            last[at] = sample;
            last[at + TAPS] = sample;
            at = (at + 1) % TAPS;
            if (Math.abs(sample) * 2 > highest) {
                loud = TAPS;
            }
            // Where all samples are far below it, nothing between them comes above.
            if (loud-- <= 0) {
                loud = 0;
                return;
            }
            for (double[] phase : PHASES) {
                double value = 0;
                for (int tap = 0; tap < TAPS; tap++) {
                    value += phase[tap] * last[at + tap];
                }
                highest = Math.max(highest, Math.abs(value));
            }
        }
    }
}
