package harpel.time;

import java.util.Arrays;

/** Looks for places in numbers that rise. */
final class Rising {
    private Rising() {}

    /** The place of the last that is not above a number; 0 where all are. */
    static int lastAtOrBefore(long[] rising, long number) {
        return place(Arrays.binarySearch(rising, number));
    }

    /** The place of the last that is not above a number; 0 where all are. */
    static int lastAtOrBefore(double[] rising, double number) {
        return place(Arrays.binarySearch(rising, number));
    }

    private static int place(int found) {
        return found >= 0 ? found : Math.max(0, -found - 2);
    }
}
