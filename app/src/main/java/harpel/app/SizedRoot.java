package harpel.app;

import harpel.app.session.Session;
import harpel.app.ui.room.AtLeast;
import java.util.List;
import javafx.beans.InvalidationListener;
import javafx.scene.Scene;
import javafx.scene.layout.Region;
import javafx.scene.transform.Scale;

/** Shows the window's content larger, 100–200 %; where it would become too small to hold what always stays in it, it is scrolled. */
final class SizedRoot extends Region {
    static final double LEAST_WIDTH = 512;
    static final double LEAST_HEIGHT = 350;

    private final Scale scale = new Scale(1, 1);
    private final InvalidationListener looksOther = property -> {
        arrange();
        restyle();
    };
    private Session session;
    private AtLeast content;

    /** A scene with that content, which follows the theme and the size that are chosen. */
    static Scene scene(Session session, Region content, double width, double height) {
        SizedRoot root = new SizedRoot();
        Scene scene = new Scene(root, width, height);
        root.show(session, content);
        return scene;
    }

    private SizedRoot() {
        getStyleClass().add("window-content");
    }

    /** Shows that content from now on, in place of what was there. */
    void show(Session newSession, Region newContent) {
        if (session != null) {
            session.look().size().removeListener(looksOther);
            session.look().theme().removeListener(looksOther);
        }
        session = newSession;
        session.look().size().addListener(looksOther);
        session.look().theme().addListener(looksOther);
        getChildren().clear();
        // Before the content comes: it would be styled without, and once more with them.
        restyle();
        content = new AtLeast(newContent, LEAST_WIDTH, LEAST_HEIGHT);
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

    private void arrange() {
        double size = session.look().size().get();
        scale.setX(size);
        scale.setY(size);
        content.getTransforms().setAll(size == 1 ? List.of() : List.of(scale));
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        double size = session.look().size().get();
        content.resizeRelocate(0, 0, getWidth() / size, getHeight() / size);
    }
}
