package harpel.app.line;

import harpel.app.ui.Asking;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import harpel.app.ui.room.Scrolling;
import harpel.theory.Words;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonType;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.Window;

/** All keys, by view in two columns; what is typed is looked for, and arrow keys scroll. */
public final class KeysSheet {
    private static final double WIDE = 860;
    private static final double HIGH = 460;
    private static final double KEYS_WIDE = 128;
    private static final double STEP = 60;

    /** A key and what it does. */
    public record Line(String keys, String words) {}

    /** The keys of one view, or of all. */
    public record Section(String title, List<Line> lines) {}

    private final List<Section> sections;
    private final VBox left = new VBox(Space.HAIR);
    private final VBox right = new VBox(Space.HAIR);
    private final TextField typed = new TextLine("find-key", "A key or what it does", "");
    private final Scrolling scroll;

    private KeysSheet(List<Section> sections) {
        this.sections = sections;
        HBox.setHgrow(left, Priority.ALWAYS);
        HBox.setHgrow(right, Priority.ALWAYS);
        left.setPrefWidth(WIDE / 2);
        right.setPrefWidth(WIDE / 2);
        scroll = new Scrolling(new HBox(Space.PAGE, left, right));
        scroll.setPrefViewportWidth(WIDE);
        scroll.setPrefViewportHeight(HIGH);
        typed.setPromptText("type a key, or what you want to do");
        typed.textProperty().addListener((property, before, now) -> fill());
        typed.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        fill();
    }

    /** Shows them over a window; the key that opened them closes them. */
    public static void show(Window owner, List<String> styles, List<Section> sections) {
        KeysSheet keys = new KeysSheet(sections);
        Alert sheet = Asking.sheet(owner, styles, "Keys and actions", "", ButtonType.CLOSE);
        sheet.getDialogPane().setContent(new VBox(Space.GAP, keys.typed, keys.scroll));
        sheet.getDialogPane().addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.F1) {
                sheet.close();
                event.consume();
            }
        });
        sheet.show();
        keys.typed.requestFocus();
    }

    private void pressed(KeyEvent event) {
        double step = event.getCode() == KeyCode.PAGE_DOWN || event.getCode() == KeyCode.PAGE_UP ? HIGH : STEP;
        if (event.getCode() == KeyCode.DOWN || event.getCode() == KeyCode.PAGE_DOWN) {
            scrollBy(step);
            event.consume();
        } else if (event.getCode() == KeyCode.UP || event.getCode() == KeyCode.PAGE_UP) {
            scrollBy(-step);
            event.consume();
        }
    }

    private void scrollBy(double points) {
        double over = Math.max(1, Math.max(left.getHeight(), right.getHeight()) - HIGH);
        scroll.setVvalue(Math.max(0, Math.min(1, scroll.getVvalue() + points / over)));
    }

    private void fill() {
        List<Section> found = new ArrayList<>();
        int count = 0;
        for (Section section : sections) {
            List<Line> lines = section.lines.stream()
                    .filter(line -> Words.finds(typed.getText(), line.keys + " " + line.words))
                    .toList();
            if (!lines.isEmpty()) {
                found.add(new Section(section.title, lines));
                count += lines.size() + 1;
            }
        }
        left.getChildren().clear();
        right.getChildren().clear();
        int put = 0;
        for (Section section : found) {
            boolean first = true;
            for (Line line : section.lines) {
                VBox column = put * 2 < count ? left : right;
                if (first || column.getChildren().isEmpty()) {
                    column.getChildren().add(title(section.title));
                    put++;
                    first = false;
                }
                column.getChildren().add(line(line));
                put++;
            }
        }
        if (found.isEmpty()) {
            left.getChildren()
                    .add(new Label("Nothing is found by “" + typed.getText().strip() + "”."));
        }
    }

    private static Node title(String words) {
        Label title = new Label(words);
        title.getStyleClass().add("stage-name");
        return title;
    }

    private static Node line(Line line) {
        Label keys = new Label(line.keys);
        keys.setMinWidth(KEYS_WIDE);
        keys.setMaxWidth(KEYS_WIDE);
        keys.getStyleClass().add("soft");
        Label words = new Label(line.words);
        words.setWrapText(true);
        HBox row = new HBox(Space.GAP, keys, words);
        HBox.setHgrow(words, Priority.ALWAYS);
        return row;
    }
}
