package harpel.engine;

import harpel.event.Event;

/** Where the live engine sends to. Called on the engine thread; must not wait. */
public interface LiveOutput {
    /** @param dueNanos when the event is to sound, as {@link System#nanoTime} */
    void send(String part, Event event, long dueNanos);

    /** All Notes Off and All Sound Off on every channel of every port. */
    void silence();
}
