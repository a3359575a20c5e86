package harpel.print;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The numbers of variations as people write several of them: "1-12", "3, 7, 9", "41". */
public final class VariationNumbers {
    /** The largest number of a variation. */
    public static final int MOST = 999_999;

    private static final Pattern SPAN = Pattern.compile("(\\d{1,6})(?:\\s*[-–]\\s*(\\d{1,6}))?");

    private VariationNumbers() {}

    /**
     * Reads them, in the order in which they are written.
     *
     * @param most how many there may be
     * @throws IllegalArgumentException with what was expected
     */
    public static List<Long> parse(String text, int most) {
        List<Long> numbers = new ArrayList<>();
        for (String span : text.split(",", -1)) {
            Matcher matcher = SPAN.matcher(span.strip());
            if (!matcher.matches()) {
                throw new IllegalArgumentException(
                        "variations are numbers 0–" + MOST + " like 41, 1-12 or 3,7,9 but were \"" + text + "\"");
            }
            long first = Long.parseLong(matcher.group(1));
            long last = matcher.group(2) == null ? first : Long.parseLong(matcher.group(2));
            if (last < first || numbers.size() + last - first >= most) {
                throw new IllegalArgumentException(
                        "variations rise, and are at most " + most + " at once, but were \"" + text + "\"");
            }
            for (long number = first; number <= last; number++) {
                numbers.add(number);
            }
        }
        return numbers;
    }
}
