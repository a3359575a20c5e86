package harpel.engine;

import java.util.concurrent.locks.LockSupport;
import org.jctools.queues.atomic.SpscAtomicArrayQueue;

/** A way in for played notes: one thread offers, the engine thread takes. */
public final class InputPort {
    private static final int ROOM = 4096;

    /** A channel message and when it happened. */
    record Played(int status, int data1, int data2, long nanos) {}

    /** The name of the way in that the window's own keys take. */
    public static final String KEYS = "keys";

    private final SpscAtomicArrayQueue<Played> queue = new SpscAtomicArrayQueue<>(ROOM);
    private final String name;
    private final Thread engine;

    InputPort(String name, Thread engine) {
        this.name = name;
        this.engine = engine;
    }

    public String name() {
        return name;
    }

    /**
     * Offers a channel message; always from one and the same thread.
     *
     * @param nanos when it happened, as {@link System#nanoTime}
     * @return false when the engine has fallen so far behind that it was not taken
     */
    public boolean offer(int status, int data1, int data2, long nanos) {
        boolean taken = queue.offer(new Played(status, data1, data2, nanos));
        LockSupport.unpark(engine);
        return taken;
    }

    Played poll() {
        return queue.poll();
    }
}
