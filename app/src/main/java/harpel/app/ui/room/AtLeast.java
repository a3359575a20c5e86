package harpel.app.ui.room;

import java.util.List;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;

/**
 * Shows something as large as there is room, but never smaller than it can be read: where there is less room it is scrolled. Where there is
 * enough, nothing stands between, so that only what has changed is drawn anew.
 */
public final class AtLeast extends Region {
    private static final double BAR = 14;

    private final Region content;
    private final double least;
    private final double lowest;
    /** As large as its content is shown, whatever goes on in that: what a scroll pane holds is measured at each change of its bounds. */
    private final Pane inside = new Pane() {
        @Override
        protected void layoutChildren() {
            getChildren().forEach(child -> child.resizeRelocate(0, 0, getMinWidth(), getMinHeight()));
        }
    };

    private final ScrollPane scroll = new ScrollPane(inside);

    /**
     * Shows something.
     *
     * @param least how wide it is at least
     * @param lowest how high
     */
    public AtLeast(Region content, double least, double lowest) {
        this.content = content;
        this.least = least;
        this.lowest = lowest;
        scroll.setFocusTraversable(false);
        setMinSize(0, 0);
        getChildren().setAll(content);
        widthProperty().addListener((property, before, now) -> arrange());
        heightProperty().addListener((property, before, now) -> arrange());
    }

    private void arrange() {
        boolean across = getWidth() < least;
        boolean down = getHeight() < lowest;
        boolean scrolls = getWidth() > 0 && getHeight() > 0 && (across || down);
        if (scrolls && content.getParent() == this) {
            inside.getChildren().setAll(content);
            getChildren().setAll(scroll);
        } else if (!scrolls && content.getParent() != this) {
            inside.getChildren().clear();
            getChildren().setAll(List.of(content));
        }
        if (scrolls) {
            inside.setMinSize(
                    across ? least : getWidth() - (down ? BAR : 0), down ? lowest : getHeight() - (across ? BAR : 0));
            inside.setMaxSize(inside.getMinWidth(), inside.getMinHeight());
            inside.requestLayout();
        }
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        (content.getParent() == this ? content : scroll).resizeRelocate(0, 0, getWidth(), getHeight());
    }
}
