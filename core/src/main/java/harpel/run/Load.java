package harpel.run;

import harpel.chain.Chain;
import harpel.chain.Stage;

/**
 * How many notes may be open or wait at a stage: whatever a chain makes of one key, it stays within what a machine can carry. What is
 * over is not started, and the stage says so. Each stage has its own share of what a part may carry, so that a flood in one leaves the
 * others their room, and what is left out depends on nothing but the notes. Owned by the renderer; one for each part.
 */
final class Load {
    /** Open and waiting notes at one stage, at most. */
    static final int STAGE_MOST = 2_000;
    /** Open and waiting notes at all stages of one part, at most; in longer chains each stage has its share. */
    static final int PART_MOST = 8_000;

    /** A stage says it again only when it has not been full for so long. */
    private static final long SAY_AGAIN_TICKS = 4L * harpel.time.Ticks.PER_QUARTER;

    private int most = STAGE_MOST;
    private long refused;
    private String saidAt = "";
    private long saidTick = Long.MIN_VALUE;

    /** The part has this chain from now on. */
    void shareAmong(Chain chain) {
        most = Math.max(1, Math.min(STAGE_MOST, PART_MOST / Math.max(1, stages(chain))));
    }

    private static int stages(Chain chain) {
        int count = 0;
        for (Stage stage : chain.stages()) {
            count += 1
                    + stage.branches().stream()
                            .mapToInt(branch -> stages(branch.chain()))
                            .sum();
        }
        return count;
    }

    /** Whether one more may be started at a stage that has so many. */
    boolean takes(int stage, RunContext context, long tick) {
        if (stage < most) {
            return true;
        }
        refused++;
        if (!context.place().equals(saidAt) || tick - saidTick > SAY_AGAIN_TICKS || tick < saidTick) {
            context.tap().tell(new Told.Full(context.part(), context.place(), tick));
            saidAt = context.place();
            saidTick = tick;
            context.say("More than " + most + " notes sound or wait here: further ones are left out.");
        }
        return false;
    }

    /** How many starts have been refused. */
    long refused() {
        return refused;
    }
}
