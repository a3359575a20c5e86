package harpel.time;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * Where the tempo changes, at once or, on a ramp, evenly from tick to tick. Every position is computed from the start of its tempo,
 * never by adding rounded steps, and found in logarithmic time.
 */
public final class TempoMap {
    /** What the 24 bits of a Standard MIDI File's tempo can say, and a little more. */
    public static final double SLOWEST_BPM = 3.5;

    public static final double FASTEST_BPM = 60_000_000;
    private static final double NANOS_PER_MINUTE = 60e9;
    /** Of a tick at one quarter a minute. */
    private static final double BEAT_NANOS = NANOS_PER_MINUTE / Ticks.PER_QUARTER;

    /**
     * From this tick on so many quarters a minute.
     *
     * @param ramp whether it goes evenly, tick by tick, to the tempo of the next change; without a next one it stays
     */
    public record Change(long tick, double bpm, boolean ramp) {
        public Change(long tick, double bpm) {
            this(tick, bpm, false);
        }

        public Change {
            if (!(bpm >= SLOWEST_BPM && bpm <= FASTEST_BPM)) {
                throw new IllegalArgumentException(
                        "tempo must be " + SLOWEST_BPM + "–" + (int) FASTEST_BPM + " bpm but was " + bpm);
            }
        }

        double nanosPerTick() {
            return BEAT_NANOS / bpm;
        }
    }

    private final List<Change> changes;
    private final long[] ticks;
    /** Nanoseconds from tick 0 to each change. */
    private final double[] nanos;

    private final double[] nanosPerTick;
    /** By how much the tempo rises with each tick; 0 where it stays. */
    private final double[] slopes;

    private final Round round;
    /** Nanoseconds from tick 0 to where the round begins, and to where it ends. */
    private final double roundFrom;

    private final double roundTo;

    /** @param given rising, the first at tick 0 */
    public TempoMap(List<Change> given) {
        this(given, Round.NONE);
    }

    private TempoMap(List<Change> given, Round round) {
        changes = List.copyOf(given);
        this.round = round;
        if (changes.isEmpty() || changes.get(0).tick != 0) {
            throw new IllegalArgumentException("a tempo map begins at tick 0");
        }
        for (int i = 1; i < changes.size(); i++) {
            if (changes.get(i).tick <= changes.get(i - 1).tick) {
                throw new IllegalArgumentException("tempo changes must rise in time");
            }
        }
        ticks = changes.stream().mapToLong(Change::tick).toArray();
        nanosPerTick = changes.stream().mapToDouble(Change::nanosPerTick).toArray();
        nanos = new double[ticks.length];
        slopes = new double[ticks.length];
        for (int i = 1; i < nanos.length; i++) {
            Change before = changes.get(i - 1);
            if (before.ramp) {
                slopes[i - 1] = (changes.get(i).bpm - before.bpm) / (ticks[i] - ticks[i - 1]);
            }
            nanos[i] = nanos[i - 1] + nanosInto(i - 1, ticks[i] - ticks[i - 1]);
        }
        roundFrom = nanosOnce(round.from());
        roundTo = nanosOnce(round.to());
    }

    /** The same where a stretch comes round: all that lies behind it is that stretch again and again. */
    TempoMap goingRound(Round newRound) {
        return new TempoMap(changes, newRound);
    }

    /** The time that so many ticks of one of the tempos take: on a ramp the integral of 1 / (b + kt), which is ln(1 + kt/b) / k. */
    private double nanosInto(int index, long into) {
        double slope = slopes[index];
        double bpm = changes.get(index).bpm;
        return slope == 0 ? into * nanosPerTick[index] : BEAT_NANOS / slope * Math.log1p(slope * into / bpm);
    }

    /** Where it changes, rising, the first at tick 0. */
    public List<Change> changes() {
        return changes;
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

    /** The same, counted from a tick on. */
    TempoMap since(long tick) {
        List<Change> later = new ArrayList<>(List.of(new Change(0, bpmAt(tick), changes.get(indexAt(tick)).ramp)));
        changes.stream()
                .filter(change -> change.tick > tick)
                .forEach(change -> later.add(new Change(change.tick - tick, change.bpm, change.ramp)));
        return new TempoMap(later);
    }

    public double bpmAt(long tick) {
        long place = round.place(tick);
        int index = indexAt(place);
        return changes.get(index).bpm + slopes[index] * (place - ticks[index]);
    }

    /** Whether the tempo goes on a ramp at a tick. */
    public boolean rampsAt(long tick) {
        return changes.get(indexAt(round.place(tick))).ramp;
    }

    /** Nanoseconds from tick 0 to {@code tick}. */
    public double nanosAt(long tick) {
        return !round.isBehind(tick)
                ? nanosOnce(tick)
                : roundTo + round.before(tick) * (roundTo - roundFrom) + nanosOnce(round.place(tick)) - roundFrom;
    }

    private double nanosOnce(long tick) {
        int index = indexAt(tick);
        return nanos[index] + nanosInto(index, tick - ticks[index]);
    }

    /** The tick, not rounded, at so many nanoseconds from tick 0. */
    public double ticksAt(double fromStart) {
        if (!round.isThere() || fromStart < roundTo) {
            return ticksOnce(fromStart);
        }
        double length = roundTo - roundFrom;
        double rounds = Math.floor((fromStart - roundTo) / length);
        double into = fromStart - roundTo - rounds * length;
        return round.to() + rounds * round.length() + ticksOnce(roundFrom + into) - round.from();
    }

    private double ticksOnce(double fromStart) {
        int index = Rising.lastAtOrBefore(nanos, fromStart);
        double into = fromStart - nanos[index];
        double slope = slopes[index];
        return ticks[index]
                + (slope == 0
                        ? into / nanosPerTick[index]
                        : changes.get(index).bpm / slope * Math.expm1(into * slope / BEAT_NANOS));
    }

    private int indexAt(long tick) {
        return Rising.lastAtOrBefore(ticks, tick);
    }

    @Override
    public boolean equals(Object other) {
        return this == other || other instanceof TempoMap map && map.changes.equals(changes) && map.round.equals(round);
    }

    @Override
    public int hashCode() {
        return changes.hashCode();
    }

    @Override
    public String toString() {
        return changes.toString();
    }
}
