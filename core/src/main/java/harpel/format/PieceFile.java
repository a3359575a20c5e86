package harpel.format;

import harpel.chain.Chain;
import harpel.event.Message;
import harpel.param.ChoiceType;
import harpel.param.FlagType;
import harpel.param.ParamException;
import harpel.param.PathType;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.Hearing;
import harpel.piece.KeyChange;
import harpel.piece.Lever;
import harpel.piece.Mark;
import harpel.piece.Mix;
import harpel.piece.Moment;
import harpel.piece.Pad;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Playing;
import harpel.piece.Preset;
import harpel.piece.Rack;
import harpel.piece.Voice;
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
import java.util.regex.Pattern;

/**
 * Pieces as JSON. Places and lengths are ticks, 15,360 to a quarter; a note is {@code [at, length, pitch, velocity]}, with
 * {@code {"chance": 40, "off": true, "release": 30}} behind it where one of these is not 100, false and 64.
 */
public final class PieceFile {
    /** What file names end with. */
    public static final String ENDING = ".harpel";

    private static final PathType<Boolean> MUTES = new PathType<>(FlagType.FLAG);

    private static final long FARTHEST = 1L << 48;

    private static final long MOST_VARIATION = 999_999;

    private static final Pattern HEX = Pattern.compile("[0-9A-Fa-f]{2}( [0-9A-Fa-f]{2})*");

    private PieceFile() {}

    /**
     * Reads a piece.
     *
     * @throws FileException when it is not JSON
     * @throws ParamException with path, value, range and way out when a value does not fit
     */
    public static Piece read(String text) throws FileException {
        Map<String, Object> plain = Json.parseObject(text);
        boolean newer = ChainFile.isNewer(plain);
        PlainMap file = new PlainMap(plain, "", newer);
        ChainFile.takeVersion(file);
        String name = file.text("piece", "Untitled");
        Key key = file.take("key", Key.C_MAJOR, value -> Key.parse(String.valueOf(value)));
        long variation = file.whole("variation", 1, 0, MOST_VARIATION);
        TempoMap tempo = file.take("tempo", TempoMap.of(120), PieceFile::readTempo);
        MeterMap meter = file.take("meter", MeterMap.FOUR_FOUR, PieceFile::readMeter);
        String sounds = file.text("sounds", "");
        List<Phrase> phrases = file.list("phrases", (one, path) -> readPhrase(one, path, newer));
        List<Part> parts = file.list("parts", (one, path) -> readPart(one, path, newer));
        List<Lever> levers = file.list("levers", (one, path) -> readLever(one, path, newer));
        List<Mark> marks = file.list("marks", (one, path) -> readMark(one, path, newer));
        List<KeyChange> keys = file.list("keys", (one, path) -> readKey(one, path, newer));
        List<Pad> pads = file.list("pads", (one, path) -> PadsFile.readPad(one, path, newer));
        List<Moment> moments = file.list("moments", (one, path) -> PadsFile.readMoment(one, path, newer));
        boolean timeline = file.take("plays", false, PieceFile::isTimeline);
        Bracket bracket = file.take("loop", Bracket.NONE, value -> bracket(value, newer));
        Map<String, Object> unknown = file.end(
                "harpel, piece, key, variation, tempo, meter, sounds, parts, phrases, levers, marks, keys, plays, loop, pads, moments");
        return PlainMap.at(
                "parts",
                () -> new Piece(
                        name,
                        key,
                        variation,
                        new TimeMap(tempo, meter),
                        sounds,
                        parts,
                        phrases,
                        levers,
                        marks,
                        timeline,
                        bracket,
                        keys,
                        pads,
                        moments,
                        unknown));
    }

    /** What of a piece this version does not know and keeps for the file, in words; empty where it knows all. */
    public static List<String> unknown(Piece piece) {
        List<String> found = new ArrayList<>();
        piece.unknown().keySet().stream()
                .filter(field -> !field.equals(ChainFile.VERSION_KEY))
                .forEach(field -> found.add("\"" + field + "\" of the piece"));
        for (Part part : piece.parts()) {
            part.unknown().keySet().forEach(field -> found.add("\"" + field + "\" of " + part.name()));
            part.blocks()
                    .forEach(block -> block.unknown()
                            .keySet()
                            .forEach(field -> found.add("\"" + field + "\" of a block of " + part.name())));
            ChainFile.unknown(part.chain()).forEach(what -> found.add(what + " of " + part.name()));
            if (part.rack().other() != null) {
                ChainFile.unknown(part.rack().other()).forEach(what -> found.add(what + " of " + part.name()));
            }
        }
        for (Phrase phrase : piece.phrases()) {
            phrase.unknown().keySet().forEach(field -> found.add("\"" + field + "\" of phrase " + phrase.name()));
            phrase.origin()
                    .unknown()
                    .keySet()
                    .forEach(field -> found.add("\"" + field + "\" of the origin of phrase " + phrase.name()));
            if (phrase.notes().stream()
                    .anyMatch(note -> !note.traits().unknown().isEmpty())) {
                found.add("traits of notes of phrase " + phrase.name());
            }
        }
        piece.levers()
                .forEach(lever -> lever.unknown()
                        .keySet()
                        .forEach(field -> found.add("\"" + field + "\" of lever " + lever.name())));
        piece.pads().forEach(pad -> pad.unknown().keySet().forEach(field -> found.add("\"" + field + "\" of a pad")));
        piece.moments()
                .forEach(moment -> moment.unknown()
                        .keySet()
                        .forEach(field -> found.add("\"" + field + "\" of moment " + moment.name())));
        piece.bracket().unknown().keySet().forEach(field -> found.add("\"" + field + "\" of the loop"));
        piece.keys()
                .forEach(change -> change.unknown()
                        .keySet()
                        .forEach(field -> found.add("\"" + field + "\" of the key " + change.key())));
        piece.marks()
                .forEach(mark -> mark.unknown()
                        .keySet()
                        .forEach(field -> found.add("\"" + field + "\" of mark " + mark.name())));
        return found;
    }

    private static boolean isTimeline(Object plain) {
        if (!"timeline".equals(plain) && !"loops".equals(plain)) {
            throw new ParamException("must be \"loops\" or \"timeline\" but was " + plain);
        }
        return "timeline".equals(plain);
    }

    private static Bracket bracket(Object plain, boolean newer) {
        PlainMap fields = new PlainMap(plain, "", newer);
        long from = fields.whole("from", 0, 0, FARTHEST);
        long to = fields.whole("to", 0, 0, FARTHEST);
        boolean on = fields.flag("on", false);
        return new Bracket(from, to, on, fields.end("from, to, on"));
    }

    private static KeyChange readKey(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        long at = fields.whole("at", 1, 1, FARTHEST);
        Key key = fields.take("key", Key.C_MAJOR, value -> Key.parse(String.valueOf(value)));
        return new KeyChange(at, key, fields.end("at, key"));
    }

    private static Map<String, Object> writeKey(KeyChange change) {
        Map<String, Object> plain = ordered("at", change.tick(), "key", text(change.key()));
        PlainMap.merge(plain, change.unknown());
        return plain;
    }

    private static String text(Key key) {
        return key.name().replace('♯', '#');
    }

    private static Block readBlock(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        return new Block(
                fields.whole("at", 0, 0, FARTHEST),
                fields.whole("length", 1, 1, FARTHEST),
                fields.text("phrase", ""),
                fields.whole("from", 0, 0, FARTHEST),
                fields.flag("chain", true),
                fields.whole("variation", Block.OF_THE_PART, 0, MOST_VARIATION),
                fields.end("at, length, phrase, from, chain, variation"));
    }

    private static Map<String, Object> writeBlock(Block block) {
        Map<String, Object> plain = ordered("at", block.at(), "length", block.length());
        if (!block.phrase().isEmpty()) {
            plain.put("phrase", block.phrase());
        }
        if (block.from() > 0) {
            plain.put("from", block.from());
        }
        if (!block.chain()) {
            plain.put("chain", false);
        }
        if (block.variation() != Block.OF_THE_PART) {
            plain.put("variation", block.variation());
        }
        PlainMap.merge(plain, block.unknown());
        return plain;
    }

    private static Mark readMark(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        long at = fields.whole("at", 0, 0, FARTHEST);
        String name = fields.text("name", "");
        return new Mark(at, name, fields.end("at, name"));
    }

    private static Map<String, Object> writeMark(Mark mark) {
        Map<String, Object> plain = ordered("at", mark.tick(), "name", mark.name());
        PlainMap.merge(plain, mark.unknown());
        return plain;
    }

    private static TempoMap readTempo(Object plain) {
        if (plain instanceof Number bpm) {
            return TempoMap.of(bpm.doubleValue());
        }
        return new TempoMap(changes(
                plain,
                fields -> new TempoMap.Change(
                        fields.whole("at", 0, 0, FARTHEST),
                        fields.take("bpm", 120.0, PieceFile::number),
                        fields.flag("ramp", false))));
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
            PlainMap fields = new PlainMap(list.get(i), "[" + i + "]", false);
            changes.add(reader.apply(fields));
            fields.end("at, bpm, ramp, meter");
        }
        return changes;
    }

    private static char letter(Object plain) {
        if (plain instanceof String text && text.length() == 1) {
            return text.charAt(0);
        }
        throw new ParamException("must be \"A\" or \"B\" but was " + plain);
    }

    private static Part readPart(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        String name = fields.text("name", "Part");
        String id = fields.text("id", Part.idFor(name));
        String phrase = fields.text("phrase", "");
        Part.Run run = fields.take("run", Part.Run.KEYS, new ChoiceType<>(Part.Run.class)::read);
        Hearing hearing = fields.take("input", Hearing.KEYS, PieceFile::hearingOf);
        Voice voice = new Voice(
                fields.text("output", ""),
                (int) fields.whole("channel", 1, 1, 16) - 1,
                fields.text("sound", Voice.FIRST.sound()),
                fields.take("preset", null, PieceFile::preset));
        Mix mix = new Mix(
                fields.flag("mute", false), fields.flag("solo", false), (int) fields.whole("level", 100, 0, 100), (int)
                        fields.whole("colour", 0, 0, Mix.COLOURS - 1));
        Chain chain = ChainFile.takeChain(fields, "chain", Chain.EMPTY);
        Rack rack = new Rack(
                chain,
                fields.flag("chain-off", false),
                fields.take("heard", 'A', PieceFile::letter),
                ChainFile.takeChain(fields, "other-chain", null),
                fields.text("between", ""));
        List<Long> variations = fields.list("variations", (one, place) -> PlainMap.whole(one, 0, MOST_VARIATION));
        List<Block> blocks = fields.list("blocks", (one, place) -> readBlock(one, place, newer));
        List<PathType.Point<Boolean>> mutes = fields.take("mutes", List.of(), MUTES::read);
        Playing playing = PlainMap.at("blocks", () -> new Playing(phrase, variations, blocks, mutes));
        List<String> stars = fields.list("stars", (one, starPath) -> String.valueOf(one));
        Map<String, Object> unknown = fields.end(
                "name, id, phrase, variations, blocks, mutes, input, stars, run, sound, preset, output, channel, mute, solo, level, colour, chain, chain-off, heard,"
                        + " other-chain, between");
        return new Part(id, name, hearing, run, playing, rack, voice, mix, stars, unknown);
    }

    private static Preset preset(Object plain) {
        List<?> numbers = PlainMap.list(plain);
        if (numbers.size() != 2) {
            throw new ParamException("a preset is [bank, program] but was " + plain);
        }
        return new Preset((int) PlainMap.whole(numbers.get(0), 0, Preset.HIGHEST_BANK), (int)
                PlainMap.whole(numbers.get(1), 0, 127));
    }

    /** What {@link #plain} gave. */
    public static Hearing hearingOf(Object plain) {
        if ("keys".equals(plain)) {
            return Hearing.KEYS;
        }
        if ("none".equals(plain)) {
            return Hearing.NOTHING;
        }
        if (plain instanceof Map<?, ?> map && map.size() <= 2) {
            PlainMap fields = new PlainMap(plain, "", false);
            for (Hearing.Source source : Hearing.Source.values()) {
                String word = ChoiceType.word(source);
                if (fields.has(word)) {
                    String from = fields.text(word, "");
                    boolean device = source == Hearing.Source.DEVICE;
                    int channel = device ? (int) fields.whole("channel", 0, 1, 16) : 0;
                    fields.end(word + (device ? ", channel" : ""));
                    return new Hearing(source, from, channel);
                }
            }
        }
        throw new ParamException("must be \"keys\", \"none\", {\"device\": name, \"channel\": 1–16},"
                + " {\"output-of\": part} or {\"input-of\": part} but was " + plain);
    }

    /** What a part hears as a file has it, for keeping it beside what was made of it. */
    public static Object plain(Hearing hearing) {
        if (hearing.from().isEmpty()) {
            return ChoiceType.word(hearing.source());
        }
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put(ChoiceType.word(hearing.source()), hearing.from());
        if (hearing.channel() > 0) {
            plain.put("channel", hearing.channel());
        }
        return plain;
    }

    private static Lever readLever(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        String name = fields.text("name", "");
        double value = fields.take("value", 0.0, PieceFile::number);
        List<Integer> controllers = fields.list("controllers", (one, place) -> (int) PlainMap.whole(one, 0, 127));
        List<Lever.Point> points = fields.list("points", (one, place) -> {
            List<?> pair = PlainMap.list(one);
            if (pair.size() != 2) {
                throw new ParamException("a lever's point is [at, 0–100] but was " + one);
            }
            return new Lever.Point(PlainMap.whole(pair.get(0), 0, FARTHEST), number(pair.get(1)));
        });
        boolean returns = fields.flag("returns", false);
        int steps = fields.has("steps") ? (int) fields.whole("steps", 2, 2, Lever.MOST_STEPS) : 0;
        int curve = (int) fields.whole("curve", 0, -100, 100);
        Map<String, Object> unknown = fields.end("name, value, controllers, points, returns, steps, curve");
        return new Lever(name, value, controllers, points, returns, steps, curve, unknown);
    }

    private static Map<String, Object> writeLever(Lever lever) {
        Map<String, Object> plain = ordered("name", lever.name());
        plain.put("value", lever.value());
        if (!lever.controllers().isEmpty()) {
            plain.put("controllers", lever.controllers());
        }
        if (lever.returns()) {
            plain.put("returns", true);
        }
        if (lever.steps() > 0) {
            plain.put("steps", lever.steps());
        }
        if (lever.curve() != 0) {
            plain.put("curve", lever.curve());
        }
        if (!lever.points().isEmpty()) {
            plain.put(
                    "points",
                    lever.points().stream()
                            .map(point -> List.of(point.tick(), point.value()))
                            .toList());
        }
        PlainMap.merge(plain, lever.unknown());
        return plain;
    }

    private static Phrase readPhrase(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        String name = fields.text("name", "Phrase");
        String id = fields.text("id", Phrase.idFor(name));
        long length = fields.whole("length", 0, 0, FARTHEST);
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
        Map<String, Object> how = fields.take("how", Map.of(), PieceFile::fields);
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

    private static Map<String, Object> writeOrigin(Origin origin) {
        Map<String, Object> plain = ordered("kind", ChoiceType.word(origin.kind()));
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
                PlainMap.whole(numbers.get(0), 0, FARTHEST),
                PlainMap.whole(numbers.get(1), 1, FARTHEST),
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
                PlainMap.whole(pair.get(0), 0, FARTHEST),
                0,
                HexFormat.ofDelimiter(" ").parseHex(hex.toLowerCase(Locale.ROOT)));
    }

    /** As text; what a newer version wrote and this one does not know is written again. */
    public static String write(Piece piece) {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put(ChainFile.VERSION_KEY, piece.unknown().getOrDefault(ChainFile.VERSION_KEY, ChainFile.VERSION));
        plain.put("piece", piece.name());
        plain.put("key", text(piece.key()));
        plain.put("variation", piece.variation());
        plain.put("tempo", writeTempo(piece.time().tempo()));
        plain.put("meter", writeMeter(piece.time().meter()));
        if (!piece.sounds().isEmpty()) {
            plain.put("sounds", piece.sounds());
        }
        plain.put("parts", piece.parts().stream().map(PieceFile::writePart).toList());
        plain.put(
                "phrases", piece.phrases().stream().map(PieceFile::writePhrase).toList());
        if (!piece.levers().isEmpty()) {
            plain.put(
                    "levers", piece.levers().stream().map(PieceFile::writeLever).toList());
        }
        if (!piece.marks().isEmpty()) {
            plain.put("marks", piece.marks().stream().map(PieceFile::writeMark).toList());
        }
        if (!piece.keys().isEmpty()) {
            plain.put("keys", piece.keys().stream().map(PieceFile::writeKey).toList());
        }
        if (piece.timeline()) {
            plain.put("plays", "timeline");
        }
        Bracket bracket = piece.bracket();
        if (bracket.isThere()) {
            Map<String, Object> loop = ordered("from", bracket.from(), "to", bracket.to(), "on", bracket.on());
            PlainMap.merge(loop, bracket.unknown());
            plain.put("loop", loop);
        }
        if (!piece.pads().isEmpty()) {
            plain.put("pads", piece.pads().stream().map(PadsFile::writePad).toList());
        }
        if (!piece.moments().isEmpty()) {
            plain.put(
                    "moments",
                    piece.moments().stream().map(PadsFile::writeMoment).toList());
        }
        PlainMap.merge(plain, piece.unknown());
        return Json.write(plain);
    }

    private static Object writeTempo(TempoMap tempo) {
        if (tempo.changes().size() == 1 && !tempo.rampsAt(0)) {
            return plainNumber(tempo.bpmAt(0));
        }
        return tempo.changes().stream()
                .map(change -> change.ramp()
                        ? ordered("at", change.tick(), "bpm", plainNumber(change.bpm()), "ramp", true)
                        : ordered("at", change.tick(), "bpm", plainNumber(change.bpm())))
                .toList();
    }

    static Object plainNumber(double value) {
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
        if (!part.playing().variations().isEmpty()) {
            plain.put("variations", part.playing().variations());
        }
        if (!part.blocks().isEmpty()) {
            plain.put(
                    "blocks", part.blocks().stream().map(PieceFile::writeBlock).toList());
        }
        if (!part.playing().mutes().isEmpty()) {
            plain.put("mutes", MUTES.write(part.playing().mutes()));
        }
        if (!part.hearing().equals(Hearing.KEYS)) {
            plain.put("input", plain(part.hearing()));
        }
        if (part.run() != Part.Run.KEYS) {
            plain.put("run", ChoiceType.word(part.run()));
        }
        plain.put("sound", part.voice().sound());
        Preset preset = part.voice().preset();
        if (preset != null) {
            plain.put("preset", List.of(preset.bank(), preset.program()));
        }
        if (!part.voice().port().isEmpty()) {
            plain.put("output", part.voice().port());
        }
        plain.put("channel", part.channel() + 1);
        Mix mix = part.mix();
        if (mix.mute()) {
            plain.put("mute", true);
        }
        if (mix.solo()) {
            plain.put("solo", true);
        }
        if (mix.level() != Mix.PLAIN.level()) {
            plain.put("level", mix.level());
        }
        if (mix.colour() != Mix.PLAIN.colour()) {
            plain.put("colour", mix.colour());
        }
        plain.put("chain", ChainFile.writeChain(part.chain()));
        Rack rack = part.rack();
        if (rack.off()) {
            plain.put("chain-off", true);
        }
        if (rack.letter() != 'A') {
            plain.put("heard", String.valueOf(rack.letter()));
        }
        if (rack.other() != null) {
            plain.put("other-chain", ChainFile.writeChain(rack.other()));
        }
        if (!rack.between().isEmpty()) {
            plain.put("between", rack.between());
        }
        if (!part.stars().isEmpty()) {
            plain.put("stars", part.stars());
        }
        PlainMap.merge(plain, part.unknown());
        return plain;
    }

    private static Map<String, Object> writePhrase(Phrase phrase) {
        Map<String, Object> plain = ordered("name", phrase.name());
        if (!phrase.id().equals(Phrase.idFor(phrase.name()))) {
            plain.put("id", phrase.id());
        }
        plain.put("length", phrase.length());
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
        if (phrase.ready()) {
            plain.put("ready", true);
        }
        if (!phrase.origin().equals(Origin.DRAWN)) {
            plain.put("origin", writeOrigin(phrase.origin()));
        }
        PlainMap.merge(plain, phrase.unknown());
        return plain;
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
