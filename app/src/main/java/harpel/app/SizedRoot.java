package harpel.app;

import harpel.app.session.Session;
import javafx.scene.Group;
import javafx.scene.Scene;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Region;
import javafx.scene.transform.Scale;

/**
 * Shows the window's content larger, 100–200 %; where it would become too small to hold everything, it is scrolled. Where it need not
 * be, nothing stands between the window and its content, so that only what has changed is drawn anew.
 */
final class SizedRoot extends Region {
    static final double LEAST_WIDTH = 1000;
    static final double LEAST_HEIGHT = 640;
    private static final double BAR = 14;

    private final Session session;
    private final Region content;
    private final Scale scale = new Scale(1, 1);
    private final Group inside = new Group();
    private final ScrollPane scroll = new ScrollPane(inside);

    /** A scene with that content, which follows the theme and the size that are chosen. */
    static Scene scene(Session session, Region content, double width, double height) {
        SizedRoot root = new SizedRoot(session, content);
        Scene scene = new Scene(root, width, height);
        root.restyle();
        return scene;
    }

    private SizedRoot(Session session, Region content) {
        this.session = session;
        this.content = content;
        getStyleClass().add("window-content");
        scroll.setFocusTraversable(false);
        getChildren().add(content);
        widthProperty().addListener((property, before, now) -> arrange());
        heightProperty().addListener((property, before, now) -> arrange());
        session.look().size().addListener((property, before, now) -> {
            arrange();
            restyle();
        });
        session.look().theme().addListener((property, before, now) -> restyle());
    }

    private void restyle() {
        getScene().getStylesheets().setAll(session.look().styles());
        getScene().setFill(session.look().theme().get().paper);
    }

    private double wide() {
        return getWidth() / session.look().size().get();
    }

    private double high() {
        return getHeight() / session.look().size().get();
    }

    private void arrange() {
        double size = session.look().size().get();
        scale.setX(size);
        scale.setY(size);
        content.getTransforms().setAll(size == 1 ? java.util.List.of() : java.util.List.of(scale));
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
