package harpel.app.session;

import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** The one line at the foot of the window. Interface thread. */
public final class Messages {
    private final StringProperty last = new SimpleStringProperty("");

    public StringProperty last() {
        return last;
    }

    public void say(String text) {
        last.set(text);
    }
}
