package harpel.piece;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * A part among the others.
 *
 * @param mute whether it is not heard
 * @param solo whether only it, and others that are solo, are heard
 * @param level its volume, 0–100 %
 * @param colour one of {@link #COLOURS}
 */
@RecordBuilder
public record Mix(boolean mute, boolean solo, int level, int colour) implements MixBuilder.With {
    public static final int COLOURS = 8;
    public static final Mix PLAIN = new Mix(false, false, 100, 0);

    /** The level as controller 7 tells it, 0–127. */
    public int volume() {
        return Math.round(level * 127 / 100f);
    }

    /** The level that controller 7 tells, of 0–127. */
    public static int levelOf(int volume) {
        return Math.round(volume * 100 / 127f);
    }

    public Mix {
        if (level < 0 || level > 100) {
            throw new IllegalArgumentException("level must be 0–100 % but was " + level);
        }
        if (colour < 0 || colour >= COLOURS) {
            throw new IllegalArgumentException("colour must be 0–" + (COLOURS - 1) + " but was " + colour);
        }
    }
}
