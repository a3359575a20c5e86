package harpel.offline;

/** What becomes of that which still sounds or waits where a print ends. */
public enum Tail {
    /** As when Stop is pressed: all ends there, but repeats of stages that are set to ring out finish. */
    STOP,
    /** Repeats of every stage finish after the end. */
    RING,
    /** Everything ends there. */
    CUT,
    /**
     * So that a loop joins without a seam: what sounds over the end is cut there, as a loop cuts it, and repeats that begin past it are
     * laid over the beginning.
     */
    ROUND
}
