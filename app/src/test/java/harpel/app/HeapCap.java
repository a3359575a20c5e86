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

    /** @param story what is told where it is more */
    void look(Supplier<String> story) {
        long used = used();
        if (used > MB) {
            System.gc();
            Hand.settle();
            System.gc();
            used = used();
        }
        looks.add(used);
        assertThat(used)
                .as(() -> "megabytes, after " + looks + "; " + story.get())
                .isLessThan(MB);
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
