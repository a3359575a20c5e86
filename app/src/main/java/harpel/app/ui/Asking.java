package harpel.app.ui;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Supplier;
import javafx.event.ActionEvent;
import javafx.scene.Node;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonBar;
import javafx.scene.control.ButtonType;
import javafx.scene.control.Label;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import javafx.stage.Window;

/** A sheet over the window that says something or asks, in our own look. */
public final class Asking {
    /** What is wrong is broken into lines so wide. */
    private static final double WIDE = 420;

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

    /** Has the sheet that something lies in be as large as its content again, within the window that it is over. */
    public static void fit(Node in) {
        Stage sheet = (Stage) in.getScene().getWindow();
        sheet.sizeToScene();
        Window owner = sheet.getOwner();
        double lowest = owner.getY() + owner.getHeight() - sheet.getHeight();
        sheet.setY(Math.max(owner.getY(), Math.min(sheet.getY(), lowest)));
    }

    /**
     * Shows a sheet with fields until they are read or it is put away. What cannot be read is said below them, and they stay.
     *
     * @param button what is pressed when all is filled in
     * @param id what the ids of that button and of what is wrong begin with
     * @param read reads the fields; its exception says what is wrong
     */
    public static <T> Optional<T> forValues(
            Window owner, List<String> styles, String head, String button, String id, Node fields, Supplier<T> read) {
        Label wrong = new Label();
        wrong.setId(id + "-wrong");
        wrong.getStyleClass().add("error");
        wrong.setWrapText(true);
        wrong.setPrefWidth(WIDE);
        ButtonType done = new ButtonType(button, ButtonBar.ButtonData.OK_DONE);
        Alert sheet = sheet(owner, styles, head, "", done, ButtonType.CANCEL);
        sheet.getDialogPane().setContent(new VBox(fields, wrong));
        sheet.getDialogPane().setMinHeight(Region.USE_PREF_SIZE);
        AtomicReference<T> values = new AtomicReference<>();
        Node pressed = sheet.getDialogPane().lookupButton(done);
        pressed.setId(id + "-now");
        pressed.addEventFilter(ActionEvent.ACTION, event -> {
            try {
                values.set(read.get());
            } catch (IllegalArgumentException e) {
                wrong.setText(e.getMessage());
                fit(wrong);
                event.consume();
            }
        });
        return sheet.showAndWait().filter(answer -> answer == done).map(answer -> values.get());
    }
}
