package harpel.piece;

/**
 * A sound of an instrument by its numbers.
 *
 * @param bank 0–16,383: 128 times controller 0 and controller 32 (MIDI 1.0, "Bank Select")
 * @param program 0–127
 */
public record Preset(int bank, int program) {
    public static final int HIGHEST_BANK = 16_383;

    public Preset {
        if (bank < 0 || bank > HIGHEST_BANK || program < 0 || program > 127) {
            throw new IllegalArgumentException(
                    "a sound has a bank 0–16383 and a program 0–127 but was " + bank + ", " + program);
        }
    }

    public static Preset of(int program) {
        return new Preset(0, program);
    }
}
