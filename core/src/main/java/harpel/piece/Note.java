package harpel.piece;

/**
 * A written note.
 *
 * @param tick from the start of its phrase
 * @param lengthTicks at least 1
 * @param channel 0–15
 */
public record Note(long tick, long lengthTicks, int channel, int pitch, int velocity, int releaseVelocity) {
    public Note {
        if (tick < 0 || lengthTicks < 1) {
            throw new IllegalArgumentException(
                    "a note starts at 0 or later and lasts at least 1 tick but was at " + tick + " for " + lengthTicks);
        }
    }

    public Note onChannel(int newChannel) {
        return new Note(tick, lengthTicks, newChannel, pitch, velocity, releaseVelocity);
    }

    public long endTick() {
        return tick + lengthTicks;
    }
}
