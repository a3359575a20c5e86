package harpel.piece;

import harpel.time.Round;
import harpel.time.Ticks;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * A stretch of the timeline that is played over and over, once play has come to it.
 *
 * @param from the first tick
 * @param to the first tick behind it
 * @param on whether it is; play goes on behind it where it is not
 * @param unknown what a newer version wrote
 */
public record Bracket(long from, long to, boolean on, Map<String, Object> unknown) {
    /** What comes round is no shorter, in ticks. */
    public static final long SHORTEST = Ticks.PER_QUARTER / 4;

    public static final Bracket NONE = new Bracket(0, 0, false);

    public Bracket {
        if (from < 0 || to < from || on && to - from < SHORTEST) {
            throw new IllegalArgumentException("a loop goes from a place to one " + SHORTEST
                    + " ticks later at least, a sixteenth, but was to go from tick " + from + " to " + to);
        }
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public Bracket(long from, long to, boolean on) {
        this(from, to, on, Map.of());
    }

    /** Whether there is a stretch at all. */
    public boolean isThere() {
        return to > from;
    }

    public Bracket withOn(boolean newOn) {
        return new Bracket(from, to, newOn, unknown);
    }

    /** What comes round; nothing where it is off. */
    public Round round() {
        return on ? new Round(from, to) : Round.NONE;
    }

    public long length() {
        return to - from;
    }

    /** The place in the piece at a tick counted on and on, round after round. */
    public double song(double tick) {
        return on && tick >= to ? from + (tick - to) % length() : tick;
    }

    /** As {@link #song(double)}, for whole ticks. */
    public long song(long tick) {
        return on && tick >= to ? from + (tick - to) % length() : tick;
    }
}
