package harpel.app.ui;

import harpel.app.ui.room.OnlyShown;
import javafx.geometry.Pos;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What will surprise and why, and the way out as a link; not there while there is nothing to say. */
public final class AdviceLine {
    private final Label text = new Label();
    private final Hyperlink way = new Hyperlink();
    private final Pane node;

    private AdviceLine(String style, boolean below) {
        text.getStyleClass().add(style);
        text.setWrapText(true);
        text.setMinHeight(Region.USE_PREF_SIZE);
        if (below) {
            node = new VBox(Space.TIGHT, text, way);
        } else {
            way.setMinWidth(Region.USE_PREF_SIZE);
            HBox line = new HBox(Space.GAP, text, way);
            line.setAlignment(Pos.CENTER_LEFT);
            node = line;
        }
        OnlyShown.in(node);
        show("", "", () -> {});
    }

    /** With the way out behind the words. */
    public static AdviceLine beside(String style) {
        return new AdviceLine(style, false);
    }

    /** With the way out below the words. */
    public static AdviceLine below(String style) {
        return new AdviceLine(style, true);
    }

    /** What stands in the window. */
    public Pane node() {
        return node;
    }

    /** Calls words and link by these ids. */
    public AdviceLine ids(String words, String link) {
        text.setId(words);
        way.setId(link);
        return this;
    }

    /**
     * Says this from now on.
     *
     * @param says nothing where that is empty
     * @param wayOut what the link says; none where that is empty
     */
    public void show(String says, String wayOut, Runnable action) {
        text.setText(says);
        way.setText(wayOut);
        way.setOnAction(event -> action.run());
        shown(way, !wayOut.isEmpty());
        shown(text, !says.isEmpty());
        shown(node, !says.isEmpty());
    }

    private static void shown(Region one, boolean now) {
        one.setManaged(now);
        one.setVisible(now);
    }
}
