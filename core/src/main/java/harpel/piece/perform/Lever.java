package harpel.piece.perform;

import harpel.move.Mover;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A named performance control that moves any number of parameters, each by an amount of its own.
 *
 * @param value where it stands, 0–100 %
 * @param controllers the controllers that move it on any input, 0–127 each
 * @param points where it stands along the timeline, rising in time, going straight from one to the next; they count while the piece plays
 *     as its timeline
 * @param returns whether it goes back to where it stood when it is let go of
 * @param steps on so many places it stands, evenly from 0 to 100 %; 0 for anywhere
 * @param curve how what it moves follows, −100 to 100: straight at 0, above it fast first, below it slowly first
 * @param unknown what a newer version wrote
 */
@RecordBuilder
public record Lever(
        String name,
        double value,
        List<Integer> controllers,
        List<Point> points,
        boolean returns,
        int steps,
        int curve,
        Map<String, Object> unknown)
        implements LeverBuilder.With {
    public static final int MOST_STEPS = 128;

    /**
     * A place on the timeline.
     *
     * @param value 0–100 %
     */
    public record Point(long tick, double value) {
        public Point {
            if (tick < 0 || !(value >= 0 && value <= 100)) {
                throw new IllegalArgumentException(
                        "a lever's point lies at a tick from 0 on, at 0–100 %, but was at " + tick + ", " + value);
            }
        }
    }

    public Lever {
        points = points.stream().sorted(Comparator.comparingLong(Point::tick)).toList();
        if (name.isBlank()) {
            throw new IllegalArgumentException("a lever has a name");
        }
        if (!(value >= 0 && value <= 100)) {
            throw new IllegalArgumentException("lever \"" + name + "\" must stand at 0–100 % but was at " + value);
        }
        controllers = controllers.stream().distinct().toList();
        for (int controller : controllers) {
            if (controller < 0 || controller > 127) {
                throw new IllegalArgumentException(
                        "lever \"" + name + "\": a controller is 0–127 but was " + controller);
            }
        }
        if (curve < -100 || curve > 100) {
            throw new IllegalArgumentException("lever \"" + name + "\": a curve is −100–100 but was " + curve);
        }
        if (steps != 0 && (steps < 2 || steps > MOST_STEPS)) {
            throw new IllegalArgumentException("lever \"" + name + "\" stands on 2–" + MOST_STEPS
                    + " places, or anywhere with 0, but was to on " + steps);
        }
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public static Lever of(String name, double value, Integer... controllers) {
        return new Lever(name, value, List.of(controllers), List.of(), false, 0, 0, Map.of());
    }

    /** What it gives to all it moves where it stands, both 0–1. */
    public double bent(double place) {
        return Mover.bent(place, curve);
    }

    /** The place nearest to one, 0–100, on which it can stand. */
    public double nearest(double place) {
        return steps == 0 ? place : Math.round(place / 100 * (steps - 1)) * 100.0 / (steps - 1);
    }

    /** With a point, in place of one at the same tick. */
    public Lever withPoint(Point point) {
        List<Point> changed = new ArrayList<>(withoutPoint(point.tick).points);
        changed.add(point);
        return withPoints(changed);
    }

    /** Without the point at a tick. */
    public Lever withoutPoint(long tick) {
        return withPoints(points.stream().filter(point -> point.tick != tick).toList());
    }

    /** Where its points let it stand at a tick, 0–100; NaN without any. */
    public double at(long tick) {
        Point before = null;
        for (Point point : points) {
            if (point.tick > tick) {
                return before == null
                        ? point.value
                        : before.value
                                + (point.value - before.value) * (tick - before.tick) / (point.tick - before.tick);
            }
            before = point;
        }
        return before == null ? Double.NaN : before.value;
    }
}
