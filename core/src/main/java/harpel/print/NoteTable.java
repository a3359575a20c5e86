package harpel.print;

import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfWriter.Track;
import harpel.theory.Pitch;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Notes as rows of a table, in the order of their starts. Times are told three ways, counted from the beginning: in ticks, of which the
 * form says how many make a quarter, in beats, which are quarters, and in seconds. Pitches are numbers of MIDI keys and names with
 * sharps, C4 being 60.
 */
final class NoteTable {
    private static final int MOST_DIGITS = 6;

    private record Row(String part, NoteStart start, long end) {}

    private NoteTable() {}

    /** Each note as what its columns hold, by their names: text or numbers. */
    static List<Map<String, Object>> of(PrintedNotes notes, SmfForm form) {
        return rows(notes).stream()
                .map(row -> cells(row, notes.time().tempo(), form.division()))
                .toList();
    }

    private static List<Row> rows(PrintedNotes notes) {
        List<Row> rows = new ArrayList<>();
        for (Track track : notes.tracks()) {
            Map<NoteStart, NoteStart> open = new IdentityHashMap<>();
            for (Event event : track.events()) {
                if (event instanceof NoteStart start) {
                    open.put(start, start);
                } else if (event instanceof NoteEnd end && open.remove(end.start()) != null) {
                    rows.add(new Row(track.name(), end.start(), end.tick()));
                }
            }
            // What is cut at the end ends with the file.
            open.keySet().forEach(start -> rows.add(new Row(track.name(), start, notes.length())));
        }
        rows.sort((one, other) -> EventOrder.INSTANCE.compare(one.start, other.start));
        return rows;
    }

    private static Map<String, Object> cells(Row row, TempoMap tempo, int division) {
        NoteStart note = row.start;
        long start = Ticks.toResolution(note.tick(), division);
        long length = Ticks.toResolution(row.end, division) - start;
        Map<String, Object> cells = new LinkedHashMap<>();
        cells.put("part", row.part);
        cells.put("start ticks", start);
        cells.put("start beats", beats(note.tick()));
        cells.put("start seconds", seconds(tempo.nanosAt(note.tick())));
        cells.put("pitch", note.pitch());
        cells.put("name", Pitch.name(note.pitch()));
        cells.put("velocity", note.velocity());
        cells.put("length ticks", length);
        cells.put("length beats", beats(row.end - note.tick()));
        cells.put("length seconds", seconds(tempo.nanosAt(row.end) - tempo.nanosAt(note.tick())));
        cells.put("channel", note.channel() + 1);
        return cells;
    }

    private static BigDecimal beats(long ticks) {
        return rounded(BigDecimal.valueOf(ticks)
                .divide(BigDecimal.valueOf(Ticks.PER_QUARTER), MOST_DIGITS, RoundingMode.HALF_UP));
    }

    private static BigDecimal seconds(double nanos) {
        return rounded(BigDecimal.valueOf(nanos).movePointLeft(9));
    }

    /** To a millionth, without zeros that say nothing. */
    private static BigDecimal rounded(BigDecimal number) {
        BigDecimal brief = number.setScale(MOST_DIGITS, RoundingMode.HALF_UP).stripTrailingZeros();
        return brief.scale() < 0 ? brief.setScale(0) : brief;
    }
}
