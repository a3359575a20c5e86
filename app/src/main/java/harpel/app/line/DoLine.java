package harpel.app.line;

import harpel.app.look.Look;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import java.util.List;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.transform.Scale;
import javafx.stage.Popup;
import javafx.stage.Window;

/** The line itself: what is typed is looked for, the arrow keys choose among what is found, Enter does it and Escape goes back. */
public final class DoLine {
    private static final double WIDE = 560;
    private static final double ROW = 28;
    private static final int ROWS = 11;
    private static final double FROM_TOP = 60;

    private final Look look;
    private final Popup popup = new Popup();
    private final TextField typed =
            new TextLine("do-line", "What you want, such as gate 60, add echo, mute bass, export; Enter does it", "");
    private final ListView<Doable> list = new ListView<>();
    private final VBox box = new VBox(Space.FINE, typed, list);
    private final Function<String, List<Doable>> find;

    /** @param find what the typed words mean */
    public DoLine(Look look, Function<String, List<Doable>> find) {
        this.look = look;
        this.find = find;
        typed.setPromptText("What you want: gate 60, add echo, mute bass, tempo 120, export");
        typed.textProperty().addListener((property, before, now) -> fill());
        typed.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        list.setId("do-list");
        list.setFocusTraversable(false);
        list.setFixedCellSize(ROW);
        list.setPrefHeight(ROW * ROWS + 2);
        list.setCellFactory(view -> new Cell());
        list.setOnMouseClicked(event -> run());
        box.getStyleClass().add("do-line");
        box.setPrefWidth(WIDE);
        box.setMaxWidth(WIDE);
        popup.getContent().add(box);
        popup.setAutoHide(true);
    }

    /** Opens it over a window; where it is open, it closes. */
    public void toggle(Window owner) {
        if (popup.isShowing()) {
            popup.hide();
            return;
        }
        double size = look.size().get();
        box.getTransforms().setAll(size == 1 ? List.of() : List.of(new Scale(size, size)));
        box.setPrefWidth(Math.min(WIDE, owner.getWidth() / size - 2 * Space.PAGE));
        box.setMaxWidth(box.getPrefWidth());
        popup.getScene().getStylesheets().setAll(look.styles());
        typed.clear();
        fill();
        popup.show(
                owner,
                owner.getX() + (owner.getWidth() - box.getPrefWidth() * size) / 2,
                owner.getY() + FROM_TOP * size);
        typed.requestFocus();
    }

    /** Whether letters go to it. */
    public boolean isOpen() {
        return popup.isShowing();
    }

    private void fill() {
        list.getItems().setAll(find.apply(typed.getText()));
        list.setPrefHeight(ROW * Math.max(1, Math.min(ROWS, list.getItems().size())) + 2);
        list.getSelectionModel().selectFirst();
        list.scrollTo(0);
        popup.sizeToScene();
    }

    private void pressed(KeyEvent event) {
        switch (event.getCode()) {
            case UP -> move(-1);
            case DOWN -> move(1);
            case PAGE_UP -> move(-ROWS);
            case PAGE_DOWN -> move(ROWS);
            case ENTER -> run();
            case ESCAPE -> popup.hide();
            case K -> {
                if (!event.isShortcutDown()) {
                    return;
                }
                popup.hide();
            }
            default -> {
                return;
            }
        }
        event.consume();
    }

    private void move(int by) {
        int last = list.getItems().size() - 1;
        int place = Math.max(0, Math.min(last, list.getSelectionModel().getSelectedIndex() + by));
        list.getSelectionModel().select(place);
        list.scrollTo(Math.max(0, place - ROWS / 2));
    }

    private void run() {
        Doable chosen = list.getSelectionModel().getSelectedItem();
        if (chosen != null && chosen.run() != null) {
            popup.hide();
            chosen.run().run();
        }
    }

    /** One thing that can be done, and what it will do. */
    private static final class Cell extends ListCell<Doable> {
        private final Label words = new Label();
        private final Label more = new Label();
        private final Node row;

        Cell() {
            Region space = new Region();
            HBox.setHgrow(space, Priority.ALWAYS);
            more.getStyleClass().add("soft");
            words.setMinWidth(USE_PREF_SIZE);
            more.setMinWidth(0);
            HBox all = new HBox(Space.EDGE, words, space, more);
            all.setAlignment(Pos.CENTER_LEFT);
            // As wide as the list, whatever is said in it.
            all.setMinWidth(0);
            all.setPrefWidth(1);
            row = all;
        }

        @Override
        protected void updateItem(Doable item, boolean empty) {
            super.updateItem(item, empty);
            setGraphic(empty || item == null ? null : row);
            if (!empty && item != null) {
                words.setText(item.words());
                more.setText(item.more());
                words.setDisable(item.run() == null);
                setAccessibleText(item.words() + ", " + item.more());
            }
        }
    }
}
