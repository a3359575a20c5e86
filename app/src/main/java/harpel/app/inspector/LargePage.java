package harpel.app.inspector;

import harpel.app.draw.Drawing;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import java.util.List;
import javafx.application.Platform;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** An editor opened large over the rows: what is drawn in it grows into the height there is. */
final class LargePage extends VBox {
    private final VBox body = new VBox();
    private final Label title = new Label();
    private final Scrolling scroll = new Scrolling(body);
    private Region shown;

    LargePage(Runnable close) {
        super(Space.TIGHT);
        title.getStyleClass().add("part-title");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button back = Buttons.button(
                "Back to the rows", "close-large", "Brings the editor back among the controls  (F7)", close);
        HBox head = new HBox(Space.GAP, title, space, back);
        head.setAlignment(Pos.CENTER_LEFT);
        scroll.setFitToHeight(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(head, scroll);
        setPadding(new Insets(Space.CLOSE, Space.EDGE, Space.ROOM, Space.EDGE));
        getStyleClass().addAll("inspector", "large-editor");
        scroll.viewportBoundsProperty().addListener((property, before, now) -> fitLater());
    }

    boolean holds(Node node) {
        return node == shown;
    }

    void show(String name, Region editor) {
        title.setText(name);
        if (shown != editor) {
            shown = editor;
            body.getChildren().setAll(editor);
            VBox.setVgrow(editor, Priority.ALWAYS);
        }
        fitLater();
    }

    /** Gives back what it holds, as tall as it stands elsewhere. */
    void release() {
        if (shown != null) {
            drawings(shown).forEach(drawing -> drawing.enlarge(1));
            VBox.setVgrow(shown, Priority.NEVER);
            body.getChildren().clear();
            shown = null;
        }
    }

    void focus() {
        if (shown != null) {
            // The first time, what scrolls has no skin yet and what it holds is in no scene.
            applyCss();
            layout();
            Node first =
                    drawings(shown).stream().map(Node.class::cast).findFirst().orElse(shown.lookup(".code"));
            if (first != null) {
                first.requestFocus();
            }
        }
    }

    private static List<Drawing> drawings(Node editor) {
        return editor.lookupAll(".drawing").stream()
                .map(Drawing.class::cast)
                .filter(Drawing::isVisible)
                .toList();
    }

    private void fitLater() {
        Platform.runLater(this::fit);
    }

    private void fit() {
        if (shown == null || scroll.getViewportBounds().getHeight() <= 0) {
            return;
        }
        shown.applyCss();
        List<Drawing> drawings = drawings(shown);
        double drawn = drawings.stream().mapToDouble(Drawing::getPrefHeight).sum();
        double small = drawings.stream().mapToDouble(Drawing::tall).sum();
        if (small > 0) {
            double others = shown.prefHeight(scroll.getViewportBounds().getWidth()) - drawn;
            double times = (scroll.getViewportBounds().getHeight() - others) / small;
            drawings.forEach(drawing -> drawing.enlarge(Math.max(1, times)));
        }
    }
}
