package harpel.engine;

import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.theory.GeneralMidi;
import harpel.time.MeterMap;
import harpel.time.TimeMap;
import java.util.function.LongUnaryOperator;

/**
 * Clicks on beats, at the built-in sounds: wood blocks of the General MIDI percussion map (76 high on the first beat of a bar, 77 low on
 * the others). Also counts bars in before the transport starts. Owned by the engine thread.
 */
final class Click {
    private static final int HIGH_WOOD_BLOCK = 76;
    private static final int LOW_WOOD_BLOCK = 77;
    private static final int SOFTER = 24;

    private final LiveOutput output;
    private boolean on;
    private int velocity = 100;
    private long number;

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

    void stop() {
        beats = 0;
    }

    private long nanosOf(int beat) {
        return beganNanos + Math.round(beat * beatNanos);
    }

    /** When the next click is due, or play begins. */
    long nextNanos() {
        return nanosOf(counted);
    }

    /** Clicks what is due; gives the moment at which play begins once it has come, else -1. */
    long count(long now) {
        while (isCounting() && nextNanos() <= now) {
            if (counted == beats) {
                long begins = nextNanos();
                stop();
                return begins;
            }
            send(counted % beatsOfBar == 0, nextNanos(), nextNanos() + Math.round(beatNanos / 8));
            counted++;
        }
        return -1;
    }

    /** Clicks the beats from a tick up to another, where that is wanted. */
    void beats(TimeMap time, long fromTick, long toTick, LongUnaryOperator nanosAt) {
        if (!on) {
            return;
        }
        long bar = time.meter().tickOfBar(time.meter().barAt(fromTick));
        long beat = time.meter().at(fromTick).beatTicks();
        for (long tick = bar - Math.floorDiv(bar - fromTick, beat) * beat; tick < toTick; tick += beat) {
            boolean first = tick == time.meter().tickOfBar(time.meter().barAt(tick));
            send(first, nanosAt.applyAsLong(tick), nanosAt.applyAsLong(tick + beat / 8));
        }
    }

    private void send(boolean first, long startNanos, long endNanos) {
        int pitch = first ? HIGH_WOOD_BLOCK : LOW_WOOD_BLOCK;
        int loud = Math.max(1, first ? velocity : velocity - SOFTER);
        NoteStart note = NoteStart.played(number++, 0, GeneralMidi.PERCUSSION_CHANNEL, pitch, loud);
        output.send("", note, startNanos);
        output.send("", NoteEnd.plain(number, note), endNanos);
    }
}
