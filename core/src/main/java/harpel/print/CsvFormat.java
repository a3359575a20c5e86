package harpel.print;

import com.google.auto.service.AutoService;
import de.siegmar.fastcsv.writer.CsvWriter;
import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfWriter.Track;
import harpel.theory.Pitch;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * A table of notes as comma-separated values (RFC 4180, in UTF-8): a line a note in the order of their starts, under a line that names the
 * columns. Times are told three ways, counted from the beginning: in ticks, of which the form says how many make a quarter, in beats, which
 * are quarters, and in seconds. Pitches are numbers of MIDI keys and names with sharps, C4 being 60.
 */
@AutoService(PrintFormat.class)
public final class CsvFormat implements PrintFormat {
    private static final String[] COLUMNS = {
        "part",
        "start ticks",
        "start beats",
        "start seconds",
        "pitch",
        "name",
        "velocity",
        "length ticks",
        "length beats",
        "length seconds",
        "channel"
    };
    private static final int MOST_DIGITS = 6;

    private record Row(String part, NoteStart start, long end) {}

    @Override
    public String name() {
        return "table of notes (CSV)";
    }

    @Override
    public String ending() {
        return "csv";
    }

    @Override
    public byte[] write(PrintedNotes notes, SmfForm form) {
        StringWriter text = new StringWriter();
        try (CsvWriter table = CsvWriter.builder().build(text)) {
            table.writeRecord(COLUMNS);
            for (Row row : rows(notes)) {
                table.writeRecord(cells(row, notes.time().tempo(), form.division()));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString().getBytes(StandardCharsets.UTF_8);
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

    private static List<String> cells(Row row, TempoMap tempo, int division) {
        NoteStart note = row.start;
        long start = Ticks.toResolution(note.tick(), division);
        long length = Ticks.toResolution(row.end, division) - start;
        return List.of(
                row.part,
                String.valueOf(start),
                beats(note.tick()),
                seconds(tempo.nanosAt(note.tick())),
                String.valueOf(note.pitch()),
                Pitch.name(note.pitch()),
                String.valueOf(note.velocity()),
                String.valueOf(length),
                beats(row.end - note.tick()),
                seconds(tempo.nanosAt(row.end) - tempo.nanosAt(note.tick())),
                String.valueOf(note.channel() + 1));
    }

    private static String beats(long ticks) {
        return rounded(BigDecimal.valueOf(ticks)
                .divide(BigDecimal.valueOf(Ticks.PER_QUARTER), MOST_DIGITS, RoundingMode.HALF_UP));
    }

    private static String seconds(double nanos) {
        return rounded(BigDecimal.valueOf(nanos).movePointLeft(9));
    }

    /** To a millionth, without zeros that say nothing. */
    private static String rounded(BigDecimal number) {
        BigDecimal brief = number.setScale(MOST_DIGITS, RoundingMode.HALF_UP).stripTrailingZeros();
        return brief.scale() < 0 ? brief.setScale(0).toPlainString() : brief.toPlainString();
    }
}
