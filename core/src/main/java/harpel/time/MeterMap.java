package harpel.time;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Where the meter changes. A change in the middle of a bar ends that bar: a new bar begins there. Everything is found in logarithmic time. */
public final class MeterMap {
    public static final MeterMap FOUR_FOUR = new MeterMap(List.of(new Change(0, 4, 4)));
    private static final Pattern FORM = Pattern.compile("(\\d{1,2})/(\\d{1,2})");

    /** From this tick on bars of {@code beats} notes of 1/{@code unit}. */
    public record Change(long tick, int beats, int unit) {
        public Change {
            if (beats < 1 || beats > 64 || Integer.bitCount(unit) != 1 || unit > 64) {
                throw new IllegalArgumentException(
                        "a meter is 1–64 over 1, 2, 4, 8, 16, 32 or 64 but was " + beats + "/" + unit);
            }
        }

        /** Reads "4/4" or "7/8". */
        public static Change parse(long tick, String text) {
            Matcher matcher = FORM.matcher(text.strip());
            if (!matcher.matches()) {
                throw new IllegalArgumentException("a meter is written like 4/4 or 7/8 but was \"" + text + "\"");
            }
            return new Change(tick, Integer.parseInt(matcher.group(1)), Integer.parseInt(matcher.group(2)));
        }

        public long beatTicks() {
            return 4 * Ticks.PER_QUARTER / unit;
        }

        public long barTicks() {
            return beats * beatTicks();
        }

        public String shown() {
            return beats + "/" + unit;
        }
    }

    /** A place in the piece as people count it, bars and beats from 1. */
    public record Place(long bar, int beat, long ticksIntoBeat) {
        @Override
        public String toString() {
            return bar + " . " + beat;
        }
    }

    private final List<Change> changes;
    private final long[] ticks;
    /** The bar, counted from 0, that begins at each change. */
    private final long[] bars;

    private final Round round;
    /** The round by itself, which begins with a bar; null where nothing comes round. */
    private final MeterMap inRound;
    /** The bar with which the second round begins, and how many each has. */
    private final long roundBar;

    private final long roundBars;

    /** @param given rising, the first at tick 0 */
    public MeterMap(List<Change> given) {
        this(given, Round.NONE);
    }

    private MeterMap(List<Change> given, Round round) {
        changes = List.copyOf(given);
        this.round = round;
        if (changes.isEmpty() || changes.get(0).tick != 0) {
            throw new IllegalArgumentException("a meter map begins at tick 0");
        }
        for (int i = 1; i < changes.size(); i++) {
            if (changes.get(i).tick <= changes.get(i - 1).tick) {
                throw new IllegalArgumentException("meter changes must rise in time");
            }
        }
        ticks = changes.stream().mapToLong(Change::tick).toArray();
        bars = new long[ticks.length];
        for (int i = 1; i < bars.length; i++) {
            bars[i] = bars[i - 1]
                    - Math.floorDiv(ticks[i - 1] - ticks[i], changes.get(i - 1).barTicks());
        }
        inRound = round.isThere() ? since(round.from()) : null;
        roundBar = round.isThere() ? barOnce(round.to() - 1) + 1 : 0;
        roundBars = round.isThere() ? inRound.barAt(round.length() - 1) + 1 : 0;
    }

    /**
     * The same where a stretch comes round: all that lies behind it is that stretch again and again, and begins with a bar. Whole bars of
     * one meter go on by themselves.
     */
    MeterMap goingRound(Round newRound) {
        if (!newRound.isThere()) {
            return this;
        }
        List<Change> before =
                changes.stream().filter(change -> change.tick < newRound.to()).toList();
        boolean one = before.get(before.size() - 1).tick <= newRound.from();
        boolean whole = barLineAtOrAfter(newRound.from()) == newRound.from()
                && newRound.length() % at(newRound.from()).barTicks() == 0;
        return one && whole ? new MeterMap(before) : new MeterMap(changes, newRound);
    }

    /** What comes round, beginning with a bar. */
    Round round() {
        return round;
    }

    /** The round by itself; null where nothing comes round. */
    MeterMap inRound() {
        return inRound;
    }

    /** Where it changes, rising, the first at tick 0. */
    public List<Change> changes() {
        return changes;
    }

    /** From changes in any order: the last one at a tick holds, and 4/4 until the first. */
    public static MeterMap ofChanges(List<Change> given) {
        List<Change> result = new ArrayList<>(FOUR_FOUR.changes);
        for (Change change :
                given.stream().sorted(Comparator.comparingLong(Change::tick)).toList()) {
            if (result.get(result.size() - 1).tick == change.tick) {
                result.remove(result.size() - 1);
            }
            result.add(change);
        }
        return new MeterMap(result);
    }

    public Change at(long tick) {
        if (!round.isBehind(tick)) {
            return changes.get(indexAt(tick));
        }
        long into = round.place(tick) - round.from();
        Change change = inRound.at(into);
        return new Change(tick - into + change.tick, change.beats, change.unit);
    }

    public Place placeAt(long tick) {
        long bar = barAt(tick);
        long into = tick - tickOfBar(bar);
        long beatTicks = at(tick).beatTicks();
        return new Place(bar + 1, (int) (into / beatTicks) + 1, into % beatTicks);
    }

    /** The same, counted from a tick on, where a bar begins. */
    MeterMap since(long tick) {
        Change now = at(tick);
        List<Change> later = new ArrayList<>(List.of(new Change(0, now.beats, now.unit)));
        changes.stream()
                .filter(change -> change.tick > tick)
                .forEach(change -> later.add(new Change(change.tick - tick, change.beats, change.unit)));
        return new MeterMap(later);
    }

    /** The bar, counted from 0, that holds the tick. */
    public long barAt(long tick) {
        return round.isBehind(tick)
                ? roundBar + round.before(tick) * roundBars + inRound.barAt(round.place(tick) - round.from())
                : barOnce(tick);
    }

    private long barOnce(long tick) {
        int index = indexAt(tick);
        return bars[index] + (tick - ticks[index]) / changes.get(index).barTicks();
    }

    /** The first tick of a bar counted from 0. */
    public long tickOfBar(long bar) {
        if (round.isThere() && bar >= roundBar) {
            long rounds = (bar - roundBar) / roundBars;
            return round.to()
                    + Math.multiplyExact(rounds, round.length())
                    + inRound.tickOfBar((bar - roundBar) % roundBars);
        }
        int index = Rising.lastAtOrBefore(bars, bar);
        return Math.addExact(
                ticks[index],
                Math.multiplyExact(bar - bars[index], changes.get(index).barTicks()));
    }

    /** The first bar line at or after the tick. */
    public long barLineAtOrAfter(long tick) {
        long bar = barAt(tick);
        long start = tickOfBar(bar);
        return start == tick ? tick : tickOfBar(bar + 1);
    }

    private int indexAt(long tick) {
        return Rising.lastAtOrBefore(ticks, tick);
    }

    @Override
    public boolean equals(Object other) {
        return this == other || other instanceof MeterMap map && map.changes.equals(changes) && map.round.equals(round);
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
