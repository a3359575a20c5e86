package harpel.piece;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * Where a part sounds.
 *
 * @param port the name of an output; empty for the built-in sounds
 * @param channel 0–15
 * @param sound the name of a stand-in instrument or, with a preset, of that
 * @param preset a sound of the piece's own bank; null for a stand-in instrument
 */
@RecordBuilder
public record Voice(String port, int channel, String sound, Preset preset) implements VoiceBuilder.With {
    /** The name of the built-in sounds among the outputs. */
    public static final String BUILT_IN = "";

    private static final String OF_PART = "built-in:";

    public static final Voice FIRST = new Voice(BUILT_IN, 0, "Glass harp", null);

    public Voice {
        if (channel < 0 || channel > 15) {
            throw new IllegalArgumentException("channel must be 1–16 but was " + (channel + 1));
        }
    }

    /** The way to the built-in sounds that a part has for itself. */
    public static String builtIn(String part) {
        return OF_PART + part;
    }

    /** Whether a way leads to the built-in sounds. */
    public static boolean isBuiltIn(String way) {
        return way.equals(BUILT_IN) || way.startsWith(OF_PART);
    }

    /** Which sound an instrument of the built-in ones is to play. */
    public Preset played() {
        return preset != null ? preset : Preset.of(Instrument.named(sound).program());
    }
}
