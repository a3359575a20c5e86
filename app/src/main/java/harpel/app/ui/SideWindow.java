package harpel.app.ui;

import java.util.EnumMap;
import java.util.Map;
import javafx.beans.binding.Bindings;
import javafx.event.Event;
import javafx.event.EventTarget;
import javafx.event.EventType;
import javafx.geometry.Insets;
import javafx.geometry.Rectangle2D;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Slider;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Region;
import javafx.stage.Screen;
import javafx.stage.Stage;

/** A small window beside the main one, as a simulated device has. The keys of the computer play and act as they do in the main window. */
public final class SideWindow {
    private static final double HIGH_UP = 110;

    private final Scene behind;
    private final Map<KeyCode, KeyEvent> down = new EnumMap<>(KeyCode.class);
    private final Stage stage = new Stage();

    /**
     * @param behind what is shown in the main window
     * @param wide how far from the right edge of the screen it opens
     */
    public SideWindow(String title, Region content, Scene behind, double wide, Runnable closed) {
        this.behind = behind;
        content.setPadding(new Insets(Space.ROOM));
        content.getStyleClass().addAll("harpel", "phrase-view");
        Scene scene = new Scene(content);
        Bindings.bindContent(scene.getStylesheets(), behind.getStylesheets());
        scene.addEventFilter(KeyEvent.ANY, event -> {
            Node owner = scene.getFocusOwner();
            boolean presses = event.getCode() == KeyCode.ENTER && owner instanceof ButtonBase;
            if (presses && event.getEventType() == KeyEvent.KEY_PRESSED) {
                ((ButtonBase) owner).fire();
                event.consume();
            } else if (!presses
                    && event.getCode() != KeyCode.TAB
                    && !(owner instanceof TextInputControl)
                    && !(owner instanceof Slider && event.getCode().isNavigationKey())) {
                pass(event);
            }
        });
        stage.focusedProperty().addListener((property, before, now) -> {
            if (!now) {
                down.values().forEach(event -> pass(event, KeyEvent.KEY_RELEASED));
                down.clear();
            }
        });
        stage.setTitle(title);
        stage.setScene(scene);
        stage.setOnHidden(event -> {
            Bindings.unbindContent(scene.getStylesheets(), behind.getStylesheets());
            closed.run();
        });
        stage.setResizable(false);
        // Beside what it plays, where there is room.
        Rectangle2D screen = Screen.getPrimary().getVisualBounds();
        stage.setX(screen.getMaxX() - wide);
        stage.setY(screen.getMinY() + HIGH_UP);
    }

    private void pass(KeyEvent event) {
        if (event.getEventType() == KeyEvent.KEY_PRESSED) {
            down.put(event.getCode(), event);
        } else if (event.getEventType() == KeyEvent.KEY_RELEASED) {
            down.remove(event.getCode());
        }
        pass(event, event.getEventType());
        event.consume();
    }

    private void pass(KeyEvent event, EventType<KeyEvent> type) {
        EventTarget to = behind.getFocusOwner() == null ? behind.getRoot() : behind.getFocusOwner();
        Event.fireEvent(to, event.copyFor(to, to, type));
    }

    public void show() {
        stage.show();
        stage.toFront();
    }
}
