package harpel.param;

import java.util.Map;

/**
 * What kind of value a parameter holds: how it is read, written, checked, shown and stepped.
 *
 * @param <T> the value's class, immutable
 */
public interface ParamType<T> {
    /**
     * Makes a value from its plain form.
     *
     * @throws ParamException naming value, range and way out
     */
    T read(Object plain);

    /** The plain form that {@link #read} turns back into an equal value. */
    Object write(T value);

    /** The plain form's JSON Schema. */
    Map<String, Object> schema();

    /** As on the screen, with unit. */
    String show(T value);

    /** In words: range and unit, for the reference page. */
    String range();

    /** Reads what a person typed; the plain form's text unless the type takes more. */
    default T parse(String typed) {
        return read(typed.strip());
    }

    /** Where the value lies from 0 to 1, for the bar under a control; NaN where there is no such place. */
    default double fraction(T value) {
        return Double.NaN;
    }

    /** The value at a place from 0 to 1 on the bar. */
    default T atFraction(double fraction) {
        throw new UnsupportedOperationException("no bar");
    }

    /** The value that lies so much of the range away, from −1 to 1, in the same unit and kept in range. */
    default T moved(T value, double offset) {
        return offset == 0 ? value : atFraction(fraction(value) + offset);
    }

    /** The value so much of the way, 0–1, from one to another. */
    default T between(T from, T to, double way) {
        return atFraction(fraction(from) + (fraction(to) - fraction(from)) * way);
    }

    /** The next value up (1) or down (-1), finely where the type has finer steps. */
    default T step(T value, int direction, boolean fine) {
        return value;
    }
}
