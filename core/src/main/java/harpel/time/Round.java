package harpel.time;

/**
 * A stretch that comes round: all ticks behind it, counted on and on, are places in it again.
 *
 * @param from the first tick
 * @param to the first tick behind it; as {@code from} where nothing comes round
 */
public record Round(long from, long to) {
    public static final Round NONE = new Round(0, 0);

    public Round {
        if (from < 0 || to < from) {
            throw new IllegalArgumentException(
                    "a round goes from a tick to a later one, but was " + from + " to " + to);
        }
    }

    public boolean isThere() {
        return to > from;
    }

    public long length() {
        return to - from;
    }

    /** Whether a tick lies behind the first round. */
    public boolean isBehind(long tick) {
        return to > from && tick >= to;
    }

    /** The place of a tick that is counted on and on. */
    public long place(long tick) {
        return isBehind(tick) ? from + (tick - to) % length() : tick;
    }

    /** How many whole rounds lie between the first one's end and a tick; 0 before that. */
    public long before(long tick) {
        return isBehind(tick) ? (tick - to) / length() : 0;
    }

    /** How much later than its place a tick is. */
    public long shift(long tick) {
        return tick - place(tick);
    }
}
