package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import java.util.List;
import java.util.Map;

/** One of a few words that are not known before the program runs. */
public record WordType(List<String> words) implements ParamType<String> {
    public WordType {
        words = List.copyOf(words);
        if (words.isEmpty()) {
            throw new IllegalArgumentException("there must be at least one word to choose");
        }
    }

    @Override
    public boolean flows() {
        return false;
    }

    @Override
    public String read(Object plain) {
        if (plain instanceof String text && words.contains(text)) {
            return text;
        }
        throw new ParamException("must be one of " + range() + " but was " + Plain.quote(plain));
    }

    @Override
    public Object write(String value) {
        return value;
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("enum", words);
    }

    @Override
    public String show(String value) {
        return value;
    }

    @Override
    public String range() {
        return String.join(", ", words);
    }

    @Override
    public double fraction(String value) {
        return words.size() < 2 ? 0 : words.indexOf(value) / (double) (words.size() - 1);
    }

    @Override
    public String atFraction(double fraction) {
        return words.get((int) Math.round(Math.max(0, Math.min(1, fraction)) * (words.size() - 1)));
    }

    @Override
    public String step(String value, int direction, boolean fine) {
        return words.get(Math.max(0, Math.min(words.size() - 1, words.indexOf(value) + direction)));
    }
}
