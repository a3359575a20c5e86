package harpel.device;

import java.util.Queue;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.locks.LockSupport;

/**
 * A stand-in for a machine that sends its clock: 24 clocks a quarter (MIDI 1.0), also while it stands, as early or late as is wanted. Told
 * what to do from any thread; sends on one of its own until it is closed.
 */
public final class SimulatedClock implements AutoCloseable {
    /** So many milliseconds early or late a clock may be. */
    public static final double MOST_JITTER = 10;

    /** The last sixteenth that a song position can name. */
    public static final int LAST_SIXTEENTH = 16_383;

    private static final double SLOWEST = 20;
    private static final double FASTEST = 400;
    private static final int CLOCK = 0xF8;
    private static final int START = 0xFA;
    private static final int CONTINUE = 0xFB;
    private static final int STOP = 0xFC;
    private static final int POSITION = 0xF2;
    private static final int CLOCKS_A_QUARTER = 24;

    private final SimulatedMachine.Device device;
    private final Queue<int[]> told = new ConcurrentLinkedQueue<>();
    private final Random random = new Random();
    private final Thread thread;
    private volatile double bpm = 120;
    private volatile double jitterMillis;
    private volatile boolean silent;
    private volatile boolean open = true;

    public SimulatedClock(SimulatedMachine.Device device) {
        this.device = device;
        thread = new Thread(this::run, "simulated-clock");
        thread.setDaemon(true);
        thread.start();
    }

    /** @param newBpm quarters a minute, 20–400 */
    public void tempo(double newBpm) {
        if (!(newBpm >= SLOWEST && newBpm <= FASTEST)) {
            throw new IllegalArgumentException("its tempo is 20–400 quarters a minute, but was " + newBpm);
        }
        bpm = newBpm;
    }

    /** Each clock comes up to so many milliseconds early or late, drawn for each, 0–10. */
    public void jitter(double millis) {
        if (!(millis >= 0 && millis <= MOST_JITTER)) {
            throw new IllegalArgumentException("jitter is 0–10 ms, but was " + millis);
        }
        jitterMillis = millis;
    }

    /** Sends no clocks while it is, as when a cable is loose; its time goes on. */
    public void silent(boolean now) {
        silent = now;
    }

    /** From the beginning. */
    public void begin() {
        tell(START, 0, 0);
    }

    /** From where it stands. */
    public void goOn() {
        tell(CONTINUE, 0, 0);
    }

    public void stop() {
        tell(STOP, 0, 0);
    }

    /** @param sixteenth counted from 0, to 16,383 */
    public void position(int sixteenth) {
        if (sixteenth < 0 || sixteenth > LAST_SIXTEENTH) {
            throw new IllegalArgumentException("a song position is 0–16,383 sixteenths, but was " + sixteenth);
        }
        tell(POSITION, sixteenth & 0x7F, sixteenth >> 7);
    }

    private void tell(int status, int data1, int data2) {
        told.add(new int[] {status, data1, data2});
        LockSupport.unpark(thread);
    }

    private void run() {
        double next = System.nanoTime();
        double late = 0;
        while (open) {
            for (int[] one = told.poll(); one != null; one = told.poll()) {
                device.play(one[0], one[1], one[2]);
            }
            long now = System.nanoTime();
            if (now >= next + late) {
                if (!silent) {
                    device.play(CLOCK, 0, 0);
                }
                next += 60e9 / (bpm * CLOCKS_A_QUARTER);
                // Never before the one before it.
                late = Math.max(now - next, (2 * random.nextDouble() - 1) * jitterMillis * 1e6);
            } else {
                LockSupport.parkNanos((long) (next + late - now));
            }
        }
    }

    @Override
    public void close() {
        open = false;
        LockSupport.unpark(thread);
    }
}
