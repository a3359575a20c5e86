package harpel.app.transport;

import harpel.event.Message;
import harpel.run.Tap;
import harpel.run.Told;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import org.jctools.queues.atomic.SpscAtomicArrayQueue;

/** Carries what is told from the engine thread to the interface. When it is full, traces lose data and count it; notes never do. */
public final class TraceQueue implements Tap {
    private static final int ROOM = 1 << 15;

    private record Arrived(Told told, long nanos) {}

    private final SpscAtomicArrayQueue<Arrived> queue = new SpscAtomicArrayQueue<>(ROOM);
    private final LongSupplier clock;
    private final AtomicLong dropped = new AtomicLong();

    /** @param clock as {@link System#nanoTime} */
    public TraceQueue(LongSupplier clock) {
        this.clock = clock;
    }

    @Override
    public void tell(Told told) {
        boolean shown = !(told instanceof Told.Left left) || isShown(left);
        if (shown && !queue.offer(new Arrived(told, clock.getAsLong()))) {
            dropped.lazySet(dropped.get() + 1);
        }
    }

    private static boolean isShown(Told.Left left) {
        if (left.place().equals(Tap.KEYS)) {
            return false;
        }
        return !(left.event() instanceof Message message)
                || message.isBend()
                || message.status() == Message.CONTROL_CHANGE;
    }

    /** Takes what was told up to a moment. */
    public void drain(long untilNanos, Consumer<Told> taker) {
        for (Arrived next = queue.peek(); next != null && next.nanos <= untilNanos; next = queue.peek()) {
            taker.accept(queue.poll().told);
        }
    }

    /** Whether anything waits to be taken. */
    boolean isWaiting() {
        return !queue.isEmpty();
    }

    /** How many events the traces have missed. */
    public long dropped() {
        return dropped.get();
    }
}
