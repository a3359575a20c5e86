package harpel.effect.held;

import harpel.effect.Chance;
import harpel.effect.held.Polymeter.Of;
import harpel.effect.held.Polymeter.Runs;
import harpel.param.ParamSet;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.List;

/** One row of a polymeter as it runs: which of its values holds at a step. */
final class PolymeterRow {
    /** Kept apart from the ticks that other draws belong to. */
    private static final long PASSES = 1L << 32;

    private final int number;
    private final List<Integer> values;
    private final Runs runs;
    private final int turned;
    private final double times;
    private final double per;
    private final Of of;
    private final boolean byTicks;
    private long shuffledPass = -1;
    private int[] shuffled = {};

    /**
     * @param number which of the rows it is
     * @param pace the stage's
     */
    PolymeterRow(int number, ParamSet row, TimeValue pace, TimeMap time) {
        this.number = number;
        of = row.get(Polymeter.OF);
        // What moves a row may have it give something else in the midst of play, for which its values are out of range.
        values = row.get(Polymeter.VALUES).stream()
                .map(value -> of.type().atFraction(of.type().fraction(value)))
                .toList();
        runs = row.get(Polymeter.RUNS);
        turned = row.get(Polymeter.TURNED);
        RowPace own = row.get(Polymeter.ROW_PACE);
        times = own.times(pace, time);
        per = own.per(time);
        byTicks = own.byTicks(pace);
    }

    Of of() {
        return of;
    }

    /**
     * Which entry holds at step n of the stage.
     *
     * @param ticks since step 0
     */
    int entryAt(long n, long ticks, Chance chance) {
        // A hair less than a whole number must not take the step before.
        long own = (long) Math.floor((byTicks ? ticks : n * times) / per + 1e-9) + turned;
        int length = values.size();
        int place = (int) Math.floorMod(own, (long) length);
        return switch (runs) {
            case FORWARD -> place;
            case BACKWARD -> length - 1 - place;
            case THERE_AND_BACK -> {
                int round = Math.max(1, 2 * length - 2);
                int at = (int) Math.floorMod(own, (long) round);
                yield at < length ? at : round - at;
            }
            case SHUFFLE -> {
                long pass = Math.floorDiv(own, (long) length);
                if (pass != shuffledPass || shuffled.length != length) {
                    shuffle(pass, length, chance);
                }
                yield shuffled[place];
            }
        };
    }

    int valueOf(int entry) {
        return values.get(entry);
    }

    /** A new order for a pass, the same whenever that is asked for (Fisher and Yates). */
    private void shuffle(long pass, int length, Chance chance) {
        shuffledPass = pass;
        shuffled = new int[length];
        for (int i = 0; i < length; i++) {
            shuffled[i] = i;
        }
        for (int i = length - 1; i > 0; i--) {
            int with = (int) (chance.unitOf(-1 - pass - number * PASSES, i) * (i + 1));
            int before = shuffled[i];
            shuffled[i] = shuffled[with];
            shuffled[with] = before;
        }
    }

    /** After how many steps of the stage it begins again, as a whole number; shuffles aside. */
    long period() {
        long round = runs == Runs.THERE_AND_BACK ? Math.max(1, 2L * values.size() - 2) : values.size();
        // times/per steps of its own a step: as a fraction of whole numbers.
        long top = Math.round(times * RowPace.FINE);
        long bottom = Math.round(per * RowPace.FINE);
        return round * bottom / Ticks.gcd(round * bottom, top);
    }
}
