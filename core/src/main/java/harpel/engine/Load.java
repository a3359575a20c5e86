package harpel.engine;

/**
 * How many notes may be open or wait at a stage, and at all stages of a part together: whatever a chain makes of one key, it stays
 * within what a machine can carry. What is over is not started, and the stage says so. Owned by the renderer; one for each part.
 */
final class Load {
    /** Open and waiting notes at one stage. */
    static final int STAGE_MOST = 2_000;
    /** Open and waiting notes at all stages of one part. */
    static final int PART_MOST = 8_000;

    /** A stage says it again only when it has not been full for so long. */
    private static final long SAY_AGAIN_TICKS = 4L * harpel.time.Ticks.PER_QUARTER;

    private int part;
    private long refused;
    private String saidAt = "";
    private long saidTick = Long.MIN_VALUE;

    /** So many more notes are open or wait at one of the stages. */
    void change(int notes) {
        part += notes;
    }

    /** Whether one more may be started at a stage that has so many. */
    boolean takes(int stage, RunContext context, long tick) {
        if (stage < STAGE_MOST && part < PART_MOST) {
            return true;
        }
        refused++;
        if (!context.place().equals(saidAt) || tick - saidTick > SAY_AGAIN_TICKS || tick < saidTick) {
            context.tap().full(context.part(), context.place(), tick);
            saidAt = context.place();
            saidTick = tick;
            context.say(
                    stage >= STAGE_MOST
                            ? "More than " + STAGE_MOST + " notes sound or wait here: further ones are left out."
                            : "More than " + PART_MOST
                                    + " notes sound or wait in this part: further ones are left out.");
        }
        return false;
    }

    /** How many starts have been refused. */
    long refused() {
        return refused;
    }
}
