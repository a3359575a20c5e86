package harpel.piece;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * Where a part sounds.
 *
 * @param port the name of an output; empty for the built-in sounds
 * @param channel 0–15
 * @param sound the name of a stand-in instrument
 */
@RecordBuilder
public record Voice(String port, int channel, String sound) implements VoiceBuilder.With {
    /** The name of the built-in sounds among the outputs. */
    public static final String BUILT_IN = "";

    public static final Voice FIRST = new Voice(BUILT_IN, 0, "Glass harp");

    public Voice {
        if (channel < 0 || channel > 15) {
            throw new IllegalArgumentException("channel must be 1–16 but was " + (channel + 1));
        }
    }
}
