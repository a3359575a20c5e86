package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.piece.Voice;
import harpel.port.InputPort;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.testkit.Played;
import harpel.testkit.StrictPort;
import java.util.concurrent.Callable;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Whatever goes wrong, the engine goes on, says so, and leaves no note hanging. */
class LiveTroubleTest {
    private final StrictPort port = new StrictPort("built-in");
    private final Ports ports = new Ports();
    private LiveEngine engine;

    private InputPort start(String stages, Tap tap) {
        ports.add(Voice.builtIn("part-1"), port);
        engine = new LiveEngine(
                Piece.empty().withPart("part-1", part -> part.withChain(Played.chain(stages))), ports, tap);
        InputPort input = engine.openInput("bench");
        engine.start();
        return input;
    }

    private static void await(Callable<Boolean> condition) throws Exception {
        long giveUp = System.nanoTime() + 20_000_000_000L;
        while (!condition.call()) {
            assertThat(System.nanoTime()).as("waited 20 s").isLessThan(giveUp);
            Thread.sleep(1);
        }
    }

    private boolean silent() {
        synchronized (port) {
            return port.open().isEmpty();
        }
    }

    @AfterEach
    void close() {
        engine.close();
        ports.close();
    }

    @Test
    void anErrorWhilePlayingEndsAllNotesIsToldAndTheEngineGoesOn() throws Exception {
        AtomicBoolean fails = new AtomicBoolean();
        InputPort input = start("", told -> {
            if (fails.get()
                    && told instanceof Told.Left left
                    && left.event() instanceof NoteStart note
                    && note.pitch() == 61) {
                throw new StackOverflowError("on purpose");
            }
        });
        input.offer(0x90, 60, 90, System.nanoTime());
        await(() -> port.log().contains("+60"));
        fails.set(true);
        input.offer(0x90, 61, 90, System.nanoTime());
        await(() -> engine.status().troubles() == 1);
        assertThat(engine.status().trouble()).contains("all notes were ended", "on purpose");
        await(this::silent);
        fails.set(false);
        input.offer(0x90, 62, 90, System.nanoTime());
        await(() -> port.log().contains("+62"));
        input.offer(0x80, 62, 64, System.nanoTime());
        await(this::silent);
    }

    @Test
    void moreThanCanBeTakenLosesStartsAndNoEnd() throws Exception {
        InputPort input = start("", Tap.NONE);
        for (int i = 0; i < 100_000; i++) {
            input.offer(i % 2 == 0 ? 0x90 : 0x80, i / 2 % 128, 90, System.nanoTime());
        }
        for (int pitch = 0; pitch < 128; pitch++) {
            input.offer(0x80, pitch, 64, System.nanoTime());
        }
        await(() -> {
            // Whatever was pressed last has ended once all was taken.
            return input.isEmpty() && silent();
        });
    }

    @Test
    void silenceIsHeardInTheMiddleOfAFlood() throws Exception {
        String echo = "{'effect':'echo','repeats':16,'time':'1 ms','fade':0}";
        InputPort input = start(String.join(",", java.util.Collections.nCopies(12, echo)), Tap.NONE);
        for (int pitch = 40; pitch < 60; pitch++) {
            input.offer(0x90, pitch, 90, System.nanoTime());
        }
        await(() -> !port.log().isEmpty());
        Thread.sleep(300);
        long asked = System.nanoTime();
        engine.silence();
        await(() -> silent() && engine.status().mode() == LiveStatus.Mode.STOPPED);
        assertThat(System.nanoTime() - asked)
                .as("within seconds on any machine")
                .isLessThan(10_000_000_000L);
    }

    @Test
    void theStageThatIsFullSaysSo() throws Exception {
        AtomicBoolean told = new AtomicBoolean();
        String echo = "{'effect':'echo','repeats':16,'time':'1/4','fade':0}";
        InputPort input = start(String.join(",", java.util.Collections.nCopies(4, echo)), one -> {
            if (one instanceof Told.Full) {
                told.set(true);
            }
        });
        input.offer(0x90, 60, 90, System.nanoTime());
        await(told::get);
        engine.silence();
        await(this::silent);
    }
}
