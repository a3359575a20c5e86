package harpel.sound;

/**
 * Keeps what leaves below a ceiling: as soon as a sample would be louder, all is softer from there on, and comes back within a fraction of
 * a second. Frames of two samples, 1 being full scale. Owned by the sound thread.
 */
final class Limiter {
    /** −1 dB below full scale. */
    static final float CEILING = (float) Math.pow(10, -1 / 20.0);

    private static final double BACK_SECONDS = 0.25;

    /** −18 dB. */
    private static final float EASED = (float) Math.pow(10, -18 / 20.0);

    private static final double EASE_SECONDS = 2;

    private final float back;
    private final float comesUp;
    private float eased = 1;
    private float gain = 1;
    private float peak;

    Limiter(double rate) {
        comesUp = (float) Math.pow(1 / EASED, 1 / (EASE_SECONDS * rate));
        back = (float) (1 / (BACK_SECONDS * rate));
    }

    /** From here on it is soft, and comes up to full level within two seconds: what was opened may be louder than what was heard. */
    void ease() {
        eased = EASED;
    }

    /** Works on samples in place. */
    void limit(float[] samples, int count) {
        for (int i = 0; i + 1 < count; i += 2) {
            float loudest = Math.max(Math.abs(samples[i]), Math.abs(samples[i + 1]));
            if (loudest * gain > CEILING) {
                gain = CEILING / loudest;
            }
            float by = gain * eased;
            samples[i] *= by;
            samples[i + 1] *= by;
            peak = Math.max(peak, loudest * by);
            eased = Math.min(1, eased * comesUp);
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
