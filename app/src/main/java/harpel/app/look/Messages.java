package harpel.app.look;

import java.util.ArrayDeque;
import java.util.Deque;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** The one line at the foot of the window, and what ends the long work it speaks of. Interface thread. */
public final class Messages {
    /** Something that can be done, in words. */
    public record Offer(String words, Runnable action) {}

    private final ObjectProperty<Offer> offered = new SimpleObjectProperty<>();
    private final StringProperty last = new SimpleStringProperty("");
    private final Deque<Runnable> working = new ArrayDeque<>();
    private final ReadOnlyObjectWrapper<Runnable> cancel = new ReadOnlyObjectWrapper<>();

    public StringProperty last() {
        return last;
    }

    /** What cancels the work that was begun last; null where none goes on. */
    public ReadOnlyObjectProperty<Runnable> cancel() {
        return cancel.getReadOnlyProperty();
    }

    /** Long work begins that this cancels. */
    public void begin(Runnable cancels) {
        working.addLast(cancels);
        cancel.set(cancels);
    }

    /** Work has ended, whichever way. */
    public void end(Runnable cancels) {
        working.remove(cancels);
        cancel.set(working.peekLast());
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
