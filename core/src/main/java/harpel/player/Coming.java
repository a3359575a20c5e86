package harpel.player;

import harpel.piece.Piece;
import java.util.function.UnaryOperator;

/**
 * Something that is done at a tick to come, counted on and on.
 *
 * @param edit what the piece becomes
 * @param begins what is laid over it from then on; null for nothing
 * @param ends what is laid over it no more; null for nothing
 * @param glideTicks over so many levers come to where they stand then
 */
public record Coming(long tick, UnaryOperator<Piece> edit, Over begins, Over ends, long glideTicks) {
    public static Coming edit(long tick, UnaryOperator<Piece> edit, long glideTicks) {
        return new Coming(tick, edit, null, null, glideTicks);
    }

    public static Coming begin(long tick, Over over) {
        return new Coming(tick, UnaryOperator.identity(), over, null, 0);
    }

    public static Coming end(long tick, Over over) {
        return new Coming(tick, UnaryOperator.identity(), null, over, 0);
    }
}
