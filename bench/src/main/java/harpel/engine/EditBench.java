package harpel.engine;

import harpel.port.LiveOutput;
import com.sun.management.ThreadMXBean;
import harpel.bench.Material;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.History;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import java.lang.management.ManagementFactory;
import java.util.Arrays;

/** A note of a phrase of 100,000 is dragged while it plays: what a step costs whoever edits, the engine, and the history. */
public final class EditBench {
    private static final int NOTES = 100_000;
    private static final int STEPS = 2_000;

    private EditBench() {}

    public static void main(String[] args) {
        Phrase phrase = Material.phrase(NOTES);
        Piece first = Piece.empty().withPhrase(phrase).withPart("part-1", part -> part.withPhrase(phrase.id()));
        History history = new History(first);
        Program program = Program.of(first);
        LiveOutput nobody = new LiveOutput() {
            @Override
            public void send(String port, harpel.event.Event event, long dueNanos) {
                // nobody listens
            }

            @Override
            public void silence() {
                // nothing sounds
            }
        };
        LiveCycle cycle = new LiveCycle(program, System::nanoTime, nobody, Tap.NONE);
        cycle.play(System.nanoTime());
        double[] editing = new double[STEPS];
        double[] engine = new double[STEPS];
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long own = Thread.currentThread().getId();
        long bytes = threads.getThreadAllocatedBytes(own);
        for (int step = 0; step < STEPS; step++) {
            cycle.render(System.nanoTime());
            int moved = step;
            long begin = System.nanoTime();
            history.apply(new PieceEdit("Move a note", "", piece -> {
                Phrase before = piece.phrase(phrase.id()).orElseThrow();
                Note note = before.notes().get(NOTES / 2);
                return piece.withPhrase(
                        before.withNotes(before.notes().with(note.withTick(note.tick() + 1 + moved % 7))));
            }));
            program = Program.after(program, history.current());
            long compiled = System.nanoTime();
            cycle.update(program, compiled);
            engine[step] = (System.nanoTime() - compiled) / 1e6;
            editing[step] = (compiled - begin) / 1e6;
        }
        bytes = threads.getThreadAllocatedBytes(own) - bytes;
        show("whoever edits, ms a step", editing);
        show("the engine, ms a step", engine);
        System.out.printf(
                "made anew: %d bytes a step; kept by the history: about %d bytes a step%n",
                bytes / STEPS, history.bytes() / STEPS);
    }

    private static void show(String what, double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        System.out.printf(
                "%-26s median %.3f  p99 %.3f  worst %.3f%n",
                what, sorted[STEPS / 2], sorted[STEPS * 99 / 100], sorted[STEPS - 1]);
    }
}
