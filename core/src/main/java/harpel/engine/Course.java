package harpel.engine;

import harpel.effect.Draws;
import harpel.engine.Plan.PartPlan;
import harpel.engine.Plan.Stretch;
import harpel.piece.Block;
import harpel.piece.KeyChange;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.List;
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

    /** Goes along one part's blocks. */
    private static final class Walk {
        private final PartPlan present;
        private final PartPlan absent;
        private final List<Block> blocks;
        private int next;
        private PartPlan now;

        Walk(PartPlan plan, Part part) {
            present = plan;
            absent = plan.withPresence(false, plan.draws());
            blocks = part.blocks();
        }

        /** How it is from a tick on; ticks rise. */
        PartPlan at(long tick) {
            if (blocks.isEmpty()) {
                return present;
            }
            while (next < blocks.size() && blocks.get(next).end() <= tick) {
                next++;
            }
            Block block = next < blocks.size() && blocks.get(next).at() <= tick ? blocks.get(next) : null;
            if (block == null || !block.chain()) {
                now = absent;
            } else if (block.variation() == Block.OF_THE_PART) {
                now = present;
            } else if (now == null || !own(block).equals(now.draws()) || !now.present()) {
                now = present.withPresence(true, own(block));
            }
            return now;
        }

        private static Draws own(Block block) {
            return Draws.of(block.variation());
        }
    }
}
