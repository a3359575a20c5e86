package harpel.advice;

import harpel.chain.Stage;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.function.UnaryOperator;

/**
 * Something that will surprise: what and why, and the one action that helps.
 *
 * @param stage the id of the stage it is about, or empty for the part
 * @param action what the action is called; empty where there is none
 */
public record Advice(String stage, String text, String action, UnaryOperator<Piece> fix) {
    /** Advice about a part, whose action changes that part. */
    static Advice of(Part part, String text, String action, UnaryOperator<Part> fix) {
        return new Advice("", text, action, piece -> piece.withPart(part.id(), fix));
    }

    /** Advice about a stage, whose action changes that stage. */
    static Advice of(Part part, Stage stage, String text, String action, UnaryOperator<Stage> fix) {
        return new Advice(
                stage.id(),
                text,
                action,
                piece -> piece.withPart(
                        part.id(), one -> one.withChain(one.chain().withStage(stage.id(), fix))));
    }
}
