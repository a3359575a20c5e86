package harpel.format;

import harpel.event.Message;
import harpel.param.ParamException;
import harpel.piece.Lever;
import harpel.piece.Note;
import harpel.piece.Part;
import harpel.piece.Phrase;
import harpel.piece.Piece;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;

/**
 * Pieces as JSON. Places and lengths are ticks, 15,360 to a quarter; a note is {@code [at, length, pitch, velocity]} with channel
 * (1–16) and release velocity behind it where they are not 1 and 64.
 */
public final class PieceFile {
    /** What file names end with. */
    public static final String ENDING = ".harpel";

    private static final long FARTHEST = 1L << 48;

    private PieceFile() {}

    /**
     * Reads a piece.
     *
     * @throws FileException when it is not JSON
     * @throws ParamException with path, value, range and way out when a value does not fit
     */
    public static Piece read(String text) throws FileException {
        PlainMap file = new PlainMap(Json.parseObject(text), "");
        boolean newer = ChainFile.readVersion(file);
        String name = file.text("piece", "Untitled");
        Key key = file.take("key", Key.C_MAJOR, value -> Key.parse(String.valueOf(value)));
        long variation = file.whole("variation", 1, 0, 999_999);
        TempoMap tempo = file.take("tempo", TempoMap.of(120), PieceFile::readTempo);
        MeterMap meter = file.take("meter", MeterMap.FOUR_FOUR, PieceFile::readMeter);
        List<Part> parts = readList(file, "parts", (plain, path) -> readPart(plain, path, newer));
        List<Phrase> phrases = readList(file, "phrases", PieceFile::readPhrase);
        List<Lever> levers = readList(file, "levers", PieceFile::readLever);
        Map<String, Object> unknown =
                file.end(newer, "harpel, piece, key, variation, tempo, meter, parts, phrases, levers");
        return PlainMap.at(
                "parts",
                () -> new Piece(name, key, variation, new TimeMap(tempo, meter), parts, phrases, levers, unknown));
    }

    private interface ItemReader<T> {
        T read(Object plain, String path);
    }

    private static <T> List<T> readList(PlainMap fields, String field, ItemReader<T> reader) {
        String path = fields.path(field);
        List<?> list = fields.has(field) ? PlainMap.at(path, () -> PlainMap.list(fields.take(field))) : List.of();
        List<T> result = new ArrayList<>();
        for (int i = 0; i < list.size(); i++) {
            String itemPath = path + "[" + i + "]";
            Object item = list.get(i);
            result.add(PlainMap.at(itemPath, () -> reader.read(item, itemPath)));
        }
        return result;
    }

    private static TempoMap readTempo(Object plain) {
        if (plain instanceof Number bpm) {
            return TempoMap.of(bpm.doubleValue());
        }
        return new TempoMap(changes(
                plain,
                fields -> new TempoMap.Change(
                        fields.whole("at", 0, 0, FARTHEST), fields.take("bpm", 120.0, PieceFile::number))));
    }

    private static double number(Object plain) {
        if (plain instanceof Number number) {
            return number.doubleValue();
        }
        throw new ParamException("must be a number but was " + plain);
    }

    private static MeterMap readMeter(Object plain) {
        if (plain instanceof String text) {
            return new MeterMap(List.of(MeterMap.Change.parse(0, text)));
        }
        return new MeterMap(changes(
                plain,
                fields -> MeterMap.Change.parse(fields.whole("at", 0, 0, FARTHEST), fields.text("meter", "4/4"))));
    }

    private static <T> List<T> changes(Object plain, Function<PlainMap, T> reader) {
        List<T> changes = new ArrayList<>();
        List<?> list = PlainMap.list(plain);
        for (int i = 0; i < list.size(); i++) {
            changes.add(reader.apply(new PlainMap(list.get(i), "[" + i + "]")));
        }
        return changes;
    }

    private static boolean flag(Object plain) {
        if (plain instanceof Boolean flag) {
            return flag;
        }
        throw new ParamException("must be true or false but was " + plain);
    }

    private static char letter(Object plain) {
        if (plain instanceof String text && text.length() == 1) {
            return text.charAt(0);
        }
        throw new ParamException("must be \"A\" or \"B\" but was " + plain);
    }

    private static Part readPart(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path);
        String name = fields.text("name", "Part");
        String id = fields.text("id", Part.idFor(name));
        String phrase = fields.text("phrase", "");
        Part.Run run = fields.take("run", Part.Run.KEYS, value -> switch (String.valueOf(value)) {
            case "keys" -> Part.Run.KEYS;
            case "transport" -> Part.Run.TRANSPORT;
            default -> throw new ParamException("must be keys or transport but was \"" + value + "\"");
        });
        Part.Input input = fields.has("input")
                ? PlainMap.at(fields.path("input"), () -> readInput(fields.take("input")))
                : Part.Input.KEYS;
        String sound = fields.text("sound", "Glass harp");
        String output = fields.text("output", "");
        int channel = (int) fields.whole("channel", 1, 1, 16) - 1;
        Part.Mix mix = new Part.Mix(
                fields.take("mute", false, PieceFile::flag),
                fields.take("solo", false, PieceFile::flag),
                (int) fields.whole("level", 100, 0, 100),
                (int) fields.whole("colour", 0, 0, Part.Mix.COLOURS - 1));
        var chain = ChainFile.readChain(
                fields.has("chain") ? fields.take("chain") : List.of(), fields.path("chain"), newer);
        Part.Compare compare = new Part.Compare(
                fields.take("chain-off", false, PieceFile::flag),
                fields.take("heard", 'A', PieceFile::letter),
                fields.has("other-chain")
                        ? ChainFile.readChain(fields.take("other-chain"), fields.path("other-chain"), newer)
                        : null);
        Map<String, Object> unknown = fields.end(
                newer,
                "name, id, phrase, input, run, sound, output, channel, mute, solo, level, colour, chain, chain-off, heard,"
                        + " other-chain");
        return new Part(id, name, phrase, input, run, sound, output, channel, mix, chain, compare, unknown);
    }

    private static Part.Input readInput(Object plain) {
        if ("keys".equals(plain)) {
            return Part.Input.KEYS;
        }
        if ("none".equals(plain)) {
            return new Part.Input(Part.Input.Source.NONE, "", 0);
        }
        if (plain instanceof Map<?, ?> map && map.size() <= 2) {
            PlainMap fields = new PlainMap(plain, "");
            for (Part.Input.Source source : Part.Input.Source.values()) {
                String word = word(source);
                if (fields.has(word)) {
                    String from = fields.text(word, "");
                    boolean device = source == Part.Input.Source.DEVICE;
                    int channel = device ? (int) fields.whole("channel", 0, 1, 16) : 0;
                    fields.end(false, word + (device ? ", channel" : ""));
                    return new Part.Input(source, from, channel);
                }
            }
        }
        throw new ParamException("must be \"keys\", \"none\", {\"device\": name, \"channel\": 1–16},"
                + " {\"output-of\": part} or {\"input-of\": part} but was " + plain);
    }

    private static String word(Part.Input.Source source) {
        return source.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private static Object writeInput(Part.Input input) {
        if (input.from().isEmpty()) {
            return word(input.source());
        }
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put(word(input.source()), input.from());
        if (input.channel() > 0) {
            plain.put("channel", input.channel());
        }
        return plain;
    }

    private static Lever readLever(Object plain, String path) {
        PlainMap fields = new PlainMap(plain, path);
        String name = fields.text("name", "");
        double value = fields.take("value", 0.0, PieceFile::number);
        int controller = (int) fields.whole("controller", -1, 0, 127);
        fields.end(false, "name, value, controller");
        return new Lever(name, value, controller);
    }

    private static Map<String, Object> writeLever(Lever lever) {
        Map<String, Object> plain = ordered("name", lever.name());
        plain.put("value", lever.value());
        if (lever.controller() >= 0) {
            plain.put("controller", lever.controller());
        }
        return plain;
    }

    private static Phrase readPhrase(Object plain, String path) {
        PlainMap fields = new PlainMap(plain, path);
        String name = fields.text("name", "Phrase");
        long length = fields.whole("length", 0, 0, FARTHEST);
        List<Note> notes = readList(fields, "notes", (note, notePath) -> readNote(note));
        List<Message> messages = readList(fields, "messages", (message, messagePath) -> readMessage(message));
        fields.end(false, "name, length, notes, messages");
        return new Phrase(name, length, notes, messages);
    }

    private static Note readNote(Object plain) {
        List<?> numbers = PlainMap.list(plain);
        if (numbers.size() < 4 || numbers.size() > 6) {
            throw new ParamException(
                    "a note is [at, length, pitch, velocity, channel, release], the last two if needed, but was "
                            + plain);
        }
        return new Note(
                PlainMap.whole(numbers.get(0), 0, FARTHEST),
                PlainMap.whole(numbers.get(1), 1, FARTHEST),
                numbers.size() > 4 ? (int) PlainMap.whole(numbers.get(4), 1, 16) - 1 : 0,
                (int) PlainMap.whole(numbers.get(2), 0, 127),
                (int) PlainMap.whole(numbers.get(3), 1, 127),
                numbers.size() > 5 ? (int) PlainMap.whole(numbers.get(5), 0, 127) : 64);
    }

    private static Message readMessage(Object plain) {
        List<?> pair = PlainMap.list(plain);
        if (pair.size() != 2 || !(pair.get(1) instanceof String hex)) {
            throw new ParamException("a message is [at, \"B0 40 7F\"] but was " + plain);
        }
        return new Message(
                PlainMap.whole(pair.get(0), 0, FARTHEST),
                0,
                HexFormat.ofDelimiter(" ").parseHex(hex.toLowerCase(Locale.ROOT)));
    }

    public static String write(Piece piece) {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put(ChainFile.VERSION_KEY, ChainFile.VERSION);
        plain.put("piece", piece.name());
        plain.put("key", piece.key().name().replace('♯', '#'));
        plain.put("variation", piece.variation());
        plain.put("tempo", writeTempo(piece.time().tempo()));
        plain.put("meter", writeMeter(piece.time().meter()));
        plain.put("parts", piece.parts().stream().map(PieceFile::writePart).toList());
        plain.put(
                "phrases", piece.phrases().stream().map(PieceFile::writePhrase).toList());
        if (!piece.levers().isEmpty()) {
            plain.put(
                    "levers", piece.levers().stream().map(PieceFile::writeLever).toList());
        }
        plain.putAll(piece.unknown());
        return Json.write(plain);
    }

    private static Object writeTempo(TempoMap tempo) {
        if (tempo.changes().size() == 1) {
            return plainNumber(tempo.bpmAt(0));
        }
        return tempo.changes().stream()
                .map(change -> ordered("at", change.tick(), "bpm", plainNumber(change.bpm())))
                .toList();
    }

    private static Object plainNumber(double value) {
        if (value == Math.rint(value)) {
            return (long) value;
        }
        return value;
    }

    private static Object writeMeter(MeterMap meter) {
        if (meter.changes().size() == 1) {
            return meter.at(0).shown();
        }
        return meter.changes().stream()
                .map(change -> ordered("at", change.tick(), "meter", change.shown()))
                .toList();
    }

    private static Map<String, Object> ordered(Object... pairs) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            map.put(String.valueOf(pairs[i]), pairs[i + 1]);
        }
        return map;
    }

    private static Map<String, Object> writePart(Part part) {
        Map<String, Object> plain = ordered("name", part.name());
        if (!part.id().equals(Part.idFor(part.name()))) {
            plain.put("id", part.id());
        }
        if (!part.phrase().isEmpty()) {
            plain.put("phrase", part.phrase());
        }
        if (!part.input().equals(Part.Input.KEYS)) {
            plain.put("input", writeInput(part.input()));
        }
        if (part.run() != Part.Run.KEYS) {
            plain.put("run", part.run().name().toLowerCase(Locale.ROOT));
        }
        plain.put("sound", part.sound());
        if (!part.output().isEmpty()) {
            plain.put("output", part.output());
        }
        plain.put("channel", part.channel() + 1);
        Part.Mix mix = part.mix();
        if (mix.mute()) {
            plain.put("mute", true);
        }
        if (mix.solo()) {
            plain.put("solo", true);
        }
        if (mix.level() != Part.Mix.PLAIN.level()) {
            plain.put("level", mix.level());
        }
        if (mix.colour() != Part.Mix.PLAIN.colour()) {
            plain.put("colour", mix.colour());
        }
        plain.put("chain", ChainFile.writeChain(part.chain()));
        Part.Compare compare = part.compare();
        if (compare.chainOff()) {
            plain.put("chain-off", true);
        }
        if (compare.other() != null) {
            plain.put("heard", String.valueOf(compare.letter()));
            plain.put("other-chain", ChainFile.writeChain(compare.other()));
        }
        plain.putAll(part.unknown());
        return plain;
    }

    private static Map<String, Object> writePhrase(Phrase phrase) {
        Map<String, Object> plain = ordered("name", phrase.name(), "length", phrase.lengthTicks());
        plain.put("notes", phrase.notes().stream().map(PieceFile::writeNote).toList());
        if (!phrase.messages().isEmpty()) {
            plain.put(
                    "messages",
                    phrase.messages().stream()
                            .map(message -> List.of(
                                    message.tick(),
                                    HexFormat.ofDelimiter(" ").withUpperCase().formatHex(message.bytes())))
                            .toList());
        }
        return plain;
    }

    private static List<Object> writeNote(Note note) {
        List<Object> numbers = new ArrayList<>(List.of(note.tick(), note.lengthTicks(), note.pitch(), note.velocity()));
        if (note.channel() != 0 || note.releaseVelocity() != 64) {
            numbers.add(note.channel() + 1);
        }
        if (note.releaseVelocity() != 64) {
            numbers.add(note.releaseVelocity());
        }
        return numbers;
    }
}
