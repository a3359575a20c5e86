package harpel.app.session;

import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** The one line at the foot of the window, and what ends the long work it speaks of. Interface thread. */
public final class Messages {
    private final StringProperty last = new SimpleStringProperty("");
    private final ObjectProperty<Runnable> cancel = new SimpleObjectProperty<>();

    public StringProperty last() {
        return last;
    }

    /** What cancels the work that goes on; null where there is none. */
    public ObjectProperty<Runnable> cancel() {
        return cancel;
    }

    public void say(String text) {
        last.set(text);
    }
}
