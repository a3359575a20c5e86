package harpel.engine;

/** For tests of a cycle against a clock of their own. */
abstract class OwnClock {
    static final long MS = 1_000_000;

    long now;
    LiveCycle cycle;

    /** Lets time pass as the engine does: from one thing that is due to the next. */
    final void pass(long ms) {
        long until = now + ms * MS;
        while (cycle.nextNanos() <= until) {
            now = Math.max(now, cycle.nextNanos());
            cycle.render(now);
        }
        now = until;
        cycle.render(now);
    }
}
