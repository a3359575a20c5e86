package harpel.app.ui;

import javafx.scene.control.TextField;

/** A line of text that holds as it stands, and is read when something beside it is pressed. */
public final class TextLine extends TextField {
    /** @param what what it holds, for the tip and a screen reader */
    public TextLine(String id, String what, String text) {
        super(text);
        setId(id);
        setAccessibleText(what);
        Tips.set(this, what);
    }
}
