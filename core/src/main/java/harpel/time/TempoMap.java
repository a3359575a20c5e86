package harpel.time;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * Where the tempo changes. Every position is computed from the start of its tempo, never by adding rounded steps.
 *
 * @param changes rising, the first at tick 0
 */
public record TempoMap(List<Change> changes) {
    /** What the 24 bits of a Standard MIDI File's tempo can say, and a little more. */
    public static final double SLOWEST_BPM = 3.5;

    public static final double FASTEST_BPM = 60_000_000;
    private static final double NANOS_PER_MINUTE = 60e9;

    /** From this tick on so many quarters a minute. */
    public record Change(long tick, double bpm) {
        public Change {
            if (!(bpm >= SLOWEST_BPM && bpm <= FASTEST_BPM)) {
                throw new IllegalArgumentException(
                        "tempo must be " + SLOWEST_BPM + "–" + (int) FASTEST_BPM + " bpm but was " + bpm);
            }
        }

        double nanosPerTick() {
            return NANOS_PER_MINUTE / (bpm * Ticks.PER_QUARTER);
        }
    }

    public TempoMap {
        changes = List.copyOf(changes);
        if (changes.isEmpty() || changes.get(0).tick != 0) {
            throw new IllegalArgumentException("a tempo map begins at tick 0");
        }
        for (int i = 1; i < changes.size(); i++) {
            if (changes.get(i).tick <= changes.get(i - 1).tick) {
                throw new IllegalArgumentException("tempo changes must rise in time");
            }
        }
    }

    public static TempoMap of(double bpm) {
        return new TempoMap(List.of(new Change(0, bpm)));
    }

    /** From changes in any order: the last one at a tick holds, and 120 bpm until the first. */
    public static TempoMap ofChanges(List<Change> given) {
        List<Change> result = new ArrayList<>(List.of(new Change(0, 120)));
        for (Change change :
                given.stream().sorted(Comparator.comparingLong(Change::tick)).toList()) {
            if (result.get(result.size() - 1).tick == change.tick) {
                result.remove(result.size() - 1);
            }
            result.add(change);
        }
        return new TempoMap(result);
    }

    public double bpmAt(long tick) {
        return changes.get(indexAt(tick)).bpm;
    }

    /** Nanoseconds from tick 0 to {@code tick}. */
    public double nanosAt(long tick) {
        double nanos = 0;
        int last = indexAt(tick);
        for (int i = 0; i < last; i++) {
            nanos += (changes.get(i + 1).tick - changes.get(i).tick)
                    * changes.get(i).nanosPerTick();
        }
        return nanos + (tick - changes.get(last).tick) * changes.get(last).nanosPerTick();
    }

    /** The tick, not rounded, at so many nanoseconds from tick 0. */
    public double ticksAt(double nanos) {
        double left = nanos;
        for (int i = 0; ; i++) {
            Change change = changes.get(i);
            double per = change.nanosPerTick();
            if (i + 1 == changes.size() || left < (changes.get(i + 1).tick - change.tick) * per) {
                return change.tick + left / per;
            }
            left -= (changes.get(i + 1).tick - change.tick) * per;
        }
    }

    private int indexAt(long tick) {
        int index = changes.size() - 1;
        while (index > 0 && changes.get(index).tick > tick) {
            index--;
        }
        return index;
    }
}
