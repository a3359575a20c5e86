package harpel.app.ui;

import java.util.function.Consumer;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** A line of text that is laid over a drawn value to type another: Enter takes it; Escape and going elsewhere put it away. */
public final class TypedOver extends TextField {
    private Consumer<String> take = text -> {};

    public TypedOver(String id) {
        setId(id);
        setManaged(false);
        setVisible(false);
        setOnAction(event -> take.accept(getText().strip()));
        addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                putAway();
                event.consume();
            }
        });
        focusedProperty().addListener((property, before, focused) -> {
            if (!focused) {
                putAway();
            }
        });
    }

    /** Asks for a text in the place it has been given, with what holds now to begin with. */
    public void ask(String text, Consumer<String> newTake) {
        take = newTake;
        setText(text);
        setVisible(true);
        requestFocus();
        selectAll();
    }

    public void putAway() {
        setVisible(false);
    }
}
