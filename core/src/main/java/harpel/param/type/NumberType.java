package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import java.util.LinkedHashMap;
import java.util.Map;

/** A number with a fraction, in a range, with a unit; {@code step} is what one key press adds, a tenth of it the fine step. */
public record NumberType(double min, double max, double step, String unit) implements ParamType<Double> {
    @Override
    public Double read(Object plain) {
        if (plain instanceof Number number && number.doubleValue() >= min && number.doubleValue() <= max) {
            return number.doubleValue();
        }
        throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
    }

    @Override
    public Double parse(String typed) {
        String bare = typed.replace(unit, "").replace('−', '-').strip();
        try {
            return read(Double.valueOf(bare));
        } catch (NumberFormatException e) {
            return read(typed);
        }
    }

    @Override
    public Object write(Double value) {
        if (value == Math.rint(value)) {
            return value.intValue();
        }
        return value;
    }

    @Override
    public Map<String, Object> schema() {
        Map<String, Object> schema = new LinkedHashMap<>(Map.of("type", "number"));
        schema.put("minimum", min);
        schema.put("maximum", max);
        return schema;
    }

    @Override
    public String show(Double value) {
        return Plain.number(value) + (unit.isEmpty() ? "" : " " + unit);
    }

    @Override
    public String range() {
        return Plain.number(min) + "–" + Plain.number(max) + (unit.isEmpty() ? "" : " " + unit);
    }

    @Override
    public double fraction(Double value) {
        return (value - min) / (max - min);
    }

    @Override
    public Double atFraction(double fraction) {
        return rounded(min + Math.max(0, Math.min(1, fraction)) * (max - min));
    }

    @Override
    public Double step(Double value, int direction, boolean fine) {
        return Math.max(min, Math.min(max, rounded(value + direction * (fine ? step / 10 : step))));
    }

    private static double rounded(double value) {
        return Math.round(value * 100) / 100.0;
    }
}
