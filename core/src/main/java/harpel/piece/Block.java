package harpel.piece;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * A stretch of the timeline in which a part is present. Its phrase repeats in it.
 *
 * @param at where it begins, in ticks
 * @param length in ticks, 1 at least
 * @param phrase the id of what is heard; empty for none, where the part makes its own notes or hears another
 * @param from the place in the phrase at which it begins
 * @param chain whether the phrase goes through the part's chain, or past it
 * @param variation the number that its draws depend on, or {@link #OF_THE_PART}
 * @param unknown what a newer version wrote
 */
@RecordBuilder
public record Block(
        long at, long length, String phrase, long from, boolean chain, long variation, Map<String, Object> unknown)
        implements BlockBuilder.With {
    /** No variation of its own. */
    public static final long OF_THE_PART = -1;

    public Block {
        if (at < 0 || length < 1 || from < 0 || variation < OF_THE_PART) {
            throw new IllegalArgumentException(
                    "a block begins at 0 or later, lasts a tick or more and begins in its phrase at 0"
                            + " or later, but was at " + at + ", " + length + " long, from " + from);
        }
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    /** A block through the chain, from the beginning of its phrase, with the part's variation. */
    public static Block of(long at, long length, String phrase) {
        return new Block(at, length, phrase, 0, true, OF_THE_PART, Map.of());
    }

    /** The first tick behind it. */
    public long end() {
        return at + length;
    }

    /**
     * What is left of it in a stretch of the timeline, beginning as much later in its phrase.
     *
     * @param phraseLength that of its phrase; 0 for none
     */
    public Block within(long begin, long end, long phraseLength) {
        long first = Math.max(at, begin);
        long place = phraseLength == 0 ? 0 : (from + first - at) % phraseLength;
        return withAt(first).withLength(Math.min(end(), end) - first).withFrom(place);
    }
}
