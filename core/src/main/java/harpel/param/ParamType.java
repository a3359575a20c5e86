package harpel.param;

import harpel.theory.Spelling;
import java.util.Map;
import java.util.function.DoubleSupplier;

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

    /** The same with notes as a key writes them; without it black keys are sharps. */
    default String show(T value, Spelling spelling) {
        return show(value);
    }

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
        return between(from, to, way, 0);
    }

    /** The same, so much of the range away, rounded once. */
    default T between(T from, T to, double way, double offset) {
        return atFraction(fraction(from) + (fraction(to) - fraction(from)) * way + offset);
    }

    /** Whether there is anything between two values; where not, one holds until the other comes. */
    default boolean flows() {
        return true;
    }

    /** Whether {@link #shuffled} can change a value. */
    default boolean canShuffle(T value) {
        return !Double.isNaN(fraction(value));
    }

    /**
     * A value drawn near this one: at most so much of the range away, 1 being anywhere; a list's values one by one.
     *
     * @param most 0–1
     */
    default T shuffled(T value, double most, DoubleSupplier unit) {
        double place = most >= 1 ? unit.getAsDouble() : fraction(value) + (2 * unit.getAsDouble() - 1) * most;
        return canShuffle(value) ? atFraction(Math.max(0, Math.min(1, place))) : value;
    }

    /** The next value up (1) or down (-1), finely where the type has finer steps. */
    default T step(T value, int direction, boolean fine) {
        return value;
    }
}
