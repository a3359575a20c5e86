package harpel.time;

import java.util.ArrayList;
import java.util.List;

/**
 * Evenly spaced steps with swing. Step n is computed from its index. A grid of the piece starts anew at each change of meter, so
 * that bars and steps agree; one that starts at a key runs on from there.
 */
public final class StepGrid {
    private record Segment(long startTick, long firstIndex, double stepTicks) {}

    private final TimeMap time;
    private final TimeValue pace;
    private final double swing;
    private final List<Segment> segments = new ArrayList<>();

    private StepGrid(TimeMap time, TimeValue pace, double swingPercent) {
        this.time = time;
        this.pace = pace;
        this.swing = swingPercent / 100;
    }

    /**
     * Steps counted from the start of the piece.
     *
     * @param swingPercent where the second step of each pair starts, 50 straight
     */
    public static StepGrid ofPiece(TimeMap time, TimeValue pace, double swingPercent) {
        StepGrid grid = new StepGrid(time, pace, swingPercent);
        if (pace instanceof TimeValue.Millis) {
            grid.add(0, 0);
            return grid;
        }
        long index = 0;
        for (MeterMap.Change change : time.meter().changes()) {
            if (!grid.segments.isEmpty()) {
                index = grid.indexAtOrAfter(change.tick());
            }
            grid.add(change.tick(), index);
        }
        return grid;
    }

    /** Steps counted from {@code originTick}. */
    public static StepGrid from(long originTick, TimeMap time, TimeValue pace, double swingPercent) {
        StepGrid grid = new StepGrid(time, pace, swingPercent);
        grid.add(originTick, 0);
        return grid;
    }

    private void add(long startTick, long index) {
        segments.add(new Segment(startTick, index, pace.ticksAt(startTick, time)));
    }

    public long tickOf(long index) {
        Segment segment = segments.get(0);
        for (Segment next : segments) {
            if (next.firstIndex <= index) {
                segment = next;
            }
        }
        return tickIn(segment, index - segment.firstIndex);
    }

    /** The first step that lies at or after {@code tick}. */
    public long indexAtOrAfter(long tick) {
        int s = segments.size() - 1;
        while (s > 0 && segments.get(s).startTick > tick) {
            s--;
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

    private long tickIn(Segment segment, long index) {
        double steps = (index & 1) == 0 ? index : index - 1 + 2 * swing;
        if (pace instanceof TimeValue.Millis) {
            return time.after(segment.startTick, pace, steps);
        }
        return segment.startTick + Ticks.round(steps * segment.stepTicks);
    }
}
