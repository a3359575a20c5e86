package harpel.time;

import java.util.Arrays;
import java.util.List;
import java.util.function.ToLongFunction;

/** Looks for places in numbers that rise. */
public final class Rising {
    private Rising() {}

    /** The place of the last that is not above a number; 0 where all are. */
    static int lastAtOrBefore(long[] rising, long number) {
        return place(Arrays.binarySearch(rising, number));
    }

    /** The place of the last that is not above a number; 0 where all are. */
    static int lastAtOrBefore(double[] rising, double number) {
        return place(Arrays.binarySearch(rising, number));
    }

    /** The place of the last thing whose number is not above one; -1 where all are. */
    public static <T> int lastAtOrBefore(List<T> rising, ToLongFunction<T> numberOf, long number) {
        int low = -1;
        for (int high = rising.size() - 1; low < high; ) {
            int middle = low + high + 1 >> 1;
            if (numberOf.applyAsLong(rising.get(middle)) <= number) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    private static int place(int found) {
        return found >= 0 ? found : Math.max(0, -found - 2);
    }
}
