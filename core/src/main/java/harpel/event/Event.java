package harpel.event;

/** Something that happens at one tick. */
public abstract sealed class Event permits NoteStart, NoteEnd, Message {
    /** Ends before messages before starts. */
    static final int END = 0;

    static final int MESSAGE = 1;
    static final int START = 2;

    private final long tick;
    private final long arrival;
    private final byte rank;

    Event(long tick, long arrival, int rank) {
        if (tick < 0) {
            throw new IllegalArgumentException("an event's tick must be 0 or later but was " + tick);
        }
        this.tick = tick;
        this.arrival = arrival;
        this.rank = (byte) rank;
    }

    public final long tick() {
        return tick;
    }

    /** When its first ancestor came in, as a count: what is made from an event keeps its place in the order of arrival. */
    public final long arrival() {
        return arrival;
    }

    final int rank() {
        return rank;
    }

    /** What decides among equals: low to high pitch, then channel. */
    abstract int pitchOrder();

    /** The MIDI channel 0–15, or -1 for what concerns all channels. */
    public abstract int channel();
}
