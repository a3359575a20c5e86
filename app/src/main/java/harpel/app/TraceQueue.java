package harpel.app;

import harpel.engine.Tap;
import harpel.event.Event;
import harpel.event.Message;
import harpel.param.ParamSet;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import org.jctools.queues.atomic.SpscAtomicArrayQueue;

/** Carries what left each stage from the engine thread to the interface. When it is full, traces lose data and count it; notes never do. */
public final class TraceQueue implements Tap {
    private static final int ROOM = 1 << 15;

    /**
     * What a place tells: an event that left it, a text it says, or the values it was moved to; with none of them time has started
     * anew.
     */
    public record Left(String part, String place, Event event, String text, ParamSet values) {}

    private final SpscAtomicArrayQueue<Left> queue = new SpscAtomicArrayQueue<>(ROOM);
    private final AtomicLong dropped = new AtomicLong();

    @Override
    public void left(String part, String place, Event event) {
        if (!(event instanceof Message) && !queue.offer(new Left(part, place, event, null, null))) {
            dropped.lazySet(dropped.get() + 1);
        }
    }

    @Override
    public void restarted() {
        queue.offer(new Left("", "", null, null, null));
    }

    @Override
    public void said(String part, String place, String text) {
        queue.offer(new Left(part, place, null, text, null));
    }

    @Override
    public void moved(String part, String place, ParamSet values) {
        queue.offer(new Left(part, place, null, null, values));
    }

    public void drain(Consumer<Left> taker) {
        queue.drain(taker::accept);
    }

    /** How many events the traces have missed. */
    public long dropped() {
        return dropped.get();
    }
}
