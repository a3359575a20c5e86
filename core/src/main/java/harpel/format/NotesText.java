package harpel.format;

import harpel.param.ParamException;
import harpel.phrase.Note;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Notes as text for the clipboard: {@code {"harpel": 1, "notes": [[at, length, pitch, velocity], …]}}, as a piece's file has them. */
public final class NotesText {
    static final String NOTES = "notes";

    private NotesText() {}

    public static String write(List<Note> notes) {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put(ChainFile.VERSION_KEY, ChainFile.VERSION);
        plain.put(NOTES, notes.stream().map(PhrasesFile::writeNote).toList());
        return Json.write(plain);
    }

    /**
     * Reads notes.
     *
     * @throws FileException when it is not JSON
     * @throws ParamException with what is wrong when it holds no notes
     */
    public static List<Note> read(String text) throws FileException {
        Map<String, Object> plain = Json.parseObject(text);
        PlainMap fields = new PlainMap(plain, "", ChainFile.isNewer(plain));
        ChainFile.takeVersion(fields);
        if (!fields.has(NOTES)) {
            throw new ParamException("notes are {\"notes\": [[at, length, pitch, velocity], …]}");
        }
        List<Note> notes =
                fields.list(NOTES, (note, path) -> PhrasesFile.readNote(note, path, ChainFile.isNewer(plain)));
        fields.end("harpel, notes");
        return notes;
    }
}
