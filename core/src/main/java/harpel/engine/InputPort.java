package harpel.engine;

import harpel.event.Message;
import java.util.concurrent.atomic.AtomicIntegerArray;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Consumer;
import org.jctools.queues.atomic.SpscAtomicArrayQueue;

/**
 * A way in for played notes: one thread offers, the engine thread takes. When more comes than the engine can take, starts and controllers
 * are left out and counted; ends, and the pedal going up, never are.
 */
public final class InputPort {
    private static final int ROOM = 4096;
    private static final int VOICES = 16 * 128;

    /** A channel message and when it happened. */
    record Played(int status, int data1, int data2, long nanos) {}

    /** The name of the way in that the window's own keys take. */
    public static final String KEYS = "keys";

    /** What the name of a way in to one part begins with; its id follows. */
    static final String TO_PART = "part:";

    private final SpscAtomicArrayQueue<Played> queue = new SpscAtomicArrayQueue<>(ROOM);
    private final String name;
    private final Thread engine;

    /** What ended while there was no room: a bit for each key, 32 in one, then one for each channel's pedal. */
    private final AtomicIntegerArray ended = new AtomicIntegerArray(VOICES / 32 + 1);

    private final AtomicLong leftOut = new AtomicLong();
    private volatile boolean overflowing;
    private volatile long activeNanos;
    private volatile Interceptor interceptor;
    /** The only channel that is heard, 1–16; 0 for all. */
    private volatile int onlyChannel;

    InputPort(String name, Thread engine) {
        this.name = name;
        this.engine = engine;
    }

    /** The name of a way in to one part, whatever that hears. */
    public static String toPart(String part) {
        return TO_PART + part;
    }

    /** Whether it is a device, and none of the window's own. */
    boolean isDevice() {
        return !name.equals(KEYS) && !name.startsWith(TO_PART);
    }

    public String name() {
        return name;
    }

    /**
     * Offers a channel message; always from one and the same thread.
     *
     * @param nanos when it happened, as {@link System#nanoTime}
     * @return false when the engine has fallen so far behind that it was not taken, unless it is an end, which is never lost
     */
    public boolean offer(int status, int data1, int data2, long nanos) {
        activeNanos = nanos;
        Interceptor first = interceptor;
        if (first != null && first.takes(status, data1, data2)) {
            return true;
        }
        int only = onlyChannel;
        boolean end = (status & 0xF0) == 0x80 || (status & 0xF0) == 0x90 && data2 == 0;
        if (only > 0 && status < 0xF0 && (status & 0x0F) + 1 != only && !end) {
            return true;
        }
        boolean taken = !overflowing && queue.offer(new Played(status, data1, data2, nanos));
        if (!taken) {
            overflowing = true;
            int kind = status & 0xF0;
            int channel = status & 0x0F;
            boolean release = kind == 0x80 || kind == 0x90 && data2 == 0;
            boolean pedalUp = kind == Message.CONTROL_CHANGE && data1 == Message.SUSTAIN && data2 < 64;
            if (release) {
                mark(channel << 7 | data1);
            } else if (pedalUp) {
                mark(VOICES + channel);
            } else {
                leftOut.lazySet(leftOut.get() + 1);
            }
        }
        LockSupport.unpark(engine);
        return taken;
    }

    /**
     * Hears one channel only from now on; notes of others that have begun end.
     *
     * @param channel 1–16; 0 for all
     */
    public void hearOnly(int channel) {
        onlyChannel = channel;
    }

    /** Looks at what comes before it is played. */
    public interface Interceptor {
        /** Whether a message is its own and is not played. On the offering thread. */
        boolean takes(int status, int data1, int data2);
    }

    /** What comes is looked at first from now on; by nobody with null. */
    public void intercept(Interceptor newInterceptor) {
        interceptor = newInterceptor;
    }

    /** When something came last, as {@link System#nanoTime}; 0 for never. */
    public long activeNanos() {
        return activeNanos;
    }

    private void mark(int bit) {
        ended.getAndUpdate(bit / 32, bits -> bits | 1 << bit % 32);
    }

    Played poll() {
        return queue.poll();
    }

    boolean isEmpty() {
        return queue.isEmpty() && !overflowing;
    }

    /** How many messages were left out. */
    long leftOut() {
        return leftOut.get();
    }

    /** Takes what ended while there was no room, after all that {@link #poll} gives; there is room again. */
    void takeEnded(long nanos, Consumer<Played> taker) {
        if (!overflowing) {
            return;
        }
        for (int i = 0; i < ended.length(); i++) {
            int bits = ended.getAndSet(i, 0);
            for (int k = 0; bits != 0; k++, bits >>>= 1) {
                if ((bits & 1) != 0) {
                    int bit = i * 32 + k;
                    taker.accept(
                            bit < VOICES
                                    ? new Played(0x80 | bit >> 7, bit & 0x7F, 64, nanos)
                                    : new Played(Message.CONTROL_CHANGE | bit - VOICES, Message.SUSTAIN, 0, nanos));
                }
            }
        }
        overflowing = false;
        // What was marked between the two lines above is taken the next time.
        for (int i = 0; i < ended.length(); i++) {
            overflowing |= ended.get(i) != 0;
        }
    }
}
