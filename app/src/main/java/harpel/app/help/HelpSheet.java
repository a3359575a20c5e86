package harpel.app.help;

import harpel.app.help.Topics.Line;
import harpel.app.help.Topics.Topic;
import harpel.app.look.Look;
import harpel.app.ui.Asking;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import harpel.chain.Stage;
import harpel.format.Presets;
import harpel.format.Presets.Preset;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonType;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.Window;

/** A page of help. That of an effect, what it does and each of its controls in words, is from the same source as the reference. */
public final class HelpSheet {
    private static final double WIDE = 560;
    private static final double HIGH = 420;
    /** What a line with its words in two rows takes. */
    private static final double A_LINE = 52;

    private static final double NAMES = 130;
    /** So many presets are offered to be heard at once. */
    private static final int HEARD = 2;

    private HelpSheet() {}

    /** @param use gives the stage the settings of a preset */
    public static void show(Window owner, Look look, Stage stage, Consumer<Preset> use) {
        String does = stage.kind().words().does();
        VBox page = page(
                Character.toUpperCase(does.charAt(0)) + does.substring(1) + ".",
                stage.params().spec().params().stream()
                        .map(param -> new Line(param.label(), param.help()))
                        .toList());
        List<Preset> presets = Presets.shipped().of(stage.kind());
        if (!presets.isEmpty()) {
            HBox hear = new HBox(Space.GAP, new Label("Hear it as"));
            hear.setAlignment(Pos.CENTER_LEFT);
            presets.stream()
                    .limit(HEARD)
                    .forEach(preset -> hear.getChildren()
                            .add(Buttons.button(
                                    preset.name(),
                                    "help-preset-" + hear.getChildren().size(),
                                    preset.does(),
                                    () -> use.accept(preset))));
            page.getChildren().add(1, hear);
        }
        show(owner, look, stage.kind().words().label(), page);
    }

    public static void show(Window owner, Look look, Topic topic) {
        show(owner, look, topic.title(), page(topic.does(), topic.has()));
    }

    private static VBox page(String does, List<Line> has) {
        VBox lines = new VBox(Space.CLOSE);
        for (Line line : has) {
            Label name = new Label(line.name());
            name.getStyleClass().add("stage-name");
            name.setMinWidth(NAMES);
            name.setMaxWidth(NAMES);
            name.setWrapText(true);
            Label words = new Label(line.words());
            words.setWrapText(true);
            HBox.setHgrow(words, Priority.ALWAYS);
            HBox row = new HBox(Space.GAP, name, words);
            row.setAlignment(Pos.BASELINE_LEFT);
            lines.getChildren().add(row);
        }
        Scrolling list = new Scrolling(lines);
        list.setPrefViewportWidth(WIDE);
        list.setPrefViewportHeight(Math.min(HIGH, has.size() * A_LINE));
        Label head = new Label(does);
        head.setWrapText(true);
        head.setMaxWidth(WIDE);
        return new VBox(Space.ROOM, head, list);
    }

    private static void show(Window owner, Look look, String title, VBox page) {
        Alert sheet = Asking.sheet(owner, look.styles(), title, "", ButtonType.CLOSE);
        sheet.getDialogPane().setContent(page);
        sheet.getDialogPane().setId("help-sheet");
        sheet.show();
    }
}
