package harpel.print;

import com.google.auto.service.AutoService;
import de.siegmar.fastcsv.writer.CsvWriter;
import harpel.format.midi.SmfForm;
import java.io.IOException;
import java.io.OutputStream;
import java.io.StringWriter;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleConsumer;

/** A {@link NoteTable} as comma-separated values (RFC 4180, in UTF-8): a line a note, under a line that names the columns. */
@AutoService(PrintFormat.class)
public final class CsvFormat implements PrintFormat {
    private static final List<String> COLUMNS = List.of(
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
            "channel");

    @Override
    public String name() {
        return "table of notes (CSV)";
    }

    @Override
    public String ending() {
        return "csv";
    }

    @Override
    public void write(PrintedNotes notes, SmfForm form, OutputStream out, DoubleConsumer done) throws IOException {
        StringWriter text = new StringWriter();
        try (CsvWriter table = CsvWriter.builder().build(text)) {
            table.writeRecord(COLUMNS);
            for (Map<String, Object> row : NoteTable.of(notes, form)) {
                table.writeRecord(COLUMNS.stream()
                        .map(column -> row.get(column) instanceof BigDecimal number
                                ? number.toPlainString()
                                : String.valueOf(row.get(column)))
                        .toList());
            }
        }
        out.write(text.toString().getBytes(StandardCharsets.UTF_8));
    }
}
