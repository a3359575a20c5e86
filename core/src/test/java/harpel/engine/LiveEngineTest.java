package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.testkit.Played;
import harpel.testkit.RecordingPort;
import harpel.testkit.SimulatedController;
import java.util.List;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** The engine on its own thread, with the simulated controller and the recording output; nothing here measures time. */
class LiveEngineTest {
    private final RecordingPort recording = new RecordingPort();
    private final Ports ports = new Ports();
    private LiveEngine engine;

    private SimulatedController start(Piece piece) {
        ports.addListener(recording);
        engine = new LiveEngine(piece, ports, Tap.NONE);
        SimulatedController controller = new SimulatedController(engine);
        engine.start();
        return controller;
    }

    @AfterEach
    void end() {
        engine.close();
    }

    private static void await(BooleanSupplier condition) {
        long giveUp = System.nanoTime() + 10_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as("it did not happen within 10 s").isLessThan(giveUp);
            Thread.onSpinWait();
        }
    }

    private List<Integer> sent(int status) {
        return recording.sent().stream()
                .filter(sent -> (sent.message()[0] & 0xF0) == status)
                .map(sent -> (int) sent.message()[1])
                .toList();
    }

    @Test
    void aPlayedNoteLeavesThroughTheChain() {
        SimulatedController controller = start(Piece.empty()
                .withPart("part-1", part -> part.withChain(Played.chain("{'effect':'transpose','octaves':1}"))));
        controller.press(60, 100);
        await(() -> sent(0x90).size() == 1);
        controller.release(60);
        await(() -> sent(0x80).size() == 1);
        assertThat(sent(0x90)).containsExactly(72);
        assertThat(sent(0x80)).containsExactly(72);
    }

    @Test
    void anEditCountsMoreThanWhatWasToBeTakenAtABarLineBefore() {
        ports.addListener(recording);
        engine = new LiveEngine(Piece.empty(), ports, Tap.NONE);
        SimulatedController controller = new SimulatedController(engine);
        engine.takeAtBar(Program.of(Piece.empty()));
        engine.take(
                Program.of(Piece.empty()
                        .withPart(
                                "part-1", part -> part.withChain(Played.chain("{'effect':'transpose','octaves':1}")))),
                List.of());
        engine.start();
        controller.press(60, 100);
        await(() -> sent(0x90).size() == 1);
        assertThat(sent(0x90)).containsExactly(72);
    }

    @Test
    void editsAndCommandsFromOtherThreadsAreDoneInOrder() {
        SimulatedController controller = start(Piece.empty());
        engine.take(
                Program.of(
                        Piece.empty().withPart("part-1", part -> part.withChain(Played.chain("{'effect':'harmony'}")))),
                List.of());
        engine.play();
        await(() -> engine.status().mode() == LiveStatus.Mode.PLAYING);
        controller.press(60, 100);
        await(() -> sent(0x90).size() == 2);
        engine.stop();
        await(() -> sent(0x80).size() == 2);
        assertThat(engine.status().notesIn()).isEqualTo(1);
        engine.silence();
        await(() -> sent(0xB0).size() >= 32);
    }

    @Test
    void closingEndsWhatSounds() {
        SimulatedController controller = start(Piece.empty());
        controller.press(60, 100);
        await(() -> sent(0x90).size() == 1);
        engine.close();
        // The port's own thread sends it.
        await(() -> sent(0x80).equals(List.of(60)));
    }
}
