package harpel.engine;

import harpel.port.LiveOutput;

/** What the interface may know, and what went wrong that did not stop the work. Owned by the engine thread. */
final class LiveBoard {
    private final LiveCycle cycle;
    private final LiveOutput output;
    private long troubles;
    private String trouble = "";
    private LiveStatus status;

    LiveBoard(LiveCycle cycle, LiveOutput output) {
        this.cycle = cycle;
        this.output = output;
    }

    void trouble(String text) {
        troubles++;
        trouble = text;
    }

    /** The same object as before while nothing has changed; nothing is made for it then. */
    LiveStatus status(long now) {
        long late = output.worstLateNanos(now);
        if (status == null || !isStill(late)) {
            LiveTime time = cycle.time();
            status = new LiveStatus(
                    time.mode(),
                    time.run(),
                    tick(time),
                    time.anchor().nanos(),
                    time.tempo(),
                    cycle.clockDriver(),
                    cycle.program().plan().bracket(),
                    late,
                    cycle.notesIn(),
                    cycle.keys().lastController(),
                    cycle.keys().controllers(),
                    troubles,
                    trouble);
        }
        return status;
    }

    private static long tick(LiveTime time) {
        return time.isStanding() ? time.place() : time.anchor().tick();
    }

    private boolean isStill(long late) {
        LiveTime time = cycle.time();
        return status.mode() == time.mode()
                && status.run() == time.run()
                && status.anchorTick() == tick(time)
                && status.anchorNanos() == time.anchor().nanos()
                && status.tempo() == time.tempo()
                && status.clock().equals(cycle.clockDriver())
                && status.bracket() == cycle.program().plan().bracket()
                && status.worstLateNanos() == late
                && status.notesIn() == cycle.notesIn()
                && status.lastController() == cycle.keys().lastController()
                && status.controllersIn() == cycle.keys().controllers()
                && status.troubles() == troubles;
    }
}
