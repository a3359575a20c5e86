package harpel.clock;

import java.util.Arrays;

/**
 * Notices that two clocks come in at one place: what came of late falls into two rows, each as even as a clock, and not into one. Owned by
 * one thread.
 */
final class ClockPair {
    private static final int LATELY = 48;
    /** How far from even a clock may come that is told from another, in nanoseconds, and as a share of its period. */
    private static final double UNEVEN_NANOS = 2_500_000;

    private static final double UNEVEN = 0.12;
    /** A row is believed with so many; it may begin with one of so many gaps. */
    private static final int FEWEST = 6;

    private static final int GAPS = 6;
    /** So few may belong to no row, and so few miss in one, as a share. */
    private static final double STRAY = 0.08;
    /** How far a row goes by one that is a little early or late. */
    private static final double CORRECTS = 0.3;

    /** It is looked at again after so many. */
    private static final int LOOK = 16;

    private final long[] came = new long[LATELY];
    private int count;
    private int seen;

    /** A row of clocks: which of them, and how far apart. */
    private record Row(boolean[] members, int size, double period, long last) {}

    /** A clock came; whether those of late are two clocks. */
    boolean hears(long nanos) {
        System.arraycopy(came, 1, came, 0, LATELY - 1);
        came[LATELY - 1] = nanos;
        count++;
        if (count < LATELY || count % LOOK != 0) {
            return false;
        }
        // Once may be chance.
        seen = isTwo() ? seen + 1 : 0;
        return seen >= 2;
    }

    private boolean isTwo() {
        boolean[] all = new boolean[LATELY];
        Arrays.fill(all, true);
        for (int gap = 1; gap <= GAPS; gap++) {
            Row one = row(all, gap);
            if (one == null || one.size > LATELY * (1 - STRAY)) {
                continue;
            }
            boolean[] rest = new boolean[LATELY];
            for (int i = 0; i < LATELY; i++) {
                rest[i] = !one.members[i];
            }
            for (int next = 1; next <= GAPS; next++) {
                Row other = row(rest, next);
                if (other != null && one.size + other.size >= LATELY * (1 - STRAY) && !areOne(one, other)) {
                    return true;
                }
            }
        }
        return false;
    }

    /** Whether two rows are every other clock of one. */
    private static boolean areOne(Row one, Row other) {
        double tolerance = tolerance(one.period);
        double between = Math.abs(one.last - other.last) % one.period;
        return Math.abs(one.period - other.period) < tolerance && Math.abs(between - one.period / 2) < tolerance;
    }

    private static double tolerance(double period) {
        return Math.min(UNEVEN_NANOS, UNEVEN * period);
    }

    /** The row that ends with the last of some, so many of which lie between its last two; null for none. */
    private Row row(boolean[] among, int gap) {
        int last = LATELY - 1;
        while (last >= 0 && !among[last]) {
            last--;
        }
        int before = last;
        for (int i = 0; i < gap && before >= 0; i++) {
            do {
                before--;
            } while (before >= 0 && !among[before]);
        }
        if (before < 0 || came[last] - came[before] <= 0) {
            return null;
        }
        double period = came[last] - came[before];
        boolean[] members = new boolean[LATELY];
        members[last] = true;
        int size = 1;
        int missed = 0;
        double due = came[last] - period;
        int at = last;
        while (due > came[0] - tolerance(period)) {
            int nearest = nearest(among, at - 1, due);
            if (nearest < 0 || Math.abs(came[nearest] - due) > tolerance(period)) {
                missed++;
                due -= period;
            } else {
                members[nearest] = true;
                size++;
                at = nearest;
                due += (came[nearest] - due) * CORRECTS - period;
            }
        }
        return size >= FEWEST && missed <= size * STRAY ? new Row(members, size, period, came[last]) : null;
    }

    /** Which of some up to a place came nearest to a moment; -1 for none. */
    private int nearest(boolean[] among, int from, double due) {
        int nearest = -1;
        for (int i = from; i >= 0; i--) {
            if (among[i] && (nearest < 0 || Math.abs(came[i] - due) < Math.abs(came[nearest] - due))) {
                nearest = i;
            }
        }
        return nearest;
    }
}
