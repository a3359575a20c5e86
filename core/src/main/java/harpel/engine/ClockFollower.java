package harpel.engine;

import java.util.Arrays;

/**
 * Follows a clock of 24 ticks a quarter (MIDI 1.0, timing clock): lays a straight line through the last ones, so that their jitter does
 * not count. When several lie aside one way, the tempo has changed and the line is laid through the newest alone. Owned by one thread.
 */
final class ClockFollower {
    static final int CLOCKS_A_QUARTER = 24;
    /** Two bars of 4/4. */
    private static final int MOST = 192;

    private static final int LATELY = 8;
    private static final int ANEW = 6;
    /** So far aside lies no clock that is only a little late, in nanoseconds. */
    private static final double ASIDE = 2_200_000;
    /** With fewer the slope says little, and what was known before holds. */
    private static final int FEWEST = 4;
    /** Behind so many clocks that did not come, how many they were is told by the time. */
    private static final double GAP = 3;

    /** The last clocks: when they came, and which they were; in a ring. */
    private final long[] nanos = new long[MOST];

    private final long[] indexes = new long[MOST];
    private final double[] aside = new double[LATELY];
    private int size;
    private int next;
    private long index = -1;
    private double period;
    /** The line: when the clock of {@link #index} came, jitter taken out. */
    private double level;

    /** @param expected nanoseconds from clock to clock, until it is known */
    ClockFollower(double expected) {
        period = expected;
    }

    /** What is expected until it is known. */
    void expect(double expected) {
        if (size < FEWEST) {
            period = expected;
        }
    }

    /** A clock came. */
    void clock(long at) {
        if (size > 0) {
            double since = (at - nanosOf(index)) / period;
            index += since > GAP ? Math.round(since) : 1;
        } else {
            index++;
        }
        put(at);
        fit();
        if (size > 2 * LATELY && medianAside() > ASIDE) {
            keep(ANEW);
            fit();
        }
    }

    private void put(long at) {
        nanos[next] = at;
        indexes[next] = index;
        next = (next + 1) % MOST;
        size = Math.min(MOST, size + 1);
    }

    /** The place in the ring of one of the last, 0 being the newest. */
    private int place(int back) {
        return Math.floorMod(next - 1 - back, MOST);
    }

    private void keep(int newest) {
        size = Math.min(size, newest);
    }

    /** Least squares, counted from the newest so that numbers stay small. */
    private void fit() {
        long base = nanos[place(0)];
        double x = 0;
        double y = 0;
        double xx = 0;
        double xy = 0;
        for (int i = 0; i < size; i++) {
            double dx = indexes[place(i)] - index;
            double dy = nanos[place(i)] - base;
            x += dx;
            y += dy;
            xx += dx * dx;
            xy += dx * dy;
        }
        double spread = size * xx - x * x;
        if (size >= FEWEST && spread > 0) {
            period = (size * xy - x * y) / spread;
        }
        level = base + (y - period * x) / size;
    }

    private double medianAside() {
        for (int i = 0; i < LATELY; i++) {
            aside[i] = nanos[place(i)] - nanosOf(indexes[place(i)]);
        }
        Arrays.sort(aside);
        return Math.abs(aside[LATELY / 2] + aside[LATELY / 2 - 1]) / 2;
    }

    /** Which clock came last, counted on and on. */
    long index() {
        return index;
    }

    /** Nanoseconds from clock to clock. */
    double period() {
        return period;
    }

    /** Quarters a minute. */
    double bpm() {
        return 60e9 / (period * CLOCKS_A_QUARTER);
    }

    /** When a clock is due, on the line. */
    double nanosOf(long clock) {
        return level + (clock - index) * period;
    }

    /** When the last one came; before any, long ago. */
    long lastNanos() {
        return size == 0 ? Long.MIN_VALUE / 2 : nanos[place(0)];
    }
}
