package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** A drawn curve: points [beats, height in %], rising in the first. */
public record CurveType() implements ParamType<List<CurveType.Point>> {
    public static final CurveType CURVE = new CurveType();
    private static final int MOST = 256;

    /** A point of the curve. */
    public record Point(double at, double height) {}

    /** The height at a place; level before the first point and after the last. */
    public static double at(List<Point> points, double place) {
        if (points.isEmpty()) {
            return 0;
        }
        Point left = points.get(0);
        for (Point right : points) {
            if (right.at > place) {
                return right == left
                        ? left.height
                        : left.height + (place - left.at) * (right.height - left.height) / (right.at - left.at);
            }
            left = right;
        }
        return left.height;
    }

    @Override
    public List<Point> read(Object plain) {
        List<Point> points = new ArrayList<>();
        for (Object item : Plain.list(plain, range())) {
            List<?> both = Plain.list(item, range());
            double last = points.isEmpty() ? 0 : points.get(points.size() - 1).at;
            if (both.size() != 2
                    || !(both.get(0) instanceof Number at)
                    || !(both.get(1) instanceof Number height)
                    || !(at.doubleValue() >= last && at.doubleValue() <= 1e6)
                    || !(height.doubleValue() >= 0 && height.doubleValue() <= 100)
                    || points.size() == MOST) {
                throw new ParamException("must be " + range() + " but has " + Plain.quote(item));
            }
            points.add(new Point(at.doubleValue(), height.doubleValue()));
        }
        return List.copyOf(points);
    }

    /** Typed as {@code 0:0 2:100 4:0}. */
    @Override
    public List<Point> parse(String typed) {
        List<Object> points = new ArrayList<>();
        for (String word : typed.strip().split("[\\s,]+")) {
            if (word.matches("\\d+(\\.\\d+)?:\\d+(\\.\\d+)?")) {
                String[] both = word.split(":");
                points.add(List.of(Double.valueOf(both[0]), Double.valueOf(both[1])));
            } else if (!word.isEmpty() && !word.equals("none")) {
                throw new ParamException("points are typed like 0:0 2:100 4:0 but was " + Plain.quote(typed));
            }
        }
        return read(points);
    }

    @Override
    public Object write(List<Point> value) {
        return value.stream()
                .map(point -> List.of(Plain.whole(point.at), Plain.whole(point.height)))
                .toList();
    }

    @Override
    public Map<String, Object> schema() {
        Map<String, Object> number = Map.of("type", "number", "minimum", 0);
        return Map.of(
                "type",
                "array",
                "maxItems",
                MOST,
                "items",
                Map.of("type", "array", "items", number, "minItems", 2, "maxItems", 2));
    }

    @Override
    public String show(List<Point> value) {
        return value.isEmpty()
                ? "none"
                : value.stream()
                        .map(point -> Plain.number(point.at) + ":" + Plain.number(point.height))
                        .collect(Collectors.joining(" "));
    }

    @Override
    public String range() {
        return "a list of up to " + MOST + " points [beats, height 0–100], rising in the first";
    }
}
