package harpel.device;

/** A way out for MIDI messages. */
public interface OutputPort extends AutoCloseable {
    String name();

    /** @param dueNanos when the message is to sound, as {@link System#nanoTime}; one that is due is sent at once */
    void send(byte[] message, long dueNanos);

    @Override
    void close();
}
