package harpel.engine;

import harpel.clock.ClockFollower;
import harpel.clock.ClockOut;
import harpel.format.PieceFile;
import harpel.piece.Piece;
import harpel.port.OutputPort;
import harpel.port.Ports;
import harpel.run.Tap;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.locks.LockSupport;

/**
 * The clock: how near tempo and phase are to those of a partner whose clocks jitter by ±2 ms, after two bars; and how even the clock is
 * that is sent while the demo plays, beside a bare loop that parks until the same moments.
 */
public final class ClockBench {
    private static final int TRIES = 2_000;
    private static final int TWO_BARS = 192;
    private static final int SECONDS = 15;
    private static final long JITTER = 2_000_000;

    private ClockBench() {}

    public static void main(String[] args) throws Exception {
        follow();
        send();
    }

    private static void follow() {
        List<Double> tempo = new ArrayList<>();
        List<Double> phase = new ArrayList<>();
        for (int seed = 0; seed < TRIES; seed++) {
            Random random = new Random(seed);
            double bpm = 40 + 200 * random.nextDouble();
            double period = 60e9 / bpm / ClockFollower.CLOCKS_A_QUARTER;
            ClockFollower follower = new ClockFollower(60e9 / 120 / ClockFollower.CLOCKS_A_QUARTER);
            for (int i = 0; i <= TWO_BARS; i++) {
                follower.clock(Math.round(i * period) + random.nextLong(-JITTER, JITTER + 1));
            }
            tempo.add(Math.abs(follower.bpm() - bpm));
            phase.add(Math.abs(follower.nanosOf(TWO_BARS) - TWO_BARS * period) / 1e6);
        }
        System.out.println("following ±2 ms of jitter, after two bars     p50       p99     worst");
        show("  tempo, quarters a minute", tempo);
        show("  phase, ms", phase);
    }

    private static void show(String name, List<Double> values) {
        Collections.sort(values);
        System.out.printf(
                "%-42s%8.3f  %8.3f  %8.3f%n",
                name,
                values.get(values.size() / 2),
                values.get(values.size() * 99 / 100),
                values.get(values.size() - 1));
    }

    /** Keeps how late each message that begins so was, in ms. */
    private record Lateness(int status, List<Double> late) implements OutputPort {
        @Override
        public String name() {
            return "clock";
        }

        @Override
        public void send(byte[] message, long dueNanos) {
            if ((message[0] & status) == status) {
                late.add((System.nanoTime() - dueNanos) / 1e6);
            }
        }

        @Override
        public void close() {
            // nothing is held
        }
    }

    private static void send() throws Exception {
        Piece demo = PieceFile.read(Files.readString(Path.of("demo/the-salt-clock.harpel")));
        List<Double> late = new CopyOnWriteArrayList<>();
        Ports ports = new Ports();
        List<Double> notes = new CopyOnWriteArrayList<>();
        ports.add("clock", new Lateness(ClockOut.CLOCK, late));
        ports.addListener(new Lateness(0x90, notes));
        try (LiveEngine engine = new LiveEngine(demo, ports, Tap.NONE)) {
            engine.start();
            engine.clockTo(List.of("clock"));
            LockSupport.parkNanos(2_000_000_000L);
            engine.play();
            // The first bar of a program that has just started is another matter: see the measurements of starting.
            LockSupport.parkNanos(2_500_000_000L);
            late.clear();
            notes.clear();
            LockSupport.parkNanos(SECONDS * 1_000_000_000L);
            engine.stop();
        }
        ports.close();
        List<Double> parked = new ArrayList<>();
        long period = Math.round(60e9 / 96 / ClockFollower.CLOCKS_A_QUARTER);
        long due = System.nanoTime();
        for (int i = 0; i < late.size(); i++) {
            due += period;
            while (System.nanoTime() < due) {
                LockSupport.parkNanos(due - System.nanoTime());
            }
            parked.add((System.nanoTime() - due) / 1e6);
        }
        System.out.println("clock sent while the demo plays, late by    p50       p99     worst");
        show("  Harpel’s clock, ms", new ArrayList<>(late));
        show("  its notes, ms", new ArrayList<>(notes));
        show("  a loop that parks, ms", parked);
    }
}
