package harpel.plan;

import harpel.effect.Draws;
import harpel.param.type.PathType;
import harpel.piece.Block;
import harpel.piece.KeyChange;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Playing;
import harpel.plan.Plan.PartPlan;
import harpel.plan.Plan.Stretch;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;

/** Compiles what changes along the timeline: the key, which parts are present, and with which variation. */
final class Course {
    private Course() {}

    /** @param parts the plans of the piece's parts, all present */
    static List<Stretch> of(Piece piece, List<PartPlan> parts) {
        if (!piece.timeline()) {
            return List.of();
        }
        long[] ticks = ticks(piece);
        List<Walk> walks = parts.stream()
                .map(part -> new Walk(part, piece.part(part.id()).orElseThrow()))
                .toList();
        List<Stretch> course = new ArrayList<>();
        int change = 0;
        Key key = piece.key();
        for (int at = 0; at < ticks.length; at++) {
            long tick = ticks[at];
            if (at > 0 && tick == ticks[at - 1]) {
                continue;
            }
            while (change < piece.keys().size() && piece.keys().get(change).tick() <= tick) {
                KeyChange now = piece.keys().get(change++);
                key = now.key();
            }
            PartPlan[] now = new PartPlan[walks.size()];
            for (int i = 0; i < now.length; i++) {
                now[i] = walks.get(i).at(tick);
            }
            course.add(new Stretch(tick, key, Arrays.asList(now)));
        }
        return course;
    }

    /** Where something may change, in order, some of them more than once. */
    private static long[] ticks(Piece piece) {
        int count = 1 + piece.keys().size();
        for (Part part : piece.parts()) {
            count += 2 * part.blocks().size() + part.playing().mutes().size();
        }
        long[] ticks = new long[count];
        int next = 1;
        for (KeyChange key : piece.keys()) {
            ticks[next++] = key.tick();
        }
        for (Part part : piece.parts()) {
            for (Block block : part.blocks()) {
                ticks[next++] = block.at();
                ticks[next++] = block.end();
            }
            for (PathType.Point<Boolean> mute : part.playing().mutes()) {
                ticks[next++] = mute.tick();
            }
        }
        Arrays.sort(ticks);
        return ticks;
    }

    /** Goes along one part's blocks and mutes. */
    private static final class Walk {
        private final PartPlan plan;
        private final Playing playing;
        private int next;
        private PartPlan now;
        private PartPlan absent;

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
            } else if (!present && !silent) {
                absent = absent == null ? plan.with(false, plan.draws(), false) : absent;
                now = absent;
            } else if (now.present() != present || now.silent() != silent || !Objects.equals(now.draws(), draws)) {
                now = plan.with(present, draws, silent);
            }
            return now;
        }
    }
}
