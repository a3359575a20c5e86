package harpel.app.session;

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

    /** Time starts anew at a tick. */
    record Restart(long tick, long barTicks) {}

    /** A stage left a note out. */
    record Full(long tick) {}

    /** Where a lever stands, 0–1. */
    public record LeverAt(String name, double value) {}

    /** Where the controller of a lever stands, 0–1, that has not met it. */
    public record KnobAt(String name, double value) {}

    /** The step a row of a stage has come to. */
    public record StepAt(int row, int step) {}

    /** A note that left for elsewhere, or its end. */
    public record Away(Event event) {}

    /** A pitch that could not be done with as was wanted. */
    public record Lost(long tick, int pitch) {}

    /** A parameter of a stage has this value in force. */
    public record InForce(String param, Object value) {}

    /** What a place tells: an event that left it, a text it says, the values it was moved to, a step, a lever; or that time starts anew. */
    public record Left(String part, String place, Object what) {}

    private final SpscAtomicArrayQueue<Left> queue = new SpscAtomicArrayQueue<>(ROOM);
    private final AtomicLong dropped = new AtomicLong();

    private void offer(String part, String place, Object what) {
        if (!queue.offer(new Left(part, place, what))) {
            dropped.lazySet(dropped.get() + 1);
        }
    }

    @Override
    public void left(String part, String place, Event event) {
        if (place.equals(Tap.KEYS)) {
            return;
        }
        if (!(event instanceof Message message) || message.isBend() || message.status() == Message.CONTROL_CHANGE) {
            offer(part, place, event);
        }
    }

    @Override
    public void away(String part, String place, Event event) {
        offer(part, place, new Away(event));
    }

    @Override
    public void lost(String part, String place, long tick, int pitch) {
        offer(part, place, new Lost(tick, pitch));
    }

    @Override
    public void restarted(long tick, long barTicks) {
        offer("", "", new Restart(tick, barTicks));
    }

    @Override
    public void full(String part, String place, long tick) {
        offer(part, place, new Full(tick));
    }

    @Override
    public void said(String part, String place, String text) {
        offer(part, place, text);
    }

    @Override
    public void moved(String part, String place, ParamSet values) {
        offer(part, place, values);
    }

    @Override
    public void stepped(String part, String place, int row, int step) {
        offer(part, place, new StepAt(row, step));
    }

    @Override
    public void inForce(String part, String place, String param, Object value) {
        offer(part, place, new InForce(param, value));
    }

    @Override
    public void lever(String name, double value) {
        offer("", "", new LeverAt(name, value));
    }

    @Override
    public void knob(String name, double value) {
        offer("", "", new KnobAt(name, value));
    }

    public void drain(Consumer<Left> taker) {
        queue.drain(taker::accept);
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
