package harpel.engine;

import harpel.time.TempoMap;

/**
 * What the interface may know of the engine, as one immutable value.
 *
 * @param run counts up whenever time starts anew
 * @param anchorTick the tick at {@code anchorNanos}; while time runs the position follows from these
 * @param worstLateNanos the worst lateness of a scheduled event in the last minute
 * @param notesIn how many notes have been played in all
 * @param lastController the controller that came in last, or -1
 * @param controllersIn how many have come in all
 * @param trouble what went wrong last, in words, numbered from the first by {@code troubles}; empty for nothing
 */
public record LiveStatus(
        Mode mode,
        long run,
        long anchorTick,
        long anchorNanos,
        TempoMap tempo,
        long worstLateNanos,
        long notesIn,
        int lastController,
        long controllersIn,
        long troubles,
        String trouble) {
    /** What makes time go. */
    public enum Mode {
        /** Nothing: it stands. */
        STOPPED,
        /** The chain's own clock, started by a key. */
        KEYS,
        /** The transport plays. */
        PLAYING
    }

    /** The position at a moment. */
    public double tickAt(long nanos) {
        if (mode == Mode.STOPPED) {
            return anchorTick;
        }
        return tempo.ticksAt(tempo.nanosAt(anchorTick) + (nanos - anchorNanos));
    }
}
