package harpel.device;

import harpel.event.Message;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongSupplier;
import org.jctools.queues.atomic.SpscAtomicArrayQueue;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What stands between the engine and one port: a queue of its own, which the engine fills without waiting, and the sending of it, which
 * waits for that port alone. It counts what sounds on each channel and pitch, so that a second start strikes again, the last end ends, and
 * everything is ended when the port falls behind, fails, comes back or closes.
 */
final class Outlet implements AutoCloseable {
    private static final int ROOM = 4096;
    private static final int VOICES = 16 * 128;
    private static final long RETRY_NANOS = 2_000_000_000L;
    private static final long STUCK_NANOS = 1_000_000_000L;

    /** A message and when it is due; a null message is silence. */
    private record Timed(byte[] message, long dueNanos) {}

    private final OutputPort port;
    private final LongSupplier clock;
    private final Runnable cameBack;
    private final SpscAtomicArrayQueue<Timed> queue = new SpscAtomicArrayQueue<>(ROOM);
    private final Lateness lateness = new Lateness();
    private final Thread thread;

    /** How many notes sound on each channel and pitch. Owned by the sender. */
    private final int[] sounding = new int[VOICES];

    private long retryNanos;

    private volatile boolean overflow;
    private volatile boolean panic;
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

    /** Puts a message behind those that wait. On the engine's thread; never waits. */
    void offer(byte[] message, long dueNanos) {
        if (!queue.offer(new Timed(message, dueNanos))) {
            overflow = true;
        }
        wake();
    }

    /** Ends everything, in its turn. On the engine's thread. */
    void silence() {
        if (delayNanos > 0) {
            // What waits for its time is not to sound after all.
            panic();
            return;
        }
        if (!queue.offer(new Timed(null, clock.getAsLong()))) {
            overflow = true;
        }
        wake();
    }

    /** Ends everything now and forgets what waits; from any thread, for when the engine does not answer. */
    void panic() {
        panic = true;
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
            return "failed: " + failure;
        }
        long since = sendingSince;
        return since != 0 && clock.getAsLong() - since > STUCK_NANOS ? "does not take what it is sent" : "";
    }

    long worstLateNanos(long nowNanos) {
        return lateness.worst(nowNanos);
    }

    private void run() {
        while (!closing) {
            if (pump() == 0) {
                if (failure.isEmpty() && queue.isEmpty()) {
                    LockSupport.park(this);
                } else if (failure.isEmpty()) {
                    rest();
                } else {
                    LockSupport.parkNanos(this, RETRY_NANOS / 4);
                }
            }
        }
        pump();
        finish();
    }

    /** Waits for the time of what is to be sent next. */
    private void rest() {
        Timed head = queue.peek();
        long left = head == null ? 0 : head.dueNanos + delayNanos - clock.getAsLong();
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

    /** Sends all that waits; gives how many messages were taken from the queue. */
    int pump() {
        int count = 0;
        if (!failure.isEmpty() && !comesBack()) {
            for (Timed lost = queue.poll(); lost != null; lost = queue.poll()) {
                count++;
            }
            return count;
        }
        // Looked at before a message is taken: one that was taken would sound after all has ended.
        for (Timed timed = next(); timed != null; timed = next()) {
            count++;
            if (timed.message == null) {
                endAll();
                tellAll();
            } else {
                send(timed.message, timed.dueNanos + delayNanos);
            }
        }
        if (overflow) {
            // What was lost came after all this, ends among it: nothing that sounds may wait for them.
            overflow = false;
            log().warn("{} fell behind; its notes were ended", port.name());
            endAll();
        }
        return count;
    }

    private Timed next() {
        if (panic) {
            panic = false;
            queue.clear();
            endAll();
            tellAll();
        }
        if (delayNanos > 0) {
            Timed head = queue.peek();
            if (head != null && clock.getAsLong() < head.dueNanos + delayNanos && !closing) {
                return null;
            }
        }
        return queue.poll();
    }

    private void send(byte[] message, long dueNanos) {
        if (!failure.isEmpty()) {
            // What never reached the port is not counted; what sounds there is ended when it is back.
            return;
        }
        int kind = message[0] & 0xF0;
        if (kind == 0x90 || kind == 0x80) {
            int voice = (message[0] & 0x0F) << 7 | message[1];
            if (kind == 0x90) {
                if (sounding[voice] > 0) {
                    write(end(voice), dueNanos);
                }
                sounding[voice]++;
            } else {
                if (sounding[voice] > 0 && --sounding[voice] == 0) {
                    end(voice, message, dueNanos);
                }
                return;
            }
        }
        write(message, dueNanos);
    }

    /** Sends an end; one that did not arrive is sent again when the port is back. */
    private void end(int voice, byte[] message, long dueNanos) {
        sounding[voice] = write(message, dueNanos) ? 0 : 1;
    }

    private static byte[] end(int voice) {
        return new byte[] {(byte) (0x80 | voice >> 7), (byte) (voice & 0x7F), 64};
    }

    /** Ends all that sounds. */
    private void endAll() {
        for (int voice = 0; voice < VOICES; voice++) {
            if (sounding[voice] > 0) {
                end(voice, end(voice), clock.getAsLong());
            }
        }
    }

    /** MIDI 1.0: All Notes Off is controller 123, All Sound Off 120. */
    private void tellAll() {
        for (int channel = 0; channel < 16; channel++) {
            write(MidiBytes.control(channel, Message.ALL_NOTES_OFF, 0), clock.getAsLong());
            write(MidiBytes.control(channel, Message.ALL_SOUND_OFF, 0), clock.getAsLong());
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
