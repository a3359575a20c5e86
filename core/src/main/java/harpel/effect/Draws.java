package harpel.effect;

import java.util.List;

/**
 * Which numbers all draws of a part depend on: one, or several taken in turn, one a round. Where they are taken in turn every round draws
 * as the first one does, so that a number always gives the same.
 *
 * @param numbers of variations, one at least
 * @param roundTicks how long a round is; 0 where there is one number
 */
public record Draws(List<Long> numbers, long roundTicks) {
    public Draws {
        numbers = List.copyOf(numbers);
        if (numbers.isEmpty() || roundTicks < 0) {
            throw new IllegalArgumentException("draws depend on one number at least");
        }
    }

    /** Written out: it is asked for each stage, and what Java makes of it at the first time holds a start up. */
    @Override
    public boolean equals(Object other) {
        return other instanceof Draws draws && roundTicks == draws.roundTicks && numbers.equals(draws.numbers);
    }

    @Override
    public int hashCode() {
        return 31 * numbers.hashCode() + Long.hashCode(roundTicks);
    }

    public static Draws of(long variation) {
        return new Draws(List.of(variation), 0);
    }

    /** In turn, one a round; a list of one holds for every round. */
    public static Draws inTurn(List<Long> numbers, long roundTicks) {
        return new Draws(numbers, roundTicks);
    }
}
