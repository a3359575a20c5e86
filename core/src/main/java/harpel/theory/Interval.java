package harpel.theory;

import java.util.List;

/** A distance between pitches, counted in semitones or in degrees of the key. */
public record Interval(int amount, Unit unit) {
    public static final Interval NONE = ofSemitones(0);

    private static final List<String> NAMES = List.of(
            "unison",
            "minor second",
            "major second",
            "minor third",
            "major third",
            "fourth",
            "tritone",
            "fifth",
            "minor sixth",
            "major sixth",
            "minor seventh",
            "major seventh",
            "octave");

    /** What an interval counts. */
    public enum Unit {
        SEMITONES,
        DEGREES
    }

    public static Interval ofSemitones(int amount) {
        return new Interval(amount, Unit.SEMITONES);
    }

    public static Interval ofDegrees(int amount) {
        return new Interval(amount, Unit.DEGREES);
    }

    /** The pitch that lies this interval, taken {@code times} times, from {@code pitch}; it may lie outside 0–127. */
    public int from(int pitch, int times, Key key) {
        return unit == Unit.SEMITONES ? pitch + amount * times : key.shift(pitch, amount * times);
    }

    /** "+7 st (fifth)", st for semitones, or "−2 degrees". */
    public String shown() {
        String sign = amount > 0 ? "+" : amount < 0 ? "−" : "";
        int size = Math.abs(amount);
        if (unit == Unit.DEGREES) {
            return sign + size + (size == 1 ? " degree" : " degrees");
        }
        String name = size <= 12 ? " (" + NAMES.get(size) + ")" : "";
        return sign + size + " st" + name;
    }
}
