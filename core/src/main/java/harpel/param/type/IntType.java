package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.theory.OctaveNaming;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A whole number in a range, with a unit; where {@code word} is not empty that word stands for {@code min - 1}, as "all" for no
 * channel in particular.
 */
public record IntType(int min, int max, String unit, String word, boolean pitch) implements ParamType<Integer> {
    public static IntType of(int min, int max, String unit) {
        return new IntType(min, max, unit, "", false);
    }

    public static IntType percent(int min, int max) {
        return of(min, max, "%");
    }

    /** A MIDI note, given as a number or a name. */
    public static IntType ofPitch() {
        return new IntType(Pitch.LOWEST, Pitch.HIGHEST, "", "", true);
    }

    /** The same range, and a word for {@code min - 1}. */
    public IntType orWord(String offWord) {
        return new IntType(min, max, unit, offWord, pitch);
    }

    /** The value that the word stands for. */
    public int wordValue() {
        return min - 1;
    }

    @Override
    public Integer read(Object plain) {
        if (!word.isEmpty() && word.equals(plain)) {
            return wordValue();
        }
        if (pitch && plain instanceof String name) {
            return name.matches("\\d+") ? inRange(Integer.parseInt(name), name) : Pitch.parse(name);
        }
        if (plain instanceof Number number && number.doubleValue() == Math.rint(number.doubleValue())) {
            return inRange(number.doubleValue(), plain);
        }
        throw refused(plain);
    }

    private int inRange(double value, Object plain) {
        if (value < min || value > max) {
            throw refused(plain);
        }
        return (int) value;
    }

    private ParamException refused(Object plain) {
        return new ParamException("must be " + range() + " but was " + Plain.quote(plain));
    }

    @Override
    public Integer parse(String typed) {
        String bare = typed.strip();
        if (pitch && !bare.matches("\\d+") && !bare.equals(word)) {
            return Pitch.parse(bare, OctaveNaming.shown());
        }
        if (!unit.isEmpty()) {
            bare = bare.replaceFirst("\\s*" + unit.replaceFirst("s$", "s?") + "$", "");
        }
        return bare.matches("[+−-]?\\d{1,9}") ? read(Integer.valueOf(bare.replace('−', '-'))) : read(bare);
    }

    @Override
    public Object write(Integer value) {
        return isWord(value) ? word : value;
    }

    private boolean isWord(int value) {
        return !word.isEmpty() && value == wordValue();
    }

    @Override
    public Map<String, Object> schema() {
        Map<String, Object> number = new LinkedHashMap<>(Map.of("type", "integer"));
        number.put("minimum", min);
        number.put("maximum", max);
        if (pitch) {
            return Map.of(
                    "anyOf",
                    word.isEmpty()
                            ? List.of(number, Plain.PITCH_NAME_SCHEMA)
                            : List.of(number, Plain.PITCH_NAME_SCHEMA, Map.of("const", word)));
        }
        return word.isEmpty() ? number : Map.of("anyOf", List.of(number, Map.of("const", word)));
    }

    @Override
    public String show(Integer value) {
        return show(value, Spelling.SHARPS);
    }

    @Override
    public String show(Integer value, Spelling spelling) {
        if (isWord(value)) {
            return word;
        }
        String number =
                pitch ? Pitch.shown(value, spelling) : String.valueOf(value).replace('-', '−');
        String one = Math.abs(value) == 1 && unit.endsWith("s") ? unit.substring(0, unit.length() - 1) : unit;
        return unit.isEmpty() ? number : number + " " + one;
    }

    @Override
    public String range() {
        String numbers = (min + "–" + max).replace('-', '−') + (unit.isEmpty() ? "" : " " + unit);
        String values = pitch ? "a note 0–127 or a name such as C4" : numbers;
        return word.isEmpty() ? values : values + " or \"" + word + "\"";
    }

    private int lowest() {
        return word.isEmpty() ? min : wordValue();
    }

    @Override
    public double fraction(Integer value) {
        return (value - lowest()) / (double) (max - lowest());
    }

    @Override
    public Integer atFraction(double fraction) {
        return (int) Math.round(lowest() + Math.max(0, Math.min(1, fraction)) * (max - lowest()));
    }

    @Override
    public Integer step(Integer value, int direction, boolean fine) {
        int size = fine || max - min <= 32 ? 1 : unit.equals("%") ? 5 : 1;
        return Math.max(lowest(), Math.min(max, value + direction * size));
    }
}
