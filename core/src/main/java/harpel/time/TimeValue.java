package harpel.time;

import harpel.theory.NoteValue;
import java.math.BigDecimal;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A length of time as a person gives it: a note value, milliseconds, or beats of the meter. */
public sealed interface TimeValue {
    Pattern AMOUNT = Pattern.compile("(\\d+(?:\\.\\d+)?)\\s*(ms|beats?|bars?|ticks?)");

    /** A note value such as 1/8d. */
    record Note(NoteValue value) implements TimeValue {
        @Override
        public double ticksAt(long tick, TimeMap time) {
            return value.quarters() * Ticks.PER_QUARTER;
        }

        @Override
        public String toString() {
            return value.toString();
        }
    }

    /** Milliseconds, free of the tempo. */
    record Millis(double amount) implements TimeValue {
        @Override
        public double ticksAt(long tick, TimeMap time) {
            return time.tempo().ticksAt(time.tempo().nanosAt(tick) + amount * 1e6) - tick;
        }

        @Override
        public String toString() {
            return plain(amount) + " ms";
        }
    }

    /** Beats of the meter that holds: 0.75 beat is a dotted eighth in 4/4. */
    record Beats(double amount) implements TimeValue {
        @Override
        public double ticksAt(long tick, TimeMap time) {
            return amount * time.meter().at(tick).beatTicks();
        }

        @Override
        public String toString() {
            return plain(amount) + (amount <= 1 ? " beat" : " beats");
        }
    }

    /** Bars of the meter that holds. */
    record Bars(double amount) implements TimeValue {
        @Override
        public double ticksAt(long tick, TimeMap time) {
            return amount * time.meter().at(tick).barTicks();
        }

        @Override
        public String toString() {
            return plain(amount) + (amount <= 1 ? " bar" : " bars");
        }
    }

    /** Ticks, 15,360 to a quarter. */
    record Count(long amount) implements TimeValue {
        @Override
        public double ticksAt(long tick, TimeMap time) {
            return amount;
        }

        @Override
        public String toString() {
            return amount + (amount == 1 ? " tick" : " ticks");
        }
    }

    /** The length, not rounded, of a stretch that begins at {@code tick}. */
    double ticksAt(long tick, TimeMap time);

    static TimeValue ofNote(String value) {
        return new Note(NoteValue.parse(value));
    }

    /**
     * Reads "1/8d", "35 ms" or "0.75 beat".
     *
     * @throws IllegalArgumentException when it is none of these
     */
    static TimeValue parse(String text) {
        Matcher matcher = AMOUNT.matcher(text.strip());
        if (matcher.matches()) {
            double amount = Double.parseDouble(matcher.group(1));
            return switch (matcher.group(2).substring(0, 2)) {
                case "ms" -> new Millis(amount);
                case "ti" -> new Count(Math.round(amount));
                case "ba" -> new Bars(amount);
                default -> new Beats(amount);
            };
        }
        if (text.contains("/")) {
            return new Note(NoteValue.parse(text));
        }
        throw new IllegalArgumentException(
                "a time is a note value such as 1/8d, or \"35 ms\", or \"0.75 beat\", or \"120 ticks\", but was \""
                        + text + "\"");
    }

    private static String plain(double amount) {
        return BigDecimal.valueOf(amount).stripTrailingZeros().toPlainString();
    }
}
