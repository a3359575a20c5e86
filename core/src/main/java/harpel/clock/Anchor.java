package harpel.clock;

import harpel.time.TempoMap;

/** A tick and its moment, from which time is counted. Owned by the engine thread. */
public final class Anchor {
    private static final long FARTHEST_NUDGE = 200_000_000L;

    private long tick;
    private long nanos;

    public long tick() {
        return tick;
    }

    public long nanos() {
        return nanos;
    }

    public void set(long newTick, long newNanos) {
        tick = newTick;
        nanos = newNanos;
    }

    /** All comes a little later, or earlier where that is below 0; by 0.2 s at most. */
    public void nudge(long by) {
        nanos += Math.max(-FARTHEST_NUDGE, Math.min(FARTHEST_NUDGE, by));
    }

    /** The moment of a tick, on the later side of its nanosecond. */
    public long nanosAt(long at, TempoMap tempo) {
        return nanos + (long) Math.ceil(tempo.nanosAt(at) - tempo.nanosAt(tick));
    }

    /** The tick of a moment. */
    public long tickAt(long at, TempoMap tempo) {
        // A nanosecond's worth of rounding must not put a tick that is due into the next cycle.
        return (long) Math.floor(placeAt(at, tempo) + 1e-4);
    }

    /** The same with what lies between two ticks. */
    double placeAt(long at, TempoMap tempo) {
        return tempo.ticksAt(Math.max(0, tempo.nanosAt(tick) + (at - nanos)));
    }
}
