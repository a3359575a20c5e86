package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** A drawn line as points {@code [in, out]}, rising in {@code in}; straight between them. Empty: none drawn. */
public record PointsType(int min, int max) implements ParamType<List<PointsType.Point>> {
    /** One bend of the line. */
    public record Point(int in, int out) {}

    @Override
    public List<Point> read(Object plain) {
        List<Point> points = new java.util.ArrayList<>();
        SpanType pair = SpanType.of(min, max);
        for (Object one : Plain.list(plain, range())) {
            List<?> both = Plain.list(one, range());
            if (both.size() != 2) {
                throw new ParamException("must be " + range() + " but was " + plain);
            }
            Point point = new Point(pair.bound().read(both.get(0)), pair.bound().read(both.get(1)));
            if (!points.isEmpty() && points.get(points.size() - 1).in >= point.in) {
                throw new ParamException("points must rise from left to right but were " + plain);
            }
            points.add(point);
        }
        return List.copyOf(points);
    }

    @Override
    public List<Point> parse(String typed) {
        List<List<Integer>> pairs = new java.util.ArrayList<>();
        for (String word : typed.strip().split("\\s+")) {
            if (word.equals("none") || word.isEmpty()) {
                return List.of();
            }
            String[] both = word.split("→|->|:", 2);
            if (both.length != 2 || !both[0].matches("\\d{1,4}") || !both[1].matches("\\d{1,4}")) {
                throw new ParamException("points are typed like 1→20 64→90 127→127 but was " + Plain.quote(typed));
            }
            pairs.add(List.of(Integer.valueOf(both[0]), Integer.valueOf(both[1])));
        }
        return read(pairs);
    }

    /** The line's height at {@code in}; level before the first point and after the last. */
    public static double at(List<Point> points, double in) {
        Point left = points.get(0);
        for (Point right : points) {
            if (right.in >= in) {
                return right.in == left.in || in <= left.in
                        ? left.in >= in ? left.out : right.out
                        : left.out + (in - left.in) * (right.out - left.out) / (right.in - left.in);
            }
            left = right;
        }
        return left.out;
    }

    @Override
    public Object write(List<Point> value) {
        return value.stream().map(point -> List.of(point.in, point.out)).toList();
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of(
                "type",
                "array",
                "items",
                Map.of("type", "array", "items", IntType.of(min, max, "").schema(), "minItems", 2, "maxItems", 2));
    }

    @Override
    public String show(List<Point> value) {
        return value.isEmpty()
                ? "none"
                : value.stream().map(point -> point.in + "→" + point.out).collect(Collectors.joining(" "));
    }

    @Override
    public String range() {
        return "a list of points [in, out], each " + min + "–" + max + ", rising in the first";
    }
}
