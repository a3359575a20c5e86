package harpel.engine;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.clock.ClockOut;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.testkit.Played;
import harpel.testkit.RecordingPort;
import harpel.testkit.SimulatedController;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicLong;
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

    private List<String> plain(RecordingPort port) {
        return port.sent().stream()
                .map(sent -> HexFormat.of().formatHex(sent.message()))
                .toList();
    }

    private static Piece quick() {
        return Piece.empty().withTime(new TimeMap(TempoMap.of(300), MeterMap.FOUR_FOUR));
    }

    @Test
    void aDeviceThatIsGoneHasWhatWaitedDoneAndItsKeysLetGoOfButNoOther() {
        ports.addListener(recording);
        engine = new LiveEngine(Piece.empty(), ports, Tap.NONE);
        InputPort gone = engine.openInput("Gone");
        InputPort stays = engine.openInput("Stays");
        engine.openInput(InputPort.KEYS);
        assertThat(engine.inputNames()).containsExactly("Gone", "Stays");
        gone.offer(0x90, 60, 90, 1);
        stays.offer(0x90, 64, 90, 2);
        engine.inputGone("Gone");
        engine.start();
        await(() -> sent(0x80).equals(List.of(60)) && sent(0x90).equals(List.of(60, 64)));
        engine.inputGone("Stays");
        await(() -> sent(0x80).equals(List.of(60, 64)));
    }

    @Test
    void aTestNoteSoundsAndEndsAndAControllersLightIsSent() {
        RecordingPort pier = new RecordingPort();
        ports.add("Pier", pier);
        start(Piece.empty());
        engine.testNote("Pier", 60, true);
        engine.testNote("Pier", 60, false);
        engine.sendPlain("Pier", new byte[] {(byte) 0xB0, 20, 127});
        await(() -> plain(pier).containsAll(List.of("903c5a", "803c40", "b0147f")));
    }

    @Test
    void itClicksAndSendsItsClockWhereThatIsWanted() {
        RecordingPort pier = new RecordingPort();
        ports.add("Pier", pier);
        ports.add("", recording);
        engine = new LiveEngine(quick(), ports, Tap.NONE);
        engine.start();
        engine.click(true, 99);
        engine.clockTo(List.of("Pier"));
        engine.locate(0);
        engine.play();
        // MIDI 1.0: start, then 24 clocks a quarter. General MIDI: a high wood block is 76, on channel 10.
        await(() -> plain(pier).stream().filter("f8"::equals).count() > 30);
        assertThat(plain(pier).get(0)).isEqualTo("fa");
        await(() -> plain(recording).contains("994c63"));
        engine.stop();
        await(() -> plain(pier).contains("fc"));
    }

    @Test
    void itFollowsTheClockOfAWayInAndNoOther() {
        start(Piece.empty());
        InputPort partner = engine.openInput("Partner");
        partner.offer(ClockOut.START, 0, 0, System.nanoTime());
        partner.offer(ClockOut.CLOCK, 0, 0, System.nanoTime());
        await(partner::isEmpty);
        engine.followClock("Partner");
        engine.locate(77);
        await(() -> engine.status().tickAt(0) == 77);
        assertThat(engine.status().mode()).isEqualTo(LiveStatus.Mode.STOPPED);
        partner.offer(ClockOut.START, 0, 0, System.nanoTime());
        partner.offer(ClockOut.CLOCK, 0, 0, System.nanoTime());
        await(() -> engine.status().mode() == LiveStatus.Mode.PLAYING);
        assertThat(engine.status().clock()).isEqualTo("Partner");
    }

    @Test
    void timeIsNudgedByNoMoreThanAFifthOfASecond() {
        start(quick());
        engine.play();
        await(() -> engine.status().mode() == LiveStatus.Mode.PLAYING);
        long before = engine.status().anchorNanos();
        engine.nudge(-50_000_000);
        await(() -> engine.status().anchorNanos() - before == -50_000_000);
        engine.nudge(1_000_000_000);
        await(() -> engine.status().anchorNanos() - before == 150_000_000);
    }

    @Test
    void aProgramThatIsToComeIsTakenAtItsTick() {
        SimulatedController controller = start(quick());
        Piece up =
                quick().withPart("part-1", part -> part.withChain(Played.chain("{'effect':'transpose','octaves':1}")));
        engine.play();
        await(() -> engine.status().mode() == LiveStatus.Mode.PLAYING);
        long tick = Math.round(engine.status().tickAt(System.nanoTime())) + Ticks.PER_QUARTER;
        engine.take(Program.of(quick()), List.of(new LiveEngine.Later(tick, Program.of(up), 0)));
        await(() -> engine.status().tickAt(System.nanoTime()) > tick);
        controller.press(60, 100);
        await(() -> sent(0x90).equals(List.of(72)));
    }

    @Test
    void aPartIsHeardWithoutItsChainAndPlaysAfterACountIn() {
        SimulatedController controller = start(
                quick().withPart("part-1", part -> part.withChain(Played.chain("{'effect':'transpose','octaves':1}"))));
        engine.hearDry("part-1", true);
        controller.press(60, 100);
        await(() -> sent(0x90).equals(List.of(60)));
        engine.hearDry("part-1", false);
        await(() -> sent(0x90).equals(List.of(60, 72)));
        engine.playAfter(1);
        await(() -> engine.status().mode() == LiveStatus.Mode.PLAYING);
        assertThat(engine.status().anchorTick()).isZero();
    }

    @Test
    void whatWasLeftOutIsSaidOnceWithItsNumber() {
        engine = new LiveEngine(Piece.empty(), ports, Tap.NONE);
        InputPort one = engine.openInput("One");
        InputPort two = engine.openInput("Two");
        offerUntil(one, 2);
        offerUntil(two, 3);
        engine.start();
        await(() -> engine.status().troubles() == 1);
        assertThat(engine.status().trouble()).startsWith("5 played messages came faster");
        await(() -> one.isEmpty() && two.isEmpty());
        engine.locate(99);
        await(() -> engine.status().tickAt(0) == 99);
        assertThat(engine.status().troubles()).as("once").isEqualTo(1);
    }

    private static void offerUntil(InputPort port, int leftOut) {
        for (int i = 0; port.leftOut() < leftOut; i++) {
            port.offer(0x90, i % 128, 90, i);
        }
    }

    /** Also while the engine stands on its own clock, which the test lets jump. */
    @Test
    void itSaysHowLongItHasBeenWorkingOnOneTurn() throws InterruptedException {
        AtomicLong time = new AtomicLong(5);
        CountDownLatch inTurn = new CountDownLatch(1);
        CountDownLatch go = new CountDownLatch(1);
        engine = new LiveEngine(
                Piece.empty(),
                ports,
                told -> {
                    if (told instanceof Told.Left) {
                        inTurn.countDown();
                        try {
                            go.await();
                        } catch (InterruptedException e) {
                            Thread.currentThread().interrupt();
                        }
                    }
                },
                time::get);
        assertThat(engine.standsNanos()).as("it rests").isZero();
        InputPort input = engine.openInput("Hand");
        engine.start();
        input.offer(0x90, 60, 90, 5);
        inTurn.await();
        time.set(5 + 2_000_000_000L);
        assertThat(engine.standsNanos()).isZero();
        time.set(5 + 2_000_000_001L);
        assertThat(engine.standsNanos()).isEqualTo(2_000_000_001L);
        go.countDown();
        await(() -> engine.standsNanos() == 0);
    }
}
