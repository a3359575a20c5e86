package harpel.testkit;

import java.util.Random;

/** Tries what must hold for any seed: half with the same seeds each time, half with fresh ones. */
public final class Tries {
    private static final Random FRESH = new Random();

    /** What is tried. */
    public interface Try {
        void with(long seed) throws Exception;
    }

    private Tries() {}

    /**
     * Tries something so many times.
     *
     * @param what its name, for the failure's
     * @throws AssertionError that names the seed which failed
     */
    public static void of(int times, String what, Try attempt) {
        for (int i = 0; i < times; i++) {
            long seed = i % 2 == 0 ? i / 2 + 1 : FRESH.nextInt(Integer.MAX_VALUE);
            try {
                attempt.with(seed);
            } catch (Exception | Error e) {
                throw new AssertionError(what + " with seed " + seed + ": " + e, e);
            }
        }
    }
}
