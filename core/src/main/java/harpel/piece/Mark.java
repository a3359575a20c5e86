package harpel.piece;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * A named place of a piece.
 *
 * @param tick from 0 on
 * @param unknown what a newer version wrote
 */
public record Mark(long tick, String name, Map<String, Object> unknown) {
    public Mark {
        if (tick < 0) {
            throw new IllegalArgumentException("a mark stands at a tick from 0 on but was at " + tick);
        }
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public static Mark of(long tick, String name) {
        return new Mark(tick, name, Map.of());
    }
}
