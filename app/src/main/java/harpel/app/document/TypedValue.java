package harpel.app.document;

import harpel.piece.Piece;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * Values of a piece that are typed, wherever that is: what was typed becomes an edit of the piece, or an {@link IllegalArgumentException}
 * that names value and range.
 */
public final class TypedValue {
    private static final double SLOWEST = 20;
    private static final double FASTEST = 400;
    private static final int MOST_VARIATION = 999_999;

    private TypedValue() {}

    /** "96": the tempo of all of the piece, in quarters a minute. */
    public static UnaryOperator<Piece> tempo(String text) {
        double bpm = number("tempo", text, SLOWEST, FASTEST, " quarters a minute");
        return piece ->
                piece.withTime(new TimeMap(TempoMap.of(bpm), piece.time().meter()));
    }

    /** "7/8": the meter of all of the piece. */
    public static UnaryOperator<Piece> meter(String text) {
        MeterMap map = new MeterMap(List.of(MeterMap.Change.parse(0, text)));
        return piece -> piece.withTime(new TimeMap(piece.time().tempo(), map));
    }

    /** "D dorian". */
    public static UnaryOperator<Piece> key(String text) {
        Key key = Key.parse(text);
        return piece -> piece.withKey(key);
    }

    /** "41": the number that all chance depends on. */
    public static UnaryOperator<Piece> variation(String text) {
        if (!text.strip().matches("\\d{1,6}")) {
            throw new IllegalArgumentException("variation must be 0–" + MOST_VARIATION + " but was \"" + text + "\"");
        }
        long variation = Long.parseLong(text.strip());
        return piece -> piece.withVariation(variation);
    }

    /** "85 %" or "85". */
    public static double percent(String what, String text) {
        return number(what, text.replace("%", ""), 0, 100, " %");
    }

    private static double number(String what, String text, double least, double most, String unit) {
        try {
            double number = Double.parseDouble(text.strip());
            if (number >= least && number <= most) {
                return number;
            }
        } catch (NumberFormatException e) {
            // Said below, as what lies outside is.
        }
        throw new IllegalArgumentException(what + " must be " + Math.round(least) + "–" + Math.round(most) + unit
                + " but was \"" + text.strip() + "\"");
    }
}
