package harpel.format;

import harpel.param.ParamException;
import harpel.phrase.Phrase;
import harpel.piece.Bracket;
import harpel.piece.KeyChange;
import harpel.piece.Mark;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Pieces as JSON. Places and lengths are ticks, 15,360 to a quarter; a note is {@code [at, length, pitch, velocity]}, with
 * {@code {"chance": 40, "off": true, "release": 30}} behind it where one of these is not 100, false and 64.
 */
public final class PieceFile {
    /** What file names end with. */
    public static final String ENDING = ".harpel";

    static final long MOST_VARIATION = 999_999;

    private PieceFile() {}

    /** Reads the bytes of a file. Throws as {@link #read(String)}, and when they are no text. */
    public static Piece read(byte[] bytes) throws FileException {
        return read(Json.text(bytes));
    }

    /**
     * Reads a piece.
     *
     * @throws FileException when it is not JSON
     * @throws ParamException with path, value, range and way out when a value does not fit
     */
    public static Piece read(String text) throws FileException {
        Map<String, Object> plain = Json.parseObject(text);
        ChainFile.refuseOther(plain, ChainFile.A_PIECE);
        Piece piece = read(plain);
        if (!ChainFile.isNewer(plain)) {
            return piece;
        }
        Map<String, Object> unknown = new LinkedHashMap<>(piece.unknown());
        unknown.put(ChainFile.VERSION_KEY, NewerFile.of(plain.get(ChainFile.VERSION_KEY), plain, plain(piece)));
        return piece.withUnknown(unknown);
    }

    private static Piece read(Map<String, Object> plain) {
        boolean newer = ChainFile.isNewer(plain);
        PlainMap file = new PlainMap(plain, "", newer);
        ChainFile.takeVersion(file);
        String name = file.text("piece", Piece.UNTITLED);
        Key key = file.take("key", Key.C_MAJOR, value -> Key.parse(String.valueOf(value)));
        long variation = file.whole("variation", 1, 0, MOST_VARIATION);
        TempoMap tempo = file.take("tempo", TempoMap.of(120), value -> TimeFile.readTempo(value, newer));
        MeterMap meter = file.take("meter", MeterMap.FOUR_FOUR, value -> TimeFile.readMeter(value, newer));
        String sounds = file.text("sounds", "");
        List<Phrase> phrases = file.list("phrases", (one, path) -> PhrasesFile.readPhrase(one, path, newer));
        List<Part> parts = file.list("parts", (one, path) -> PartsFile.readPart(one, path, newer));
        List<Lever> levers = file.list("levers", (one, path) -> LeversFile.readLever(one, path, newer));
        List<Mark> marks = file.list("marks", (one, path) -> TimeFile.readMark(one, path, newer));
        List<KeyChange> keys = file.list("keys", (one, path) -> TimeFile.readKey(one, path, newer));
        List<Pad> pads = file.list("pads", (one, path) -> PadsFile.readPad(one, path, newer));
        List<Moment> moments = file.list("moments", (one, path) -> PadsFile.readMoment(one, path, newer));
        boolean timeline = file.take("plays", false, PieceFile::isTimeline);
        Bracket bracket = file.take("loop", Bracket.NONE, value -> TimeFile.readBracket(value, newer));
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

    /** Whether a newer version wrote a piece. */
    public static boolean isNewer(Piece piece) {
        return piece.unknown().containsKey(ChainFile.VERSION_KEY);
    }

    /** What of a piece this version does not know and keeps for the file, in words; empty where it knows all. */
    public static List<String> unknown(Piece piece) {
        List<String> found = new ArrayList<>();
        Map<String, Object> own = new LinkedHashMap<>(piece.unknown());
        own.remove(ChainFile.VERSION_KEY);
        tell(own, "the piece", found);
        for (Part part : piece.parts()) {
            tell(part.unknown(), part.name(), found);
            part.blocks().forEach(block -> tell(block.unknown(), "a block of " + part.name(), found));
            ChainFile.unknown(part.chain()).forEach(what -> found.add(what + " of " + part.name()));
            if (part.rack().other() != null) {
                ChainFile.unknown(part.rack().other()).forEach(what -> found.add(what + " of " + part.name()));
            }
        }
        for (Phrase phrase : piece.phrases()) {
            tell(phrase.unknown(), "phrase " + phrase.name(), found);
            tell(phrase.origin().unknown(), "the origin of phrase " + phrase.name(), found);
            if (phrase.notes().stream()
                    .anyMatch(note -> !note.traits().unknown().isEmpty())) {
                found.add("traits of notes of phrase " + phrase.name());
            }
        }
        piece.levers().forEach(lever -> tell(lever.unknown(), "lever " + lever.name(), found));
        piece.pads().forEach(pad -> tell(pad.unknown(), "a pad", found));
        piece.moments().forEach(moment -> tell(moment.unknown(), "moment " + moment.name(), found));
        tell(piece.bracket().unknown(), "the loop", found);
        piece.keys().forEach(change -> tell(change.unknown(), "the key " + change.key(), found));
        piece.marks().forEach(mark -> tell(mark.unknown(), "mark " + mark.name(), found));
        return found;
    }

    private static void tell(Map<String, Object> unknown, String of, List<String> found) {
        unknown.keySet().forEach(field -> found.add("\"" + field + "\" of " + of));
    }

    private static boolean isTimeline(Object plain) {
        if (!"timeline".equals(plain) && !"loops".equals(plain)) {
            throw new ParamException("must be \"loops\" or \"timeline\" but was " + plain);
        }
        return "timeline".equals(plain);
    }

    /** As text; what a newer version wrote and this one does not know is written again. */
    public static String write(Piece piece) {
        return Json.write(whole(piece));
    }

    /** The same as UTF-8 into a stream, which stays open. */
    public static void write(Piece piece, OutputStream out) throws IOException {
        Json.write(whole(piece), out);
    }

    private static Map<String, Object> whole(Piece piece) {
        Map<String, Object> plain = plain(piece);
        return piece.unknown().get(ChainFile.VERSION_KEY) instanceof NewerFile newer ? newer.over(plain) : plain;
    }

    private static Map<String, Object> plain(Piece piece) {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put(ChainFile.VERSION_KEY, ChainFile.version(piece.unknown()));
        plain.put("piece", piece.name());
        plain.put("key", TimeFile.text(piece.key()));
        plain.put("variation", piece.variation());
        plain.put("tempo", TimeFile.writeTempo(piece.time().tempo()));
        plain.put("meter", TimeFile.writeMeter(piece.time().meter()));
        if (!piece.sounds().isEmpty()) {
            plain.put("sounds", piece.sounds());
        }
        plain.put("parts", piece.parts().stream().map(PartsFile::writePart).toList());
        plain.put(
                "phrases",
                piece.phrases().stream().map(PhrasesFile::writePhrase).toList());
        if (!piece.levers().isEmpty()) {
            plain.put(
                    "levers",
                    piece.levers().stream().map(LeversFile::writeLever).toList());
        }
        if (!piece.marks().isEmpty()) {
            plain.put("marks", piece.marks().stream().map(TimeFile::writeMark).toList());
        }
        if (!piece.keys().isEmpty()) {
            plain.put("keys", piece.keys().stream().map(TimeFile::writeKey).toList());
        }
        if (piece.timeline()) {
            plain.put("plays", "timeline");
        }
        if (piece.bracket().isThere()) {
            plain.put("loop", TimeFile.writeBracket(piece.bracket()));
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
        return plain;
    }
}
