package harpel.player;

import harpel.piece.Piece;
import java.util.function.UnaryOperator;

/** Something that is heard over the piece for a while; the same object begins and ends. */
public final class Over {
    private final UnaryOperator<Piece> change;

    public Over(UnaryOperator<Piece> change) {
        this.change = change;
    }

    UnaryOperator<Piece> change() {
        return change;
    }
}
