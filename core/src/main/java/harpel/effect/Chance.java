package harpel.effect;

/**
 * Repeatable draws. A draw depends only on the variation of the piece, the stage's seed, the stage's address, the tick, and how
 * many draws came before it at that tick.
 */
public final class Chance {
    private final long base;
    private long tick = -1;
    private long number;

    private Chance(long base) {
        this.base = base;
    }

    public static Chance of(long variation, long seed, String address) {
        long hash = 0;
        for (int i = 0; i < address.length(); i++) {
            hash = mix(hash * 31 + address.charAt(i));
        }
        return new Chance(mix(mix(mix(variation) + seed) ^ hash));
    }

    /** Moves to a tick; the draws there are counted from the first again. */
    public Chance at(long newTick) {
        if (newTick != tick) {
            tick = newTick;
            number = 0;
        }
        return this;
    }

    /** From 0 to just below 1. */
    public double unit() {
        return unitOf(tick, number++);
    }

    /** From 0 to just below 1, for a matter that has a number of its own and is not drawn in turn. */
    public double unitOf(long matter, long draw) {
        return (mix(mix(base + matter) + draw) >>> 11) * 0x1.0p-53;
    }

    /** True in so many of a hundred cases: never for 0, always for 100. Always takes one draw. */
    public boolean percent(double percent) {
        return unit() * 100 < percent;
    }

    /** A number from 0 to {@code count - 1}, each equally likely. */
    public int below(int count) {
        return (int) (unit() * count);
    }

    /** A whole number from {@code -most} to {@code most}, each equally likely. */
    public int around(int most) {
        return below(2 * most + 1) - most;
    }

    /** The finalizer of SplitMix64 (Steele, Lea and Flood, Fast Splittable Pseudorandom Number Generators, 2014). */
    private static long mix(long value) {
        long z = value + 0x9E3779B97F4A7C15L;
        z = (z ^ (z >>> 30)) * 0xBF58476D1CE4E5B9L;
        z = (z ^ (z >>> 27)) * 0x94D049BB133111EBL;
        return z ^ (z >>> 31);
    }
}
