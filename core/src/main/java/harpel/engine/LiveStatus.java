package harpel.engine;

import harpel.piece.Bracket;
import harpel.time.TempoMap;

/**
 * What the interface may know of the engine, as one immutable value.
 *
 * @param run counts up whenever time starts anew
 * @param anchorTick the tick at {@code anchorNanos}; while time runs the position follows from these
 * @param tempo what time goes by, of the piece or of a clock that is followed
 * @param clock the way in whose clock drives time; empty for its own
 * @param bracket what is played over and over; ticks are counted on and on
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
        String clock,
        Bracket bracket,
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

    /** The place in the piece at a moment, where a stretch of it comes round. */
    public double songTickAt(long nanos) {
        double tick = tickAt(nanos);
        return mode == Mode.PLAYING ? bracket.song(tick) : tick;
    }

    /** The position at a moment, counted on and on. */
    public double tickAt(long nanos) {
        if (mode == Mode.STOPPED) {
            return anchorTick;
        }
        return tempo.ticksAt(tempo.nanosAt(anchorTick) + (nanos - anchorNanos));
    }
}
