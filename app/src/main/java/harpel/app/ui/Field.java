package harpel.app.ui;

import java.util.function.Consumer;
import java.util.function.Predicate;
import javafx.css.PseudoClass;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/**
 * A line of text that Enter takes and Escape leaves as it was, as does going elsewhere. What does not read stays to be mended, marked,
 * while {@code say} tells what is wrong.
 */
public final class Field extends TextField {
    private static final PseudoClass WRONG = PseudoClass.getPseudoClass("wrong");

    private String shown = "";

    /**
     * @param what what it holds, for the tip and a screen reader
     * @param take takes what was typed; throws {@link IllegalArgumentException} with what is wrong with it
     */
    public Field(String id, String what, Consumer<String> take, Consumer<String> say) {
        setId(id);
        setAccessibleText(what);
        Tips.set(this, what + "; Enter sets it");
        setOnAction(event -> {
            try {
                take.accept(getText().strip());
                pseudoClassStateChanged(WRONG, false);
                // Taken, it is shown as whoever took it says it.
                setText(shown);
                // The keyboard goes back to whoever had it, mostly the piano keys.
                getParent().requestFocus();
            } catch (IllegalArgumentException e) {
                pseudoClassStateChanged(WRONG, true);
                say.accept(e.getMessage());
            }
        });
        Predicate<KeyEvent> back =
                event -> event.getCode() == KeyCode.ESCAPE && !getText().equals(shown);
        addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (back.test(event)) {
                leave();
                event.consume();
            }
        });
        focusedProperty().addListener((property, before, now) -> {
            if (!now) {
                leave();
            }
        });
    }

    private void leave() {
        setText(shown);
        pseudoClassStateChanged(WRONG, false);
    }

    /** Shows what holds now; what is being typed stays until it is taken or left. */
    public void show(String text) {
        boolean typing = isFocused() && !getText().equals(shown);
        shown = text;
        if (!typing) {
            setText(text);
        }
    }
}
