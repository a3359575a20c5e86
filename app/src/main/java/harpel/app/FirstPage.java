package harpel.app;

import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** What a newcomer needs to hear, see and compare something, on one page; shown at the first start and from the menu. */
final class FirstPage extends VBox {
    /**
     * @param demo opens the demo piece
     * @param ready puts a ready chain and a test phrase into the shown part and plays
     * @param close shows the chain again
     */
    FirstPage(Runnable demo, Runnable ready, Runnable close) {
        super(Space.EDGE);
        setId("first-page");
        getStyleClass().add("first-page");
        setPadding(new Insets(Space.PAGE, Space.FAR, Space.PAGE, Space.FAR));
        Label title = new Label("First steps");
        title.getStyleClass().add("part-title");
        Label about = words(
                "Between what you play and what sounds stands a chain of effects. Every row shows the notes that leave it.");
        FlowPane begin = new FlowPane(
                Space.GAP,
                Space.GAP,
                Buttons.button("Open the demo piece", "first-demo", "Six parts of The Salt Clock, playing", demo),
                Buttons.button(
                        "Four chords as an arpeggio",
                        "first-ready",
                        "A ready chain with four chords to work on, playing",
                        ready),
                Buttons.button("Begin empty", "first-close", "The empty chain of the first part", close));
        getChildren()
                .addAll(
                        title,
                        about,
                        step(
                                "1",
                                "Hear one note",
                                "Press Z–M or Q–I, a drawn key below, or a key of your MIDI keyboard. A clock runs from the first key."),
                        step(
                                "2",
                                "Give it something to work on",
                                "Hold a chord; or choose a test phrase in the Piece menu and press Space."),
                        step(
                                "3",
                                "Build the chain",
                                "Press “+ add effect” between two rows and type what you want: softer, echo, in key. Drag rows to try another order."),
                        step(
                                "4",
                                "Look and compare",
                                "Point at a note to see where it came from. Hold F3 to hear it dry; F2 hears chain A or B; Ctrl+Z takes anything back."),
                        step(
                                "5",
                                "Keep it",
                                "Ctrl+P prints the phrase through the chain, Ctrl+Shift+E exports a MIDI or sound file, note for note as heard. Ctrl+S saves."),
                        begin,
                        words("F1 lists every key. Escape is silence."));
    }

    private static Label words(String text) {
        Label label = new Label(text);
        label.setWrapText(true);
        label.setMinHeight(USE_PREF_SIZE);
        return label;
    }

    private static Node step(String number, String name, String how) {
        Label count = new Label(number);
        count.getStyleClass().add("part-title");
        count.setMinWidth(18);
        Label title = new Label(name);
        title.getStyleClass().add("stage-name");
        Label text = words(how);
        text.getStyleClass().add("soft");
        HBox row = new HBox(Space.ROOM, count, new VBox(0, title, text));
        row.setAlignment(Pos.TOP_LEFT);
        return row;
    }
}
