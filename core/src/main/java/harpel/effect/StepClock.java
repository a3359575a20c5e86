package harpel.effect;

import harpel.time.StepGrid;
import harpel.time.Ticks;

/** Counts through the steps of a grid. */
public final class StepClock {
    private StepGrid grid;
    private long index;
    private long tick = Ticks.NEVER;

    /** Goes on in this grid, with its first step at or after {@code from}. */
    public void lay(StepGrid newGrid, long from) {
        grid = newGrid;
        aim(from);
    }

    /** Goes to the first step at or after {@code from}. */
    public void aim(long from) {
        index = grid.indexAtOrAfter(from);
        tick = grid.tickOf(index);
    }

    /** The next step's number, counted from where the grid begins. */
    public long index() {
        return index;
    }

    public long tick() {
        return tick;
    }

    /** The length of the next step. */
    public long stepTicks() {
        return grid.tickOf(index + 1) - tick;
    }

    /** How long a note lasts that fills so much of the next step; at least a tick. */
    public long gateTicks(double percent) {
        return Math.max(1, Ticks.round(stepTicks() * percent / 100));
    }

    public void advance() {
        index++;
        tick = grid.tickOf(index);
    }

    public StepGrid grid() {
        return grid;
    }
}
