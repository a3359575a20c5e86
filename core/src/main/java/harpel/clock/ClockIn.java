package harpel.clock;

import harpel.time.TempoMap;
import harpel.time.Ticks;

/** The clock of another machine that is followed: whether it drives time, and where that is. Owned by the engine thread. */
public final class ClockIn {
    /** A clock that does not come for so long is bridged; for longer it is lost. */
    static final long LOST_NANOS = 1_000_000_000L;

    /** Where time is no farther than this from the clock, in ticks, it is set; farther it runs there. */
    private static final long NEAR_TICKS = ClockOut.CLOCK_TICKS;
    /** In about so many ticks it is there. */
    private static final double CATCH_UP_TICKS = Ticks.PER_QUARTER;

    private static final double SLOWEST_RUN = 0.1;
    private static final double FASTEST_RUN = 2;

    private String from = "";
    private ClockFollower follower;
    private boolean awaits;
    private boolean drives;
    /** The clock with which time started, and at which tick. */
    private long firstClock;

    private long firstTick;
    private TempoMap tempo;
    private ClockPair pair = new ClockPair();
    /** What is to be said of it and has not been; empty for nothing. */
    private String trouble = "";

    /** The place at which it was steered last. */
    private double steeredTo;

    private boolean toldPair;
    private boolean toldOutside;

    /** @param port the name of a way in; empty for none */
    public void follow(String port) {
        if (!port.equals(from)) {
            from = port;
            follower = null;
            pair = new ClockPair();
            toldPair = false;
            toldOutside = false;
            letGo();
        }
    }

    public boolean hears(String port) {
        return !from.isEmpty() && from.equals(port);
    }

    public String name() {
        return from;
    }

    /** The name of what drives time; empty for nothing. */
    public String driver() {
        return drives ? from : "";
    }

    /** @param bpm what is expected until it is known */
    public void clock(long nanos, double bpm) {
        double expected = 60e9 / (bpm * ClockFollower.CLOCKS_A_QUARTER);
        if (follower == null || nanos - follower.lastNanos() > 2 * LOST_NANOS && !drives) {
            // What was known of it is too old to be laid a line through.
            follower = new ClockFollower(expected);
        }
        follower.expect(expected);
        follower.clock(nanos);
        if (!drives) {
            runAt(follower.bpm());
        }
        if (!toldPair && pair.hears(nanos)) {
            toldPair = true;
            trouble = "Two clocks come from “" + from + "”, and time cannot follow both: let one of them stop.";
        }
        double outside = follower.bpmOutside();
        if (outside > 0 && !toldOutside) {
            trouble = "The clock of “" + from + "” runs at " + Math.round(outside)
                    + " quarters a minute, which cannot be followed: " + Math.round(ClockFollower.SLOWEST) + "–"
                    + Math.round(ClockFollower.FASTEST) + " can.";
        }
        toldOutside = outside > 0;
    }

    private void runAt(double bpm) {
        if (tempo == null || Math.abs(tempo.bpmAt(0) - bpm) > bpm * 1e-9) {
            tempo = TempoMap.of(Math.max(TempoMap.SLOWEST_BPM, Math.min(TempoMap.FASTEST_BPM, bpm)));
        }
    }

    /** What is to be said of the clock, once; empty for nothing. */
    public String takeTrouble() {
        String text = trouble;
        trouble = "";
        return text;
    }

    /** Lets time go by the clock: it is set where the clock is near, else it runs there, so that nothing comes in a lump. */
    public void steer(Anchor anchor, long now) {
        double place = anchor.placeAt(now, tempo);
        double behind = firstTick + (follower.clockAt(now) - firstClock) * ClockOut.CLOCK_TICKS - place;
        runAt(follower.bpm());
        // Clocks that come all at once set nothing: many small steps are a lump, too.
        double passed = place - steeredTo;
        if (Math.abs(behind) <= NEAR_TICKS && behind <= passed) {
            steeredTo = place + Math.max(0, behind);
            anchor.set(firstTick + (follower.index() - firstClock) * ClockOut.CLOCK_TICKS, lineNanos());
        } else {
            steeredTo = place;
            anchor.set(Math.round(place), now);
            double run = 1 + behind / CATCH_UP_TICKS;
            runAt(follower.bpm() * Math.max(SLOWEST_RUN, Math.min(FASTEST_RUN, run)));
        }
    }

    /** Time starts with the next clock. */
    public void awaitsNext() {
        awaits = true;
    }

    public boolean isAwaited() {
        return awaits;
    }

    /** Time starts with the last clock, at a tick. */
    public void starts(long tick) {
        awaits = false;
        drives = true;
        firstClock = follower.index();
        firstTick = tick;
        steeredTo = tick;
    }

    /** It drives time no more. */
    public void letGo() {
        awaits = false;
        drives = false;
    }

    public boolean drives() {
        return drives;
    }

    public boolean isRunning(long now) {
        return follower != null && !from.isEmpty() && now - follower.lastNanos() < LOST_NANOS / 2;
    }

    public boolean isLost(long now) {
        return now >= lostNanos();
    }

    /** When it is lost unless another clock comes; never while it does not drive time. */
    public long lostNanos() {
        return drives ? follower.lastNanos() + LOST_NANOS + Math.round(2 * follower.period()) : Long.MAX_VALUE;
    }

    public TempoMap tempo() {
        return tempo;
    }

    /** When the last clock was due, jitter taken out. */
    private long lineNanos() {
        return Math.round(follower.nanosOf(follower.index()));
    }
}
