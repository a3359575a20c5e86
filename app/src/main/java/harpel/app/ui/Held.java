package harpel.app.ui;

import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;

/** What lasts as long as something is held, by mouse or by Enter; it ends when the keyboard leaves, too. */
public final class Held {
    private final Node node;
    private final Runnable begins;
    private final Runnable ends;
    private boolean held;

    private Held(Node node, Runnable begins, Runnable ends) {
        this.node = node;
        this.begins = begins;
        this.ends = ends;
    }

    /** From now on both are done when the node is pressed and let go of. */
    public static void on(Node node, Runnable begins, Runnable ends) {
        Held it = new Held(node, begins, ends);
        node.setFocusTraversable(true);
        node.addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            if (event.getButton() == MouseButton.PRIMARY) {
                node.requestFocus();
                it.set(true);
                event.consume();
            }
        });
        node.addEventHandler(MouseEvent.MOUSE_RELEASED, event -> it.set(false));
        node.addEventHandler(KeyEvent.KEY_PRESSED, event -> it.key(event, true));
        node.addEventHandler(KeyEvent.KEY_RELEASED, event -> it.key(event, false));
        node.focusedProperty().addListener((property, before, focused) -> {
            if (!focused) {
                it.set(false);
            }
        });
        node.sceneProperty().addListener((property, before, now) -> it.set(false));
    }

    private void key(KeyEvent event, boolean down) {
        if (event.getCode() == KeyCode.ENTER && node.isFocused()) {
            set(down);
            event.consume();
        }
    }

    private void set(boolean now) {
        if (now != held) {
            held = now;
            (held ? begins : ends).run();
        }
    }
}
