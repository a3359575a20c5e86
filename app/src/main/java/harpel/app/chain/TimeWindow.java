package harpel.app.chain;

import harpel.app.transport.TraceStore;
import harpel.engine.LiveStatus;
import harpel.engine.LiveStatus.Mode;
import harpel.piece.Piece;
import harpel.time.Ticks;
import java.util.List;

/**
 * The stretch of time and of pitch that all traces show, so that all rows share one axis. It follows the engine unless it is frozen;
 * frozen, it can be moved back. Owned by the interface thread.
 */
public final class TimeWindow {
    /** Where the line for now stands, as a share of the width. */
    public static final double NOW = 0.86;

    /** Where the beginning stands when what is to come is shown. */
    /** One step of the keys. */
    public static final double ZOOM = 1.4;

    private static final double BEFORE = 0.02;

    public static final double FEWEST_BARS = 0.5;
    public static final double MOST_BARS = 28;
    private static final double BARS = 3.5;
    private static final double CLOSEST = 6;

    private double bars = BARS;
    private double nowTick;
    private long run;
    private double barTicks = 4.0 * Ticks.PER_QUARTER;
    private boolean frozen;
    private boolean ahead;
    /** The tick at the line for now while frozen. */
    private double frozenTick;

    private long moved;
    private long earliest;
    private List<Long> gaps = List.of();

    private int lowest = 48;
    private int highest = 84;
    private double pitchZoom = 1;
    private double pitchShift;

    /** Follows the engine; while time stands the window stays where it was, unless someone goes to another place. */
    public void follow(LiveStatus status, Piece piece, long nanos) {
        if (status.mode() != Mode.STOPPED) {
            nowTick = status.tickAt(nanos);
        } else if (status.run() != run) {
            // Someone went to another place.
            nowTick = status.anchorTick();
        }
        run = status.run();
        barTicks = piece.time().meter().at((long) nowTick).barTicks();
    }

    /** Goes with what is shown when it is moved to the left, as far back as there is anything. */
    void follow(TraceStore traces) {
        frozenTick -= traces.movedInAll() - moved;
        moved = traces.movedInAll();
        gaps = traces.gaps();
        if (frozen) {
            earliest = traces.earliest();
        }
    }

    /** Shows more bars with a factor above 1, fewer below. */
    public void zoomTime(double factor) {
        bars = Math.max(FEWEST_BARS, Math.min(MOST_BARS, bars * factor));
    }

    /** Shows fewer pitches with a factor above 1, more below, down to all there are. */
    public void zoomPitch(double factor) {
        pitchZoom = Math.max(1, Math.min(CLOSEST, pitchZoom * factor));
        movePitch(0);
    }

    /** Moves the pitches shown up or down, where not all are. */
    public void movePitch(double semitones) {
        double room = (highest - lowest + 1) * (1 - 1 / pitchZoom) / 2;
        pitchShift = Math.max(-room, Math.min(room, pitchShift + semitones));
    }

    public double bars() {
        return bars;
    }

    public double pitchZoom() {
        return pitchZoom;
    }

    /** Shows all as at first. */
    public void reset() {
        bars = BARS;
        pitchZoom = 1;
        pitchShift = 0;
    }

    public void freeze(boolean on) {
        frozen = on;
        frozenTick = nowTick;
    }

    public boolean isFrozen() {
        return frozen;
    }

    /** Goes back in time, or forth with fewer than nought bars, and stays there; at now it stays frozen. */
    public void back(double byBars) {
        if (!frozen) {
            freeze(true);
        }
        frozenTick = Math.max(earliest, Math.min(nowTick, frozenTick - byBars * barTicks));
    }

    /** Where something was not told, so that not all is seen, rising. */
    List<Long> gaps() {
        return gaps;
    }

    /** How far back the window stands. */
    public double barsBack() {
        return frozen ? (nowTick - frozenTick) / barTicks : 0;
    }

    /** Widens the pitches shown so that this one has its place. */
    public void include(int pitch) {
        lowest = Math.min(lowest, pitch - 2);
        highest = Math.max(highest, pitch + 2);
    }

    public void resetPitches() {
        lowest = 50;
        highest = 79;
    }

    public double nowTick() {
        return nowTick;
    }

    /** Shows the beginning of the piece, with what is to come, in place of what was. */
    public void ahead(boolean on) {
        ahead = on;
    }

    public boolean isAhead() {
        return ahead && !frozen;
    }

    /** What is drawn is drawn up to here. */
    double drawnTo() {
        return isAhead() ? toTick() : nowTick;
    }

    private double widthTicks() {
        return bars * barTicks;
    }

    public double fromTick() {
        return isAhead() ? -BEFORE * widthTicks() : (frozen ? frozenTick : nowTick) - NOW * widthTicks();
    }

    public double toTick() {
        return fromTick() + widthTicks();
    }

    public double x(double tick, double width) {
        return (tick - fromTick()) / widthTicks() * width;
    }

    double tickAt(double x, double width) {
        return fromTick() + x / Math.max(1, width) * widthTicks();
    }

    private double shownPitches() {
        return (highest - lowest + 1) / pitchZoom;
    }

    private double bottom() {
        return (lowest + highest + 1) / 2.0 + pitchShift - shownPitches() / 2;
    }

    /** The middle of a pitch's line. */
    public double y(int pitch, double height) {
        return height - (pitch - bottom() + 0.5) / shownPitches() * height;
    }

    double noteHeight(double height) {
        return Math.max(3, height / shownPitches() * (pitchZoom > 2 ? 0.8 : 1.5));
    }

    public int lowest() {
        return (int) Math.floor(bottom());
    }

    public int highest() {
        return (int) Math.ceil(bottom() + shownPitches()) - 1;
    }
}
