package harpel.param.music;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.theory.Chord;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * A table from key to chord: {@code {"C3": "Cm7", "D3": [50, 57, 60, 65], "E3": {"relative": [0, 4, 7]}}}. Held by pitch.
 */
public record ChordTableType() implements ParamType<Map<Integer, ChordTableType.KeyChord>> {
    public static final ChordTableType CHORDS = new ChordTableType();
    private static final String RELATIVE = "relative";
    private static final ListType<Integer> FIXED_LIST = new ListType<>(IntType.ofPitch(), 16);
    private static final ListType<Integer> RELATIVE_LIST = new ListType<>(IntType.of(-48, 48, "semitones"), 16);

    /**
     * The chord of one key: exactly one of a symbol, fixed pitches, or distances from the key.
     *
     * @param symbol null where the chord is given by its notes
     * @param notes pitches, or semitones from the key when {@code relative}
     */
    public record KeyChord(Chord symbol, List<Integer> notes, boolean relative) {}

    @Override
    public Map<Integer, KeyChord> read(Object plain) {
        if (!(plain instanceof Map<?, ?> map)) {
            throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
        }
        Map<Integer, KeyChord> table = new TreeMap<>();
        map.forEach((key, chord) -> {
            String name = String.valueOf(key);
            try {
                table.put(IntType.ofPitch().read(name), readChord(chord));
            } catch (ParamException e) {
                throw e.under(name);
            } catch (IllegalArgumentException e) {
                throw new ParamException(name, e.getMessage());
            }
        });
        return Map.copyOf(table);
    }

    private static KeyChord readChord(Object plain) {
        if (plain instanceof String symbol) {
            return new KeyChord(Chord.parse(symbol), List.of(), false);
        }
        if (plain instanceof Map<?, ?> map && map.size() == 1 && map.containsKey(RELATIVE)) {
            return new KeyChord(null, RELATIVE_LIST.read(map.get(RELATIVE)), true);
        }
        return new KeyChord(null, FIXED_LIST.read(plain), false);
    }

    /** Typed as {@code C3=Cm7 D3=50,57,60,65 E3=+0,+4,+7}. */
    @Override
    public Map<Integer, KeyChord> parse(String typed) {
        Map<String, Object> plain = new LinkedHashMap<>();
        for (String word : typed.strip().split("\\s+")) {
            String[] both = word.split("=", 2);
            if (both.length == 2) {
                plain.put(Pitch.name(IntType.ofPitch().parse(both[0])), parseChord(both[1]));
            } else if (!word.isEmpty() && !word.equals("none")) {
                throw new ParamException(
                        "a table is typed like C3=Cm7 D3=50,57,60,65 E3=+0,+4,+7 but was " + Plain.quote(typed));
            }
        }
        return read(plain);
    }

    private static Object parseChord(String text) {
        if (!text.matches("[+\\d].*")) {
            return text;
        }
        boolean relative = text.startsWith("+");
        List<Integer> numbers = (relative ? RELATIVE_LIST : FIXED_LIST)
                .parse(text.replace("+", "").replace('−', '-'));
        return relative ? Map.of(RELATIVE, numbers) : numbers;
    }

    @Override
    public Object write(Map<Integer, KeyChord> value) {
        Map<String, Object> plain = new LinkedHashMap<>();
        new TreeMap<>(value).forEach((key, chord) -> plain.put(Pitch.plain(Pitch.name(key)), writeChord(chord)));
        return plain;
    }

    private static Object writeChord(KeyChord chord) {
        if (chord.symbol() != null) {
            return Pitch.plain(chord.symbol().symbol());
        }
        return chord.relative() ? Map.of(RELATIVE, chord.notes()) : chord.notes();
    }

    @Override
    public Map<String, Object> schema() {
        Map<String, Object> distances = new LinkedHashMap<>(RELATIVE_LIST.schema());
        distances.put("description", "Semitones from the key.");
        Map<String, Object> relative =
                Map.of("type", "object", "properties", Map.of(RELATIVE, distances), "required", List.of(RELATIVE));
        return Map.of(
                "type",
                "object",
                "propertyNames",
                Plain.PITCH_NAME_SCHEMA,
                "additionalProperties",
                Map.of("anyOf", List.of(Map.of("type", "string"), FIXED_LIST.schema(), relative)));
    }

    @Override
    public String show(Map<Integer, KeyChord> value) {
        return show(value, Spelling.SHARPS);
    }

    @Override
    public String show(Map<Integer, KeyChord> value, Spelling spelling) {
        return value.isEmpty()
                ? "none"
                : new TreeMap<>(value)
                        .entrySet().stream()
                                .map(entry -> Pitch.shown(entry.getKey(), spelling) + "="
                                        + showChord(entry.getValue(), spelling))
                                .collect(Collectors.joining(" "));
    }

    private static String showChord(KeyChord chord, Spelling spelling) {
        if (chord.symbol() != null) {
            return chord.symbol().shown(spelling);
        }
        return chord.notes().stream()
                .map(note -> chord.relative() ? "+" + note : String.valueOf(note))
                .collect(Collectors.joining(","));
    }

    @Override
    public String range() {
        return "a table from key (a note name or number) to a chord symbol such as \"Cm7\", a list of pitches, or"
                + " {\"relative\": [semitones from the key]}";
    }
}
