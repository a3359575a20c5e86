package harpel.time;

/** The unit of time inside Harpel. */
public final class Ticks {
    /** 15,360 to a quarter: 33 µs at 120 bpm. */
    public static final long PER_QUARTER = 15_360;
    /** "Not in sight": later than any tick of a piece. */
    public static final long NEVER = Long.MAX_VALUE;

    private Ticks() {}

    /** Half up, as every rounding in Harpel. */
    public static long round(double exact) {
        return (long) Math.floor(exact + 0.5);
    }

    /** Ticks from a file's resolution to Harpel's, rounded half up from the exact value. */
    public static long fromResolution(long ticks, long perQuarter) {
        return scale(ticks, PER_QUARTER, perQuarter);
    }

    /** Ticks of Harpel in a file's resolution, rounded half up from the exact value. */
    public static long toResolution(long ticks, long perQuarter) {
        return scale(ticks, perQuarter, PER_QUARTER);
    }

    private static long scale(long value, long to, long from) {
        long product = Math.multiplyExact(value, 2 * to);
        return Math.floorDiv(Math.addExact(product, from), 2 * from);
    }
}
