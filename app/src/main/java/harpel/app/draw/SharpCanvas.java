package harpel.app.draw;

import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.transform.Scale;

/** A canvas with as many pixels as the size of everything asks for, so that what is drawn stays sharp when it is shown larger. */
public final class SharpCanvas extends Canvas {
    private final Scale back = new Scale(1, 1);
    private double size = 1;
    private double shownWidth;
    private double shownHeight;

    public SharpCanvas() {
        getTransforms().add(back);
    }

    /** @param newSize how much larger everything is shown, 1 being as designed */
    public void fit(double width, double height, double newSize) {
        shownWidth = width;
        shownHeight = height;
        size = newSize;
        back.setX(1 / size);
        back.setY(1 / size);
        setWidth(Math.ceil(width * size));
        setHeight(Math.ceil(height * size));
    }

    public double shownWidth() {
        return shownWidth;
    }

    public double shownHeight() {
        return shownHeight;
    }

    /** An empty canvas to draw on, in the units of the window. */
    public GraphicsContext begin() {
        GraphicsContext g = getGraphicsContext2D();
        g.setTransform(1, 0, 0, 1, 0, 0);
        g.clearRect(0, 0, getWidth(), getHeight());
        g.scale(size, size);
        return g;
    }
}
