package harpel.time;

import java.util.ArrayList;
import java.util.List;

/**
 * Evenly spaced steps with swing. Step n is computed from its index. A grid of the piece starts anew at each change of meter, so
 * that bars and steps agree, and counts the pairs of its swing anew at each bar line; one that starts at a key runs on from there.
 */
public final class StepGrid {
    /** No step is shorter, in quarters. */
    public static final double SHORTEST_QUARTERS = 0.01;

    /** So far from a whole number of steps or bars a quotient may be by rounding alone. */
    private static final double A_HAIR = 1e-9;

    private static final TimeValue SHORTEST = new TimeValue.Beats(SHORTEST_QUARTERS);

    /** @param barTicks after so many ticks pairs are counted anew; 0 never */
    private record Segment(long startTick, long firstIndex, double stepTicks, long barTicks) {}

    private final TimeMap time;
    private final TimeValue pace;
    private final double swing;
    private final List<Segment> segments = new ArrayList<>();
    /** The steps of a round, counted in it; null where nothing comes round. */
    private StepGrid again;
    /** How many steps lie before the second round, and how many in each. */
    private long firstSteps;

    private long roundSteps;

    private StepGrid(TimeMap time, TimeValue pace, double swingPercent) {
        this.time = time;
        this.pace = atLeastShortest(time, pace);
        this.swing = swingPercent / 100;
    }

    /** No step is shorter than a hundredth of a quarter, at the fastest tempo of the piece: a shorter pace is that one. */
    private static TimeValue atLeastShortest(TimeMap time, TimeValue pace) {
        if (pace instanceof TimeValue.Millis ms) {
            for (TempoMap.Change change : time.tempo().changes()) {
                if (ms.amount() * change.bpm() / 60_000 < SHORTEST_QUARTERS) {
                    return SHORTEST;
                }
            }
            return pace;
        }
        return pace.ticksAt(0, time) < SHORTEST_QUARTERS * Ticks.PER_QUARTER ? SHORTEST : pace;
    }

    /**
     * Steps counted from the start of the piece.
     *
     * @param swingPercent where the second step of each pair starts, 50 straight
     */
    public static StepGrid ofPiece(TimeMap time, TimeValue pace, double swingPercent) {
        StepGrid grid = new StepGrid(time, pace, swingPercent);
        if (pace instanceof TimeValue.Millis) {
            grid.add(0, 0, 0);
            return grid;
        }
        long index = 0;
        for (MeterMap.Change change : time.meter().changes()) {
            if (!grid.segments.isEmpty()) {
                index = grid.indexAtOrAfter(change.tick());
            }
            grid.add(change.tick(), index, change.barTicks());
        }
        Round round = time.meter().round();
        if (round.isThere()) {
            StepGrid again = ofPiece(new TimeMap(time.tempo(), time.meter().inRound()), pace, swingPercent);
            grid.firstSteps = grid.indexAtOrAfter(round.to());
            grid.roundSteps = again.indexAtOrAfter(round.length());
            grid.again = again;
        }
        return grid;
    }

    /** Steps counted from {@code originTick}. */
    public static StepGrid from(long originTick, TimeMap time, TimeValue pace, double swingPercent) {
        StepGrid grid = new StepGrid(time, pace, swingPercent);
        grid.add(originTick, 0, 0);
        return grid;
    }

    private void add(long startTick, long index, long barTicks) {
        segments.add(new Segment(startTick, index, pace.ticksAt(startTick, time), barTicks));
    }

    public long tickOf(long index) {
        if (again != null && index >= firstSteps) {
            Round round = time.meter().round();
            long rounds = (index - firstSteps) / roundSteps;
            return round.to() + rounds * round.length() + again.tickOf((index - firstSteps) % roundSteps);
        }
        int low = 0;
        for (int high = segments.size() - 1; low < high; ) {
            int middle = low + high + 1 >>> 1;
            if (segments.get(middle).firstIndex <= index) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return tickIn(segments.get(low), index - segments.get(low).firstIndex);
    }

    /** The first step that lies at or after {@code tick}. */
    public long indexAtOrAfter(long tick) {
        if (again == null) {
            return indexOnce(tick);
        }
        Round round = time.meter().round();
        if (!round.isBehind(tick)) {
            return Math.min(firstSteps, indexOnce(tick));
        }
        long inRound = again.indexAtOrAfter(round.place(tick) - round.from());
        return firstSteps + round.before(tick) * roundSteps + Math.min(roundSteps, inRound);
    }

    private long indexOnce(long tick) {
        int s = 0;
        for (int high = segments.size() - 1; s < high; ) {
            int middle = s + high + 1 >>> 1;
            if (segments.get(middle).startTick <= tick) {
                s = middle;
            } else {
                high = middle - 1;
            }
        }
        Segment segment = segments.get(s);
        long guess = (long) stepsBetween(segment, tick) - 2;
        long index = Math.max(0, guess);
        while (tickIn(segment, index) < tick) {
            index++;
        }
        // Past the last step of this meter lies the first of the next.
        boolean past = s + 1 < segments.size() && tickIn(segment, index) >= segments.get(s + 1).startTick;
        return past ? segments.get(s + 1).firstIndex : segment.firstIndex + index;
    }

    private double stepsBetween(Segment segment, long tick) {
        if (pace instanceof TimeValue.Millis ms) {
            TempoMap tempo = time.tempo();
            return (tempo.nanosAt(tick) - tempo.nanosAt(segment.startTick)) / (ms.amount() * 1e6);
        }
        return (tick - segment.startTick) / segment.stepTicks;
    }

    /** Whether a step is the second of its pair. */
    private boolean isSecond(Segment segment, long index) {
        if (segment.barTicks == 0) {
            return (index & 1) == 1;
        }
        long bar = (long) Math.floor(index * segment.stepTicks / segment.barTicks + A_HAIR);
        long first = (long) Math.ceil(bar * segment.barTicks / segment.stepTicks - A_HAIR);
        return (index - first & 1) == 1;
    }

    private long tickIn(Segment segment, long index) {
        double steps = isSecond(segment, index) ? index - 1 + 2 * swing : index;
        if (pace instanceof TimeValue.Millis) {
            return time.after(segment.startTick, pace, steps);
        }
        return segment.startTick + Ticks.round(steps * segment.stepTicks);
    }
}
