package harpel.phrase;

import java.util.Arrays;

/** Where the note of each id starts: a tree of 32 branches, of which a change copies one way from the root. */
final class TickOfNote {
    static final long NONE = -1;
    /** What one changed way takes, a level. */
    static final int BYTES = 32 * 8 + 16;

    private static final int BITS = 5;
    private static final int WIDE = 1 << BITS;
    static final TickOfNote EMPTY = new TickOfNote(leaf(), 0);

    /** A leaf is a {@code long[]}; every other node an {@code Object[]}. */
    private final Object root;

    private final int shift;

    private TickOfNote(Object root, int shift) {
        this.root = root;
        this.shift = shift;
    }

    private static long[] leaf() {
        long[] leaf = new long[WIDE];
        Arrays.fill(leaf, NONE);
        return leaf;
    }

    /** The tick, or {@link #NONE}. */
    long of(int id) {
        if (id < 0 || id >>> shift >= WIDE) {
            return NONE;
        }
        Object node = root;
        for (int level = shift; level > 0 && node != null; level -= BITS) {
            node = ((Object[]) node)[id >>> level & WIDE - 1];
        }
        return node == null ? NONE : ((long[]) node)[id & WIDE - 1];
    }

    TickOfNote with(int id, long tick) {
        TickOfNote high = highEnough(id);
        return new TickOfNote(changed(high.root, high.shift, id, tick, true), high.shift);
    }

    /** An empty one of one's own, for {@link #owned}. */
    static TickOfNote fresh() {
        return new TickOfNote(leaf(), 0);
    }

    /** The same, changed in place: for whoever made it with {@link #fresh} and has shown it to nobody. */
    TickOfNote owned(int id, long tick) {
        TickOfNote high = highEnough(id);
        changed(high.root, high.shift, id, tick, false);
        return high;
    }

    private TickOfNote highEnough(int id) {
        TickOfNote high = this;
        while (id >>> high.shift >= WIDE) {
            Object[] above = new Object[WIDE];
            above[0] = high.root;
            high = new TickOfNote(above, high.shift + BITS);
        }
        return high;
    }

    private static Object changed(Object node, int level, int id, long tick, boolean copy) {
        int place = id >>> level & WIDE - 1;
        if (level == 0) {
            long[] leaf = node == null ? leaf() : copy ? ((long[]) node).clone() : (long[]) node;
            leaf[place] = tick;
            return leaf;
        }
        Object[] inner = node == null ? new Object[WIDE] : copy ? ((Object[]) node).clone() : (Object[]) node;
        inner[place] = changed(inner[place], level - BITS, id, tick, copy);
        return inner;
    }
}
