package harpel.bench;

import harpel.chain.Chain;
import harpel.engine.LiveEngine;
import harpel.format.midi.SmfForm;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.port.Ports;
import harpel.print.PrintOrder;
import harpel.print.PrintPool;
import harpel.print.Printed;
import harpel.run.Tap;
import harpel.sound.SoundFile;
import harpel.time.Ticks;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.concurrent.Future;
import org.HdrHistogram.Histogram;

/**
 * How soon a sheet of 12 variations of a 4-bar phrase through 8 stages is printed; how late notes are while sheets of 48 are printed one
 * after the other, and without; how fast a sound file of 6 parts is written.
 */
final class VariationBench {
    private static final int CARDS = 12;
    private static final int MANY = 48;
    private static final int SECONDS = 10;
    private static final int ROUNDS = 15;

    private VariationBench() {}

    private static Piece piece(int stages) {
        Random random = new Random(3);
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i < 64; i++) {
            notes.add(Note.of(i * Ticks.PER_QUARTER / 4, Ticks.PER_QUARTER / 4, 48 + random.nextInt(24), 90));
        }
        Chain chain = Material.stages(stages);
        return Piece.empty()
                .withPhrase(Phrase.of("p", 16L * Ticks.PER_QUARTER, notes))
                .withPart("part-1", part -> part.withPhrase("p").withChain(chain));
    }

    public static void main(String[] args) throws Exception {
        try (PrintPool pool = new PrintPool()) {
            double[] millis = new double[ROUNDS];
            for (int round = 0; round < ROUNDS; round++) {
                long begin = System.nanoTime();
                sheet(pool, piece(8), CARDS);
                millis[round] = (System.nanoTime() - begin) / 1e6;
            }
            System.out.printf("a sheet of 12, the first time, ms    %.0f%n", millis[0]);
            Arrays.sort(millis);
            System.out.printf(
                    "a sheet of 12, ms                    median %.0f  worst %.0f%n",
                    millis[ROUNDS / 2], millis[ROUNDS - 1]);
            System.out.println("lateness µs                          p50      p99      p99.9    worst");
            late("without a sheet", null);
            late("while sheets of 48 are printed", pool);
            late("without a sheet again", null);
        }
        sound();
    }

    private static void sheet(PrintPool pool, Piece piece, int cards) throws Exception {
        List<Future<Printed>> prints = new ArrayList<>();
        PrintOrder order = PrintOrder.of(piece, "part-1", Tail.ROUND);
        for (int card = 0; card < cards; card++) {
            prints.add(pool.print(order.withVariation(card)));
        }
        for (Future<Printed> print : prints) {
            print.get();
        }
    }

    private static void late(String what, PrintPool pool) throws Exception {
        Histogram histogram = new Histogram(10_000_000_000L, 3);
        Ports output = MeasuringPort.ofLateness(histogram);
        try (output;
                LiveEngine live = new LiveEngine(piece(4), output, Tap.NONE)) {
            live.start();
            Thread.sleep(2500);
            live.play();
            long until = System.nanoTime() + SECONDS * 1_000_000_000L;
            while (System.nanoTime() < until) {
                if (pool == null) {
                    Thread.sleep(100);
                } else {
                    sheet(pool, piece(8), MANY);
                }
            }
            live.stop();
            Thread.sleep(200);
        }
        System.out.printf(
                "%-36s %-8.1f %-8.1f %-8.1f %-8.1f%n",
                what,
                histogram.getValueAtPercentile(50) / 1e3,
                histogram.getValueAtPercentile(99) / 1e3,
                histogram.getValueAtPercentile(99.9) / 1e3,
                histogram.getMaxValue() / 1e3);
    }

    private static void sound() throws Exception {
        Piece demo = harpel.format.PieceFile.read(Files.readString(Path.of("demo/the-salt-clock.harpel")));
        java.util.Set<String> parts = new java.util.LinkedHashSet<>();
        demo.parts().forEach(part -> parts.add(part.id()));
        Printed printed =
                new PrintOrder(demo, parts, 0, demo.time().meter().tickOfBar(32), Tail.RING).print(done -> {});
        Path file = Files.createTempFile("harpel", ".wav");
        for (int round = 0; round < 3; round++) {
            long begin = System.nanoTime();
            new SoundFile().write(printed, SmfForm.PLAIN, file, done -> {});
            double took = (System.nanoTime() - begin) / 1e9;
            double seconds = (Files.size(file) - 44) / 4.0 / 44_100;
            System.out.printf(
                    "a sound file of 6 parts, × real time %.0f  (%.0f s in %.1f s)%n", seconds / took, seconds, took);
        }
        Files.delete(file);
    }
}
