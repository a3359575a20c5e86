package harpel.port;

/** A way out for MIDI messages. Used by one thread at a time. */
public interface OutputPort extends AutoCloseable {
    String name();

    /**
     * Sends a message; it may wait or throw, which concerns nobody but this port.
     *
     * @param dueNanos when the message is to sound, as {@link System#nanoTime}; one that is due is sent at once
     */
    void send(byte[] message, long dueNanos);

    /**
     * Opens the port anew after it failed.
     *
     * @throws Exception when that is not possible now; it is tried again
     */
    default void reopen() throws Exception {
        // what is always open needs nothing
    }

    @Override
    void close();
}
