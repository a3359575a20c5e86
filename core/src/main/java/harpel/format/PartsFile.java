package harpel.format;

import harpel.chain.Chain;
import harpel.param.ParamException;
import harpel.param.type.ChoiceType;
import harpel.param.type.FlagType;
import harpel.param.type.PathType;
import harpel.piece.Block;
import harpel.piece.Hearing;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Playing;
import harpel.piece.Preset;
import harpel.piece.Rack;
import harpel.piece.Voice;
import harpel.time.Ticks;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Parts and what they hear and play, as {@link PieceFile} has them. */
public final class PartsFile {
    private static final PathType<Boolean> MUTES = new PathType<>(FlagType.FLAG);

    private PartsFile() {}

    static Part readPart(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        String name = fields.text("name", "Part");
        String id = fields.text("id", Part.idFor(name));
        String phrase = fields.text("phrase", "");
        Part.Run run = fields.take("run", Part.Run.KEYS, new ChoiceType<>(Part.Run.class)::read);
        Hearing hearing = fields.take("input", Hearing.KEYS, PartsFile::hearingOf);
        Voice voice = new Voice(
                fields.text("output", ""),
                (int) fields.whole("channel", 1, 1, 16) - 1,
                fields.text("sound", Voice.FIRST.sound()),
                fields.take("preset", null, PartsFile::preset));
        Mix mix = new Mix(
                fields.flag("mute", false), fields.flag("solo", false), (int) fields.whole("level", 100, 0, 100), (int)
                        fields.whole("colour", 0, 0, Mix.COLOURS - 1));
        Chain chain = ChainFile.takeChain(fields, "chain", Chain.EMPTY);
        Chain other = ChainFile.takeChain(fields, "other-chain", null);
        char heard = fields.take("heard", 'A', plainHeard -> letter(plainHeard, other != null));
        Rack rack = new Rack(
                heard == 'A' ? chain : other,
                fields.flag("chain-off", false),
                heard,
                heard == 'A' ? other : chain,
                fields.text("between", ""));
        List<Long> variations =
                fields.list("variations", (one, place) -> PlainMap.whole(one, 0, PieceFile.MOST_VARIATION));
        List<Block> blocks = fields.list("blocks", (one, place) -> readBlock(one, place, newer));
        List<PathType.Point<Boolean>> mutes = fields.take("mutes", List.of(), MUTES::read);
        Playing playing = PlainMap.at("blocks", () -> new Playing(phrase, variations, blocks, mutes));
        List<String> stars = fields.list("stars", (one, starPath) -> String.valueOf(one));
        Map<String, Object> unknown = fields.end(
                "name, id, phrase, variations, blocks, mutes, input, stars, run, sound, preset, output, channel, mute, solo, level, colour, chain, chain-off, heard,"
                        + " other-chain, between");
        return new Part(id, name, hearing, run, playing, rack, voice, mix, stars, unknown);
    }

    /** @param both whether there is a chain B */
    private static char letter(Object plain, boolean both) {
        if ("A".equals(plain) || "B".equals(plain) && both) {
            return plain.toString().charAt(0);
        }
        throw new ParamException(
                "must be \"A\", the \"chain\", or \"B\", the \"other-chain\", where there is one, but was " + plain);
    }

    private static Preset preset(Object plain) {
        List<?> numbers = PlainMap.list(plain);
        if (numbers.size() != 2) {
            throw new ParamException("a preset is [bank, program] but was " + plain);
        }
        return new Preset((int) PlainMap.whole(numbers.get(0), 0, Preset.HIGHEST_BANK), (int)
                PlainMap.whole(numbers.get(1), 0, 127));
    }

    private static Block readBlock(Object plain, String path, boolean newer) {
        PlainMap fields = new PlainMap(plain, path, newer);
        return new Block(
                fields.whole("at", 0, 0, Ticks.FARTHEST),
                fields.whole("length", 1, 1, Ticks.FARTHEST),
                fields.text("phrase", ""),
                fields.whole("from", 0, 0, Ticks.FARTHEST),
                fields.flag("chain", true),
                fields.whole("variation", Block.OF_THE_PART, 0, PieceFile.MOST_VARIATION),
                fields.end("at, length, phrase, from, chain, variation"));
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
                    boolean sent = source == Hearing.Source.OUTPUT_OF;
                    int channel = device ? (int) fields.whole("channel", 0, 1, 16) : 0;
                    boolean keysHere = sent && fields.flag("keys-here", false);
                    fields.end(word + (device ? ", channel" : sent ? ", keys-here" : ""));
                    return new Hearing(source, from, channel, keysHere);
                }
            }
        }
        throw new ParamException("must be \"keys\", \"none\", {\"device\": name, \"channel\": 1–16},"
                + " {\"output-of\": part, \"keys-here\": true or false} or {\"input-of\": part} but was " + plain);
    }

    static Map<String, Object> writePart(Part part) {
        Map<String, Object> plain = PlainMap.of("name", part.name());
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
                    "blocks", part.blocks().stream().map(PartsFile::writeBlock).toList());
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
        Rack rack = part.rack();
        boolean turned = rack.letter() != 'A' && rack.other() != null;
        plain.put("chain", ChainFile.writeChain(turned ? rack.other() : rack.chain()));
        if (rack.off()) {
            plain.put("chain-off", true);
        }
        if (turned) {
            plain.put("heard", String.valueOf(rack.letter()));
        }
        if (rack.other() != null) {
            plain.put("other-chain", ChainFile.writeChain(turned ? rack.chain() : rack.other()));
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

    private static Map<String, Object> writeBlock(Block block) {
        Map<String, Object> plain = PlainMap.of("at", block.at(), "length", block.length());
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
        if (hearing.keysHere()) {
            plain.put("keys-here", true);
        }
        return plain;
    }
}
