package harpel.engine;

import com.sun.management.ThreadMXBean;
import harpel.bench.Material;
import harpel.chain.Chain;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.History;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.plan.Program;
import harpel.port.LiveOutput;
import harpel.run.Tap;
import harpel.time.Ticks;
import java.lang.management.ManagementFactory;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * What a step of a drag costs whoever edits, the engine, and the history: of a note in a phrase of 100,000 while it plays, and of a block
 * on a timeline of eight parts while stretches of several lengths come round.
 */
public final class EditBench {
    private static final int NOTES = 100_000;
    private static final int STEPS = 2_000;
    private static final int PARTS = 8;
    private static final long BAR = 4L * Ticks.PER_QUARTER;

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
        for (long loop : new long[] {0, Bracket.SHORTEST, BAR, 8 * BAR, 32 * BAR}) {
            inALoop(loop, nobody);
        }
    }

    /** A block is dragged while a stretch of so many ticks comes round; 0 for none. */
    private static void inALoop(long loop, LiveOutput nobody) {
        Piece first = Piece.empty()
                .withPhrase(Material.phrase(64))
                .withTimeline(true)
                .withBracket(new Bracket(0, Math.max(loop, Bracket.SHORTEST), loop > 0));
        List<Part> parts = new ArrayList<>();
        for (int i = 0; i < PARTS; i++) {
            List<Block> blocks = new ArrayList<>();
            for (int k = 0; k < 16; k++) {
                blocks.add(Block.of(k * 4 * BAR, 3 * BAR, first.phrases().get(0).id()));
            }
            parts.add(Part.of("Part " + i, Chain.EMPTY).withBlocks(blocks));
        }
        first = first.withParts(parts);
        History history = new History(first);
        Program program = Program.of(first);
        LiveCycle cycle = new LiveCycle(program, System::nanoTime, nobody, Tap.NONE);
        cycle.play(System.nanoTime());
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long own = Thread.currentThread().getId();
        double[] editing = new double[STEPS];
        double[] compiling = new double[STEPS];
        double[] engine = new double[STEPS];
        long edited = 0;
        long compiled = 0;
        String moved = parts.get(3).id();
        for (int step = 0; step < STEPS; step++) {
            cycle.render(System.nanoTime());
            int by = step % 7;
            long bytes = threads.getThreadAllocatedBytes(own);
            long begin = System.nanoTime();
            history.apply(new PieceEdit(
                    "Move a block",
                    "",
                    piece -> piece.withPart(moved, part -> {
                        List<Block> blocks = new ArrayList<>(part.blocks());
                        blocks.set(1, blocks.get(1).withAt(4 * BAR + by));
                        return part.withBlocks(blocks);
                    })));
            long done = System.nanoTime();
            long between = threads.getThreadAllocatedBytes(own);
            program = Program.after(program, history.current());
            long ready = System.nanoTime();
            compiled += threads.getThreadAllocatedBytes(own) - between;
            edited += between - bytes;
            cycle.update(program, ready);
            engine[step] = (System.nanoTime() - ready) / 1e6;
            editing[step] = (done - begin) / 1e6;
            compiling[step] = (ready - done) / 1e6;
        }
        System.out.println(loop == 0 ? "no loop" : "a loop of " + loop / (double) BAR + " bars");
        show("  whoever edits, ms a step", editing);
        show("  compiled elsewhere, ms", compiling);
        show("  the engine, ms a step", engine);
        System.out.printf(
                "  made anew: %d bytes a step by the edit, %d by compiling%n", edited / STEPS, compiled / STEPS);
    }

    private static void show(String what, double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        System.out.printf(
                "%-28s median %.3f  p99 %.3f  worst %.3f%n",
                what, sorted[STEPS / 2], sorted[STEPS * 99 / 100], sorted[STEPS - 1]);
    }
}
