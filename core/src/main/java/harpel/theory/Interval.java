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

    private static final List<String> NUMBERS = List.of(
            "no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve");

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

    /** How one pitch lies to another, in words: "up two degrees" in the key, else "up a major third"; empty for the same pitch. */
    public static String told(int from, int to, Key key) {
        int size = Math.abs(to - from);
        if (size == 0) {
            return "";
        }
        String way = to > from ? "up " : "down ";
        if (size % 12 == 0) {
            return way + (size == 12 ? "an octave" : number(size / 12) + " octaves");
        }
        if (key.contains(from) && key.contains(to)) {
            int degrees = 1;
            while (key.shift(Math.min(from, to), degrees) < Math.max(from, to)) {
                degrees++;
            }
            return way + (degrees == 1 ? "a degree" : number(degrees) + " degrees");
        }
        return way + (size <= 12 ? "a " + NAMES.get(size) : size + " semitones");
    }

    private static String number(int value) {
        return value < NUMBERS.size() ? NUMBERS.get(value) : String.valueOf(value);
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
