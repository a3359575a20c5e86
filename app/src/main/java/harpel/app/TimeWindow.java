package harpel.app;

import harpel.engine.LiveStatus;
import harpel.engine.LiveStatus.Mode;
import harpel.piece.Piece;
import harpel.time.Ticks;

/** The stretch of time that all traces show, so that all rows share one axis. Owned by the interface thread. */
final class TimeWindow {
    /** Where the line for now stands, as a share of the width. */
    static final double NOW = 0.86;

    private static final double BARS = 3.5;
    private double nowTick;
    private double widthTicks = BARS * 4 * Ticks.PER_QUARTER;
    private int lowest = 48;
    private int highest = 84;

    /** Follows the engine; while time stands the window stays where it was. */
    void follow(LiveStatus status, Piece piece, long nanos) {
        if (status.mode() != Mode.STOPPED) {
            nowTick = status.tickAt(nanos);
        }
        widthTicks = BARS * piece.time().meter().at((long) nowTick).barTicks();
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

    double fromTick() {
        return nowTick - NOW * widthTicks;
    }

    double toTick() {
        return fromTick() + widthTicks;
    }

    double x(double tick, double width) {
        return (tick - fromTick()) / widthTicks * width;
    }

    /** The middle of a pitch's line. */
    double y(int pitch, double height) {
        return height - (pitch - lowest + 0.5) / (highest - lowest + 1) * height;
    }

    double noteHeight(double height) {
        return Math.max(3, height / (highest - lowest + 1) * 1.5);
    }

    int lowest() {
        return lowest;
    }

    int highest() {
        return highest;
    }
}
