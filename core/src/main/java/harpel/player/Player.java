package harpel.player;

import harpel.engine.LiveEngine;
import harpel.piece.Piece;
import harpel.plan.Program;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.UnaryOperator;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Lets a piece be heard: what is edited, auditioned, held by pads and to come is compiled on a thread of its own, the newest alone, and
 * handed to the engine. What is asked of the engine meanwhile waits its turn, so that play begins with what was edited before it; Silence
 * does not. Everything may be called from any thread and never waits.
 */
public final class Player implements AutoCloseable {
    private final LiveEngine engine;
    private final ThreadPoolExecutor worker =
            new ThreadPoolExecutor(1, 1, 0, TimeUnit.SECONDS, new LinkedBlockingQueue<>(), work -> {
                Thread thread = new Thread(work, "harpel-player");
                thread.setDaemon(true);
                return thread;
            });

    /** What is to be heard; guarded by this, as the three below. */
    private Heard wanted;
    /** Whether that has not been taken to be compiled yet. */
    private boolean waits;

    private boolean atBar;
    /** How much of the work that was given has not been done. */
    private int undone;

    /** @param piece what the engine plays already */
    public Player(LiveEngine engine, Piece piece) {
        this.engine = engine;
        wanted = Heard.of(piece);
    }

    // What is heard

    /** A piece is heard from now on. */
    public void hear(Piece piece) {
        hear(piece, List.of(), List.of());
    }

    /**
     * A piece is heard from now on, with what is laid over it and what is to come.
     *
     * @param overs in the order in which they were begun
     * @param coming in the order of its ticks
     */
    public synchronized void hear(Piece piece, List<Over> overs, List<Coming> coming) {
        wanted = new Heard(piece, wanted.audition(), overs, coming);
        compileSoon(false);
    }

    /** A change is heard in place, from the next bar line on; nothing any more with the identity. */
    public synchronized void audition(UnaryOperator<Piece> change) {
        wanted = wanted.withAudition(change);
        compileSoon(true);
    }

    private void compileSoon(boolean newAtBar) {
        // One that is taken at once takes the other with it.
        atBar = newAtBar && (atBar || !waits);
        if (!waits) {
            waits = true;
            soon(this::compile);
        }
    }

    private void compile() {
        Heard heard;
        boolean bar;
        synchronized (this) {
            if (!waits) {
                return;
            }
            heard = wanted;
            bar = atBar;
            waits = false;
        }
        Program program = Program.after(engine.latest(), heard.now());
        if (bar && heard.coming().isEmpty()) {
            engine.takeAtBar(program);
            return;
        }
        List<LiveEngine.Later> later = new ArrayList<>();
        Program before = program;
        List<Piece> pieces = heard.later();
        for (int i = 0; i < pieces.size(); i++) {
            before = Program.after(before, pieces.get(i));
            Coming coming = heard.coming().get(i);
            later.add(new LiveEngine.Later(coming.tick(), before, coming.glideTicks()));
        }
        engine.take(program, later);
    }

    // What is asked of the engine

    public void play() {
        ask(engine::play);
    }

    /** Plays after so many bars of clicks. */
    public void playAfter(int bars) {
        ask(() -> engine.playAfter(bars));
    }

    public void stop() {
        ask(engine::stop);
    }

    public void locate(long tick) {
        ask(() -> engine.locate(tick));
    }

    /** From now on played keys go to this part. */
    public void keysTo(String part) {
        ask(() -> engine.keysTo(part));
    }

    /** A part is heard without its chain, in time, or with it again. */
    public void hearDry(String part, boolean dry) {
        ask(() -> engine.hearDry(part, dry));
    }

    /** Does a stage's own action, such as letting go of what no key holds. */
    public void act(String part, String stage) {
        ask(() -> engine.act(part, stage));
    }

    /** The same at a tick, counted on and on; at once while time stands. */
    public void actAt(long tick, String part, String stage) {
        ask(() -> engine.actAt(tick, part, stage));
    }

    /** Levers stand where they are set from now on, until the next of their points on the timeline. */
    public void holdLevers(Collection<String> names) {
        List<String> held = List.copyOf(names);
        ask(() -> engine.holdLevers(held));
    }

    /**
     * Strikes notes into a part at a tick, counted on and on, at once while time stands; they last until {@link #letGoAt}.
     *
     * @param velocity 1–127
     */
    public void strikeAt(long tick, String part, List<Integer> pitches, int velocity) {
        ask(() -> engine.strikeAt(tick, part, pitches, velocity));
    }

    /** Ends notes that were struck into a part, at a tick or as soon after as they have begun. */
    public void letGoAt(long tick, String part, List<Integer> pitches) {
        ask(() -> engine.letGoAt(tick, part, pitches));
    }

    /** Ends every note at once; what was asked for before and has not been done is not. */
    public synchronized void silence() {
        List<Runnable> dropped = new ArrayList<>();
        worker.getQueue().drainTo(dropped);
        undone -= dropped.size();
        engine.silence();
        if (waits) {
            soon(this::compile);
        }
    }

    /** Behind what is being compiled, or at once. */
    private synchronized void ask(Runnable command) {
        if (undone == 0) {
            command.run();
        } else {
            soon(command);
        }
    }

    private void soon(Runnable work) {
        if (worker.isShutdown()) {
            return;
        }
        undone++;
        worker.execute(() -> {
            try {
                work.run();
            } catch (Throwable e) {
                // Whatever went wrong, the next edit is heard again.
                log().error("an edit could not be heard", e);
                engine.trouble("This edit could not be heard, and what was before it goes on: " + e);
            } finally {
                done();
            }
        });
    }

    private synchronized void done() {
        undone--;
    }

    /** Whether all that was asked for has reached the engine. */
    public synchronized boolean isDone() {
        return undone == 0;
    }

    @Override
    public void close() {
        worker.shutdownNow();
    }

    private static Logger log() {
        return LoggerFactory.getLogger(Player.class);
    }
}
