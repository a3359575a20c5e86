package harpel.engine;

import harpel.bench.Material;
import harpel.bench.MeasuringPort;
import harpel.event.Event;
import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.port.Ports;
import harpel.run.Tap;
import java.util.Random;
import org.HdrHistogram.Histogram;

/** From key to sent note: through the engine's thread, and the work alone from its waking to the sent note. */
final class KeyBench {
    private static final int PRESSES = 3000;

    private KeyBench() {}

    public static void main(String[] args) throws InterruptedException {
        Piece piece = Piece.empty().withPart("part-1", part -> part.withChain(Material.stages(4)));
        System.out.println("µs              p50      p99      p99.9    worst");
        show("key to note", throughThread(piece));
        show("wake to note", workAlone(piece));
    }

    private static void show(String name, Histogram histogram) {
        System.out.printf(
                "%-15s %-8.1f %-8.1f %-8.1f %.1f%n",
                name,
                histogram.getValueAtPercentile(50) / 1e3,
                histogram.getValueAtPercentile(99) / 1e3,
                histogram.getValueAtPercentile(99.9) / 1e3,
                histogram.getMaxValue() / 1e3);
    }

    private static Histogram throughThread(Piece piece) throws InterruptedException {
        Histogram histogram = new Histogram(10_000_000_000L, 3);
        long[] pressed = {0};
        try (Ports ports = MeasuringPort.since(histogram, pressed);
                LiveEngine engine = new LiveEngine(piece, ports, Tap.NONE)) {
            InputPort port = engine.openInput("bench");
            engine.start();
            Random random = new Random(3);
            for (int i = 0; i < PRESSES + 500; i++) {
                if (i == 500) {
                    histogram.reset();
                }
                Thread.sleep(1 + random.nextInt(6));
                pressed[0] = System.nanoTime();
                port.offer(0x90, 60, 100, pressed[0]);
                Thread.sleep(1);
                port.offer(0x80, 60, 64, System.nanoTime());
            }
        }
        return histogram;
    }

    private static Histogram workAlone(Piece piece) {
        Histogram histogram = new Histogram(10_000_000_000L, 3);
        long[] woke = {0};
        LiveOutput output = new LiveOutput() {
            @Override
            public void send(String port, Event event, long dueNanos) {
                if (event instanceof NoteStart) {
                    histogram.recordValue(Math.max(0, System.nanoTime() - woke[0]));
                }
            }

            @Override
            public void silence() {
                // nothing sounds
            }
        };
        LiveCycle cycle = new LiveCycle(Program.of(piece), System::nanoTime, output, Tap.NONE);
        for (int i = 0; i < 60_000; i++) {
            if (i == 30_000) {
                histogram.reset();
            }
            woke[0] = System.nanoTime();
            cycle.take(InputPort.KEYS, new InputPort.Played(0x90, 60, 100, woke[0]));
            cycle.render(System.nanoTime());
            cycle.take(InputPort.KEYS, new InputPort.Played(0x80, 60, 64, System.nanoTime()));
            cycle.render(System.nanoTime());
        }
        return histogram;
    }
}
