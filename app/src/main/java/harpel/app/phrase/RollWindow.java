package harpel.app.phrase;

import harpel.app.draw.Drawing;
import harpel.app.transport.TraceStore.Drawn;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.theory.GeneralMidi;
import harpel.time.Ticks;
import java.util.List;

/** The stretch of time and of pitch that the roll and its lanes show. Interface thread. */
final class RollWindow {
    private static final double FEWEST_TICKS = Ticks.PER_QUARTER / 8.0;
    private static final double LOWEST_ROW = 4;
    private static final double HIGHEST_ROW = 32;
    private static final int ROWS = 36;
    /** The ride bell: up to here lie the drums of a set. */
    private static final int LAST_COMMON_DRUM = 53;

    private double fromTick;
    private double ticks = 16.0 * Ticks.PER_QUARTER;
    /** The pitch whose lower edge is at the top; 85 where C6 is the highest seen. */
    private double top = 85;

    private double row = 10;
    private double height = 360;
    private long version;

    /** What is seen, to come back to. */
    record Place(double fromTick, double ticks, double top, double row) {}

    Place place() {
        return new Place(fromTick, ticks, top, row);
    }

    /** Shows again what was seen. */
    void go(Place place) {
        fromTick = place.fromTick;
        ticks = place.ticks;
        top = place.top;
        row = place.row;
        keep();
    }

    /** Grows whenever something else is shown. */
    long version() {
        return version;
    }

    /**
     * Shows the whole phrase and the pitches of its notes.
     *
     * @param made what the chain makes of it
     * @param drums whether an empty one is shown where the drums are
     */
    void fit(Phrase phrase, List<Drawn> made, boolean drums, double newHeight) {
        fromTick = 0;
        ticks = Math.max(FEWEST_TICKS, phrase.length() * 1.02);
        int low = 127;
        int high = 0;
        for (Note note : phrase.notes()) {
            low = Math.min(low, note.pitch());
            high = Math.max(high, note.pitch());
        }
        for (Drawn drawn : made) {
            low = Math.min(low, drawn.note.pitch());
            high = Math.max(high, drawn.note.pitch());
        }
        if (low > high) {
            low = drums ? GeneralMidi.FIRST_PERCUSSION : 54;
            high = drums ? LAST_COMMON_DRUM : 78;
        }
        int rows = Math.max(ROWS, high - low + 5);
        height = newHeight;
        row = Drawing.clamp(height / rows, LOWEST_ROW, HIGHEST_ROW);
        top = (low + high + 1) / 2.0 + height / row / 2;
        keep();
    }

    void tall(double newHeight) {
        if (newHeight != height) {
            height = newHeight;
            keep();
        }
    }

    private void keep() {
        row = Drawing.clamp(row, Math.max(LOWEST_ROW, height / 128), HIGHEST_ROW);
        top = Drawing.clamp(top, Math.min(128, height / row), 128);
        fromTick = Math.max(0, fromTick);
        version++;
    }

    void scrollTime(double byTicks, long length) {
        fromTick = Drawing.clamp(fromTick + byTicks, 0, Math.max(0, length * 1.02 - ticks / 2));
        keep();
    }

    void scrollPitch(double semitones) {
        top += semitones;
        keep();
    }

    /** Shows more time with a factor above 1, with the tick at that share of the width staying where it is. */
    void zoomTime(double factor, double share, long length) {
        double at = fromTick + share * ticks;
        ticks = Drawing.clamp(ticks * factor, FEWEST_TICKS, Math.max(4 * FEWEST_TICKS, length * 4.0));
        fromTick = at - share * ticks;
        keep();
    }

    /** Shows larger rows with a factor above 1, with the pitch at that share of the height staying where it is. */
    void zoomPitch(double factor, double share) {
        double at = top - share * height / row;
        row *= factor;
        row = Drawing.clamp(row, Math.max(LOWEST_ROW, height / 128), HIGHEST_ROW);
        top = at + share * height / row;
        keep();
    }

    /** Scrolls so far that a note is seen. */
    void reveal(Note note) {
        if (note.tick() < fromTick || note.tick() > fromTick + ticks) {
            fromTick = note.tick() - ticks / 4;
        }
        double rows = height / row;
        if (note.pitch() + 1 > top || note.pitch() < top - rows) {
            top = note.pitch() + 0.5 + rows / 2;
        }
        keep();
    }

    double fromTick() {
        return fromTick;
    }

    double toTick() {
        return fromTick + ticks;
    }

    double ticks() {
        return ticks;
    }

    double rowHeight() {
        return row;
    }

    double x(double tick, double width) {
        return (tick - fromTick) / ticks * width;
    }

    double tickAt(double x, double width) {
        return fromTick + x / Math.max(1, width) * ticks;
    }

    /** The upper edge of a pitch's row. */
    double y(int pitch) {
        return (top - pitch - 1) * row;
    }

    int pitchAt(double y) {
        return (int) Drawing.clamp(Math.floor(top - y / row), 0, 127);
    }
}
