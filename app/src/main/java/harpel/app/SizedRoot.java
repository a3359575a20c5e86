package harpel.app;

import harpel.app.session.Session;
import java.util.List;
import javafx.beans.InvalidationListener;
import javafx.scene.Scene;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.transform.Scale;

/**
 * Shows the window's content larger, 100–200 %; where it would become too small to hold everything, it is scrolled. Where it need not
 * be, nothing stands between the window and its content, so that only what has changed is drawn anew.
 */
final class SizedRoot extends Region {
    static final double LEAST_WIDTH = 512;
    static final double LEAST_HEIGHT = 350;
    private static final double BAR = 14;

    private final Scale scale = new Scale(1, 1);
    /** As large as its content is shown, whatever goes on in that: what a scroll pane holds is measured at each change of its bounds. */
    private final Pane inside = new Pane() {
        @Override
        protected void layoutChildren() {
            getChildren().forEach(child -> child.resizeRelocate(0, 0, content.getPrefWidth(), content.getPrefHeight()));
        }
    };

    private final ScrollPane scroll = new ScrollPane(inside);
    private final InvalidationListener looksOther = property -> {
        arrange();
        restyle();
    };
    private Session session;
    private Region content;

    /** A scene with that content, which follows the theme and the size that are chosen. */
    static Scene scene(Session session, Region content, double width, double height) {
        SizedRoot root = new SizedRoot();
        Scene scene = new Scene(root, width, height);
        root.show(session, content);
        return scene;
    }

    private SizedRoot() {
        getStyleClass().add("window-content");
        scroll.setFocusTraversable(false);
        widthProperty().addListener((property, before, now) -> arrange());
        heightProperty().addListener((property, before, now) -> arrange());
    }

    /** Shows that content from now on, in place of what was there. */
    void show(Session newSession, Region newContent) {
        if (session != null) {
            session.look().size().removeListener(looksOther);
            session.look().theme().removeListener(looksOther);
        }
        session = newSession;
        content = newContent;
        session.look().size().addListener(looksOther);
        session.look().theme().addListener(looksOther);
        inside.getChildren().clear();
        // Before the content comes: it would be styled without, and once more with them.
        restyle();
        getChildren().setAll(content);
        arrange();
    }

    private void restyle() {
        List<String> styles = session.look().styles();
        if (!getScene().getStylesheets().equals(styles)) {
            getScene().getStylesheets().setAll(styles);
        }
        getScene().setFill(session.look().theme().get().paper);
    }

    private double wide() {
        return getWidth() / session.look().size().get();
    }

    private double high() {
        return getHeight() / session.look().size().get();
    }

    private void arrange() {
        if (session == null) {
            return;
        }
        double size = session.look().size().get();
        scale.setX(size);
        scale.setY(size);
        content.getTransforms().setAll(size == 1 ? List.of() : List.of(scale));
        boolean scrolls = getWidth() > 0 && getHeight() > 0 && (wide() < LEAST_WIDTH || high() < LEAST_HEIGHT);
        if (scrolls && content.getParent() == this) {
            inside.getChildren().setAll(content);
            getChildren().setAll(scroll);
        } else if (!scrolls && content.getParent() != this) {
            inside.getChildren().clear();
            getChildren().setAll(content);
        }
        if (scrolls) {
            double bar = BAR / size;
            boolean across = wide() < LEAST_WIDTH;
            boolean down = high() < LEAST_HEIGHT;
            content.setPrefSize(
                    across ? LEAST_WIDTH : down ? wide() - bar : wide(),
                    down ? LEAST_HEIGHT : across ? high() - bar : high());
            inside.setMinSize(content.getPrefWidth() * size, content.getPrefHeight() * size);
            inside.setMaxSize(inside.getMinWidth(), inside.getMinHeight());
            inside.requestLayout();
        }
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        if (content.getParent() == this) {
            content.resizeRelocate(0, 0, wide(), high());
        } else {
            scroll.resizeRelocate(0, 0, getWidth(), getHeight());
        }
    }
}
