package harpel.phrase;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * What sets a note apart from a plain one.
 *
 * @param chance how often it is played, 0–100 %, drawn each time its phrase comes round
 * @param off kept but not played
 * @param unknown what a newer version wrote and this one does not know
 */
public record Traits(int chance, boolean off, Map<String, Object> unknown) {
    public static final Traits PLAIN = new Traits(100, false, Map.of());

    public Traits {
        if (chance < 0 || chance > 100) {
            throw new IllegalArgumentException("a note's chance must be 0–100 % but was " + chance);
        }
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    /** Those traits; the shared plain ones where they are plain. */
    public static Traits of(int chance, boolean off, Map<String, Object> unknown) {
        return chance == 100 && !off && unknown.isEmpty() ? PLAIN : new Traits(chance, off, unknown);
    }
}
