package harpel.app.ui.room;

import javafx.application.Platform;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Skin;
import javafx.scene.control.skin.ScrollPaneSkin;

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

    /** Without the bar that scrolls sideways, and the corner between both. */
    @Override
    protected Skin<?> createDefaultSkin() {
        ScrollPaneSkin skin = new ScrollPaneSkin(this);
        getChildren()
                .removeIf(node -> node == skin.getHorizontalScrollBar()
                        || node.getStyleClass().contains("corner"));
        return skin;
    }

    /** Scrolls so far that a node within is seen, once it has its place. */
    public void reveal(Node node) {
        Platform.runLater(() -> {
            double over = getContent().getBoundsInLocal().getHeight()
                    - getViewportBounds().getHeight();
            if (node.getScene() != getScene() || over <= 0) {
                return;
            }
            Bounds bounds = getContent().sceneToLocal(node.localToScene(node.getBoundsInLocal()));
            double top = getVvalue() * over;
            double lowest = bounds.getMaxY() - getViewportBounds().getHeight();
            setVvalue(Math.max(lowest, Math.min(top, bounds.getMinY())) / over);
        });
    }
}
