package harpel.port;

/**
 * A way in for played notes: one thread offers, another takes. When more comes than can be taken, controllers wait, of which the latest
 * stays, and starts are left out and counted; ends, and the pedal going up, never are.
 */
public final class InputPort {
    /**
     * A message and when it happened.
     *
     * @param key the key that was touched, which may play another pitch, {@code data1}
     */
    public record Played(int status, int data1, int data2, int key, long nanos) {
        public Played(int status, int data1, int data2, long nanos) {
            this(status, data1, data2, data1, nanos);
        }

        public boolean isPress() {
            return Slots.isStart(status, data2);
        }

        public boolean isRelease() {
            return Slots.isEnd(status, data2);
        }
    }

    /** Looks at what comes before it is played. */
    public interface Interceptor {
        /** What {@link #take} gives for a message that is its own and is not played. */
        int MINE = -1;

        /**
         * On the offering thread: {@link #MINE}, or what is played of it: its first data byte, or for a start another pitch. The end of a
         * note that is played is shown to it, too, and comes through whatever it gives.
         */
        int take(int status, int data1, int data2);
    }

    /** The name of the way in that the window's own keys take. */
    public static final String KEYS = "keys";
    /** The name of the way in for notes that are only tried, such as those that are drawn. */
    public static final String AUDITION = "audition";

    /** What the name of a way in to one part begins with; its id follows. */
    public static final String TO_PART = "part:";

    private final EdgeQueue<Played> queue = new EdgeQueue<>();
    private final String name;
    private final Runnable wake;
    /** The keys whose starts were taken and whose ends were not. Owned by the offering thread. */
    private final boolean[] down = new boolean[Slots.VOICES];

    private volatile long activeNanos;
    private volatile Interceptor interceptor;
    /** The only channel that is heard, 1–16; 0 for all. */
    private volatile int onlyChannel;

    private volatile boolean shut;

    /** @param wake called whenever something has come, on the offering thread; must not wait */
    public InputPort(String name, Runnable wake) {
        this.name = name;
        this.wake = wake;
    }

    /** The name of a way in to one part, whatever that hears. */
    public static String toPart(String part) {
        return TO_PART + part;
    }

    /** Whether it is a device, and none of the window's own. */
    public boolean isDevice() {
        return !name.equals(KEYS) && !name.equals(AUDITION) && !name.startsWith(TO_PART);
    }

    public String name() {
        return name;
    }

    /**
     * Offers a message; always from one and the same thread.
     *
     * @param nanos when it happened, as {@link System#nanoTime}
     * @return false when so much waits that it was left out
     */
    public boolean offer(int status, int data1, int data2, long nanos) {
        activeNanos = nanos;
        boolean taken =
                Slots.isEnd(status, data2) ? end(status, data1, data2, nanos) : begin(status, data1, data2, nanos);
        wake.run();
        return taken;
    }

    /** An end goes where its start went, whoever looks at it and whatever channel is heard by now. */
    private boolean end(int status, int data1, int data2, long nanos) {
        int voice = Slots.voice(status, data1);
        Interceptor first = interceptor;
        boolean mine = first != null && first.take(status, data1, data2) == Interceptor.MINE;
        if (!down[voice]) {
            return mine || queue.hasRoom() && put(status, data1, data2, data1, nanos);
        }
        down[voice] = false;
        return put(status, data1, data2, data1, nanos);
    }

    private boolean begin(int status, int data1, int data2, long nanos) {
        Interceptor first = interceptor;
        int plays = first == null ? data1 : first.take(status, data1, data2);
        int only = onlyChannel;
        if (plays == Interceptor.MINE || only > 0 && status < 0xF0 && (status & 0x0F) + 1 != only) {
            return true;
        }
        boolean taken = put(status, plays, data2, data1, nanos);
        if (taken && Slots.isStart(status, data2)) {
            down[Slots.voice(status, data1)] = true;
        }
        return taken;
    }

    private boolean put(int status, int data1, int data2, int key, long nanos) {
        int slot = Slots.of(status, data1);
        EdgeQueue.Kind kind = Slots.isEnd(status, data2)
                ? EdgeQueue.Kind.END
                : slot >= 0 ? EdgeQueue.Kind.VALUE : EdgeQueue.Kind.OTHER;
        return queue.offer(new Played(status, data1, data2, key, nanos), kind, slot);
    }

    /**
     * Hears one channel only from now on; notes of others that have begun end.
     *
     * @param channel 1–16; 0 for all
     */
    public void hearOnly(int channel) {
        onlyChannel = channel;
    }

    /** Nothing begins here while it is shut, as when its device is gone; what began ends. */
    public void shut(boolean now) {
        shut = now;
    }

    /** What comes is looked at first from now on; by nobody with null. */
    public void intercept(Interceptor newInterceptor) {
        interceptor = newInterceptor;
    }

    /** When something came last, as {@link System#nanoTime}; 0 for never. */
    public long activeNanos() {
        return activeNanos;
    }

    /** Takes what came first of what waits; null for nothing. By the taking thread, as what follows. */
    public Played poll() {
        for (EdgeQueue.Entry<Played> entry = queue.poll(); entry != null; entry = queue.poll()) {
            // Looked at here, too: a start may have been on its way while the door was shut.
            if (!shut || !entry.item().isPress()) {
                return entry.item();
            }
        }
        return null;
    }

    /** When that came which {@link #poll} gives next; {@link Long#MAX_VALUE} for nothing. */
    public long nextNanos() {
        EdgeQueue.Entry<Played> entry = queue.peek();
        return entry == null ? Long.MAX_VALUE : entry.item().nanos;
    }

    public boolean isEmpty() {
        return queue.isEmpty();
    }

    /** How many messages were left out. */
    public long leftOut() {
        return queue.leftOut();
    }
}
