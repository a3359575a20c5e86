package harpel.format;

import harpel.event.Message;
import harpel.param.ParamException;
import harpel.param.type.ChoiceType;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import harpel.time.Ticks;
import java.util.AbstractList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/** Phrases and notes as {@link PieceFile} has them. */
final class PhrasesFile {
    private static final Pattern HEX = Pattern.compile("[0-9A-Fa-f]{2}( [0-9A-Fa-f]{2})*");

    private PhrasesFile() {}

    static Phrase readPhrase(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        String name = fields.text("name", "Phrase");
        String id = fields.text("id", Phrase.idFor(name));
        long length = fields.whole("length", 0, 0, Ticks.FARTHEST);
        List<Note> notes = fields.list("notes", (note, notePath) -> readNote(note, notePath, newer));
        List<Message> messages = fields.list("messages", (message, messagePath) -> readMessage(message));
        boolean ready = fields.flag("ready", false);
        Origin origin = fields.take("origin", Origin.DRAWN, value -> readOrigin(value, newer));
        return new Phrase(
                id,
                name,
                length,
                Notes.of(notes),
                messages,
                ready,
                origin,
                fields.end("id, name, length, notes, messages, ready, origin"));
    }

    private static Origin readOrigin(Object plain, boolean newer) {
        PlainMap fields = new PlainMap(plain, "", newer);
        Origin.Kind kind = fields.take("kind", Origin.Kind.DRAWN, new ChoiceType<>(Origin.Kind.class)::read);
        String from = fields.text("from", "");
        String details = fields.text("details", "");
        Map<String, Object> how = fields.take("how", Map.of(), PhrasesFile::fields);
        return new Origin(kind, from, details, how, fields.end("kind, from, details, how"));
    }

    private static Map<String, Object> fields(Object plain) {
        if (plain instanceof Map<?, ?> map) {
            Map<String, Object> fields = new LinkedHashMap<>();
            map.forEach((name, value) -> fields.put(String.valueOf(name), value));
            return fields;
        }
        throw new ParamException("must be an object but was " + plain);
    }

    static Note readNote(Object plain, String path, boolean newer) {
        List<?> numbers = PlainMap.list(plain);
        if (numbers.size() < 4 || numbers.size() > 5) {
            throw new ParamException("a note is [at, length, pitch, velocity], and behind them"
                    + " {\"chance\": 0–100, \"off\": true, \"release\": 0–127} where one of these differs, but was "
                    + plain);
        }
        int release = Note.PLAIN_RELEASE;
        Traits traits = Traits.PLAIN;
        if (numbers.size() == 5) {
            PlainMap fields = new PlainMap(numbers.get(4), path + "[4]", newer);
            release = (int) fields.whole("release", Note.PLAIN_RELEASE, 0, 127);
            traits = Traits.of(
                    (int) fields.whole("chance", 100, 0, 100),
                    fields.flag("off", false),
                    fields.end("chance, off, release"));
        }
        return new Note(
                Note.NEW,
                PlainMap.whole(numbers.get(0), 0, Ticks.FARTHEST),
                PlainMap.whole(numbers.get(1), 1, Ticks.FARTHEST),
                (int) PlainMap.whole(numbers.get(2), 0, 127),
                (int) PlainMap.whole(numbers.get(3), 1, 127),
                release,
                traits);
    }

    private static Message readMessage(Object plain) {
        List<?> pair = PlainMap.list(plain);
        if (pair.size() != 2
                || !(pair.get(1) instanceof String hex)
                || !HEX.matcher(hex).matches()) {
            throw new ParamException("a message is [at, \"B0 40 7F\"] but was " + plain);
        }
        return new Message(
                PlainMap.whole(pair.get(0), 0, Ticks.FARTHEST),
                0,
                HexFormat.ofDelimiter(" ").parseHex(hex.toLowerCase(Locale.ROOT)));
    }

    static Map<String, Object> writePhrase(Phrase phrase) {
        Map<String, Object> plain = PlainMap.of("name", phrase.name());
        if (!phrase.id().equals(Phrase.idFor(phrase.name()))) {
            plain.put("id", phrase.id());
        }
        plain.put("length", phrase.length());
        plain.put("notes", written(phrase.notes()));
        if (!phrase.messages().isEmpty()) {
            plain.put(
                    "messages",
                    phrase.messages().stream()
                            .map(message -> List.of(
                                    message.tick(),
                                    HexFormat.ofDelimiter(" ").withUpperCase().formatHex(message.bytes())))
                            .toList());
        }
        if (phrase.ready()) {
            plain.put("ready", true);
        }
        if (!phrase.origin().equals(Origin.DRAWN)) {
            plain.put("origin", writeOrigin(phrase.origin()));
        }
        PlainMap.merge(plain, phrase.unknown());
        return plain;
    }

    private static Map<String, Object> writeOrigin(Origin origin) {
        Map<String, Object> plain = PlainMap.of("kind", ChoiceType.word(origin.kind()));
        if (!origin.from().isEmpty()) {
            plain.put("from", origin.from());
        }
        if (!origin.details().isEmpty()) {
            plain.put("details", origin.details());
        }
        if (!origin.how().isEmpty()) {
            plain.put("how", origin.how());
        }
        PlainMap.merge(plain, origin.unknown());
        return plain;
    }

    /** Each is made when it is asked for, so that those of a long phrase are not all there at once. */
    private static List<Object> written(List<Note> notes) {
        return new AbstractList<>() {
            @Override
            public Object get(int index) {
                return writeNote(notes.get(index));
            }

            @Override
            public int size() {
                return notes.size();
            }
        };
    }

    static List<Object> writeNote(Note note) {
        if (note.traits() == Traits.PLAIN && note.release() == Note.PLAIN_RELEASE) {
            return List.of(note.tick(), note.length(), note.pitch(), note.velocity());
        }
        Map<String, Object> more = new LinkedHashMap<>();
        if (note.traits().chance() != 100) {
            more.put("chance", note.traits().chance());
        }
        if (note.traits().off()) {
            more.put("off", true);
        }
        if (note.release() != Note.PLAIN_RELEASE) {
            more.put("release", note.release());
        }
        PlainMap.merge(more, note.traits().unknown());
        return List.of(note.tick(), note.length(), note.pitch(), note.velocity(), more);
    }
}
