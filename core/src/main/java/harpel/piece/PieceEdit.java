package harpel.piece;

import java.util.function.UnaryOperator;

/**
 * An edit as a value. Since pieces share what did not change, its inverse is the piece it was made from, which {@link History} keeps.
 *
 * @param label what it does, for the undo action: "Set gate"
 * @param gesture edits of one gesture, such as one drag, are undone together; empty for an edit of its own
 */
public record PieceEdit(String label, String gesture, UnaryOperator<Piece> change) {
    public static PieceEdit of(String label, UnaryOperator<Piece> change) {
        return new PieceEdit(label, "", change);
    }
}
