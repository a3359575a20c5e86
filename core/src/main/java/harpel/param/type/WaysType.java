package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.theory.Ways;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.DoubleSupplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Steps with weights: {@code {"0": 88, "1": 6, "2": 6}}, or a list of steps that are equally likely. */
public record WaysType() implements ParamType<Ways> {
    public static final WaysType WAYS = new WaysType();
    /** So many steps a way may lead up or down. */
    public static final int FURTHEST = 24;

    private static final IntType STEP = IntType.of(-FURTHEST, FURTHEST, "");
    private static final IntType WEIGHT = IntType.of(0, Ways.HEAVIEST, "");
    private static final ListType<Integer> EVENLY = new ListType<>(STEP, 2 * FURTHEST + 1);
    private static final Pattern TYPED = Pattern.compile("([+-]?\\d{1,4})(?:\\s*[=:]\\s*(\\d{1,4}))?[,\\s]*");

    @Override
    public Ways read(Object plain) {
        if (plain instanceof String text) {
            return parse(text);
        }
        Map<Integer, Integer> weights = new TreeMap<>();
        if (plain instanceof Map<?, ?> map) {
            map.forEach((step, weight) -> {
                try {
                    weights.put(STEP.parse(String.valueOf(step)), WEIGHT.read(weight));
                } catch (ParamException e) {
                    throw e.under(String.valueOf(step));
                }
            });
        } else {
            EVENLY.read(plain).forEach(step -> weights.put(step, 1));
        }
        return Ways.of(weights);
    }

    /** Typed as {@code -1 +1}, equally likely, or {@code 0=88 +1=6 +2=6}. */
    @Override
    public Ways parse(String typed) {
        String bare = typed.strip().replace('−', '-');
        Map<Integer, Integer> weights = new TreeMap<>();
        if (bare.isEmpty() || bare.equals("none")) {
            return Ways.of(weights);
        }
        Matcher matcher = TYPED.matcher(bare);
        int at = 0;
        while (at < bare.length() && matcher.find(at) && matcher.start() == at) {
            String weight = matcher.group(2);
            weights.put(
                    STEP.read(Integer.valueOf(matcher.group(1))),
                    weight == null ? 1 : WEIGHT.read(Integer.valueOf(weight)));
            at = matcher.end();
        }
        if (at < bare.length()) {
            throw new ParamException("ways are typed like −1 +1 or 0=88 +1=6 but was " + Plain.quote(typed));
        }
        return Ways.of(weights);
    }

    @Override
    public Object write(Ways value) {
        Map<String, Object> plain = new LinkedHashMap<>();
        value.asMap().forEach((step, weight) -> plain.put(String.valueOf(step), weight));
        return plain;
    }

    @Override
    public Map<String, Object> schema() {
        Map<String, Object> weights = Map.of(
                "type",
                "object",
                "propertyNames",
                Map.of("pattern", "^-?\\d{1,2}$"),
                "additionalProperties",
                WEIGHT.schema());
        return Map.of("anyOf", List.of(weights, EVENLY.schema(), Map.of("type", "string")));
    }

    @Override
    public String show(Ways value) {
        if (value.isEmpty()) {
            return "none";
        }
        StringBuilder text = new StringBuilder();
        value.asMap()
                .forEach((step, weight) -> text.append(text.isEmpty() ? "" : " ")
                        .append(shown(step))
                        .append(value.isEven() ? "" : "=" + weight));
        return text.toString();
    }

    /** "+2", "0", "−1". */
    public static String shown(int step) {
        return step == 0 ? "0" : (step > 0 ? "+" : "−") + Math.abs(step);
    }

    @Override
    public String range() {
        return "steps from −24 to 24, each with a weight 0–100 ({\"0\": 88, \"1\": 6}), or a list of equally likely steps";
    }

    @Override
    public boolean canShuffle(Ways value) {
        return value.size() > 1;
    }

    @Override
    public Ways shuffled(Ways value, double most, DoubleSupplier unit) {
        if (!canShuffle(value)) {
            return value;
        }
        TreeMap<Integer, Integer> drawn = value.asMap();
        // A way that is there stays there.
        drawn.replaceAll((step, weight) -> Math.max(1, WEIGHT.shuffled(weight, most, unit)));
        return Ways.of(drawn);
    }
}
