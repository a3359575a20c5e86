package harpel.piece;

import harpel.theory.Key;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * From a tick of the timeline on another key.
 *
 * @param tick above 0; what holds from the beginning is the piece's key
 * @param unknown what a newer version wrote
 */
public record KeyChange(long tick, Key key, Map<String, Object> unknown) {
    public KeyChange {
        if (tick < 1) {
            throw new IllegalArgumentException("a key changes behind the beginning, but was to at tick " + tick);
        }
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public static KeyChange of(long tick, Key key) {
        return new KeyChange(tick, key, Map.of());
    }
}
