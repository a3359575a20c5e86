package harpel.app.foot;

import harpel.app.document.Document;
import harpel.app.document.TypedValue;
import harpel.app.look.Messages;
import harpel.app.ui.Buttons;
import harpel.app.ui.Field;
import harpel.app.ui.Space;
import harpel.piece.PieceEdit;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/** The variation of the piece, which all chance depends on. */
final class VariationField extends HBox {
    private static final int MOST = 1_000_000;

    VariationField(Document document, Messages messages) {
        super(Space.TIGHT);
        setAlignment(Pos.CENTER_LEFT);
        Field field = new Field(
                "variation",
                "The number that all chance depends on: another number, other notes",
                text -> document.take(PieceEdit.of("Set variation", TypedValue.variation(text))),
                messages::say);
        field.setPrefWidth(80);
        HBox.setHgrow(field, Priority.ALWAYS);
        Label name = new Label("Variation");
        name.getStyleClass().add("soft");
        name.setMinWidth(52);
        name.setLabelFor(field);
        getChildren()
                .addAll(
                        name,
                        field,
                        Buttons.button(
                                "next",
                                "next-variation",
                                "The next variation",
                                () -> document.apply(PieceEdit.of(
                                        "Next variation",
                                        piece -> piece.withVariation((piece.variation() + 1) % MOST)))));
        document.piece().addListener((property, before, now) -> field.show(String.valueOf(now.variation())));
        field.show(String.valueOf(document.piece().get().variation()));
    }
}
