package harpel.engine;

import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.locks.LockSupport;
import org.jctools.queues.atomic.MpscAtomicArrayQueue;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Plays a piece live on one thread of its own. Everything may be called from any thread; it is done on the engine thread at its next
 * cycle, in order. The engine never waits for whoever calls or reads.
 */
public final class LiveEngine implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(LiveEngine.class);
    private static final int ROOM = 1024;
    /** The last stretch before an event is spun, not slept: sleep is only as exact as the system's timer. */
    private static final long SPIN_NANOS = 250_000;

    private static final int WARM_UP_ROUNDS = 40;
    private static final long LONGEST_WARM_UP_NANOS = 1_000_000_000;
    private static final long LONGEST_SLEEP_NANOS = 100_000_000;

    private final LiveCycle cycle;
    private final Thread thread;
    private final MpscAtomicArrayQueue<Runnable> commands = new MpscAtomicArrayQueue<>(ROOM);
    private final AtomicReference<Piece> waitingPiece = new AtomicReference<>();
    private final List<InputPort> inputs = new CopyOnWriteArrayList<>();
    private volatile LiveStatus status;
    private volatile boolean running = true;
    private final Piece warmUpPiece;

    public LiveEngine(Piece piece, LiveOutput output, Tap tap) {
        warmUpPiece = piece;
        cycle = new LiveCycle(piece, System::nanoTime, output, tap);
        status = cycle.status(System.nanoTime());
        thread = new Thread(this::run, "harpel-engine");
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
    }

    public void start() {
        thread.start();
    }

    /** Opens a way in; each is for one offering thread. */
    public InputPort openInput(String name) {
        InputPort port = new InputPort(name, thread);
        inputs.add(port);
        return port;
    }

    /** The names of the ways in there are, but for the window's own keys. */
    public List<String> inputNames() {
        return inputs.stream()
                .map(InputPort::name)
                .filter(name -> !name.equals(InputPort.KEYS))
                .distinct()
                .toList();
    }

    /** Hands over a whole new piece; of several handed over within a cycle the last counts. */
    public void update(Piece piece) {
        waitingPiece.set(piece);
        LockSupport.unpark(thread);
    }

    public void play() {
        command(() -> cycle.play(System.nanoTime()));
    }

    public void stop() {
        command(() -> cycle.stop(System.nanoTime()));
    }

    public void locate(long tick) {
        command(() -> cycle.locate(tick, System.nanoTime()));
    }

    /** Ends every sounding and waiting note at once, everywhere. */
    public void silence() {
        command(() -> cycle.silence(System.nanoTime()));
    }

    /** From now on played keys go to this part. */
    public void keysTo(String part) {
        command(() -> cycle.keysTo(part));
    }

    /** A part is heard without its chain, in time, or with it again. */
    public void hearDry(String part, boolean dry) {
        command(() -> cycle.hearDry(part, dry));
    }

    public void act(String part, String stageAddress) {
        command(() -> cycle.act(part, stageAddress));
    }

    private void command(Runnable command) {
        if (!commands.offer(command)) {
            LOG.warn("the engine has not taken {} commands; one more was refused", ROOM);
        }
        LockSupport.unpark(thread);
    }

    public LiveStatus status() {
        return status;
    }

    /** Code that has not run yet is slow: a few bars are printed to nobody before the first note counts. */
    private void warmUp() {
        Piece piece = warmUpPiece;
        long giveUp = System.nanoTime() + LONGEST_WARM_UP_NANOS;
        try {
            for (Part part : piece.parts()) {
                for (int round = 0; round < WARM_UP_ROUNDS && running && System.nanoTime() < giveUp; round++) {
                    long end = piece.time().meter().tickOfBar(2);
                    NoteStart note = NoteStart.played(0, 0, 0, 60 + round % 12, 100);
                    new PrintJob(Plan.of(piece), part.id(), true, Tap.NONE)
                            .print(List.of(note, NoteEnd.plain(end / 2, note)), end);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (RuntimeException e) {
            LOG.error("an effect failed while the engine warmed up", e);
        }
    }

    private void run() {
        warmUp();
        while (running) {
            try {
                turn();
            } catch (RuntimeException e) {
                // Whatever an effect did wrong, no note is left hanging and the engine goes on.
                LOG.error("the engine caught an error and ended all notes", e);
                cycle.silence(System.nanoTime());
            }
        }
        cycle.silence(System.nanoTime());
    }

    private void turn() {
        Piece piece = waitingPiece.getAndSet(null);
        long now = System.nanoTime();
        if (piece != null) {
            cycle.update(piece, now);
        }
        for (Runnable command = commands.poll(); command != null; command = commands.poll()) {
            command.run();
        }
        for (InputPort port : inputs) {
            for (InputPort.Played played = port.poll(); played != null; played = port.poll()) {
                cycle.take(port.name(), played);
            }
        }
        now = System.nanoTime();
        cycle.render(now);
        status = cycle.status(now);
        waitUntil(cycle.nextNanos());
    }

    /** Sleeps until shortly before, then spins; anything that is offered meanwhile wakes it. */
    private void waitUntil(long dueNanos) {
        long left = dueNanos == Long.MAX_VALUE ? LONGEST_SLEEP_NANOS : dueNanos - System.nanoTime();
        if (left > SPIN_NANOS) {
            LockSupport.parkNanos(Math.min(left - SPIN_NANOS, LONGEST_SLEEP_NANOS));
            return;
        }
        while (System.nanoTime() < dueNanos && commands.isEmpty() && waitingPiece.get() == null) {
            Thread.onSpinWait();
        }
    }

    /** Ends all notes and the thread. */
    @Override
    public void close() {
        running = false;
        LockSupport.unpark(thread);
        try {
            thread.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
