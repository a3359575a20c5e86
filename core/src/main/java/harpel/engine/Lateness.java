package harpel.engine;

import java.util.Arrays;

/** The worst lateness of the last minute, second by second. One writer. */
final class Lateness {
    private static final int SECONDS = 60;
    private static final long SECOND = 1_000_000_000L;
    private final long[] worst = new long[SECONDS];
    private long second;

    void record(long nowNanos, long lateNanos) {
        roll(nowNanos);
        int slot = (int) Math.floorMod(second, (long) SECONDS);
        worst[slot] = Math.max(worst[slot], lateNanos);
    }

    private void roll(long nowNanos) {
        long now = Math.floorDiv(nowNanos, SECOND);
        for (long passed = Math.min(SECONDS, now - second); passed > 0; passed--) {
            worst[(int) Math.floorMod(now - passed + 1, (long) SECONDS)] = 0;
        }
        second = Math.max(second, now);
    }

    long worst(long nowNanos) {
        roll(nowNanos);
        return Arrays.stream(worst).max().orElse(0);
    }
}
