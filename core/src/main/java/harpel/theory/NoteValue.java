package harpel.theory;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A length as a fraction of a whole note: {@code 1/4}, {@code 1/8d} (dotted, times 3/2), {@code 1/8t} (triplet, times 2/3), from
 * 4/1 to 1/64.
 */
public record NoteValue(int numerator, int denominator, Kind kind) implements Comparable<NoteValue> {
    /** Straight, dotted or triplet. */
    public enum Kind {
        STRAIGHT("", 1, 1),
        DOTTED("d", 3, 2),
        TRIPLET("t", 2, 3);

        private final String letter;
        private final int times;
        private final int over;

        Kind(String letter, int times, int over) {
            this.letter = letter;
            this.times = times;
            this.over = over;
        }
    }

    private static final Pattern FORM = Pattern.compile("(\\d{1,3})/(\\d{1,3})([dt]?)");

    public NoteValue {
        boolean power = Integer.bitCount(denominator) == 1 && denominator <= 64;
        if (numerator < 1 || !power || numerator > 4 * denominator) {
            throw new IllegalArgumentException(
                    "a note value lies between 1/64 and 4/1, its lower number a power of two, but was " + numerator
                            + "/" + denominator);
        }
    }

    /**
     * Reads "1/16", "1/8d", "1/4t".
     *
     * @throws IllegalArgumentException when it is not a note value from 1/64 to 4/1
     */
    public static NoteValue parse(String text) {
        Matcher matcher = FORM.matcher(text.strip());
        if (!matcher.matches()) {
            throw new IllegalArgumentException(
                    "a note value is written like 1/16, 1/8d (dotted) or 1/8t (triplet) but was \"" + text + "\"");
        }
        Kind kind = switch (matcher.group(3)) {
            case "d" -> Kind.DOTTED;
            case "t" -> Kind.TRIPLET;
            default -> Kind.STRAIGHT;
        };
        return new NoteValue(Integer.parseInt(matcher.group(1)), Integer.parseInt(matcher.group(2)), kind);
    }

    /** The length in quarters; exact in binary but for triplets. */
    public double quarters() {
        return 4.0 * numerator * kind.times / (denominator * kind.over);
    }

    /** The length in units of 1/{@code perQuarter} of a quarter, rounded half up. */
    public long toTicks(long perQuarter) {
        long top = 4L * numerator * kind.times * perQuarter;
        long bottom = (long) denominator * kind.over;
        return Math.floorDiv(2 * top + bottom, 2 * bottom);
    }

    @Override
    public int compareTo(NoteValue other) {
        return Double.compare(quarters(), other.quarters());
    }

    @Override
    public String toString() {
        return numerator + "/" + denominator + kind.letter;
    }
}
