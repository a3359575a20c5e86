package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.List;
import java.util.Map;

/**
 * One of a few words, or a note name without octave.
 *
 * @param words the words besides note names
 */
public record WordsType(List<String> words) implements ParamType<String> {
    private static final List<String> NAMES = List.of("C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B");

    @Override
    public String read(Object plain) {
        if (plain instanceof String text) {
            if (words.contains(text)) {
                return text;
            }
            try {
                return NAMES.get(Pitch.parseClass(text));
            } catch (IllegalArgumentException e) {
                throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
            }
        }
        throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
    }

    public List<String> values() {
        return java.util.stream.Stream.concat(words.stream(), NAMES.stream()).toList();
    }

    @Override
    public Object write(String value) {
        return value;
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of(
                "anyOf", List.of(Map.of("enum", words), Map.of("type", "string", "pattern", "^[A-Ga-g][#♯b♭]{0,2}$")));
    }

    @Override
    public String show(String value) {
        return words.contains(value) ? value : value.replace('#', '♯');
    }

    @Override
    public String show(String value, Spelling spelling) {
        return words.contains(value) ? value : spelling.of(Pitch.parseClass(value));
    }

    @Override
    public String range() {
        return (words.isEmpty() ? "" : "\"" + String.join("\", \"", words) + "\" or ")
                + "a note name such as C, F# or Bb";
    }

    @Override
    public double fraction(String value) {
        return values().indexOf(value) / (double) (values().size() - 1);
    }

    @Override
    public String atFraction(double fraction) {
        return values().get((int) Math.round(Math.max(0, Math.min(1, fraction)) * (values().size() - 1)));
    }

    @Override
    public String step(String value, int direction, boolean fine) {
        return values().get(Math.max(0, Math.min(values().size() - 1, values().indexOf(value) + direction)));
    }
}
