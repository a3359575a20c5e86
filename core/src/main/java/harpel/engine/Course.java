package harpel.engine;

import harpel.effect.Draws;
import harpel.engine.Plan.PartPlan;
import harpel.engine.Plan.Stretch;
import harpel.piece.Block;
import harpel.piece.KeyChange;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Playing;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.TreeSet;

/** Compiles what changes along the timeline: the key, which parts are present, and with which variation. */
final class Course {
    private Course() {}

    /** @param parts the plans of the piece's parts, all present */
    static List<Stretch> of(Piece piece, List<PartPlan> parts) {
        if (!piece.timeline()) {
            return List.of();
        }
        TreeSet<Long> ticks = new TreeSet<>();
        ticks.add(0L);
        piece.keys().forEach(change -> ticks.add(change.tick()));
        for (Part part : piece.parts()) {
            for (Block block : part.blocks()) {
                ticks.add(block.at());
                ticks.add(block.end());
            }
            part.playing().mutes().forEach(mute -> ticks.add(mute.tick()));
        }
        List<Walk> walks = parts.stream()
                .map(part -> new Walk(part, piece.part(part.id()).orElseThrow()))
                .toList();
        List<Stretch> course = new ArrayList<>();
        int change = 0;
        Key key = piece.key();
        for (long tick : ticks) {
            while (change < piece.keys().size() && piece.keys().get(change).tick() <= tick) {
                KeyChange now = piece.keys().get(change++);
                key = now.key();
            }
            course.add(new Stretch(
                    tick, key, walks.stream().map(walk -> walk.at(tick)).toList()));
        }
        return course;
    }

    /** Goes along one part's blocks and mutes. */
    private static final class Walk {
        private final PartPlan plan;
        private final Playing playing;
        private int next;
        private PartPlan now;

        Walk(PartPlan plan, Part part) {
            this.plan = plan;
            playing = part.playing();
            now = plan;
        }

        /** How it is from a tick on; ticks rise. */
        PartPlan at(long tick) {
            List<Block> blocks = playing.blocks();
            while (next < blocks.size() && blocks.get(next).end() <= tick) {
                next++;
            }
            Block block = next < blocks.size() && blocks.get(next).at() <= tick ? blocks.get(next) : null;
            boolean present = blocks.isEmpty() || block != null && block.chain();
            Draws draws = present && block != null && block.variation() != Block.OF_THE_PART
                    ? Draws.of(block.variation())
                    : plan.draws();
            boolean silent = playing.mutedAt(tick);
            // What does not change stays the same object.
            if (present && !silent && Objects.equals(draws, plan.draws())) {
                now = plan;
            } else if (now.present() != present || now.silent() != silent || !Objects.equals(now.draws(), draws)) {
                now = plan.with(present, draws, silent);
            }
            return now;
        }
    }
}
