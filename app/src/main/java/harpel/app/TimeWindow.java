package harpel.app;

import harpel.engine.LiveStatus;
import harpel.engine.LiveStatus.Mode;
import harpel.piece.Piece;
import harpel.time.Ticks;

/**
 * The stretch of time and of pitch that all traces show, so that all rows share one axis. It follows the engine unless it is frozen;
 * frozen, it can be moved back. Owned by the interface thread.
 */
final class TimeWindow {
    /** Where the line for now stands, as a share of the width. */
    static final double NOW = 0.86;

    static final double FEWEST_BARS = 0.5;
    static final double MOST_BARS = 28;
    private static final double BARS = 3.5;
    private static final double CLOSEST = 6;

    private double bars = BARS;
    private double nowTick;
    private double barTicks = 4.0 * Ticks.PER_QUARTER;
    private boolean frozen;
    /** The tick at the line for now while frozen. */
    private double frozenTick;

    private int lowest = 48;
    private int highest = 84;
    private double pitchZoom = 1;
    private double pitchShift;

    /** Follows the engine; while time stands the window stays where it was. */
    void follow(LiveStatus status, Piece piece, long nanos) {
        if (status.mode() != Mode.STOPPED) {
            nowTick = status.tickAt(nanos);
        }
        barTicks = piece.time().meter().at((long) nowTick).barTicks();
    }

    /** Shows more bars with a factor above 1, fewer below. */
    void zoomTime(double factor) {
        bars = Math.max(FEWEST_BARS, Math.min(MOST_BARS, bars * factor));
    }

    /** Shows fewer pitches with a factor above 1, more below, down to all there are. */
    void zoomPitch(double factor) {
        pitchZoom = Math.max(1, Math.min(CLOSEST, pitchZoom * factor));
        movePitch(0);
    }

    /** Moves the pitches shown up or down, where not all are. */
    void movePitch(double semitones) {
        double room = (highest - lowest + 1) * (1 - 1 / pitchZoom) / 2;
        pitchShift = Math.max(-room, Math.min(room, pitchShift + semitones));
    }

    double bars() {
        return bars;
    }

    double pitchZoom() {
        return pitchZoom;
    }

    /** Shows all as at first. */
    void reset() {
        bars = BARS;
        pitchZoom = 1;
        pitchShift = 0;
    }

    void freeze(boolean on) {
        frozen = on;
        frozenTick = nowTick;
    }

    boolean isFrozen() {
        return frozen;
    }

    /** Goes back in time, or forth with fewer than nought bars, and stays there; at now it stays frozen. */
    void back(double byBars) {
        if (!frozen) {
            freeze(true);
        }
        frozenTick = Math.max(0, Math.min(nowTick, frozenTick - byBars * barTicks));
    }

    /** How far back the window stands. */
    double barsBack() {
        return frozen ? (nowTick - frozenTick) / barTicks : 0;
    }

    /** Widens the pitches shown so that this one has its place. */
    void include(int pitch) {
        lowest = Math.min(lowest, pitch - 2);
        highest = Math.max(highest, pitch + 2);
    }

    void resetPitches() {
        lowest = 50;
        highest = 79;
    }

    double nowTick() {
        return nowTick;
    }

    private double widthTicks() {
        return bars * barTicks;
    }

    double fromTick() {
        return (frozen ? frozenTick : nowTick) - NOW * widthTicks();
    }

    double toTick() {
        return fromTick() + widthTicks();
    }

    double x(double tick, double width) {
        return (tick - fromTick()) / widthTicks() * width;
    }

    private double shownPitches() {
        return (highest - lowest + 1) / pitchZoom;
    }

    private double bottom() {
        return (lowest + highest + 1) / 2.0 + pitchShift - shownPitches() / 2;
    }

    /** The middle of a pitch's line. */
    double y(int pitch, double height) {
        return height - (pitch - bottom() + 0.5) / shownPitches() * height;
    }

    double noteHeight(double height) {
        return Math.max(3, height / shownPitches() * (pitchZoom > 2 ? 0.8 : 1.5));
    }

    int lowest() {
        return (int) Math.floor(bottom());
    }

    int highest() {
        return (int) Math.ceil(bottom() + shownPitches()) - 1;
    }
}
