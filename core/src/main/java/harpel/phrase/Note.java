package harpel.phrase;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * A written note; it sounds on the channel of the part that hears it.
 *
 * @param id unique among the notes of its phrase and never used again; {@link #NEW} until it is put into one
 * @param tick from the start of its phrase
 * @param length in ticks, at least 1
 * @param release the velocity with which it is let go, 0–127
 */
@RecordBuilder
public record Note(int id, long tick, long length, int pitch, int velocity, int release, Traits traits)
        implements NoteBuilder.With {
    /** The id of a note that belongs to no phrase yet. */
    public static final int NEW = -1;

    /** The release of a key whose speed was not measured (MIDI 1.0). */
    public static final int PLAIN_RELEASE = 64;

    public Note {
        if (tick < 0 || length < 1) {
            throw new IllegalArgumentException(
                    "a note starts at 0 or later and lasts at least 1 tick but was at " + tick + " for " + length);
        }
        check("pitch", pitch, 0);
        check("velocity", velocity, 1);
        check("release velocity", release, 0);
    }

    private static void check(String what, int value, int low) {
        if (value < low || value > 127) {
            throw new IllegalArgumentException("a note's " + what + " must be " + low + "–127 but was " + value);
        }
    }

    /** A plain note that belongs to no phrase yet. */
    public static Note of(long tick, long length, int pitch, int velocity) {
        return new Note(NEW, tick, length, pitch, velocity, PLAIN_RELEASE, Traits.PLAIN);
    }

    public long endTick() {
        return tick + length;
    }

    /** Whether both say the same, whatever their ids. */
    public boolean alike(Note other) {
        return tick == other.tick
                && length == other.length
                && pitch == other.pitch
                && velocity == other.velocity
                && release == other.release
                && traits.equals(other.traits);
    }
}
