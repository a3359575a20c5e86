package harpel.app.inspector;

import harpel.app.look.Look;
import harpel.app.ui.Asking;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import harpel.chain.Stage;
import harpel.param.Param;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonType;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.Window;

/** The page of an effect: what it does and each of its controls in words, from the same source as the reference. */
final class HelpSheet {
    private static final double WIDE = 560;
    private static final double HIGH = 420;
    private static final double NAMES = 130;

    private HelpSheet() {}

    static void show(Window owner, Look look, Stage stage) {
        VBox lines = new VBox(Space.CLOSE);
        for (Param<?> param : stage.params().spec().params()) {
            Label name = new Label(param.label());
            name.getStyleClass().add("stage-name");
            name.setMinWidth(NAMES);
            name.setMaxWidth(NAMES);
            name.setWrapText(true);
            Label words = new Label(param.help());
            words.setWrapText(true);
            HBox.setHgrow(words, Priority.ALWAYS);
            lines.getChildren().add(new HBox(Space.GAP, name, words));
        }
        String does = stage.kind().words().does();
        Scrolling list = new Scrolling(lines);
        list.setPrefViewportWidth(WIDE);
        list.setPrefViewportHeight(HIGH);
        Label head = new Label(Character.toUpperCase(does.charAt(0)) + does.substring(1) + ".");
        head.setWrapText(true);
        Alert sheet = Asking.sheet(owner, look.styles(), stage.kind().words().label(), "", ButtonType.CLOSE);
        sheet.getDialogPane().setContent(new VBox(Space.ROOM, head, list));
        sheet.getDialogPane().setId("help-sheet");
        sheet.show();
    }
}
