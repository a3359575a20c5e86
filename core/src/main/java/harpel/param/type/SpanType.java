package harpel.param.type;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.List;
import java.util.Map;

/** A lowest and a highest value, both included: {@code [60, 100]}, or {@code ["C2", "B3"]} where it spans pitches. */
public record SpanType(IntType bound) implements ParamType<SpanType.Span> {
    /** From {@code low} to {@code high}, both included. */
    public record Span(int low, int high) {
        public boolean contains(int value) {
            return value >= low && value <= high;
        }
    }

    public static SpanType of(int min, int max) {
        return new SpanType(IntType.of(min, max, ""));
    }

    public static SpanType ofPitches() {
        return new SpanType(IntType.ofPitch());
    }

    @Override
    public Span read(Object plain) {
        List<?> pair = Plain.list(plain, range());
        if (pair.size() != 2) {
            throw new ParamException("must be " + range() + " but was " + plain);
        }
        Span span = new Span(bound.read(pair.get(0)), bound.read(pair.get(1)));
        if (span.low > span.high) {
            throw new ParamException("the lower end comes first: " + range() + ", but was " + plain);
        }
        return span;
    }

    @Override
    public Span parse(String typed) {
        String[] ends = typed.strip().split("\\s*(–|\\.\\.|\\bto\\b|,)\\s*|(?<=\\d)\\s*-\\s*", 2);
        return read(List.of(bound.parse(ends[0]), bound.parse(ends[ends.length - 1])));
    }

    @Override
    public Object write(Span value) {
        return bound.pitch() ? List.of(asciiName(value.low), asciiName(value.high)) : List.of(value.low, value.high);
    }

    private static String asciiName(int pitch) {
        return Pitch.plain(Pitch.name(pitch));
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("type", "array", "items", bound.schema(), "minItems", 2, "maxItems", 2);
    }

    @Override
    public String show(Span value) {
        return show(value, Spelling.SHARPS);
    }

    @Override
    public String show(Span value, Spelling spelling) {
        return bound.show(value.low, spelling) + "–" + bound.show(value.high, spelling);
    }

    @Override
    public String range() {
        return "a pair [lowest, highest], each " + bound.range();
    }
}
