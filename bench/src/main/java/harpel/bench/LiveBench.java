package harpel.bench;

import harpel.chain.Chain;
import harpel.engine.LiveEngine;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.time.Ticks;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.locks.LockSupport;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Receiver;
import javax.sound.midi.Sequence;
import javax.sound.midi.Sequencer;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Track;
import org.HdrHistogram.Histogram;

/** Lateness of scheduled notes: the live engine, the JDK's sequencer, and a bare loop that parks, in turn in one run. */
final class LiveBench {
    private static final int SECONDS = 15;
    private static final int ROUNDS = 3;
    private static final double NANOS_PER_TICK = 500e6 / Ticks.PER_QUARTER;

    private LiveBench() {}

    /** Notes 1–10 ms apart. */
    private static List<Note> notes() {
        Random random = new Random(2);
        List<Note> notes = new ArrayList<>();
        for (long tick = 3000; tick < SECONDS * 2 * Ticks.PER_QUARTER; tick += 31 + random.nextInt(276)) {
            notes.add(Note.of(tick, 20, 40 + random.nextInt(40), 90));
        }
        return notes;
    }

    public static void main(String[] args) throws Exception {
        Histogram engine = new Histogram(10_000_000_000L, 3);
        Histogram sequencer = new Histogram(10_000_000_000L, 3);
        Histogram parking = new Histogram(10_000_000_000L, 3);
        double[] cpu = new double[2];
        for (int round = 0; round < ROUNDS; round++) {
            cpu = engine(engine);
            sequencer(sequencer);
            parking(parking);
        }
        System.out.println("lateness µs     p50      p99      p99.9    worst    notes");
        show("Harpel", engine);
        show("JDK sequencer", sequencer);
        show("parkNanos", parking);
        System.out.printf("CPU of the engine's thread: silent %.2f %%, playing %.1f %% of a core%n", cpu[0], cpu[1]);
    }

    private static void show(String name, Histogram histogram) {
        System.out.printf(
                "%-15s %-8.1f %-8.1f %-8.1f %-8.1f %d%n",
                name,
                histogram.getValueAtPercentile(50) / 1e3,
                histogram.getValueAtPercentile(99) / 1e3,
                histogram.getValueAtPercentile(99.9) / 1e3,
                histogram.getMaxValue() / 1e3,
                histogram.getTotalCount());
    }

    /** CPU while silent and while playing, in percent of a core. */
    private static double[] engine(Histogram histogram) throws InterruptedException {
        Phrase phrase = Phrase.of("p", (SECONDS + 1) * 2 * Ticks.PER_QUARTER, notes());
        Chain chain = Material.stages(4);
        Piece piece = Piece.empty()
                .withPhrase(phrase)
                .withPart("part-1", part -> part.withPhrase("p").withChain(chain));
        Ports output = MeasuringPort.ofLateness(histogram);
        try (output;
                LiveEngine live = new LiveEngine(piece, output, Tap.NONE)) {
            live.start();
            Thread.sleep(2500);
            double silent = cpuOver(2000);
            live.play();
            double playing = cpuOver(SECONDS * 1000L);
            live.stop();
            Thread.sleep(200);
            return new double[] {silent, playing};
        }
    }

    static double cpuOver(long ms) throws InterruptedException {
        ThreadMXBean threads = ManagementFactory.getThreadMXBean();
        long id = -1;
        for (var info : threads.getThreadInfo(threads.getAllThreadIds())) {
            if (info != null && info.getThreadName().equals("harpel-engine")) {
                id = info.getThreadId();
            }
        }
        long before = threads.getThreadCpuTime(id);
        Thread.sleep(ms);
        return (threads.getThreadCpuTime(id) - before) / 1e4 / ms;
    }

    private static void sequencer(Histogram histogram) throws Exception {
        Sequence sequence = new Sequence(Sequence.PPQ, (int) Ticks.PER_QUARTER);
        Track track = sequence.createTrack();
        List<Note> notes = notes();
        for (Note note : notes) {
            track.add(new MidiEvent(new ShortMessage(ShortMessage.NOTE_ON, note.pitch(), 90), note.tick()));
        }
        List<Long> arrived = new ArrayList<>(notes.size());
        Sequencer player = MidiSystem.getSequencer(false);
        player.open();
        player.getTransmitter().setReceiver(new Receiver() {
            @Override
            public void send(MidiMessage message, long timeStamp) {
                if (message instanceof ShortMessage) {
                    arrived.add(System.nanoTime());
                }
            }

            @Override
            public void close() {
                // nothing to close
            }
        });
        player.setSequence(sequence);
        player.start();
        Thread.sleep(SECONDS * 1000L + 500);
        player.stop();
        player.close();
        // It does not say when it began: its most punctual note counts as on time.
        long[] late = new long[Math.min(arrived.size(), notes.size())];
        long least = Long.MAX_VALUE;
        for (int i = 0; i < late.length; i++) {
            late[i] = arrived.get(i) - (long) (notes.get(i).tick() * NANOS_PER_TICK);
            least = Math.min(least, late[i]);
        }
        for (long one : late) {
            histogram.recordValue(one - least);
        }
    }

    private static void parking(Histogram histogram) {
        long start = System.nanoTime();
        for (Note note : notes()) {
            long due = start + (long) (note.tick() * NANOS_PER_TICK);
            long left = due - System.nanoTime();
            while (left > 0) {
                LockSupport.parkNanos(left);
                left = due - System.nanoTime();
            }
            histogram.recordValue(System.nanoTime() - due);
        }
    }
}
