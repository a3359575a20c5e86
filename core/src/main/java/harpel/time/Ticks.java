package harpel.time;

import java.util.Locale;

/** The unit of time inside Harpel. */
public final class Ticks {
    /** 15,360 to a quarter: 33 µs at 120 bpm. */
    public static final long PER_QUARTER = 15_360;
    /** "Not in sight": later than any tick of a piece. */
    public static final long NEVER = Long.MAX_VALUE;

    /** The last place of a piece and the most that anything lasts: a million quarters, more than five days at 120 bpm. */
    public static final long FARTHEST = 1_000_000 * PER_QUARTER;

    /** No finer fraction is shown as one. */
    private static final long FINEST = 96;

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

    /** When two that come round after so long come round together: their least common multiple. */
    public static long together(long one, long other) {
        return one / gcd(one, other) * other;
    }

    /** The longest that goes into both without a rest. */
    public static long gcd(long one, long other) {
        return other == 0 ? one : gcd(other, one % other);
    }

    /** So many of a unit, exactly where musicians would say it so: "2", "3/8", "1 1/4"; else with two decimals. */
    public static String shown(double ticks, long unit) {
        long whole = Math.round(ticks);
        long rest = whole % unit;
        long common = gcd(rest, unit);
        if (Math.abs(ticks - whole) > 1e-6 || unit / common > FINEST) {
            return String.format(Locale.ROOT, "%.2f", ticks / unit);
        }
        String fraction = rest == 0 ? "" : rest / common + "/" + unit / common;
        return whole < unit && rest > 0 ? fraction : (whole / unit + " " + fraction).strip();
    }

    /** The same with "bar" or "bars". */
    public static String bars(double ticks, long barTicks) {
        return shown(ticks, barTicks) + (ticks > barTicks ? " bars" : ticks == barTicks ? " bar" : " of a bar");
    }

    private static long scale(long value, long to, long from) {
        long product = Math.multiplyExact(value, 2 * to);
        return Math.floorDiv(Math.addExact(product, from), 2 * from);
    }
}
