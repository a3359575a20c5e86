package harpel.testkit;

import harpel.port.OutputPort;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/** Keeps what is sent, for tests and for measuring. */
public final class RecordingPort implements OutputPort {
    /** A message, when it was due and when it was sent. */
    public record Sent(byte[] message, long dueNanos, long sentNanos) {}

    private final List<Sent> sent = new CopyOnWriteArrayList<>();

    @Override
    public String name() {
        return "Recording";
    }

    @Override
    public void send(byte[] message, long dueNanos) {
        sent.add(new Sent(message, dueNanos, System.nanoTime()));
    }

    public List<Sent> sent() {
        return sent;
    }

    @Override
    public void close() {
        // keeps what it has
    }
}
