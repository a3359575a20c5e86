package harpel.app.look;

import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** The one line at the foot of the window, and what ends the long work it speaks of. Interface thread. */
public final class Messages {
    /** Something that can be done, in words. */
    public record Offer(String words, Runnable action) {}

    private final ObjectProperty<Offer> offered = new SimpleObjectProperty<>();
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
        offered.set(null);
        last.set(text);
    }

    /** What can be done about the last message; null for nothing. */
    public ObjectProperty<Offer> offered() {
        return offered;
    }

    /** Does what is offered, if anything is. */
    public void doOffered() {
        if (offered.get() != null) {
            offered.get().action().run();
        }
    }

    /** Says something, and what can be done about it, until the next is said. */
    public void offer(String text, String words, Runnable action) {
        last.set(text);
        offered.set(new Offer(words, action));
    }
}
