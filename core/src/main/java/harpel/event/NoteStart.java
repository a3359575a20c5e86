package harpel.event;

/**
 * The start of a note, and the note's identity: two starts that look alike are two notes. It names the notes that caused it,
 * back to the key that was played.
 */
public final class NoteStart extends Event {
    private static final double A_HAIR = 1e-9;

    private static final long GENERATED = Long.MAX_VALUE;

    private final NoteStart cause;
    private final NoteStart otherCause;
    private final byte channel;
    private final byte pitch;
    private final byte velocity;
    private final boolean auditioned;
    private long lasts;

    private NoteStart(
            long tick,
            long arrival,
            int channel,
            int pitch,
            int velocity,
            NoteStart cause,
            NoteStart otherCause,
            boolean auditioned) {
        super(tick, arrival, START);
        check("channel", channel + 1, 1, 16);
        check("pitch", pitch, 0, 127);
        check("velocity", velocity, 1, 127);
        this.channel = (byte) channel;
        this.pitch = (byte) pitch;
        this.velocity = (byte) velocity;
        this.cause = cause;
        this.otherCause = otherCause;
        this.auditioned = auditioned;
    }

    private static void check(String what, int value, int low, int high) {
        if (value < low || value > high) {
            throw new IllegalArgumentException(what + " must be " + low + "–" + high + " but was " + value);
        }
    }

    /** A note that comes from outside: a key, a phrase, a file. */
    public static NoteStart played(long tick, long arrival, int channel, int pitch, int velocity) {
        return new NoteStart(tick, arrival, channel, pitch, velocity, null, null, false);
    }

    /** A note that is only tried, as one that is drawn: it sounds as any other, and so does what is made of it, but nobody played it. */
    public static NoteStart auditioned(long tick, long arrival, int channel, int pitch, int velocity) {
        return new NoteStart(tick, arrival, channel, pitch, velocity, null, null, true);
    }

    /** Whether it was only tried, or comes of such notes alone. */
    public boolean isAuditioned() {
        return auditioned;
    }

    /**
     * A note that an effect makes of itself, from no played one. It comes after everything played at its tick.
     *
     * @param channel 0–15
     */
    public static NoteStart generated(long tick, int channel, int pitch, double velocity) {
        return new NoteStart(tick, GENERATED, channel, pitch, clampVelocity(velocity), null, null, false);
    }

    /** Whether an effect made this note of itself: it has no cause and nobody played it. */
    public boolean isGenerated() {
        return cause == null && arrival() == GENERATED;
    }

    /**
     * Says how long it will last, as far as that is known when it starts; 0 where it is not, as for a key that is still down. What is
     * made from it is expected to last as long unless it says otherwise. To be said by whoever starts it, before others are given it.
     */
    public NoteStart lasting(long ticks) {
        lasts = Math.max(0, ticks);
        return this;
    }

    /** How many ticks it will last as far as is known; 0 where that is not known before it ends. */
    public long lasts() {
        return lasts;
    }

    /** The same note as a note of its own on another channel, 0–15. */
    public NoteStart onChannel(int newChannel) {
        return new NoteStart(tick(), arrival(), newChannel, pitch, velocity, this, null, auditioned).lasting(lasts);
    }

    /** A note made from this one, on its channel. The velocity is brought into 1–127. */
    public NoteStart derive(long tick, int pitch, double velocity) {
        return new NoteStart(tick, arrival(), channel, pitch, clampVelocity(velocity), this, null, auditioned)
                .lasting(lasts);
    }

    /** The same note as a note of its own, as for a second branch. */
    public NoteStart copy() {
        return derive(tick(), pitch, velocity);
    }

    /** Two notes of one pitch that start together become one: the louder velocity, caused by both. */
    public NoteStart mergedWith(NoteStart other) {
        long both = lasts == 0 || other.lasts == 0 ? 0 : Math.max(lasts, other.lasts);
        boolean onlyTried = auditioned && other.auditioned;
        return new NoteStart(
                        tick(), arrival(), channel, pitch, Math.max(velocity, other.velocity), this, other, onlyTried)
                .lasting(both);
    }

    /** The nearest velocity a note can have, rounded half up; what is a half but for the computer's fractions is one: 45 × 0.7 is 31.5. */
    public static int clampVelocity(double velocity) {
        return velocity >= 127 ? 127 : velocity < 1 ? 1 : (int) (velocity + 0.5 + A_HAIR);
    }

    public int pitch() {
        return pitch;
    }

    public int velocity() {
        return velocity;
    }

    @Override
    public int channel() {
        return channel;
    }

    /** The note this was made from; null for a played one. */
    public NoteStart cause() {
        return cause;
    }

    /** The second note this was made from, where two were joined; else null. */
    public NoteStart otherCause() {
        return otherCause;
    }

    /** The first key or phrase note in this note's line of causes: itself when it was played. */
    public NoteStart origin() {
        NoteStart note = this;
        while (note.cause != null) {
            note = note.cause;
        }
        return note;
    }

    /** Whether {@code other} is this note or one that led to it. */
    public boolean descendsFrom(NoteStart other) {
        for (NoteStart note = this; note != null; note = note.cause) {
            if (note == other || (note.otherCause != null && note.otherCause.descendsFrom(other))) {
                return true;
            }
        }
        return false;
    }

    @Override
    int pitchOrder() {
        return pitch << 4 | channel;
    }

    /** Made of what it says, so that it is the same on every machine; two notes are equal only when they are one. */
    @Override
    public int hashCode() {
        // Odd numbers that let no step of a grid fall into a pattern; the three do not wait for each other.
        long mixed =
                tick() * 0x9E3779B97F4A7C15L + arrival() * 0xBF58476D1CE4E5B9L + pitchOrder() * 0x94D049BB133111EBL;
        return (int) (mixed >>> 32);
    }

    @Override
    public boolean equals(Object other) {
        return this == other;
    }

    @Override
    public String toString() {
        return tick() + " start " + pitch + " velocity " + velocity + " channel " + (channel + 1);
    }
}
