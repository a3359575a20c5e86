package harpel.engine;

import harpel.time.TempoMap;

/** The clock of another machine that is followed: whether it drives time, and where that is. Owned by the engine thread. */
final class ClockIn {
    /** A clock that does not come for so long is bridged; for longer it is lost. */
    static final long LOST_NANOS = 1_000_000_000L;

    private String from = "";
    private ClockFollower follower;
    private boolean awaits;
    private boolean drives;
    /** The clock with which time started, and at which tick. */
    private long firstClock;

    private long firstTick;
    private TempoMap tempo;

    /** @param port the name of a way in; empty for none */
    void follow(String port) {
        if (!port.equals(from)) {
            from = port;
            follower = null;
            letGo();
        }
    }

    boolean hears(String port) {
        return !from.isEmpty() && from.equals(port);
    }

    String name() {
        return from;
    }

    /** The name of what drives time; empty for nothing. */
    String driver() {
        return drives ? from : "";
    }

    /** @param bpm what is expected until it is known */
    void clock(long nanos, double bpm) {
        double expected = 60e9 / (bpm * ClockFollower.CLOCKS_A_QUARTER);
        if (follower == null || nanos - follower.lastNanos() > 2 * LOST_NANOS && !drives) {
            // What was known of it is too old to be laid a line through.
            follower = new ClockFollower(expected);
        }
        follower.expect(expected);
        follower.clock(nanos);
        double now = follower.bpm();
        if (tempo == null || Math.abs(tempo.bpmAt(0) - now) > now * 1e-9) {
            tempo = TempoMap.of(Math.max(TempoMap.SLOWEST_BPM, Math.min(TempoMap.FASTEST_BPM, now)));
        }
    }

    /** Time starts with the next clock. */
    void awaitsNext() {
        awaits = true;
    }

    boolean isAwaited() {
        return awaits;
    }

    /** Time starts with the last clock, at a tick. */
    void starts(long tick) {
        awaits = false;
        drives = true;
        firstClock = follower.index();
        firstTick = tick;
    }

    /** It drives time no more. */
    void letGo() {
        awaits = false;
        drives = false;
    }

    boolean drives() {
        return drives;
    }

    boolean isRunning(long now) {
        return follower != null && !from.isEmpty() && now - follower.lastNanos() < LOST_NANOS / 2;
    }

    boolean isLost(long now) {
        return now >= lostNanos();
    }

    /** When it is lost unless another clock comes; never while it does not drive time. */
    long lostNanos() {
        return drives ? follower.lastNanos() + LOST_NANOS : Long.MAX_VALUE;
    }

    TempoMap tempo() {
        return tempo;
    }

    /** The tick of the last clock. */
    long tick() {
        return firstTick + (follower.index() - firstClock) * ClockOut.CLOCK_TICKS;
    }

    /** When that was, jitter taken out. */
    long nanos() {
        return Math.round(follower.nanosOf(follower.index()));
    }
}
