package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;

/** Looks how much of the heap is in use, and that it is no more than all that has a bound may take together. */
final class HeapCap {
    /** See docs/performance.md, "What memory is bounded to". */
    private static final long MB = 300;

    private final List<Long> looks = new ArrayList<>();
    private final long most;

    HeapCap() {
        this(0);
    }

    /** @param others megabytes that were there before and are others' */
    HeapCap(long others) {
        most = MB + others;
    }

    /** What is in use after a collection. */
    static long kept() {
        System.gc();
        return used();
    }

    /** @param story what is told where it is more */
    void look(Supplier<String> story) {
        long used = used();
        if (used > most) {
            System.gc();
            Hand.settle();
            used = kept();
        }
        looks.add(used);
        assertThat(used)
                .as(() -> "megabytes, after " + looks + "; " + story.get())
                .isLessThan(most);
    }

    private static long used() {
        Runtime runtime = Runtime.getRuntime();
        return runtime.totalMemory() - runtime.freeMemory() >> 20;
    }

    @Override
    public String toString() {
        return looks + " MB";
    }
}
