package harpel.effect;

/**
 * Repeatable draws. A draw depends only on the variation of the piece, the stage's seed, the stage's address, the tick, and how
 * many draws came before it at that tick.
 */
public final class Chance {
    private final long[] bases;
    private final long roundTicks;
    /** That of the round that is drawn for. */
    private long base;

    private long tick = -1;
    private long place;
    private long number;

    private Chance(long[] bases, long roundTicks) {
        this.bases = bases;
        this.roundTicks = roundTicks;
        this.base = bases[0];
    }

    public static Chance of(long variation, long seed, String address) {
        return new Chance(new long[] {base(variation, seed, address)}, 0);
    }

    public static Chance of(Draws draws, long seed, String address) {
        long[] bases = new long[draws.numbers().size()];
        for (int i = 0; i < bases.length; i++) {
            bases[i] = base(draws.numbers().get(i), seed, address);
        }
        return new Chance(bases, draws.roundTicks());
    }

    private static long base(long variation, long seed, String address) {
        long hash = 0;
        for (int i = 0; i < address.length(); i++) {
            hash = mix(hash * 31 + address.charAt(i));
        }
        return mix(mix(mix(variation) + seed) ^ hash);
    }

    /** Moves to a tick; the draws there are counted from the first again. */
    public Chance at(long newTick) {
        if (newTick != tick) {
            tick = newTick;
            number = 0;
            goTo(newTick);
        }
        return this;
    }

    /** Where several numbers are taken in turn: that of the round, and the place in it as if it were the first. */
    private void goTo(long newTick) {
        if (roundTicks == 0) {
            place = newTick;
            return;
        }
        long round = Math.floorDiv(newTick, roundTicks);
        base = bases[(int) Math.floorMod(round, (long) bases.length)];
        place = Math.floorMod(newTick, roundTicks);
    }

    /** From 0 to just below 1, for a matter of a round of its own; changes nothing here, so that many may ask. */
    public double unitInRound(long round, long matter) {
        return roundTicks == 0
                ? unit(bases[0], round, matter)
                : unit(bases[(int) Math.floorMod(round, (long) bases.length)], 0, matter);
    }

    /** From 0 to just below 1. */
    public double unit() {
        return unitOf(place, number++);
    }

    /** From 0 to just below 1, for a matter that has a number of its own and is not drawn in turn. */
    public double unitOf(long matter, long draw) {
        return unit(base, matter, draw);
    }

    private static double unit(long from, long matter, long draw) {
        return (mix(mix(from + matter) + draw) >>> 11) * 0x1.0p-53;
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
