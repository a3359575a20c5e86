package harpel.app.draw;

import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.app.ui.Type;
import java.util.IdentityHashMap;
import java.util.Map;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;

/**
 * A control that is drawn: it takes the keyboard when pressed, shows that it has it, and paints itself anew when asked. Digits typed on
 * it belong to it, not to the piano keys.
 */
public abstract class Drawing extends Region {
    /** Around what is drawn, for the line that shows the keyboard. */
    public static final double EDGE = 3;

    private static final double ALONE = 440;

    private static final Map<Color, Color[]> SHADES = new IdentityHashMap<>();

    private final Look look;
    private final SharpCanvas canvas = new SharpCanvas();
    private double tall;
    private double enlarged = 1;
    private final Freshness freshness = new Freshness();

    public Drawing(Look look, String id, double height) {
        this.look = look;
        setId(id);
        getStyleClass().add("drawing");
        getChildren().add(canvas);
        tall(height);
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        addEventFilter(MouseEvent.MOUSE_PRESSED, event -> requestFocus());
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> event.consume());
        addEventFilter(MouseEvent.MOUSE_PRESSED, event -> {
            if (event.isAltDown() && reset()) {
                event.consume();
            }
        });
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            boolean erases = event.getCode() == KeyCode.DELETE || event.getCode() == KeyCode.BACK_SPACE;
            boolean meant = !event.isShortcutDown() && !event.isAltDown();
            if (meant && (key(event) || erases && reset())) {
                event.consume();
            }
        });
        addEventHandler(ScrollEvent.SCROLL, event -> {
            // With Shift held some systems turn the wheel sideways.
            double turned = event.getDeltaY() != 0 ? event.getDeltaY() : event.getDeltaX();
            if (isFocused() && turned != 0 && !event.isShortcutDown()) {
                wheel(turned > 0, event.isShiftDown());
                event.consume();
            }
        });
        focusedProperty().addListener((property, before, now) -> repaint());
    }

    /** How tall it is where it is not enlarged. */
    public final void tall(double height) {
        tall = height;
        double now = tall * enlarged;
        if (getPrefHeight() != now) {
            setMinHeight(now);
            setPrefHeight(now);
            setMaxHeight(now);
        }
    }

    /** Lets it take what room there is, from a height on. */
    public final void fill(double least) {
        setMinHeight(least);
        setPrefHeight(least);
        setMaxHeight(Double.MAX_VALUE);
        VBox.setVgrow(this, Priority.ALWAYS);
    }

    public final double tall() {
        return tall;
    }

    /** Shows it so many times as tall, but no taller than there is room for one alone. */
    public final void enlarge(double times) {
        enlarged = times > 1 ? Math.min(times, Math.max(1, ALONE / tall)) : 1;
        tall(tall);
    }

    /** Paints within the given size; the ground is filled already. */
    public abstract void paint(GraphicsContext g, Theme theme, double width, double height);

    /** Takes a key; true when it meant something. */
    public boolean key(KeyEvent event) {
        return false;
    }

    /** Takes a turn of the wheel, once the drawing has the keyboard; it does what Up and Down do. */
    public void wheel(boolean up, boolean fine) {
        key(new KeyEvent(KeyEvent.KEY_PRESSED, "", "", up ? KeyCode.UP : KeyCode.DOWN, fine, false, false, false));
    }

    /** Sets what is drawn to its defaults, by Delete or an Alt-click; false where there is no such thing. */
    public boolean reset() {
        return false;
    }

    /** What is drawn has changed; it is painted with the next frame. */
    public final void repaint() {
        freshness.repaint();
    }

    @Override
    protected void layoutChildren() {
        freshness.laidOut();
    }

    /** Paints if anything has changed; once a frame. */
    public final void draw() {
        if (freshness.due(look, size -> canvas.fit(getWidth(), getHeight(), size), getWidth() > 0)) {
            Theme theme = look.theme().get();
            GraphicsContext g = canvas.begin();
            g.save();
            g.translate(EDGE, EDGE);
            g.setFont(Type.plain(Type.NOTE));
            paint(g, theme, getWidth() - 2 * EDGE, getHeight() - 2 * EDGE);
            g.restore();
        }
    }

    /** Where on the drawing a mouse event lies, from the left, as a share of its width. */
    public final double across(MouseEvent event) {
        return (event.getX() - EDGE) / Math.max(1, getWidth() - 2 * EDGE);
    }

    /** Where it lies from the bottom, as a share of the height. */
    public final double up(MouseEvent event) {
        return 1 - (event.getY() - EDGE) / Math.max(1, getHeight() - 2 * EDGE);
    }

    /** A colour less opaque, in hundredths; made once and used again. Interface thread. */
    public static Color faint(Color color, double strength) {
        int hundredths = (int) Math.round(100 * clamp(strength, 0, 1));
        Color[] shades = SHADES.computeIfAbsent(color, base -> new Color[101]);
        if (shades[hundredths] == null) {
            shades[hundredths] = color.deriveColor(0, 1, 1, hundredths / 100.0);
        }
        return shades[hundredths];
    }

    public static double clamp(double value, double low, double high) {
        return Math.max(low, Math.min(high, value));
    }
}
