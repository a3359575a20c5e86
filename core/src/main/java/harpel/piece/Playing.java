package harpel.piece;

import harpel.param.type.PathType;
import harpel.time.Rising;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Comparator;
import java.util.List;

/**
 * What a part plays of itself while the transport runs: as loops its phrase, on the timeline its blocks.
 *
 * @param phrase the id of the phrase that is heard over and over, or empty
 * @param variations the numbers of the variations that are taken in turn, one a round; empty where that of the piece holds
 * @param blocks in the order of time, none over another
 * @param mutes from where on along the timeline it is not heard, or is again
 */
@RecordBuilder
public record Playing(String phrase, List<Long> variations, List<Block> blocks, List<PathType.Point<Boolean>> mutes)
        implements PlayingBuilder.With {
    public static final Playing NOTHING = new Playing("", List.of(), List.of(), List.of());

    public Playing {
        variations = List.copyOf(variations);
        mutes = List.copyOf(mutes);
        blocks = blocks.stream().sorted(Comparator.comparingLong(Block::at)).toList();
        for (int i = 1; i < blocks.size(); i++) {
            if (blocks.get(i).at() < blocks.get(i - 1).end()) {
                throw new IllegalArgumentException("blocks of a part lie side by side, but one begins at tick "
                        + blocks.get(i).at() + " before another ends at "
                        + blocks.get(i - 1).end());
            }
        }
    }

    /** Whether it is mute at a tick of the timeline. */
    public boolean mutedAt(long tick) {
        int place = Rising.lastAtOrBefore(mutes, PathType.Point::tick, tick);
        return place >= 0 && mutes.get(place).value();
    }
}
