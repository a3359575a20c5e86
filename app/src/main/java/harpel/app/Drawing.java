package harpel.app;

import javafx.scene.AccessibleRole;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;

/**
 * A control that is drawn: it takes the keyboard when pressed, shows that it has it, and paints itself anew when asked. Digits typed on
 * it belong to it, not to the piano keys.
 */
abstract class Drawing extends Region {
    /** Around what is drawn, for the line that shows the keyboard. */
    static final double EDGE = 3;

    private final Session session;
    private final Canvas canvas = new Canvas();
    private boolean stale = true;
    private Theme paintedIn;

    Drawing(Session session, String id, double height) {
        this.session = session;
        setId(id);
        getStyleClass().add("drawing");
        getChildren().add(canvas);
        setMinHeight(height);
        setPrefHeight(height);
        setMaxHeight(height);
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        addEventFilter(MouseEvent.MOUSE_PRESSED, event -> requestFocus());
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> event.consume());
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (!event.isShortcutDown() && !event.isAltDown() && key(event)) {
                event.consume();
            }
        });
        focusedProperty().addListener((property, before, now) -> repaint());
    }

    final Session session() {
        return session;
    }

    /** Paints within the given size; the ground is filled already. */
    abstract void paint(GraphicsContext g, Theme theme, double width, double height);

    /** Takes a key; true when it meant something. */
    boolean key(KeyEvent event) {
        return false;
    }

    /** What is drawn has changed; it is painted with the next frame. */
    final void repaint() {
        stale = true;
    }

    @Override
    protected void layoutChildren() {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        repaint();
    }

    /** Paints if anything has changed; once a frame. */
    final void draw() {
        Theme theme = session.theme().get();
        if ((stale || theme != paintedIn) && canvas.getWidth() > 0) {
            stale = false;
            paintedIn = theme;
            GraphicsContext g = canvas.getGraphicsContext2D();
            g.clearRect(0, 0, canvas.getWidth(), canvas.getHeight());
            g.save();
            g.translate(EDGE, EDGE);
            g.setFont(Font.font("Lato", 11));
            paint(g, theme, canvas.getWidth() - 2 * EDGE, canvas.getHeight() - 2 * EDGE);
            g.restore();
        }
    }

    /** Where on the drawing a mouse event lies, from the left, as a share of its width. */
    final double across(MouseEvent event) {
        return (event.getX() - EDGE) / Math.max(1, getWidth() - 2 * EDGE);
    }

    /** Where it lies from the bottom, as a share of the height. */
    final double up(MouseEvent event) {
        return 1 - (event.getY() - EDGE) / Math.max(1, getHeight() - 2 * EDGE);
    }

    static Color faint(Color color, double strength) {
        return color.deriveColor(0, 1, 1, strength);
    }

    static double clamp(double value, double low, double high) {
        return Math.max(low, Math.min(high, value));
    }
}
