package harpel.bench;

import harpel.chain.Chain;
import harpel.event.Event;
import harpel.format.midi.MidiFile;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfReader;
import harpel.format.midi.SmfWriter;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.plan.Plan;
import harpel.run.Tap;
import harpel.theory.Key;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.util.List;
import javax.sound.midi.MidiSystem;

/** Print: reading, rendering and writing a file, beside the JDK reading and writing the same file with no effect. */
final class PrintBench {
    private static final int ROUNDS = 5;

    private PrintBench() {}

    public static void main(String[] args) throws Exception {
        System.out.println("notes     stages  print ms  events/s    JDK read+write ms  ratio");
        byte[] warm = Material.file(Material.phrase(20_000));
        for (int i = 0; i < 30; i++) {
            print(warm, Material.stages(8));
            jdk(warm);
        }
        for (int notes : new int[] {10_000, 100_000, 1_000_000}) {
            byte[] file = Material.file(Material.phrase(notes));
            for (int stages : new int[] {0, 1, 4, 8}) {
                Chain chain = Material.stages(stages);
                double[] ours = new double[ROUNDS];
                double[] theirs = new double[ROUNDS];
                // In turn, so that a change of the machine's speed meets both.
                for (int round = 0; round < ROUNDS; round++) {
                    ours[round] = milliseconds(() -> print(file, chain));
                    theirs[round] = milliseconds(() -> jdk(file));
                }
                double our = Material.median(ours);
                double their = Material.median(theirs);
                System.out.printf(
                        "%-9d %-7d %-9.1f %-11.0f %-18.1f %.2f%n",
                        notes, stages, our, 2000.0 * notes / our, their, our / their);
            }
        }
    }

    private interface Work {
        void run() throws Exception;
    }

    private static double milliseconds(Work work) throws Exception {
        long start = System.nanoTime();
        work.run();
        return (System.nanoTime() - start) / 1e6;
    }

    private static void print(byte[] file, Chain chain) throws Exception {
        MidiFile in = SmfReader.read(file);
        List<Event> events = in.events();
        Plan plan = Plan.ofChain("bench", chain, Key.C_MAJOR, in.time(), 1);
        PrintJob.Result result = new PrintJob(plan, "bench", Tail.STOP, Tap.NONE).print(events, in.printedEnd());
        SmfWriter.write(SmfForm.PLAIN, in.time(), in.metas(), result.events(), result.lengthTicks());
    }

    private static void jdk(byte[] file) throws Exception {
        MidiSystem.write(
                MidiSystem.getSequence(new ByteArrayInputStream(file)), 1, new ByteArrayOutputStream(file.length));
    }
}
