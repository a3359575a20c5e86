package harpel.param.music;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** A table from note name to note name or "drop": {@code {"C#": "D", "F": "drop"}}. Held by pitch class, C being 0. */
public record PitchTableType() implements ParamType<Map<Integer, Integer>> {
    public static final PitchTableType TABLE = new PitchTableType();
    /** What a name is mapped to that is dropped. */
    public static final int DROP = -1;

    private static final String WORD = "drop";

    @Override
    public Map<Integer, Integer> read(Object plain) {
        if (!(plain instanceof Map<?, ?> map)) {
            throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
        }
        Map<Integer, Integer> table = new TreeMap<>();
        map.forEach((from, to) -> table.put(
                Pitch.parseClass(String.valueOf(from)), WORD.equals(to) ? DROP : Pitch.parseClass(String.valueOf(to))));
        return Map.copyOf(table);
    }

    @Override
    public Map<Integer, Integer> parse(String typed) {
        Map<String, String> pairs = new LinkedHashMap<>();
        for (String word : typed.strip().split("[\\s,]+")) {
            String[] both = word.split("→|->|=", 2);
            if (both.length == 2) {
                pairs.put(both[0], both[1]);
            } else if (!word.isEmpty() && !word.equals("none")) {
                throw new ParamException("a table is typed like C#→D F→drop but was " + Plain.quote(typed));
            }
        }
        return read(pairs);
    }

    @Override
    public Object write(Map<Integer, Integer> value) {
        Map<String, Object> plain = new LinkedHashMap<>();
        new TreeMap<>(value).forEach((from, to) -> plain.put(ascii(from), to == DROP ? WORD : ascii(to)));
        return plain;
    }

    private static String ascii(int pitchClass) {
        return Pitch.plain(Pitch.className(pitchClass));
    }

    @Override
    public Map<String, Object> schema() {
        String name = "[A-Ga-g][#♯b♭]{0,2}";
        return Map.of(
                "type",
                "object",
                "propertyNames",
                Map.of("pattern", "^" + name + "$"),
                "additionalProperties",
                Map.of("type", "string", "pattern", "^(" + name + "|drop)$"));
    }

    @Override
    public String show(Map<Integer, Integer> value) {
        return show(value, Spelling.SHARPS);
    }

    @Override
    public String show(Map<Integer, Integer> value, Spelling spelling) {
        return value.isEmpty()
                ? "none"
                : new TreeMap<>(value)
                        .entrySet().stream()
                                .map(e -> spelling.of(e.getKey()) + "→"
                                        + (e.getValue() == DROP ? WORD : spelling.of(e.getValue())))
                                .collect(Collectors.joining(" "));
    }

    @Override
    public String range() {
        return "a table from note name to note name or \"drop\"";
    }
}
