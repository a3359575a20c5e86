package harpel.port;

import java.util.concurrent.atomic.AtomicLongArray;

/** The worst lateness of the last minute, in slots of a second. One writer, any reader. */
final class Lateness {
    private static final int SECONDS = 60;
    private static final long SECOND = 1_000_000_000L;
    /** For each second of the minute which second it is, and the worst of it. */
    private final AtomicLongArray seconds = new AtomicLongArray(SECONDS);

    private final AtomicLongArray worst = new AtomicLongArray(SECONDS);

    void record(long nowNanos, long lateNanos) {
        long second = Math.floorDiv(nowNanos, SECOND);
        int slot = (int) Math.floorMod(second, (long) SECONDS);
        if (seconds.get(slot) != second) {
            worst.setPlain(slot, 0);
            seconds.setRelease(slot, second);
        }
        if (lateNanos > worst.getPlain(slot)) {
            worst.setRelease(slot, lateNanos);
        }
    }

    long worst(long nowNanos) {
        long second = Math.floorDiv(nowNanos, SECOND);
        long most = 0;
        for (int slot = 0; slot < SECONDS; slot++) {
            if (second - seconds.getAcquire(slot) < SECONDS) {
                most = Math.max(most, worst.getAcquire(slot));
            }
        }
        return most;
    }
}
