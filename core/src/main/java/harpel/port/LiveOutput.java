package harpel.port;

import harpel.event.Event;

/** Where the live engine sends to. Called on the engine thread; must not wait. */
public interface LiveOutput {
    /**
     * Sends an event; the end of a note goes to the port that its start went to.
     *
     * @param port the name of an output; empty for the built-in sounds
     * @param dueNanos when the event is to sound, as {@link System#nanoTime}
     */
    void send(String port, Event event, long dueNanos);

    /** Sends a message that is no event of the music, such as a clock. */
    default void sendPlain(String port, byte[] message, long dueNanos) {}

    /** All Notes Off and All Sound Off on every channel of every port. */
    void silence();

    /** The name of a port that was opened since, and must be told what to sound like; null when there is none. */
    default String takeOpened() {
        return null;
    }

    /** The worst lateness of what was sent in the last minute. */
    default long worstLateNanos(long nowNanos) {
        return 0;
    }
}
