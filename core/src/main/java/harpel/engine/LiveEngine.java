package harpel.engine;

import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.run.Renderer;
import harpel.run.Tap;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongSupplier;
import org.jctools.queues.atomic.MpscAtomicArrayQueue;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Plays a piece live on one thread of its own. Everything may be called from any thread; it is done on the engine thread at its next
 * cycle, in order. The engine never waits for whoever calls or reads, only for a script, for 15 ms a call at most, and goes on whatever
 * goes wrong.
 */
public final class LiveEngine implements AutoCloseable {
    private static final int ROOM = 1024;

    /**
     * A program that is taken at a tick, counted on and on as {@link LiveStatus#tickAt}.
     *
     * @param glideTicks over so many levers come to where they stand in it
     */
    public record Later(long tick, Program program, long glideTicks) {}

    /** What is handed over: a program, and those that follow it. */
    private record Handed(Program program, List<Later> later) {}

    /** The last stretch before an event is spun, not slept: sleep is only as exact as the system's timer. */
    private static final long SPIN_NANOS = 250_000;

    /** So many messages are taken before what they do is sent. */
    private static final int MOST_A_TURN = 512;

    private static final int WARM_UP_ROUNDS = 40;
    private static final long LONGEST_WARM_UP_NANOS = 1_000_000_000;
    private static final long LONGEST_SLEEP_NANOS = 200_000_000;
    /** One turn never takes so long unless something is wrong. */
    private static final long STANDS_NANOS = 2_000_000_000L;

    private final LongSupplier clock;
    private final LiveCycle cycle;
    private final Thread thread;
    private final MpscAtomicArrayQueue<Runnable> commands = new MpscAtomicArrayQueue<>(ROOM);
    private final AtomicReference<Handed> waitingProgram = new AtomicReference<>();
    private volatile Program latest;
    private final List<InputPort> inputs = new CopyOnWriteArrayList<>();
    private volatile LiveStatus status;
    private volatile boolean running = true;
    /** Long work is given up for this. */
    private volatile boolean silenceWanted;
    /** When the turn began that is being worked on; 0 while it rests. */
    private volatile long turnNanos;

    private long leftOut;

    public LiveEngine(Piece piece, LiveOutput output, Tap tap) {
        this(piece, output, tap, System::nanoTime);
    }

    /** @param clock gives the time as {@link System#nanoTime} does */
    public LiveEngine(Piece piece, LiveOutput output, Tap tap, LongSupplier clock) {
        this.clock = clock;
        latest = Program.of(piece);
        cycle = new LiveCycle(latest, clock, output, tap).hurried(() -> silenceWanted);
        status = cycle.status(clock.getAsLong());
        thread = new Thread(this::run, "harpel-engine");
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
    }

    public void start() {
        thread.start();
    }

    /** Opens a way in; each is for one offering thread. */
    public InputPort openInput(String name) {
        InputPort port = new InputPort(name, () -> LockSupport.unpark(thread));
        inputs.add(port);
        return port;
    }

    /** The device of a way in is gone, and the way is shut: what still waits there is done, then every key it held is let go of. */
    public void inputGone(String name) {
        command(() -> {
            for (InputPort port : inputs) {
                if (port.name().equals(name)) {
                    for (InputPort.Played played = port.poll(); played != null; played = port.poll()) {
                        cycle.take(name, played);
                    }
                }
            }
            cycle.inputGone(name, clock.getAsLong());
        });
    }

    /** Strikes a note at an output, past all parts, for whoever wants to know where it is heard; and ends it. */
    public void testNote(String output, int pitch, boolean on) {
        command(() -> cycle.testNote(output, pitch, on, clock.getAsLong()));
    }

    /** The names of the ways in there are, but for the window's own keys. */
    public List<String> inputNames() {
        return inputs.stream()
                .filter(InputPort::isDevice)
                .map(InputPort::name)
                .distinct()
                .toList();
    }

    /**
     * Hands a program over, with those that follow it in their order; of several handed over within a cycle the last counts, and what was
     * to follow before does not.
     */
    public void take(Program program, List<Later> later) {
        latest = program;
        waitingProgram.set(new Handed(program, List.copyOf(later)));
        LockSupport.unpark(thread);
    }

    /** The same for a program that is taken at the next bar line while the transport runs. */
    public void takeAtBar(Program program) {
        latest = program;
        command(() -> {
            // What was handed over after it has been taken already.
            if (latest == program) {
                cycle.updateAtBar(program, clock.getAsLong());
            }
        });
    }

    /** The program that was handed over last, from which the next is compiled. */
    public Program latest() {
        return latest;
    }

    /** Says that something went wrong that did not stop the work. */
    public void trouble(String text) {
        command(() -> cycle.trouble(text));
    }

    public void play() {
        command(() -> cycle.play(clock.getAsLong()));
    }

    /** Plays after so many bars of clicks. */
    public void playAfter(int bars) {
        command(() -> cycle.playAfter(bars, clock.getAsLong()));
    }

    /** Whether beats are clicked while the transport runs, and how loud, 1–127. */
    public void click(boolean on, int velocity) {
        command(() -> cycle.click(on, velocity));
    }

    public void stop() {
        command(() -> cycle.stop(clock.getAsLong()));
    }

    public void locate(long tick) {
        command(() -> cycle.locate(tick, clock.getAsLong()));
    }

    /** Ends every sounding and waiting note at once, everywhere, whatever the engine is working on. */
    public void silence() {
        silenceWanted = true;
        command(() -> {
            silenceWanted = false;
            cycle.silence(clock.getAsLong());
        });
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

    /** Levers stand where they are set from now on, until the next of their points. */
    public void holdLevers(List<String> names) {
        command(() -> cycle.renderer().holdLevers(names));
    }

    /** Does a stage's own action at a tick, counted on and on; at once while time stands. */
    public void actAt(long tick, String part, String stageAddress) {
        command(() -> cycle.actAt(tick, part, stageAddress));
    }

    /**
     * Strikes notes into a part at a tick, counted on and on, at once while time stands; they last until {@link #letGoAt}.
     *
     * @param velocity 1–127
     */
    public void strikeAt(long tick, String part, List<Integer> pitches, int velocity) {
        command(() -> cycle.strikeAt(tick, InputPort.toPart(part), pitches, velocity));
    }

    /** Ends notes that were struck into a part, at a tick or as soon after as they have begun. */
    public void letGoAt(long tick, String part, List<Integer> pitches) {
        command(() -> cycle.strikeAt(tick, InputPort.toPart(part), pitches, 0));
    }

    /** Sends a message that is no event of the music, such as a light of a controller. */
    public void sendPlain(String output, byte[] message) {
        command(() -> cycle.sendPlain(output, message, clock.getAsLong()));
    }

    /** Time is sent to these outputs: 24 clocks a quarter, start, continue, stop, position. */
    public void clockTo(List<String> ports) {
        command(() -> cycle.clockTo(ports, clock.getAsLong()));
    }

    /** The clock of a way in drives the transport, which starts and stops with it; none where that is empty. */
    public void followClock(String input) {
        command(() -> cycle.followClock(input, clock.getAsLong()));
    }

    /** Time goes on a little later, or earlier, from now on; at most a fifth of a second. */
    public void nudge(long nanos) {
        command(() -> cycle.nudge(nanos));
    }

    private void command(Runnable command) {
        if (!commands.offer(command)) {
            log().warn("the engine has not taken {} commands; one more was refused", ROOM);
        }
        LockSupport.unpark(thread);
    }

    public LiveStatus status() {
        return status;
    }

    /** How long the engine has been working on one turn, when that is longer than anything it ought to do; else 0. */
    public long standsNanos() {
        long began = turnNanos;
        long since = began == 0 ? 0 : clock.getAsLong() - began;
        return since > STANDS_NANOS ? since : 0;
    }

    /** Code that has not run yet is slow: a few bars are printed to nobody before the first note counts. */
    private void warmUp() {
        Program program = latest;
        Piece piece = program.piece();
        long giveUp = clock.getAsLong() + LONGEST_WARM_UP_NANOS;
        try {
            for (Part part : piece.parts()) {
                for (int round = 0; round < WARM_UP_ROUNDS && running && clock.getAsLong() < giveUp; round++) {
                    long end = piece.time().meter().tickOfBar(2);
                    NoteStart note = NoteStart.played(0, 0, 0, 60 + round % 12, 100);
                    new PrintJob(program.plan(), part.id(), Tail.RING, Tap.NONE)
                            .hurried(() -> !running || clock.getAsLong() >= giveUp)
                            .print(List.of(note, NoteEnd.plain(end / 2, note)), end);
                }
            }
        } catch (InterruptedException e) {
            log().debug("the warm-up was given up in time");
        } catch (Throwable e) {
            // Nothing has been heard of it, and the engine says so itself when it meets it again.
            log().error("an effect failed while the engine warmed up", e);
        }
    }

    private void run() {
        warmUp();
        while (running) {
            try {
                turn();
            } catch (Throwable e) {
                // Whatever went wrong, no note is left hanging and the engine goes on.
                recover(e);
            }
        }
        try {
            // What was asked for last is done, such as lights that go out.
            for (Runnable command = commands.poll(); command != null; command = commands.poll()) {
                command.run();
            }
            cycle.silence(clock.getAsLong());
        } catch (Throwable e) {
            recover(e);
        }
    }

    private void recover(Throwable thrown) {
        boolean asked = thrown instanceof Renderer.Interrupted;
        silenceWanted = false;
        try {
            if (!asked) {
                log().error("the engine caught an error and ended all notes", thrown);
            }
            cycle.recover(
                    asked ? "" : "Something went wrong while playing, and all notes were ended: " + thrown,
                    clock.getAsLong());
            status = cycle.status(clock.getAsLong());
        } catch (Throwable again) {
            log().error("the engine could not begin anew at once", again);
        }
    }

    private void turn() {
        turnNanos = clock.getAsLong();
        Handed handed = waitingProgram.getAndSet(null);
        if (handed != null) {
            cycle.update(handed.program, turnNanos);
            handed.later.forEach(one -> cycle.updateAt(one.tick, one.program, one.glideTicks));
        }
        cycle.tellOpened();
        for (Runnable command = commands.poll(); command != null; command = commands.poll()) {
            command.run();
        }
        takeInputs();
        sayLeftOut();
        long now = clock.getAsLong();
        cycle.render(now);
        status = cycle.status(now);
        long next = cycle.nextNanos();
        turnNanos = 0;
        waitUntil(next);
    }

    /** Takes what came in, of all ways together in the order in which it came; what is more than a turn's has the next one. */
    private void takeInputs() {
        for (int taken = 0; taken < MOST_A_TURN; taken++) {
            InputPort first = null;
            long nanos = Long.MAX_VALUE;
            for (int i = 0; i < inputs.size(); i++) {
                InputPort port = inputs.get(i);
                long next = port.nextNanos();
                if (next < nanos) {
                    first = port;
                    nanos = next;
                }
            }
            InputPort.Played played = first == null ? null : first.poll();
            if (played == null) {
                return;
            }
            cycle.take(first.name(), played);
        }
    }

    private void sayLeftOut() {
        long all = 0;
        for (int i = 0; i < inputs.size(); i++) {
            all += inputs.get(i).leftOut();
        }
        if (all > leftOut) {
            cycle.trouble(
                    (all - leftOut)
                            + " played messages came faster than they could be taken and were left out; every note that began ends.");
            leftOut = all;
        }
    }

    /** Sleeps until shortly before, then spins; anything that is offered meanwhile wakes it. */
    private void waitUntil(long dueNanos) {
        // Nobody stops this thread so; were it marked as interrupted, it would never rest again.
        Thread.interrupted();
        long left = dueNanos == Long.MAX_VALUE ? LONGEST_SLEEP_NANOS : dueNanos - clock.getAsLong();
        if (left > SPIN_NANOS) {
            if (!anythingWaits()) {
                LockSupport.parkNanos(this, Math.min(left - SPIN_NANOS, LONGEST_SLEEP_NANOS));
            }
            return;
        }
        while (clock.getAsLong() < dueNanos && !anythingWaits()) {
            Thread.onSpinWait();
        }
    }

    private boolean anythingWaits() {
        for (int i = 0; i < inputs.size(); i++) {
            if (!inputs.get(i).isEmpty()) {
                return true;
            }
        }
        return !commands.isEmpty() || waitingProgram.get() != null;
    }

    /** Ends all notes and the thread. */
    @Override
    public void close() {
        running = false;
        silenceWanted = true;
        LockSupport.unpark(thread);
        try {
            thread.join(2000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static Logger log() {
        return LoggerFactory.getLogger(LiveEngine.class);
    }
}
