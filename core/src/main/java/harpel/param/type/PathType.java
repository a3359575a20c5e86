package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Points along the piece with values of another type: [tick, value], rising in the first. */
public record PathType<T>(ParamType<T> type) implements ParamType<List<PathType.Point<T>>> {
    private static final int MOST = 10_000;

    /** From {@code tick} on the value holds, or goes straight to the next. */
    public record Point<T>(long tick, T value) {}

    /** The value at a tick; that of the first point before it, that of the last after it. Not for an empty path. */
    public T at(List<Point<T>> points, long tick, boolean line) {
        return at(points, tick, line, 0);
    }

    /** The same, so much of the range away. */
    public T at(List<Point<T>> points, long tick, boolean line, double offset) {
        int low = 0;
        int high = points.size() - 1;
        while (low < high) {
            int middle = (low + high + 1) / 2;
            if (points.get(middle).tick <= tick) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        Point<T> left = points.get(low);
        if (!line || !type.flows() || tick <= left.tick || low == points.size() - 1) {
            return type.moved(left.value, offset);
        }
        Point<T> right = points.get(low + 1);
        double way = (tick - left.tick) / (double) (right.tick - left.tick);
        return type.between(left.value, right.value, way, offset);
    }

    /** The tick of the first point after {@code tick}, or {@link harpel.time.Ticks#NEVER}. */
    public static <T> long after(List<Point<T>> points, long tick) {
        for (Point<T> point : points) {
            if (point.tick > tick) {
                return point.tick;
            }
        }
        return harpel.time.Ticks.NEVER;
    }

    @Override
    public List<Point<T>> read(Object plain) {
        List<Point<T>> points = new ArrayList<>();
        for (Object item : Plain.list(plain, range())) {
            List<?> both = Plain.list(item, range());
            long last = points.isEmpty() ? -1 : points.get(points.size() - 1).tick;
            if (both.size() != 2
                    || !(both.get(0) instanceof Number at)
                    || at.doubleValue() != Math.rint(at.doubleValue())
                    || at.longValue() <= last
                    || at.longValue() > Ticks.FARTHEST
                    || points.size() == MOST) {
                throw new ParamException("must be " + range() + " but has " + Plain.quote(item));
            }
            try {
                points.add(new Point<>(at.longValue(), type.read(both.get(1))));
            } catch (ParamException e) {
                throw e.under("[" + points.size() + "]");
            }
        }
        return List.copyOf(points);
    }

    @Override
    public List<Point<T>> parse(String typed) {
        List<Object> points = new ArrayList<>();
        for (String word : typed.strip().split("\\s*;\\s*")) {
            String[] both = word.split("\\s*=\\s*", 2);
            if (both.length == 2 && both[0].matches("\\d{1,15}")) {
                points.add(List.of(Long.valueOf(both[0]), type.write(type.parse(both[1]))));
            } else if (!word.isEmpty() && !word.equals("none")) {
                throw new ParamException("points are typed like 0 = 20; 61440 = 80 but was " + Plain.quote(typed));
            }
        }
        return read(points);
    }

    @Override
    public Object write(List<Point<T>> value) {
        return value.stream()
                .map(point -> List.of(point.tick, type.write(point.value)))
                .toList();
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("type", "array", "items", Map.of("type", "array", "minItems", 2, "maxItems", 2));
    }

    @Override
    public String show(List<Point<T>> value) {
        List<String> shown = value.stream()
                .map(point -> point.tick + " = " + type.show(point.value))
                .toList();
        return shown.isEmpty() ? "none" : String.join("; ", shown);
    }

    @Override
    public String range() {
        return "a list of points [tick, value], rising in the first, each value " + type.range();
    }
}
