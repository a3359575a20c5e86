package harpel.print;

import com.google.auto.service.AutoService;
import harpel.format.Json;
import harpel.format.midi.SmfForm;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleConsumer;

/** A {@link NoteTable} as JSON (RFC 8259): a list with an object a note; names of columns have dashes, such as {@code start-beats}. */
@AutoService(PrintFormat.class)
public final class JsonFormat implements PrintFormat {
    @Override
    public String name() {
        return "table of notes (JSON)";
    }

    @Override
    public String ending() {
        return "json";
    }

    @Override
    public void write(PrintedNotes notes, SmfForm form, OutputStream out, DoubleConsumer done) throws IOException {
        List<Map<String, Object>> rows =
                NoteTable.of(notes, form).stream().map(JsonFormat::dashed).toList();
        out.write(Json.write(rows).getBytes(StandardCharsets.UTF_8));
    }

    private static Map<String, Object> dashed(Map<String, Object> row) {
        Map<String, Object> named = new LinkedHashMap<>();
        row.forEach((column, cell) -> named.put(column.replace(' ', '-'), cell));
        return named;
    }
}
