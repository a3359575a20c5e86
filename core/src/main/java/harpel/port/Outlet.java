package harpel.port;

import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What stands between the engine and one port: a queue of its own, which the engine fills without waiting, and the sending of it, which
 * waits for that port alone. It counts what sounds on each channel and pitch, so that a second start strikes again, the last end ends, and
 * everything is ended when the port fails, comes back or closes. Silence drops the notes that wait and goes before all else.
 */
final class Outlet implements AutoCloseable {
    private static final long RETRY_NANOS = 2_000_000_000L;
    private static final long STUCK_NANOS = 1_000_000_000L;
    private static final long BEHIND_NANOS = 5_000_000_000L;
    private static final int CLOCK = 0xF8;

    /**
     * A message and when it is due.
     *
     * @param plain whether it is no event of the music, such as a light: it is not counted as what sounds
     */
    private record Timed(byte[] message, long dueNanos, boolean plain) {
        boolean isNote() {
            return !plain && (message[0] & 0xE0) == 0x80;
        }
    }

    private final OutputPort port;
    private final LongSupplier clock;
    private final Runnable cameBack;
    private final EdgeQueue<Timed> queue = new EdgeQueue<>();
    private final Lateness lateness = new Lateness();
    private final Thread thread;

    /** The starts that were taken and not ended: only their ends are. Owned by the engine's thread. */
    private final Set<NoteStart> begun = Collections.newSetFromMap(new IdentityHashMap<>());

    private volatile long behindUntil;

    /** How many notes sound on each channel and pitch. Owned by the sender, as the channels in use. */
    private final int[] sounding = new int[Slots.VOICES];

    private int channels;
    private long retryNanos;

    /** Up to what in the queue Silence reaches: written before it is asked for. */
    private final AtomicLong silentTo = new AtomicLong();

    private volatile boolean silence;
    private volatile boolean closing;
    /** When the sending began that has not come back; 0 for none. */
    private volatile long sendingSince;

    private volatile String failure = "";
    private volatile long delayNanos;
    private volatile long activeNanos;

    /**
     * @param threaded whether it sends on a thread of its own; else whoever calls {@link #pump} does
     * @param cameBack called when it has come back and must be told its sounds
     */
    Outlet(OutputPort port, LongSupplier clock, boolean threaded, Runnable cameBack) {
        this.port = port;
        this.cameBack = cameBack;
        this.clock = clock;
        this.thread = threaded ? new Thread(this::run, "harpel-port-" + port.name()) : null;
        if (threaded) {
            thread.setDaemon(true);
            thread.setPriority(Thread.MAX_PRIORITY);
            thread.start();
        }
    }

    /** Everything sounds so much later from now on. */
    void delay(long nanos) {
        delayNanos = nanos;
        wake();
    }

    long activeNanos() {
        return activeNanos;
    }

    // The engine's side

    /** Puts an event of the music behind what waits. On the engine's thread; never waits. */
    void offer(Event event, byte[] bytes, long dueNanos) {
        Timed timed = new Timed(bytes, dueNanos, false);
        if (event instanceof NoteStart start) {
            if (begun.size() < EdgeQueue.ROOM_FOR_ENDS && queue.offer(timed, EdgeQueue.Kind.OTHER, Slots.NONE)) {
                begun.add(start);
            } else {
                fallsBehind();
            }
        } else if (event instanceof NoteEnd end) {
            if (begun.remove(end.start())) {
                queue.offer(timed, EdgeQueue.Kind.END, Slots.NONE);
            }
        } else {
            offer(timed, Slots.of(bytes[0] & 0xFF, bytes.length > 1 ? bytes[1] : 0));
        }
        wake();
    }

    /** Puts a message behind what waits that is no event of the music. On the engine's thread; never waits. */
    void offerPlain(byte[] message, long dueNanos) {
        offer(new Timed(message, dueNanos, true), Slots.ofPlain(message));
        wake();
    }

    private void offer(Timed timed, int slot) {
        if (!queue.offer(timed, slot >= 0 ? EdgeQueue.Kind.VALUE : EdgeQueue.Kind.OTHER, slot)) {
            fallsBehind();
        }
    }

    private void fallsBehind() {
        long now = clock.getAsLong();
        if (behindUntil == 0 || now >= behindUntil) {
            log().warn("{} falls behind; starts of notes are left out", port.name());
        }
        behindUntil = now + BEHIND_NANOS;
    }

    /** Ends everything at once, in front of all that waits; notes and clocks that wait are dropped. On the engine's thread. */
    void silence() {
        begun.clear();
        panic();
    }

    /** The same from any thread, for when the engine does not answer. */
    void panic() {
        silentTo.accumulateAndGet(queue.lastOrder(), Math::max);
        silence = true;
        wake();
    }

    private void wake() {
        if (thread != null) {
            LockSupport.unpark(thread);
        }
    }

    /** What is wrong with the port, in words; empty for nothing. */
    String problem() {
        if (!failure.isEmpty()) {
            return "failed: " + failure + "; it is tried again every two seconds";
        }
        long now = clock.getAsLong();
        long since = sendingSince;
        if (since != 0 && now - since > STUCK_NANOS) {
            return "does not take what it is sent";
        }
        return behindUntil != 0 && now < behindUntil ? "gets more than it can send" : "";
    }

    long worstLateNanos(long nowNanos) {
        return lateness.worst(nowNanos);
    }

    // The sender's side

    private void run() {
        while (!closing) {
            if (pump() == 0) {
                if (!failure.isEmpty()) {
                    LockSupport.parkNanos(this, RETRY_NANOS / 4);
                } else if (!silence && queue.isEmpty()) {
                    LockSupport.park(this);
                } else {
                    rest();
                }
            }
        }
        pump();
        finish();
    }

    /** Waits for the time of what is to be sent next. */
    private void rest() {
        EdgeQueue.Entry<Timed> head = queue.peek();
        long left = head == null || silence ? 0 : head.item().dueNanos + delayNanos - clock.getAsLong();
        if (left > 0) {
            LockSupport.parkNanos(this, left);
        }
    }

    private void finish() {
        if (!failure.isEmpty()) {
            // One more try, for the sake of what sounds there.
            retryNanos = clock.getAsLong();
            comesBack();
        }
        endAll();
        try {
            port.close();
        } catch (Throwable e) {
            log().info("{} did not close: {}", port.name(), e.toString());
        }
    }

    /** Sends all that waits and is due; gives how many messages were taken from the queue. */
    int pump() {
        int count = 0;
        if (!failure.isEmpty() && !comesBack()) {
            while (queue.poll() != null) {
                count++;
            }
            return count;
        }
        for (EdgeQueue.Entry<Timed> next = next(); next != null; next = next()) {
            count++;
            send(next.item());
        }
        return count;
    }

    /** What is sent next; Silence is looked at before anything is taken, for what was taken would sound after it. */
    private EdgeQueue.Entry<Timed> next() {
        if (silence) {
            fallSilent();
        }
        if (delayNanos > 0) {
            EdgeQueue.Entry<Timed> head = queue.peek();
            if (head != null && clock.getAsLong() < head.item().dueNanos + delayNanos && !closing) {
                return null;
            }
        }
        return queue.poll();
    }

    /** Drops the notes that wait, ends those that sound, and sends of what else waited the latest of each. */
    private void fallSilent() {
        Map<Object, Timed> stays = new LinkedHashMap<>();
        while (silence) {
            silence = false;
            drop(silentTo.get(), stays);
            endAll();
            tellAll();
            for (Iterator<Timed> one = stays.values().iterator(); one.hasNext() && !silence; one.remove()) {
                send(one.next());
            }
        }
    }

    private void drop(long upTo, Map<Object, Timed> stays) {
        for (EdgeQueue.Entry<Timed> head = queue.peek(); head != null && head.order() <= upTo; head = queue.peek()) {
            EdgeQueue.Entry<Timed> one = queue.poll();
            Timed timed = one.item();
            if (!timed.isNote() && (timed.message[0] & 0xFF) != CLOCK) {
                // Taken out first, so that they keep the order of their latest.
                Object slot = one.slot() >= 0 ? (Object) one.slot() : timed;
                stays.remove(slot);
                stays.put(slot, timed);
            }
        }
    }

    private void send(Timed timed) {
        if (!failure.isEmpty()) {
            // What never reached the port is not counted; what sounds there is ended when it is back.
            return;
        }
        byte[] message = timed.message;
        long dueNanos = timed.dueNanos + delayNanos;
        channels |= message[0] < (byte) 0xF0 ? 1 << (message[0] & 0x0F) : 0;
        if (!timed.isNote()) {
            write(message, dueNanos);
            return;
        }
        int voice = Slots.voice(message[0], message[1]);
        if (Slots.isStart(message[0], message[2])) {
            if (sounding[voice] > 0) {
                write(end(voice), dueNanos);
            }
            sounding[voice]++;
            write(message, dueNanos);
        } else if (sounding[voice] > 0 && --sounding[voice] == 0) {
            end(voice, message, dueNanos);
        }
    }

    /** Sends an end; one that did not arrive is sent again when the port is back. */
    private void end(int voice, byte[] message, long dueNanos) {
        sounding[voice] = write(message, dueNanos) ? 0 : 1;
    }

    private static byte[] end(int voice) {
        return new byte[] {(byte) (0x80 | voice >> 7), (byte) (voice & 0x7F), NoteEnd.PLAIN_RELEASE};
    }

    /** Ends all that sounds. */
    private void endAll() {
        for (int voice = 0; voice < Slots.VOICES; voice++) {
            if (sounding[voice] > 0) {
                end(voice, end(voice), clock.getAsLong());
            }
        }
    }

    /** MIDI 1.0: All Notes Off is controller 123, All Sound Off 120. Channels that were played on come first. */
    private void tellAll() {
        for (int used = 1; used >= 0; used--) {
            for (int channel = 0; channel < 16; channel++) {
                if ((channels >> channel & 1) == used) {
                    write(MidiBytes.control(channel, Message.ALL_NOTES_OFF, 0), clock.getAsLong());
                    write(MidiBytes.control(channel, Message.ALL_SOUND_OFF, 0), clock.getAsLong());
                }
            }
        }
    }

    /** Writes to the port; false when it has failed. */
    private boolean write(byte[] message, long dueNanos) {
        if (!failure.isEmpty()) {
            return false;
        }
        sendingSince = Math.max(1, clock.getAsLong());
        activeNanos = sendingSince;
        try {
            port.send(message, dueNanos);
            lateness.record(clock.getAsLong(), Math.max(0, clock.getAsLong() - dueNanos));
            return true;
        } catch (Throwable e) { // whatever a driver does, it concerns this port alone
            failure = e.getMessage() == null ? e.toString() : e.getMessage();
            retryNanos = clock.getAsLong() + RETRY_NANOS;
            log().warn("{} failed and is tried again every 2 s", port.name(), e);
            return false;
        } finally {
            sendingSince = 0;
        }
    }

    /** Tries to open the port again when it is time; true when it is back. */
    private boolean comesBack() {
        if (clock.getAsLong() < retryNanos) {
            return false;
        }
        retryNanos = clock.getAsLong() + RETRY_NANOS;
        String before = failure;
        try {
            port.reopen();
            failure = "";
        } catch (Throwable e) {
            log().debug("{} is not back: {}", port.name(), e.toString());
            return false;
        }
        // What sounded when it failed may sound still.
        endAll();
        tellAll();
        if (failure.isEmpty()) {
            log().info("{} is back after: {}", port.name(), before);
            cameBack.run();
        }
        return failure.isEmpty();
    }

    /** Sends what waits, ends what sounds and closes the port; one that does not come back is left behind. */
    @Override
    public void close() {
        closing = true;
        if (thread == null) {
            pump();
            finish();
            return;
        }
        LockSupport.unpark(thread);
        try {
            thread.join(500);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static Logger log() {
        return LoggerFactory.getLogger(Outlet.class);
    }
}
