package harpel.event;

/** The one end of a note. */
public final class NoteEnd extends Event {
    /** What the MIDI specification gives for a release whose velocity was not measured. */
    public static final int PLAIN_RELEASE = 64;

    private final NoteStart start;
    private final byte releaseVelocity;

    public NoteEnd(long tick, NoteStart start, int releaseVelocity) {
        super(tick, start.arrival(), END);
        if (tick <= start.tick()) {
            throw new IllegalArgumentException(
                    "a note lasts at least one tick but would end at " + tick + " (" + start + ")");
        }
        this.start = start;
        this.releaseVelocity = (byte) releaseVelocity;
    }

    /** The plain end of a note at {@code tick}, or as soon after as it has lasted one. */
    public static NoteEnd plain(long tick, NoteStart start) {
        return atOrAfter(tick, start, PLAIN_RELEASE);
    }

    /** The end of a note at {@code tick}, or as soon after as it has lasted one. */
    public static NoteEnd atOrAfter(long tick, NoteStart start, int releaseVelocity) {
        return new NoteEnd(Math.max(tick, start.tick() + 1), start, releaseVelocity);
    }

    /** The note that ends. */
    public NoteStart start() {
        return start;
    }

    public int releaseVelocity() {
        return releaseVelocity;
    }

    @Override
    public int channel() {
        return start.channel();
    }

    @Override
    int pitchOrder() {
        return start.pitchOrder();
    }

    @Override
    public String toString() {
        return tick() + " end " + start.pitch() + " channel " + (channel() + 1);
    }
}
