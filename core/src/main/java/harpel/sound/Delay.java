package harpel.sound;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** How much later than it is due all is heard, so that every note sounds at its moment however late a thread wakes. */
public enum Delay {
    SHORT("short", 5),
    NORMAL("normal", 10),
    SAFE("safe", 25),
    VERY_SAFE("very safe", 60);

    private final String label;
    private final int millis;

    Delay(String label, int millis) {
        this.label = label;
        this.millis = millis;
    }

    public String label() {
        return label;
    }

    public int millis() {
        return millis;
    }

    /** The next one that is safer; itself where there is none. */
    public Delay safer() {
        return values()[Math.min(ordinal() + 1, values().length - 1)];
    }

    /** The one of that word; empty where there is none, as for "automatic". */
    public static Optional<Delay> ofWord(String word) {
        return Arrays.stream(values()).filter(one -> one.word().equals(word)).findFirst();
    }

    /** As it is kept on the machine. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
}
