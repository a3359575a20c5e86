package harpel.app.timeline;

import harpel.app.draw.Drawing;
import harpel.time.Ticks;

/** The stretch of time and the rows that are seen. Interface thread. */
final class TimelineWindow {
    static final double ROW = 76;
    private static final double FEWEST_TICKS = 4.0 * Ticks.PER_QUARTER;

    private double from;
    private double ticks = 32.0 * FEWEST_TICKS;
    private double top;
    private long version;

    double from() {
        return from;
    }

    double ticks() {
        return ticks;
    }

    /** By how much the rows are scrolled. */
    double top() {
        return top;
    }

    /** Grows whenever something else is seen. */
    long version() {
        return version;
    }

    double x(double tick, double width) {
        return (tick - from) / ticks * width;
    }

    double tickAt(double x, double width) {
        return from + x / width * ticks;
    }

    void scroll(double by, long end) {
        from = Drawing.clamp(from + by, 0, Math.max(0, end + ticks / 2));
        version++;
    }

    void scrollRows(double by, int rows, double height) {
        top = Drawing.clamp(top + by, 0, Math.max(0, rows * ROW - height));
        version++;
    }

    /** Shows more with a factor above 1; the tick at that share of the width stays where it is. */
    void zoom(double factor, double share, long end) {
        double at = from + share * ticks;
        ticks = Drawing.clamp(ticks * factor, FEWEST_TICKS, Math.max(8 * FEWEST_TICKS, end * 4.0));
        from = Math.max(0, at - share * ticks);
        version++;
    }

    /** Shows all of it. */
    void fit(long end) {
        from = 0;
        ticks = Math.max(8 * FEWEST_TICKS, end * 1.03);
        version++;
    }

    boolean shows(double tick) {
        return tick >= from && tick <= from + ticks;
    }

    /** Shows a tick, if it is not seen. */
    void reveal(double tick) {
        if (tick < from || tick > from + ticks * 0.96) {
            from = Math.max(0, tick - ticks * 0.1);
            version++;
        }
    }
}
