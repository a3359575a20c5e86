package harpel.format;

import harpel.param.type.ChoiceType;
import harpel.phrase.Origin;
import harpel.piece.Mix;
import harpel.piece.Piece;
import harpel.piece.Preset;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The JSON Schema of piece files, field by field with its meaning: pieces are written by hand and by other programs, too. */
final class PieceSchema {
    private static final Map<String, Object> TEXT = Map.of("type", "string");
    private static final Map<String, Object> FLAG = Map.of("type", "boolean");
    private static final Map<String, Object> PERCENT = number(0, 100);
    private static final Map<String, Object> BPM =
            Map.of("type", "number", "minimum", TempoMap.SLOWEST_BPM, "maximum", TempoMap.FASTEST_BPM);
    private static final Map<String, Object> TICKS = whole(0, Ticks.FARTHEST);
    private static final Map<String, Object> VARIATION = whole(0, PieceFile.MOST_VARIATION);
    private static final Map<String, Object> CHANNEL = whole(1, 16);
    private static final Map<String, Object> CONTROLLER = whole(0, 127);
    private static final Map<String, Object> LETTER = Map.of("enum", List.of("A", "B"));
    private static final Map<String, Object> CHAIN = Map.of("$ref", "#/$defs/chain");

    private final Map<String, Object> fields = new LinkedHashMap<>();

    private PieceSchema() {}

    private PieceSchema with(String field, Map<String, Object> type, String meaning) {
        Map<String, Object> described = new LinkedHashMap<>(type);
        described.put("description", meaning);
        fields.put(field, described);
        return this;
    }

    private Map<String, Object> object(String... required) {
        Map<String, Object> schema = new LinkedHashMap<>();
        schema.put("type", "object");
        schema.put("properties", fields);
        schema.put("additionalProperties", false);
        if (required.length > 0) {
            schema.put("required", List.of(required));
        }
        return schema;
    }

    private static Map<String, Object> whole(long min, long max) {
        return Map.of("type", "integer", "minimum", min, "maximum", max);
    }

    private static Map<String, Object> number(long min, long max) {
        return Map.of("type", "number", "minimum", min, "maximum", max);
    }

    private static Map<String, Object> list(Map<String, Object> item) {
        return Map.of("type", "array", "items", item);
    }

    private static Map<String, Object> list(Map<String, Object> item, int most) {
        return Map.of("type", "array", "items", item, "maxItems", most);
    }

    private static Map<String, Object> map(Map<String, Object> value) {
        return Map.of("type", "object", "additionalProperties", value);
    }

    /** A list of so many in a row, each of its own kind; those behind the least may be left out. */
    private static Map<String, Object> row(int least, List<Map<String, Object>> items) {
        return Map.of("type", "array", "prefixItems", items, "minItems", least, "maxItems", items.size());
    }

    private static Map<String, Object> pair(Map<String, Object> one, Map<String, Object> other) {
        return row(2, List.of(one, other));
    }

    private static Map<String, Object> either(Map<String, Object> one, Map<String, Object> other) {
        return Map.of("anyOf", List.of(one, other));
    }

    private static Map<String, Object> words(Class<? extends Enum<?>> choices) {
        List<String> words = new ArrayList<>();
        Arrays.stream(choices.getEnumConstants()).forEach(one -> words.add(ChoiceType.word(one)));
        return Map.of("enum", words);
    }

    static Map<String, Object> piece() {
        return new PieceSchema()
                .with("harpel", Map.of("const", ChainFile.VERSION), "The version of the form of this file.")
                .with("piece", TEXT, "The piece's name.")
                .with(
                        "key",
                        TEXT,
                        "Root and scale, such as \"D dorian\"; with its semitones above the root where it is a scale of one's own."
                                + " Default: C major.")
                .with("variation", VARIATION, "The number that all chance depends on. Default: 1.")
                .with(
                        "tempo",
                        either(
                                BPM,
                                list(new PieceSchema()
                                        .with("at", TICKS, "From which tick on.")
                                        .with("bpm", BPM, "Quarters a minute.")
                                        .with(
                                                "ramp",
                                                FLAG,
                                                "Whether the tempo goes evenly to the next one from here. Default: false.")
                                        .object("bpm"))),
                        "Quarters a minute; one number, or changes in the order of their ticks. Default: 120.")
                .with(
                        "meter",
                        either(
                                TEXT,
                                list(new PieceSchema()
                                        .with("at", TICKS, "From which tick on, a bar line.")
                                        .with("meter", TEXT, "Such as \"7/8\".")
                                        .object("meter"))),
                        "Such as \"3/4\"; one for all, or changes in the order of their ticks. Default: 4/4.")
                .with(
                        "sounds",
                        TEXT,
                        "A SoundFont 2 or DLS file whose sounds stand in for the built-in ones; a path from this file's folder.")
                .with(
                        "plays",
                        Map.of("enum", List.of("loops", "timeline")),
                        "As loops, each part its phrase over and over, or as its timeline of blocks. Default: loops.")
                .with(
                        "loop",
                        new PieceSchema()
                                .with("from", TICKS, "Its first tick.")
                                .with("to", TICKS, "The tick behind its last.")
                                .with("on", FLAG, "Whether it comes round. Default: false.")
                                .object(),
                        "The stretch of the timeline that comes round.")
                .with("parts", list(part(), Piece.MOST_PARTS), "The parts, in their order.")
                .with("phrases", list(phrase()), "The phrases that parts and blocks play.")
                .with("levers", list(lever()), "The levers, each with a name of its own.")
                .with(
                        "marks",
                        list(new PieceSchema()
                                .with("at", TICKS, "Its tick.")
                                .with("name", TEXT, "What stands there.")
                                .object("at")),
                        "Named places on the timeline.")
                .with(
                        "keys",
                        list(new PieceSchema()
                                .with("at", whole(1, Ticks.FARTHEST), "From which tick on.")
                                .with("key", TEXT, "Root and scale.")
                                .object("at")),
                        "Where the key changes on the timeline.")
                .with("pads", list(pad()), "The pads of the Play view, one at a place.")
                .with("moments", list(moment()), "States that are recalled at once, each with a name of its own.")
                .object("harpel");
    }

    private static Map<String, Object> part() {
        PieceSchema hears = new PieceSchema()
                .with("device", TEXT, "Notes of the MIDI device of that name.")
                .with("channel", CHANNEL, "Of the device, this channel alone. Default: all.")
                .with("output-of", TEXT, "What the part of that id sends.")
                .with(
                        "keys-here",
                        FLAG,
                        "With output-of: whether keys play this part, past the ones before it. Default: false.")
                .with("input-of", TEXT, "What the part of that id hears.");
        return new PieceSchema()
                .with("name", TEXT, "Its name.")
                .with(
                        "id",
                        id(),
                        "By which others name it. Default: made of the name, \"Harbour bells\" is harbour-bells.")
                .with(
                        "phrase",
                        TEXT,
                        "The id of the phrase that it plays over and over as loops; on the timeline its blocks play.")
                .with(
                        "variations",
                        list(VARIATION),
                        "The numbers it takes in turn, one a round of its phrase. Default: the piece's.")
                .with(
                        "blocks",
                        list(block(), Piece.MOST_BLOCKS),
                        "Where it is present on the timeline. Without any it is always present, with a phrase and without; its phrase is"
                                + " played by blocks alone.")
                .with(
                        "mutes",
                        list(pair(TICKS, FLAG)),
                        "Where it falls silent on the timeline and is heard again: [tick, true or false], in order.")
                .with(
                        "input",
                        either(Map.of("enum", List.of("keys", "none")), hears.object()),
                        "What it hears besides its phrase: keys while it is chosen, nothing, a device, or another part. Default: keys.")
                .with(
                        "run",
                        words(harpel.piece.Part.Run.class),
                        "Whether its chain's time goes while keys are held, or with the transport alone. Default: keys.")
                .with(
                        "sound",
                        TEXT,
                        "A sound of ours or of General MIDI by its name, or with a preset that sound's. Default: Glass harp.")
                .with(
                        "preset",
                        pair(whole(0, Preset.HIGHEST_BANK), whole(0, 127)),
                        "A sound of the piece's file of sounds: [bank, program], counted from 0.")
                .with("output", TEXT, "The name of a MIDI output. Default: the built-in sounds.")
                .with("channel", CHANNEL, "The channel it sends on; 10 is that of drums. Default: 1.")
                .with("mute", FLAG, "Whether it is not heard. Default: false.")
                .with("solo", FLAG, "Whether only it, and others that are solo, are heard. Default: false.")
                .with("level", whole(0, 100), "Its volume in percent. Default: 100.")
                .with("colour", whole(0, Mix.COLOURS - 1), "The number of its colour. Default: 0.")
                .with("chain", CHAIN, "Its chain A.")
                .with("other-chain", CHAIN, "Its chain B, where it has one.")
                .with("heard", LETTER, "Which of the two is heard: A, the chain, or B, the other-chain. Default: A.")
                .with("chain-off", FLAG, "Whether it is heard past its chain. Default: false.")
                .with(
                        "between",
                        TEXT,
                        "The name of the lever that stands between A, at 0 %, and B, where both have the same stages.")
                .with("stars", list(TEXT), "Variations that were starred, as the sheet writes them.")
                .object();
    }

    private static Map<String, Object> id() {
        return Map.of("type", "string", "pattern", "^[a-z0-9-]+$");
    }

    private static Map<String, Object> block() {
        return new PieceSchema()
                .with("at", TICKS, "Its first tick.")
                .with("length", whole(1, Ticks.FARTHEST), "How many ticks long it is.")
                .with(
                        "phrase",
                        TEXT,
                        "The id of the phrase that repeats in it. Default: none; the part is present with what it plays by itself.")
                .with("from", TICKS, "The tick of the phrase at which it begins. Default: 0.")
                .with("chain", FLAG, "Whether it goes through the chain, or past it. Default: true.")
                .with("variation", VARIATION, "The number its chance depends on. Default: the part's.")
                .object("at", "length");
    }

    private static Map<String, Object> phrase() {
        Map<String, Object> more = new PieceSchema()
                .with("chance", whole(0, 100), "How likely it is played, in percent. Default: 100.")
                .with("off", FLAG, "Whether it is not played. Default: false.")
                .with("release", whole(0, 127), "The velocity of its end. Default: 64.")
                .object();
        Map<String, Object> origin = new PieceSchema()
                .with("kind", words(Origin.Kind.class), "How it came to be. Default: drawn.")
                .with("from", TEXT, "The id of the part, or the name of the file, that it came from.")
                .with("details", TEXT, "More of that in words.")
                .with(
                        "how",
                        Map.of("type", "object"),
                        "The chain and the settings it was made with, so that it can be made again.")
                .object();
        return new PieceSchema()
                .with("name", TEXT, "Its name.")
                .with("id", id(), "By which parts and blocks name it. Default: made of the name.")
                .with("length", TICKS, "After how many ticks it repeats.")
                .with(
                        "notes",
                        list(
                                row(4, List.of(TICKS, whole(1, Ticks.FARTHEST), whole(0, 127), whole(1, 127), more)),
                                Piece.MOST_NOTES),
                        "Each [at, length, pitch, velocity], the first two in ticks, 15,360 to a quarter; 60 is middle C. Behind them an"
                                + " object where more is to be said. Those of one tick are played from the lowest up.")
                .with(
                        "messages",
                        list(pair(TICKS, Map.of("type", "string", "pattern", "^[0-9A-Fa-f]{2}( [0-9A-Fa-f]{2})*$"))),
                        "Controllers, bends and other messages: [tick, bytes in hexadecimal], such as [0, \"B0 40 7F\"]. The channel is"
                                + " the part's.")
                .with(
                        "ready",
                        FLAG,
                        "Whether it is the result of a chain and is heard past the part's. Default: false.")
                .with("origin", origin, "Where it came from.")
                .object();
    }

    private static Map<String, Object> lever() {
        return new PieceSchema()
                .with("name", TEXT, "Its name.")
                .with("value", PERCENT, "Where it stands, in percent of its way. Default: 0.")
                .with("controllers", list(CONTROLLER), "The numbers of the MIDI controllers that move it.")
                .with(
                        "curve",
                        whole(-100, 100),
                        "How it gives on what it is moved by: 0 straight, above fast at first, below slowly. Default: 0.")
                .with("returns", FLAG, "Whether it goes back when it is let go of. Default: false.")
                .with("steps", whole(2, Lever.MOST_STEPS), "How many places it stands on. Default: any.")
                .with(
                        "points",
                        list(pair(TICKS, PERCENT)),
                        "Where it stands along the timeline: [tick, percent], straight from point to point. A piece that plays as loops"
                                + " takes no notice of them.")
                .object("name");
    }

    private static Map<String, Object> when() {
        return either(Map.of("enum", List.of("now", "beat", "bar")), whole(2, 64));
    }

    private static Map<String, Object> pad() {
        return new PieceSchema()
                .with("at", whole(0, Pad.PAGE * Pad.PAGES - 1), "Its place, sixteen a page.")
                .with("name", TEXT, "What stands on it. Default: what it does.")
                .with("does", words(Pad.Does.class), "What it does.")
                .with("part", TEXT, "The id of the part that it is about.")
                .with(
                        "what",
                        TEXT,
                        "What it is about: a chord, the id of a phrase, a stage such as lead/echo, a moment or a way.")
                .with(
                        "when",
                        when(),
                        "When it is done: at once, at the next beat or bar, or at the next of so many bars. Default: now.")
                .object("at", "does");
    }

    private static Map<String, Object> moment() {
        Map<String, Object> state = new PieceSchema()
                .with("mute", FLAG, "Whether the part is mute. Default: false.")
                .with("solo", FLAG, "Whether it is solo. Default: false.")
                .with("chain", LETTER, "Which of its chains is heard. Default: A.")
                .with("chain-off", FLAG, "Whether it is heard past its chain. Default: false.")
                .with("phrase", TEXT, "The id of its phrase. Default: none.")
                .with("stages", map(FLAG), "Which stages are on, by their ids.")
                .object();
        return new PieceSchema()
                .with("name", TEXT, "Its name.")
                .with("when", when(), "When it is recalled. Default: bar.")
                .with(
                        "glide",
                        number(0, (long) Moment.LONGEST_GLIDE),
                        "How many bars levers take to where they stand in it. Default: 0.")
                .with("parts", map(state), "How each part is, by its id.")
                .with("levers", map(PERCENT), "Where levers stand, by their names, in percent.")
                .object("name");
    }
}
