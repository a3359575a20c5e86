package harpel.param.type;

import harpel.param.ParamType;
import harpel.theory.Spelling;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A value of another type, or the word "off". */
public record OffType<T>(ParamType<T> type) implements ParamType<Optional<T>> {
    private static final String OFF = "off";

    @Override
    public Optional<T> read(Object plain) {
        return OFF.equals(plain) ? Optional.empty() : Optional.of(type.read(plain));
    }

    @Override
    public Optional<T> parse(String typed) {
        return typed.strip().equals(OFF) ? Optional.empty() : Optional.of(type.parse(typed));
    }

    @Override
    public Object write(Optional<T> value) {
        return value.map(type::write).orElse(OFF);
    }

    @Override
    public Map<String, Object> schema() {
        return Map.of("anyOf", List.of(Map.of("const", OFF), type.schema()));
    }

    @Override
    public String show(Optional<T> value) {
        return show(value, Spelling.SHARPS);
    }

    @Override
    public String show(Optional<T> value, Spelling spelling) {
        return value.map(one -> type.show(one, spelling)).orElse(OFF);
    }

    @Override
    public String range() {
        return type.range() + ", or \"" + OFF + "\"";
    }

    /** Off is the very left of the bar. */
    @Override
    public double fraction(Optional<T> value) {
        return value.map(one -> 0.05 + 0.95 * type.fraction(one)).orElse(0.0);
    }

    @Override
    public Optional<T> atFraction(double fraction) {
        return fraction < 0.05 ? Optional.empty() : Optional.of(type.atFraction((fraction - 0.05) / 0.95));
    }

    @Override
    public Optional<T> moved(Optional<T> value, double offset) {
        return value.isEmpty() ? atFraction(offset) : value.map(one -> type.moved(one, offset));
    }

    @Override
    public Optional<T> between(Optional<T> from, Optional<T> to, double way, double offset) {
        return from.isPresent() && to.isPresent()
                ? Optional.of(type.between(from.get(), to.get(), way, offset))
                : moved(ParamType.super.between(from, to, way, 0), offset);
    }

    @Override
    public boolean flows() {
        return type.flows();
    }

    @Override
    public Optional<T> step(Optional<T> value, int direction, boolean fine) {
        if (value.isEmpty()) {
            return direction > 0 ? Optional.of(type.atFraction(0)) : value;
        }
        T stepped = type.step(value.get(), direction, fine);
        return stepped.equals(value.get()) && direction < 0 ? Optional.empty() : Optional.of(stepped);
    }
}
