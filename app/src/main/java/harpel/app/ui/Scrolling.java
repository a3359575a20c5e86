package harpel.app.ui;

import javafx.scene.Node;
import javafx.scene.control.ScrollPane;

/** Scrolls up and down what is higher than its place. */
public final class Scrolling extends ScrollPane {
    public Scrolling(Node content) {
        super(content);
        setFitToWidth(true);
        setFocusTraversable(false);
        setHbarPolicy(ScrollBarPolicy.NEVER);
        // A viewport that is kept as a picture is drawn whole, and twice, for every note that moves in it.
        skinProperty().addListener((property, before, now) -> {
            Node viewport = lookup(".viewport");
            if (viewport != null) {
                viewport.setCache(false);
            }
        });
    }
}
