package harpel.app.session;

import harpel.piece.Piece;
import java.util.function.UnaryOperator;

/**
 * Something heard in place without being in the piece: what is played is the piece with a change laid over it, from the next bar line on
 * and until it is taken off again. Interface thread.
 */
public final class Audition {
    private static final UnaryOperator<Piece> NOTHING = UnaryOperator.identity();

    private final Session session;
    private UnaryOperator<Piece> over = NOTHING;

    Audition(Session session) {
        this.session = session;
    }

    /** Lays a change over what is played, from the next bar on; play begins if it does not run. */
    public void hear(UnaryOperator<Piece> change) {
        over = change;
        session.transport()
                .engine()
                .updateAtBar(heard(session.document().piece().get()));
        session.transport().play();
    }

    /** What is played is the piece again, from the next bar on. */
    public void end() {
        if (over != NOTHING) {
            over = NOTHING;
            session.transport().engine().updateAtBar(session.document().piece().get());
        }
    }

    /** What is played of a piece. */
    Piece heard(Piece piece) {
        return over.apply(piece);
    }
}
