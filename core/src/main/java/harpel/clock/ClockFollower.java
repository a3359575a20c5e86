package harpel.clock;

import harpel.plan.Line;

/**
 * Follows a clock of 24 ticks a quarter (MIDI 1.0, timing clock). Clocks are counted, and a straight line is laid through when the last
 * ones came, so that their jitter does not count: time goes by the line. What lies far aside of it is not believed at once but looked at
 * together with what follows: clocks that were only late come one after another until they are back on the line; behind clocks that were
 * lost all that follows lies late by whole clocks, which are made up for; and a new tempo shows as a new line. Owned by one thread.
 */
public final class ClockFollower {
    public static final int CLOCKS_A_QUARTER = 24;
    /** These tempi are followed, in quarters a minute. */
    static final double SLOWEST = 20;

    static final double FASTEST = 400;

    /** So far beyond those a tempo must be that it is no jitter, as a share. */
    private static final double OUTSIDE = 0.03;
    /** And so long it must have come. */
    private static final long SAY_NANOS = 2_000_000_000L;

    /** Two bars of 4/4. */
    private static final int MOST = 192;

    /** No line is steeper or flatter than this; a little beyond what is followed, to see that it is. */
    private static final double SHORTEST_NANOS = 60e9 / 24 / (1.5 * FASTEST);

    private static final double LONGEST_NANOS = 60e9 / 24 / (SLOWEST / 1.5);

    private static final int LATELY = 8;
    private static final int LONG = 48;
    /** With fewer nothing is said to lie aside. */
    private static final int FEWEST = 8;
    /** With fewer what was expected before counts, too, by so much. */
    private static final double EXPECTED_WEIGHT = 2;
    /** So far aside lies no clock that is only a little late, in nanoseconds. */
    private static final double ASIDE_NANOS = 2_200_000;
    /** So far, in clocks, and so many times as far as others do. */
    private static final double ASIDE_CLOCKS = 0.6;

    private static final double ASIDE_OTHERS = 4;
    private static final double ASIDE_USUAL = 3;
    private static final double USUAL_DOWN = 8;
    private static final double USUAL_UP = 64;
    /** Clocks that usually lie aside by more than this, in clocks, do not show whether one was lost. */
    private static final double CLEAR_CLOCKS = 0.25;
    /** So many in a row show that clocks were lost, when they lie late by as many clocks as near as this. */
    private static final int SHOW_LOST = 4;

    private static final double NEAR_CLOCKS = 0.35;
    /** So much closer to a line of their own lie those of a new tempo. */
    private static final double OWN_LINE = 0.35;
    /** After so many, a second of the fastest, it is no longer waited for what they mean. */
    private static final int MOST_WAITING = 176;

    private static final int ROOM = MOST + MOST_WAITING + 1;

    /** The last clocks: when they came, and which they were; in a ring. */
    private final long[] nanos = new long[ROOM];

    private final long[] indexes = new long[ROOM];
    private int size;
    private int next;
    /** How many of the last are not believed yet, and no part of the line. */
    private int waiting;

    private final double[] sorted = new double[LATELY];
    private final Line line = new Line();
    private final Line own = new Line();
    private long index = -1;
    private double expected;
    /** How far clocks usually lie aside, in nanoseconds. */
    private double usual;
    /** Whether the line says more than what was expected. */
    private boolean known;

    /** A straight line through clocks. */
    private final class Line {
        private double period;
        /** When {@link #at} is due. */
        private double level;

        private long at;
        /** How far the clocks lie aside, as a root mean square, in nanoseconds. */
        private double spread;

        /** Least squares through so many of the last, but for the newest, counted from the newest so that numbers stay small. */
        boolean fit(int butFor, int count) {
            if (count < 1) {
                return false;
            }
            at = indexes[place(butFor)];
            long base = nanos[place(butFor)];
            double x = 0;
            double y = 0;
            double xx = 0;
            double xy = 0;
            for (int i = butFor; i < butFor + count; i++) {
                double dx = indexes[place(i)] - at;
                double dy = nanos[place(i)] - base;
                x += dx;
                y += dy;
                xx += dx * dx;
                xy += dx * dy;
            }
            double weight = count < FEWEST ? EXPECTED_WEIGHT : 0;
            double slope = (xy - x * y / count + weight * expected) / (xx - x * x / count + weight);
            // Those that came all at once say nothing.
            boolean sane = slope >= SHORTEST_NANOS
                    && slope <= LONGEST_NANOS
                    && nanos[place(butFor)] - nanos[place(butFor + count - 1)] >= (count - 1) * SHORTEST_NANOS / 2;
            period = sane ? slope : known ? period : expected;
            level = base + (y - period * x) / count;
            double squares = 0;
            for (int i = butFor; i < butFor + count; i++) {
                double aside = nanos[place(i)] - nanosOf(indexes[place(i)]);
                squares += aside * aside;
            }
            spread = Math.sqrt(squares / count);
            return sane;
        }

        public double nanosOf(long clock) {
            return level + (clock - at) * period;
        }
    }

    /** @param expected nanoseconds from clock to clock, until it is known */
    public ClockFollower(double expected) {
        this.expected = Math.max(SHORTEST_NANOS, Math.min(LONGEST_NANOS, expected));
        line.period = this.expected;
    }

    /** A clock came. */
    public void clock(long at) {
        index++;
        nanos[next] = at;
        indexes[next] = index;
        next = (next + 1) % ROOM;
        size = Math.min(MOST + waiting, size + 1);
        double off = Math.abs(at - line.nanosOf(index));
        boolean aside = known
                && off > ASIDE_CLOCKS * line.period
                && off > ASIDE_OTHERS * line.spread
                && off > ASIDE_USUAL * usual;
        if (aside) {
            waiting++;
            lookAtWaiting();
        } else {
            // Those before it were late and nothing else: they say nothing of the tempo.
            dropWaiting();
            own.fit(0, Math.min(size, LATELY));
            // Down soon and up late: what one lost clock or a few late ones do is not usual.
            usual += (own.spread - usual) / Math.min(size, own.spread < usual ? USUAL_DOWN : USUAL_UP);
        }
        fit();
    }

    private void fit() {
        if (waiting > 0) {
            return;
        }
        known = line.fit(0, size)
                && size >= FEWEST
                && nanos[place(0)] - nanos[place(size - 1)] > FEWEST * line.period / 2;
        if (size > 2 * LATELY && isClear()) {
            double aside = medianAside();
            if (aside > ASIDE_NANOS && own.fit(0, LATELY) && own.spread < OWN_LINE * aside) {
                size = LATELY;
                line.fit(0, size);
            }
        } else if (size > 2 * LONG && own.fit(0, LONG) && own.spread < line.spread / 2) {
            size = LONG;
            line.fit(0, size);
        }
    }

    /** Whether clocks usually come so close to a line that a few show what has changed. */
    private boolean isClear() {
        return usual < CLEAR_CLOCKS * line.period;
    }

    private void lookAtWaiting() {
        long lost = lost();
        if (lost != 0) {
            index += lost;
            for (int i = 0; i < SHOW_LOST; i++) {
                indexes[place(i)] += lost;
            }
            drop(SHOW_LOST, waiting - SHOW_LOST);
            waiting = 0;
        } else if (isClear() ? waiting >= LATELY && lieOnALine() : waiting >= LONG && own.fit(0, LONG)) {
            size = isClear() ? LATELY : LONG;
            waiting = 0;
        } else if (waiting > MOST_WAITING) {
            waiting = 0;
        }
    }

    /** Whether the last ones lie on a line of their own. */
    private boolean lieOnALine() {
        return own.fit(0, LATELY) && own.spread < OWN_LINE * own.period / 2;
    }

    /** By how many clocks the last ones all lie late, or where it is below 0 early; 0 where they do not. */
    private long lost() {
        if (waiting < SHOW_LOST
                || !isClear()
                || nanos[place(0)] - nanos[place(SHOW_LOST - 1)] < (SHOW_LOST - 1.5) * line.period) {
            return 0;
        }
        double late = (nanos[place(0)] - line.nanosOf(indexes[place(0)])) / line.period;
        long whole = Math.round(late);
        for (int i = 0; i < SHOW_LOST; i++) {
            double one = (nanos[place(i)] - line.nanosOf(indexes[place(i)])) / line.period;
            if (Math.abs(one - whole) > NEAR_CLOCKS) {
                return 0;
            }
        }
        return whole;
    }

    private void dropWaiting() {
        drop(1, waiting);
        waiting = 0;
    }

    /** Forgets so many that lie behind the newest ones. */
    private void drop(int newest, int count) {
        if (count <= 0) {
            return;
        }
        for (int i = newest - 1; i >= 0; i--) {
            nanos[place(i + count)] = nanos[place(i)];
            indexes[place(i + count)] = indexes[place(i)];
        }
        next = Math.floorMod(next - count, ROOM);
        size -= count;
    }

    /** The place in the ring of one of the last, 0 being the newest. */
    private int place(int back) {
        return Math.floorMod(next - 1 - back, ROOM);
    }

    private double medianAside() {
        for (int i = 0; i < LATELY; i++) {
            sorted[i] = nanos[place(i)] - line.nanosOf(indexes[place(i)]);
        }
        java.util.Arrays.sort(sorted);
        return Math.abs(sorted[LATELY / 2] + sorted[LATELY / 2 - 1]) / 2;
    }

    /** What is expected until it is known. */
    void expect(double newExpected) {
        expected = Math.max(SHORTEST_NANOS, Math.min(LONGEST_NANOS, newExpected));
    }

    /** Which clock came last, counted on and on, those that were lost among them. */
    long index() {
        return index;
    }

    /** Nanoseconds from clock to clock. */
    double period() {
        return line.period;
    }

    /** Quarters a minute. */
    public double bpm() {
        return 60e9 / (line.period * CLOCKS_A_QUARTER);
    }

    /** How many quarters a minute came of late where those are not followed; 0 where they are, or too few came to say so. */
    double bpmOutside() {
        long span = size == 0 ? 0 : nanos[place(0)] - nanos[place(size - 1)];
        if (size < CLOCKS_A_QUARTER || size < MOST && span < SAY_NANOS) {
            return 0;
        }
        double came = 60e9 * (size - 1) / CLOCKS_A_QUARTER / Math.max(1, span);
        return came < SLOWEST * (1 - OUTSIDE) || came > FASTEST * (1 + OUTSIDE) ? came : 0;
    }

    /** When a clock is due, on the line. */
    public double nanosOf(long clock) {
        return line.nanosOf(clock);
    }

    /** Which clock is due at a moment, on the line. */
    double clockAt(long at) {
        return line.at + (at - line.level) / line.period;
    }

    /** When the last one came; before any, long ago. */
    long lastNanos() {
        return size == 0 ? Long.MIN_VALUE / 2 : nanos[place(0)];
    }
}
