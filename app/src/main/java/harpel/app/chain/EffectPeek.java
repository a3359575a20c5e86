package harpel.app.chain;

import harpel.app.help.HelpPicture;
import harpel.app.look.Look;
import harpel.app.ui.Space;
import harpel.chain.Stage;
import harpel.effect.EffectKind;
import harpel.piece.Piece;
import java.util.List;
import java.util.function.Function;
import javafx.geometry.Rectangle2D;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import javafx.stage.Screen;
import javafx.stage.WindowEvent;

/** Beside the list of effects, what the one that is pointed at would do, as the engine makes it: by pointer or by arrow keys. */
final class EffectPeek {
    private static final double WIDE = 240;
    private static final double AWAY = 6;

    private final Popup popup = new Popup();
    private final HelpPicture picture;
    private final Function<EffectKind, Stage> ready;

    /**
     * @param ready a stage of a kind, as it would be added
     */
    EffectPeek(Look look, Function<EffectKind, Stage> ready) {
        this.ready = ready;
        picture = new HelpPicture(look);
        Label words = new Label();
        words.setId("peek-words");
        words.setWrapText(true);
        words.getStyleClass().add("soft");
        words.textProperty().bind(picture.words());
        // No frame is drawn while a list is all that moves.
        picture.onMade(picture::draw);
        VBox box = new VBox(Space.CLOSE, picture, words);
        box.setId("peek");
        box.setMinWidth(WIDE);
        box.setMaxWidth(WIDE);
        box.getStyleClass().addAll("harpel", "peek");
        popup.getContent().setAll(box);
        // The list is who has the keyboard, and who goes by Escape.
        popup.setHideOnEscape(false);
        popup.setAutoFix(true);
    }

    /** Follows the highlight of a list that is open, whose items know their kinds. */
    void follow(ContextMenu menu, Piece piece) {
        Scene scene = menu.getScene();
        popup.getScene().getStylesheets().setAll(scene.getStylesheets());
        popup.getScene().setFill(null);
        scene.focusOwnerProperty().addListener((property, before, now) -> show(menu, piece, kind(menu, now)));
        menu.addEventHandler(WindowEvent.WINDOW_HIDING, event -> popup.hide());
        // The list itself is moved off the pointer, and is smaller while it is filtered.
        List.of(menu.xProperty(), menu.yProperty(), menu.widthProperty())
                .forEach(side -> side.addListener((property, before, now) -> {
                    if (popup.isShowing()) {
                        place(menu);
                    }
                }));
    }

    private static EffectKind kind(ContextMenu menu, Node highlighted) {
        return menu.getItems().stream()
                .filter(item -> highlighted != null && item.getStyleableNode() == highlighted)
                .map(MenuItem::getUserData)
                .filter(EffectKind.class::isInstance)
                .map(EffectKind.class::cast)
                .findFirst()
                .orElse(null);
    }

    private void show(ContextMenu menu, Piece piece, EffectKind kind) {
        if (kind == null || !menu.isShowing()) {
            popup.hide();
            return;
        }
        picture.show(piece, ready.apply(kind));
        place(menu);
    }

    /** At the right of the list, or where there is no room at its left; it never lies over it. */
    private void place(ContextMenu menu) {
        Rectangle2D screen = Screen.getPrimary().getVisualBounds();
        double right = menu.getX() + menu.getWidth() + AWAY;
        double left = menu.getX() - AWAY - WIDE;
        if (right + WIDE > screen.getMaxX() && left < screen.getMinX()) {
            popup.hide();
            return;
        }
        double x = right + WIDE <= screen.getMaxX() ? right : left;
        if (popup.isShowing()) {
            popup.setX(x);
            popup.setY(menu.getY());
        } else {
            popup.show(menu, x, menu.getY());
        }
    }
}
