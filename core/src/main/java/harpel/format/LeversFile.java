package harpel.format;

import harpel.param.ParamException;
import harpel.piece.perform.Lever;
import harpel.time.Ticks;
import java.util.List;
import java.util.Map;

/** Levers as {@link PieceFile} has them. */
final class LeversFile {
    private LeversFile() {}

    static Lever readLever(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        String name = fields.text("name", "");
        double value = fields.take("value", 0.0, PlainMap::number);
        List<Integer> controllers = fields.list("controllers", (one, place) -> (int) PlainMap.whole(one, 0, 127));
        List<Lever.Point> points = fields.list("points", (one, place) -> {
            List<?> pair = PlainMap.list(one);
            if (pair.size() != 2) {
                throw new ParamException("a lever's point is [at, 0–100] but was " + one);
            }
            return new Lever.Point(PlainMap.whole(pair.get(0), 0, Ticks.FARTHEST), PlainMap.number(pair.get(1)));
        });
        boolean returns = fields.flag("returns", false);
        int steps = fields.has("steps") ? (int) fields.whole("steps", 2, 2, Lever.MOST_STEPS) : 0;
        int curve = (int) fields.whole("curve", 0, -100, 100);
        Map<String, Object> unknown = fields.end("name, value, controllers, points, returns, steps, curve");
        return new Lever(name, value, controllers, points, returns, steps, curve, unknown);
    }

    static Map<String, Object> writeLever(Lever lever) {
        Map<String, Object> plain = PlainMap.of("name", lever.name());
        plain.put("value", lever.value());
        if (!lever.controllers().isEmpty()) {
            plain.put("controllers", lever.controllers());
        }
        if (lever.returns()) {
            plain.put("returns", true);
        }
        if (lever.steps() > 0) {
            plain.put("steps", lever.steps());
        }
        if (lever.curve() != 0) {
            plain.put("curve", lever.curve());
        }
        if (!lever.points().isEmpty()) {
            plain.put(
                    "points",
                    lever.points().stream()
                            .map(point -> List.of(point.tick(), point.value()))
                            .toList());
        }
        PlainMap.merge(plain, lever.unknown());
        return plain;
    }
}
