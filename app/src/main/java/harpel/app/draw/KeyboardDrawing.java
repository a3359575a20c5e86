package harpel.app.draw;

import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.theory.Pitch;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.paint.Color;

/** A small drawn keyboard of which one key is chosen: by pressing it, or by Left and Right, Up and Down for octaves. */
public abstract class KeyboardDrawing extends Drawing {
    private static final boolean[] BLACK = {
        false, true, false, true, false, false, true, false, true, false, true, false
    };
    private static final int[] WHITES_BELOW = {0, 1, 1, 2, 2, 3, 4, 4, 5, 5, 6, 6};
    private final int lowest;
    private final int octaves;
    private int chosen = 60;

    public KeyboardDrawing(Look look, String id, double height, int lowest, int octaves) {
        super(look, id, height);
        this.lowest = lowest;
        this.octaves = octaves;
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            int pitch = pitchAt(event);
            if (event.isShiftDown()) {
                other(pitch);
            } else {
                choose(pitch);
            }
        });
    }

    /** The key's ground in that theme, or null for a plain key. */
    public abstract Color colour(Theme theme, int pitch);

    /** Whether the key has a mark at its foot. */
    public abstract boolean marked(int pitch);

    /** Another key is chosen. */
    public abstract void chose();

    /** A key is pressed with Shift. */
    public abstract void other(int pitch);

    public final int chosen() {
        return chosen;
    }

    public final void choose(int pitch) {
        chosen = (int) clamp(pitch, lowest, lowest + 12.0 * octaves - 1);
        repaint();
        chose();
    }

    private double white(double width) {
        return width / (7 * octaves);
    }

    /** The left edge of a key. */
    private double left(int pitch, double width) {
        int above = pitch - lowest;
        double place = above / 12 * 7 + WHITES_BELOW[above % 12];
        return (place - (BLACK[above % 12] ? 0.3 : 0)) * white(width);
    }

    private int pitchAt(MouseEvent event) {
        double width = getWidth() - 2 * EDGE;
        double x = across(event) * width;
        boolean high = up(event) > 0.42;
        int found = lowest;
        for (int pitch = lowest; pitch < lowest + 12 * octaves; pitch++) {
            boolean black = BLACK[Pitch.pitchClass(pitch)];
            double wide = white(width) * (black ? 0.6 : 1);
            double left = left(pitch, width);
            if (x >= left
                    && x < left + wide
                    && (black ? high : found == lowest || !BLACK[Pitch.pitchClass(found)] || !high)) {
                found = pitch;
            }
        }
        return found;
    }

    @Override
    public boolean key(KeyEvent event) {
        switch (event.getCode()) {
            case LEFT -> choose(chosen - 1);
            case RIGHT -> choose(chosen + 1);
            case UP -> choose(chosen + 12);
            case DOWN -> choose(chosen - 12);
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void paint(GraphicsContext g, Theme theme, double width, double height) {
        for (int pitch = lowest; pitch < lowest + 12 * octaves; pitch++) {
            if (!BLACK[Pitch.pitchClass(pitch)]) {
                paintKey(g, theme, pitch, width, height, white(width), height);
            }
        }
        for (int pitch = lowest; pitch < lowest + 12 * octaves; pitch++) {
            if (BLACK[Pitch.pitchClass(pitch)]) {
                paintKey(g, theme, pitch, width, height, white(width) * 0.6, height * 0.58);
            }
        }
    }

    private void paintKey(
            GraphicsContext g, Theme theme, int pitch, double width, double height, double wide, double tall) {
        double x = left(pitch, width);
        boolean black = BLACK[Pitch.pitchClass(pitch)];
        Color colour = colour(theme, pitch);
        g.setFill(colour != null ? colour : black ? Theme.DAY.ink : theme.ivory);
        g.fillRect(x + 0.5, 0, wide - 1, tall);
        int name = Pitch.pitchClass(pitch);
        if (name == 0 || name == 5) {
            g.setFill(name == 0 ? Theme.DAY.red : Theme.DAY.blue);
            g.fillRect(x + wide / 2 - 1, height - 8, 2, 7);
        }
        if (marked(pitch)) {
            g.setFill(black ? theme.ivory : Theme.DAY.ink);
            g.fillOval(x + wide / 2 - 2, tall - (black ? 7 : 16), 4, 4);
        }
        if (pitch == chosen) {
            g.setStroke(isFocused() ? Theme.DAY.brassText : Theme.DAY.soft);
            g.setLineWidth(2);
            g.strokeRect(x + 1.5, 1, wide - 3, tall - 2);
            g.setLineWidth(1);
        }
    }
}
