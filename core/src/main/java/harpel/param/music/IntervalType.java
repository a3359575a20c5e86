package harpel.param.music;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.theory.Interval;
import harpel.theory.Interval.Unit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A distance in semitones (a plain number, or {@code {"semitones": 7}}) or in degrees of the key ({@code {"degrees": 2}}). */
public record IntervalType(int min, int max) implements ParamType<Interval> {
    private static final Pattern TYPED =
            Pattern.compile("([+-]?\\d{1,4})\\s*(semitones?|st|degrees?|°)?(?:\\s*\\(.*\\))?");

    @Override
    public Interval read(Object plain) {
        if (plain instanceof Map<?, ?> map && map.size() == 1) {
            Map.Entry<?, ?> only = map.entrySet().iterator().next();
            if ("semitones".equals(only.getKey())) {
                return Interval.ofSemitones(amount(only.getValue()));
            }
            if ("degrees".equals(only.getKey())) {
                return Interval.ofDegrees(amount(only.getValue()));
            }
        }
        if (plain instanceof String text) {
            return parse(text);
        }
        return Interval.ofSemitones(amount(plain));
    }

    private int amount(Object plain) {
        if (plain instanceof Number number
                && number.doubleValue() == Math.rint(number.doubleValue())
                && number.doubleValue() >= min
                && number.doubleValue() <= max) {
            return number.intValue();
        }
        throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
    }

    @Override
    public Interval parse(String typed) {
        Matcher matcher = TYPED.matcher(typed.strip().replace('−', '-'));
        if (!matcher.matches()) {
            throw new ParamException("must be " + range() + " but was " + Plain.quote(typed));
        }
        boolean degrees = matcher.group(2) != null && matcher.group(2).matches("degrees?|°");
        return new Interval(amount(Integer.valueOf(matcher.group(1))), degrees ? Unit.DEGREES : Unit.SEMITONES);
    }

    @Override
    public Object write(Interval value) {
        return value.unit() == Unit.SEMITONES ? value.amount() : Map.of("degrees", value.amount());
    }

    @Override
    public Map<String, Object> schema() {
        Map<String, Object> number = new LinkedHashMap<>(Map.of("type", "integer"));
        number.put("minimum", min);
        number.put("maximum", max);
        Map<String, Object> semitones = new LinkedHashMap<>(number);
        semitones.put("description", "So many semitones.");
        Map<String, Object> degrees = new LinkedHashMap<>(number);
        degrees.put("description", "So many degrees of the key.");
        return Map.of(
                "anyOf",
                List.of(number, single("semitones", semitones), single("degrees", degrees), Map.of("type", "string")));
    }

    private static Map<String, Object> single(String name, Map<String, Object> number) {
        return Map.of(
                "type",
                "object",
                "properties",
                Map.of(name, number),
                "required",
                List.of(name),
                "additionalProperties",
                false);
    }

    @Override
    public String show(Interval value) {
        return value.shown();
    }

    @Override
    public String range() {
        String numbers = (min + "–" + max).replace('-', '−');
        return numbers + " semitones (a number), or degrees of the key ({\"degrees\": 2})";
    }

    @Override
    public double fraction(Interval value) {
        return (value.amount() - min) / (double) (max - min);
    }

    @Override
    public Interval atFraction(double fraction) {
        return Interval.ofSemitones((int) Math.round(min + Math.max(0, Math.min(1, fraction)) * (max - min)));
    }

    @Override
    public Interval moved(Interval value, double offset) {
        return new Interval(atFraction(fraction(value) + offset).amount(), value.unit());
    }

    @Override
    public Interval between(Interval from, Interval to, double way, double offset) {
        return new Interval(
                atFraction(fraction(from) + (fraction(to) - fraction(from)) * way + offset)
                        .amount(),
                from.unit());
    }

    @Override
    public Interval step(Interval value, int direction, boolean fine) {
        return new Interval(Math.max(min, Math.min(max, value.amount() + direction)), value.unit());
    }
}
