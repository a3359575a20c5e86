package harpel.engine;

import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.port.LiveOutput;
import harpel.theory.GeneralMidi;
import harpel.time.MeterMap;
import harpel.time.TimeMap;
import java.util.function.LongUnaryOperator;

/**
 * Clicks on beats, at the built-in sounds: wood blocks of the General MIDI percussion map (76 high on the first beat of a bar, 77 low on
 * the others). Also counts bars in before the transport starts. Owned by the engine thread, which it tells when it is to be asked again.
 */
final class Click {
    private static final int HIGH_WOOD_BLOCK = 76;
    private static final int LOW_WOOD_BLOCK = 77;
    private static final int SOFTER = 24;
    /** So much of a beat a click lasts. */
    private static final int SHARE = 8;

    private static final long NEVER = Long.MAX_VALUE;

    private final LiveOutput output;
    private boolean on;
    private int velocity = 100;
    private long number;

    /** The click that sounds, and when it ends. */
    private NoteStart sounding;

    private long endNanos = NEVER;

    /** While bars are counted in: the beats counted so far and in all, when the first was, and how long one is. */
    private int counted;

    private int beats;
    private int beatsOfBar;
    private long beganNanos;
    private double beatNanos;

    Click(LiveOutput output) {
        this.output = output;
    }

    void set(boolean newOn, int newVelocity) {
        on = newOn;
        velocity = newVelocity;
    }

    /** Begins to count bars as they are at a tick. */
    void countIn(TimeMap time, long tick, int bars, long now) {
        MeterMap.Change meter = time.meter().at(tick);
        counted = 0;
        beatsOfBar = meter.beats();
        beats = bars * beatsOfBar;
        beganNanos = now;
        beatNanos =
                time.tempo().nanosAt(tick + meter.beatTicks()) - time.tempo().nanosAt(tick);
    }

    boolean isCounting() {
        return beats > 0;
    }

    /** Counts no more; what sounds ends. */
    void stop(long now) {
        beats = 0;
        endAt(now);
    }

    private long nanosOf(int beat) {
        return beganNanos + Math.round(beat * beatNanos);
    }

    /** When it has something to do, but for the beats of the transport. */
    long nextNanos() {
        return Math.min(endNanos, isCounting() ? nanosOf(counted) : NEVER);
    }

    /** The first beat at or after a tick, or {@link #NEVER} where none is clicked. */
    long nextBeat(TimeMap time, long tick) {
        return on ? firstBeat(time, tick) : NEVER;
    }

    private static long firstBeat(TimeMap time, long tick) {
        long bar = time.meter().tickOfBar(time.meter().barAt(tick));
        long beat = time.meter().at(tick).beatTicks();
        return bar - Math.floorDiv(bar - tick, beat) * beat;
    }

    /** Does what is due; gives the moment at which play begins once bars have been counted, else -1. */
    long act(long now) {
        while (nextNanos() <= now) {
            if (endNanos <= nextNanos()) {
                endAt(endNanos);
            } else if (counted == beats) {
                long begins = nanosOf(counted);
                beats = 0;
                return begins;
            } else {
                strike(counted % beatsOfBar == 0, nanosOf(counted), nanosOf(counted) + Math.round(beatNanos / SHARE));
                counted++;
            }
        }
        return -1;
    }

    /** Clicks the beats from a tick up to another, where that is wanted. */
    void beats(TimeMap time, long fromTick, long toTick, LongUnaryOperator nanosAt) {
        for (long tick = nextBeat(time, fromTick); tick < toTick; tick = firstBeat(time, tick + 1)) {
            boolean first = tick == time.meter().tickOfBar(time.meter().barAt(tick));
            long lasts = time.meter().at(tick).beatTicks() / SHARE;
            strike(first, nanosAt.applyAsLong(tick), nanosAt.applyAsLong(tick + lasts));
        }
    }

    private void strike(boolean first, long startNanos, long newEndNanos) {
        endAt(startNanos);
        int pitch = first ? HIGH_WOOD_BLOCK : LOW_WOOD_BLOCK;
        int loud = Math.max(1, first ? velocity : velocity - SOFTER);
        sounding = NoteStart.played(number++, 0, GeneralMidi.PERCUSSION_CHANNEL, pitch, loud);
        endNanos = newEndNanos;
        output.send("", sounding, startNanos);
    }

    private void endAt(long nanos) {
        if (sounding != null) {
            output.send("", NoteEnd.plain(number, sounding), nanos);
            sounding = null;
            endNanos = NEVER;
        }
    }
}
