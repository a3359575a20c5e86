package harpel.app.ui;

import java.util.function.DoubleConsumer;
import javafx.scene.control.Slider;
import javafx.scene.input.MouseEvent;

/** A value that is dragged along a line; dragging it tells it, showing one does not. */
public final class Slide extends Slider {
    private boolean showing;
    /** Whether it was pressed: the toolkit breaks on a drag that began before the line was there. */
    private boolean pressed;

    /**
     * @param words what it is, for the tip and a screen reader
     * @param let what is done when the hand has left it
     */
    public Slide(String id, String words, double least, double most, DoubleConsumer moved, Runnable let) {
        super(least, most, least);
        setId(id);
        setAccessibleText(words);
        Tips.set(this, words);
        valueProperty().addListener((property, before, now) -> {
            if (!showing) {
                moved.accept(now.doubleValue());
            }
        });
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> pressed = true);
        addEventFilter(MouseEvent.MOUSE_DRAGGED, event -> {
            if (!pressed) {
                event.consume();
            }
        });
        setOnMouseReleased(event -> {
            pressed = false;
            let.run();
        });
        setOnKeyReleased(event -> let.run());
    }

    public void show(double value) {
        showing = true;
        setValue(value);
        showing = false;
    }
}
