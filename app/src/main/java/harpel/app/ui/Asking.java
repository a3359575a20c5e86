package harpel.app.ui;

import java.util.List;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonType;
import javafx.stage.Window;

/** A sheet over the window that says something or asks, in our own look. */
public final class Asking {
    private Asking() {}

    /**
     * A sheet that is still to be shown.
     *
     * @param styles the style sheets of the window
     * @param head what it is about
     */
    public static Alert sheet(Window owner, List<String> styles, String head, String words, ButtonType... answers) {
        Alert sheet = new Alert(Alert.AlertType.NONE, words, answers);
        sheet.initOwner(owner);
        sheet.setTitle(head);
        sheet.setHeaderText(head);
        sheet.setGraphic(null);
        sheet.getDialogPane().getStylesheets().setAll(styles);
        return sheet;
    }
}
