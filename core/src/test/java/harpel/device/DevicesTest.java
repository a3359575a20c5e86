package harpel.device;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.device.Devices.Use;
import harpel.engine.LiveEngine;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.port.InputPort;
import harpel.port.OutputPort;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.testkit.StrictPort;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Devices that appear, vanish, refuse, fail, wait and flood, while it plays. */
class DevicesTest {
    private final Ports ports = new Ports();
    private final List<String> told = new CopyOnWriteArrayList<>();
    private final StrictPort pierPort = new StrictPort("Pier");
    private final StrictPort shorePort = new StrictPort("Shore");
    private final SimulatedMachine machine = new SimulatedMachine();
    private final Piece piece = Piece.empty()
            .withParts(List.of(
                    Part.of("Bells", harpel.chain.Chain.EMPTY)
                            .withHearing(new Hearing(Hearing.Source.DEVICE, "Keys", 0))
                            .withPort("Pier"),
                    Part.of("Bass", harpel.chain.Chain.EMPTY).withPort("Shore")));
    private final LiveEngine engine = new LiveEngine(piece, ports, Tap.NONE);
    private final Devices devices = new Devices(machine, engine, ports, told::add);

    @AfterEach
    void close() {
        devices.close();
        engine.close();
        ports.close();
    }

    private static void await(BooleanSupplier what) {
        long giveUp = System.nanoTime() + 10_000_000_000L;
        boolean is = what.getAsBoolean();
        while (!is && System.nanoTime() < giveUp) {
            Thread.onSpinWait();
            is = what.getAsBoolean();
        }
        assertThat(is).isTrue();
    }

    /** Without memory for a moment, it looks again a second later. */
    @Test
    void anErrorAtOneLookEndsNoOther() {
        AtomicInteger looks = new AtomicInteger();
        try (Devices own = new Devices(
                () -> {
                    if (looks.incrementAndGet() == 1) {
                        throw new OutOfMemoryError("on purpose");
                    }
                    return List.of();
                },
                engine,
                ports,
                told::add)) {
            own.start();
            await(() -> looks.get() > 1);
        }
    }

    @Test
    void whatIsPluggedInPlaysAndIsPlayedAndWhatIsPulledOutEndsItsNotes() {
        engine.start();
        SimulatedMachine.Device pier = machine.plugIn("Pier", pierPort);
        devices.look();
        assertThat(told).as("what is there at first is not told").isEmpty();
        SimulatedMachine.Device keys = machine.plugIn("Keys");
        devices.look();
        assertThat(told).containsExactly("“Keys” connected.");
        keys.play(0x90, 60, 90);
        await(() -> pierPort.log().contains("+60"));
        machine.pullOut(keys);
        devices.look();
        await(() -> pierPort.open().isEmpty());
        assertThat(told).last().asString().startsWith("“Keys” is gone; its notes have ended.");
        assertThat(devices.all())
                .extracting(Devices.Shown::name, Devices.Shown::isThere)
                .containsExactly(
                        org.assertj.core.api.Assertions.tuple("Keys", false),
                        org.assertj.core.api.Assertions.tuple("Pier", true));
    }

    /** A driver that plays until it has been closed, and a little longer. */
    @Test
    void aDeviceThatPlaysWhileItIsClosedLeavesNothingHanging() {
        engine.start();
        machine.plugIn("Pier", pierPort);
        List<InputPort> way = new ArrayList<>();
        List<MachineDevices.Found> there = new ArrayList<>(List.of(new MachineDevices.Found() {
            @Override
            public String name() {
                return "Keys";
            }

            @Override
            public boolean isInput() {
                return true;
            }

            @Override
            public AutoCloseable openInput(InputPort to) {
                way.add(to);
                return () -> to.offer(0x90, 62, 90, System.nanoTime());
            }

            @Override
            public OutputPort openOutput() {
                throw new IllegalStateException("it only plays");
            }
        }));
        try (Devices own = new Devices(
                () -> {
                    List<MachineDevices.Found> all = new ArrayList<>(machine.found());
                    all.addAll(there);
                    return all;
                },
                engine,
                ports,
                told::add)) {
            own.look();
            way.get(0).offer(0x90, 60, 90, System.nanoTime());
            await(() -> pierPort.log().contains("+60"));
            there.clear();
            own.look();
            way.get(0).offer(0x90, 64, 90, System.nanoTime());
            await(() -> pierPort.log().contains("-60"));
            assertThat(pierPort.open()).isEmpty();
            assertThat(pierPort.log()).doesNotContain("+62", "+64");
        }
    }

    @Test
    void anOutputThatComesBackIsTakenUpAgainAndNothingHangsAtIt() {
        engine.start();
        SimulatedMachine.Device pier = machine.plugIn("Pier", pierPort);
        SimulatedMachine.Device keys = machine.plugIn("Keys");
        devices.look();
        keys.play(0x90, 60, 90);
        await(() -> pierPort.log().contains("+60"));
        machine.pullOut(pier);
        devices.look();
        assertThat(pierPort.open()).isEmpty();
        keys.play(0x80, 60, 64);
        keys.play(0x90, 64, 90);
        machine.plugIn(pier);
        devices.look();
        assertThat(told).last().isEqualTo("“Pier” connected again.");
        assertThat(pier.opened()).isEqualTo(2);
        keys.play(0x90, 67, 90);
        await(() -> pierPort.log().contains("+67"));
        keys.play(0x80, 64, 64);
        keys.play(0x80, 67, 64);
        await(() -> pierPort.open().isEmpty());
    }

    @Test
    void equalNamesAreNumberedAndOneThatRefusesIsNamedAndTriedAgain() {
        machine.plugIn("Pier", pierPort);
        SimulatedMachine.Device second = machine.plugIn("Pier", shorePort);
        second.refuse(true);
        devices.look();
        assertThat(ports.names()).containsExactly("Pier");
        assertThat(devices.all().get(1).name()).isEqualTo("Pier 2");
        assertThat(devices.all().get(1).problem()).isEqualTo("taken by somebody else");
        second.refuse(false);
        devices.look();
        assertThat(ports.names()).containsExactly("Pier", "Pier 2");
        assertThat(devices.all().get(1).problem()).isEmpty();
    }

    @Test
    void whatIsNotUsedIsNotOpenedAndAnInputMayBeHeardOnOneChannel() {
        engine.start();
        SimulatedMachine.Device pier = machine.plugIn("Pier", pierPort);
        SimulatedMachine.Device keys = machine.plugIn("Keys");
        devices.use("Keys", true, Use.PLAIN.withChannel(3));
        devices.use("Pier", false, Use.PLAIN.withUsed(false));
        devices.look();
        assertThat(pier.opened()).isZero();
        devices.use("Pier", false, Use.PLAIN);
        devices.look();
        keys.play(0x90, 60, 90);
        keys.play(0x92, 64, 90);
        await(() -> pierPort.log().contains("+64"));
        assertThat(pierPort.log()).doesNotContain("+60");
        assertThat(devices.activeNanos("Keys", true)).isPositive();
        await(() -> devices.activeNanos("Pier", false) > 0);
        assertThatThrownBy(() -> Use.PLAIN.withDelay(400)).hasMessageContaining("−250–250 ms but was 400");
    }

    @Test
    void aFloodOfTenThousandMessagesHangsNothingAndOthersAreOnTime() {
        engine.start();
        SimulatedMachine.Device pier = machine.plugIn("Pier", pierPort);
        machine.plugIn("Shore", shorePort);
        SimulatedMachine.Device keys = machine.plugIn("Keys");
        devices.look();
        engine.keysTo("bass");
        for (int i = 0; i < 10_000; i++) {
            keys.play(i % 2 == 0 ? 0x90 : 0x80, 30 + i / 2 % 60, 90);
        }
        InputPort hand = engine.openInput("Hand");
        hand.offer(0x90, 60, 90, System.nanoTime());
        await(() -> shorePort.log().contains("+60"));
        hand.offer(0x80, 60, 64, System.nanoTime());
        await(() -> shorePort.open().isEmpty() && !pierPort.log().isEmpty());
        await(() -> {
            int sent = pierPort.log().size();
            java.util.concurrent.locks.LockSupport.parkNanos(50_000_000);
            return pierPort.log().size() == sent && pierPort.open().isEmpty();
        });
    }

    @Test
    void anOutputThatFailsAndOneThatWaitsDisturbNoOther() {
        engine.start();
        SimulatedMachine.Device pier = machine.plugIn("Pier", pierPort);
        machine.plugIn("Shore", shorePort);
        SimulatedMachine.Device keys = machine.plugIn("Keys");
        devices.look();
        pierPort.fail(true);
        keys.play(0x90, 60, 90);
        await(() -> ports.problems().containsKey("Pier"));
        engine.strikeAt(0, "bass", List.of(40), 90);
        await(() -> shorePort.log().contains("+40"));
        engine.letGoAt(0, "bass", List.of(40));
        await(() -> shorePort.open().isEmpty());
    }

    @Test
    void anOutputThatDoesNotTakeWhatItIsSentHoldsUpNobody() throws Exception {
        java.util.concurrent.CountDownLatch stuck = new java.util.concurrent.CountDownLatch(1);
        machine.plugIn("Pier", new OutputPort() {
            @Override
            public String name() {
                return "Pier";
            }

            @Override
            public void send(byte[] message, long dueNanos) {
                try {
                    stuck.await();
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
            }

            @Override
            public void close() {
                // it hangs
            }
        });
        machine.plugIn("Shore", shorePort);
        SimulatedMachine.Device keys = machine.plugIn("Keys");
        devices.look();
        engine.start();
        keys.play(0x90, 60, 90);
        engine.strikeAt(0, "bass", List.of(40), 90);
        await(() -> shorePort.log().contains("+40"));
        engine.letGoAt(0, "bass", List.of(40));
        await(() -> shorePort.open().isEmpty());
        await(() -> ports.problems().containsKey("Pier"));
        stuck.countDown();
    }

    @Test
    void anOutputMayBeLateAndWhereOneIsEarlyAllOthersWait() {
        long[] now = {0};
        Ports still = new Ports(() -> now[0], false);
        StrictPort late = new StrictPort("Late");
        StrictPort plain = new StrictPort("Plain");
        still.add("Late", late);
        still.add("Plain", plain);
        still.delay("Late", 30);
        harpel.event.NoteStart note = harpel.event.NoteStart.played(0, 0, 0, 60, 90);
        still.send("Late", note, 0);
        still.send("Plain", note, 0);
        still.pump();
        assertThat(late.log()).isEmpty();
        assertThat(plain.log()).containsExactly("+60");
        now[0] = 30_000_000;
        still.pump();
        assertThat(late.log()).containsExactly("+60");
        still.delay("Late", -20);
        still.send("Late", harpel.event.NoteEnd.plain(5, note), now[0]);
        still.send("Plain", harpel.event.NoteEnd.plain(5, note), now[0]);
        still.pump();
        assertThat(late.open()).isEmpty();
        assertThat(plain.open()).isNotEmpty();
        now[0] += 20_000_000;
        still.pump();
        assertThat(plain.open()).isEmpty();
    }

    @Test
    void whatIsSentLastArrivesBeforeThePortIsClosed() {
        engine.start();
        machine.plugIn("Pier", pierPort);
        devices.look();
        for (int pad = 36; pad < 100; pad++) {
            engine.sendPlain("Pier", new byte[] {(byte) 0x90, (byte) pad, 5});
        }
        engine.close();
        ports.close();
        assertThat(pierPort.log()).contains("+36", "+99").hasSizeGreaterThanOrEqualTo(64);
    }

    @Test
    void aTestNoteSoundsThereAlone() {
        engine.start();
        SimulatedMachine.Device pier = machine.plugIn("Pier", pierPort);
        machine.plugIn("Shore", shorePort);
        devices.look();
        engine.testNote("Shore", 60, true);
        await(() -> shorePort.log().contains("+60"));
        engine.testNote("Shore", 60, false);
        await(() -> shorePort.open().isEmpty());
        assertThat(pierPort.log()).isEmpty();
    }
}
