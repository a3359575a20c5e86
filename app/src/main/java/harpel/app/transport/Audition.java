package harpel.app.transport;

import harpel.piece.Block;
import harpel.piece.Piece;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * Something heard in place without being in the piece: what is played is the piece with a change laid over it, from the next bar line on
 * and until it is taken off again. Interface thread.
 */
public final class Audition {
    private static final UnaryOperator<Piece> NOTHING = UnaryOperator.identity();

    /** Longer than any piece. */
    private static final long ALL_ALONG = 1L << 40;

    private final Transport transport;
    private UnaryOperator<Piece> over = NOTHING;

    public Audition(Transport transport) {
        this.transport = transport;
    }

    /** Lays a change over what is played, from the next bar on; play begins if it does not run. */
    public void hear(UnaryOperator<Piece> change) {
        over = change;
        transport.player().audition(change);
        transport.play();
    }

    /** What is played is the piece again, from the next bar on. */
    public void end() {
        if (over != NOTHING) {
            over = NOTHING;
            transport.player().audition(NOTHING);
        }
    }

    /** A piece in which a part is heard with its phrase wherever play is: on the timeline it lies there all along. */
    public static Piece inPlace(Piece piece, String part) {
        return piece.timeline()
                ? piece.withPart(part, one -> one.withBlocks(List.of(Block.of(0, ALL_ALONG, one.phrase()))))
                : piece;
    }
}
