package harpel.sound;

/**
 * Keeps what leaves below a ceiling: as soon as a sample would be louder, all is softer from there on, and comes back within a fraction of
 * a second. Frames of two samples, 1 being full scale. Owned by the sound thread.
 */
final class Limiter {
    /** −1 dB below full scale. */
    static final float CEILING = (float) Math.pow(10, -1 / 20.0);

    private static final double BACK_SECONDS = 0.25;

    private final float back;
    private float gain = 1;
    private float peak;

    Limiter(double rate) {
        back = (float) (1 / (BACK_SECONDS * rate));
    }

    /** Works on samples in place. */
    void limit(float[] samples, int count) {
        for (int i = 0; i + 1 < count; i += 2) {
            float loudest = Math.max(Math.abs(samples[i]), Math.abs(samples[i + 1]));
            if (loudest * gain > CEILING) {
                gain = CEILING / loudest;
            }
            samples[i] *= gain;
            samples[i + 1] *= gain;
            peak = Math.max(peak, loudest * gain);
            gain = Math.min(1, gain + back * (1 - gain) + back * 0.1f);
        }
    }

    /** How much it takes away at the moment, in dB; 0 for nothing. */
    double reductionDb() {
        return -20 * Math.log10(gain);
    }

    /** The loudest sample since the last call, 1 being full scale. */
    float takePeak() {
        float was = peak;
        peak = 0;
        return was;
    }
}
