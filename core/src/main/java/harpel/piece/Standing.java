package harpel.piece;

import harpel.phrase.Phrase;
import java.util.Optional;

/**
 * Why a part is not heard as its chain would have it, at a place of the piece: in words, empty where it is heard through its chain.
 *
 * @param word the same in a word or two, for where there is little room: "muted", "from bar 33"
 * @param silent whether nothing of it is heard
 * @param past whether what it plays of itself goes past its chain
 */
public record Standing(String words, String word, boolean silent, boolean past) {
    /** Heard, and through its chain. */
    public static final Standing HEARD = new Standing("", "", false, false);

    /**
     * How a part stands.
     *
     * @param tick the place in the piece
     */
    public static Standing of(Piece piece, Part part, long tick) {
        if (part.mix().mute()) {
            return silent("muted", "muted");
        }
        if (!piece.isHeard(part)) {
            return silent("others are solo", "not solo");
        }
        if (part.mix().level() == 0) {
            return silent("level 0 %", "level 0 %");
        }
        if (!piece.timeline()) {
            return piece.phrase(part.phrase())
                    .filter(Phrase::ready)
                    .map(Standing::past)
                    .orElse(HEARD);
        }
        return part.playing().mutedAt(tick) ? silent("muted on the timeline", "muted") : ofBlocks(piece, part, tick);
    }

    private static Standing ofBlocks(Piece piece, Part part, long tick) {
        if (part.blocks().isEmpty()) {
            return HEARD;
        }
        Optional<Block> next =
                part.blocks().stream().filter(block -> block.end() > tick).findFirst();
        if (next.isEmpty()) {
            return silent("nothing here any more", "over");
        }
        Block block = next.get();
        if (block.at() > tick) {
            String bar = "bar " + (piece.time().meter().barAt(block.at()) + 1);
            return silent("nothing here until " + bar, "from " + bar);
        }
        Optional<Phrase> phrase = piece.phrase(block.phrase());
        return phrase.filter(one -> one.ready() || !block.chain())
                .map(Standing::past)
                .orElse(HEARD);
    }

    private static Standing silent(String words, String word) {
        return new Standing(words, word, true, false);
    }

    private static Standing past(Phrase phrase) {
        return new Standing("past the chain: “" + phrase.name() + "”", "ready", false, true);
    }
}
