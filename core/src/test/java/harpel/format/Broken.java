package harpel.format;

import harpel.chain.Chain;
import harpel.control.ControllerMap;
import harpel.format.midi.MidiFile;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfReader;
import harpel.format.midi.SmfWriter;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.testkit.Randoms;
import harpel.time.Ticks;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;

/**
 * Files that somebody or something has broken, seeded. Whatever is in them, reading gives a value that is written and read again as the
 * same, or an error in words; nothing else, and not after long.
 */
final class Broken {
    /** What is read, written, and read again. */
    enum Kind {
        PIECE,
        CHAIN,
        PRESETS,
        MAP,
        MIDI
    }

    private static final long MOST_NANOS = 5_000_000_000L;
    private static final List<Object> ODD = Arrays.asList(
            null,
            true,
            -1,
            0,
            1,
            127,
            128,
            1L << 40,
            Long.MAX_VALUE,
            1e300,
            -0.5,
            "",
            "x",
            "\u0000",
            "C4",
            List.of(),
            Map.of(),
            List.of(1, 2, 3, 4),
            List.of(List.of()),
            "A".repeat(2_000));

    private final Kind kind;
    private final long seed;
    private final Random random;

    private Broken(Kind kind, long seed) {
        this.kind = kind;
        this.seed = seed;
        random = new Random(seed * 31 + kind.ordinal());
    }

    /** @throws AssertionError naming kind and seed, when a file of that seed is not taken as it should */
    static void holds(Kind kind, long seed) {
        new Broken(kind, seed).holds();
    }

    private void holds() {
        byte[] file = random.nextBoolean() && kind != Kind.MIDI ? strange() : scratched(whole());
        long began = System.nanoTime();
        try {
            Object read = read(file);
            Object again = read(write(read));
            if (!Objects.equals(compared(read), compared(again))) {
                throw new AssertionError(
                        name() + " is another when it is written and read again: " + read + " and " + again);
            }
        } catch (AssertionError e) {
            throw e;
        } catch (FileException | IllegalArgumentException e) {
            if (e.getMessage() == null || e.getMessage().isBlank()) {
                throw new AssertionError(name() + " is refused without a word", e);
            }
        } catch (Exception | Error e) {
            throw new AssertionError(name() + " is answered with " + e, e);
        }
        if (System.nanoTime() - began > MOST_NANOS) {
            throw new AssertionError(name() + " took longer than 5 s");
        }
    }

    private String name() {
        return kind + " of seed " + seed;
    }

    private Object read(byte[] file) throws FileException {
        return switch (kind) {
            case PIECE -> PieceFile.read(file);
            case CHAIN -> ChainFile.read(file);
            case PRESETS -> Presets.read(file);
            case MAP -> MapFile.read(Json.text(file));
            case MIDI -> SmfReader.read(file);
        };
    }

    private byte[] write(Object read) {
        return switch (kind) {
            case PIECE -> bytes(PieceFile.write((Piece) read));
            case CHAIN -> bytes(((ChainFile) read).write());
            case PRESETS -> bytes(Presets.write(presets(read)));
            case MAP -> bytes(MapFile.write((ControllerMap) read));
            case MIDI -> {
                MidiFile midi = (MidiFile) read;
                yield SmfWriter.write(
                        new SmfForm(1, (int) Ticks.PER_QUARTER),
                        midi.time(),
                        midi.metas(),
                        midi.events(),
                        midi.endTick());
            }
        };
    }

    private static List<Presets.Preset> presets(Object read) {
        return ((List<?>) read).stream().map(Presets.Preset.class::cast).toList();
    }

    /** Of a MIDI file where notes begin, since which of several alike is which is told in no file; of others all. */
    private static Object compared(Object read) {
        return read instanceof MidiFile midi
                ? midi.notes().stream()
                        .map(note -> List.of(note.tick(), note.channel(), note.pitch()))
                        .distinct()
                        .toList()
                : read;
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** A file as it should be. */
    private byte[] whole() {
        Randoms randoms = new Randoms(random.nextLong());
        Chain chain = randoms.chain(1);
        return switch (kind) {
            case PIECE -> bytes(PieceFile.write(piece(randoms, chain)));
            case CHAIN -> bytes(new ChainFile("Lead", randoms.key(), chain, Map.of()).write());
            case PRESETS -> bytes(Presets.write(List.of(new Presets.Preset("One", "does", chain, true))));
            case MAP ->
                bytes(MapFile.write(List.copyOf(MapFile.shipped().values()).get(random.nextInt(3))));
            case MIDI -> {
                long length = 8 * Ticks.PER_QUARTER;
                yield SmfWriter.write(
                        SmfForm.of(random.nextInt(2)), randoms.time(), List.of(), randoms.music(length), length);
            }
        };
    }

    private static Piece piece(Randoms randoms, Chain chain) {
        Phrase phrase = randoms.phrase("Tide");
        Piece piece = Piece.empty()
                .withTime(randoms.time())
                .withPhrase(phrase)
                .withParts(List.of(Part.of("Lead", chain).withPhrase(phrase.id()), Part.of("Bass", Chain.EMPTY)));
        return randoms.oneIn(2) ? randoms.onTimeline(piece) : piece;
    }

    /** With some bytes changed, taken out or written twice. */
    private byte[] scratched(byte[] whole) {
        byte[] file = whole;
        for (int i = random.nextInt(6); i >= 0 && file.length > 1; i--) {
            int at = random.nextInt(file.length);
            int count = Math.min(file.length - at, 1 + random.nextInt(8));
            switch (random.nextInt(4)) {
                case 0 -> {
                    file = file.clone();
                    file[at] = (byte) random.nextInt(256);
                }
                case 1 -> file = joined(file, at, new byte[0], at + count);
                case 2 -> file = joined(file, at, Arrays.copyOfRange(file, at, at + count), at);
                default -> file = Arrays.copyOf(file, at);
            }
        }
        return file;
    }

    private static byte[] joined(byte[] file, int to, byte[] middle, int from) {
        byte[] joined = new byte[to + middle.length + file.length - from];
        System.arraycopy(file, 0, joined, 0, to);
        System.arraycopy(middle, 0, joined, to, middle.length);
        System.arraycopy(file, from, joined, to + middle.length, file.length - from);
        return joined;
    }

    /** With some values that fit no field, fields that have gone, and fields of others. */
    private byte[] strange() {
        try {
            Map<String, Object> plain = Json.parseObject(new String(whole(), StandardCharsets.UTF_8));
            Object strange = plain;
            for (int i = random.nextInt(4); i >= 0; i--) {
                strange = changed(strange, 0);
            }
            return bytes(Json.write(strange));
        } catch (FileException e) {
            throw new AssertionError(name() + " cannot be made", e);
        }
    }

    private Object changed(Object plain, int depth) {
        boolean here = depth > 0 && random.nextInt(4) == 0;
        if (!here && plain instanceof Map<?, ?> map && !map.isEmpty()) {
            Map<String, Object> changed = new LinkedHashMap<>();
            map.forEach((field, value) -> changed.put((String) field, value));
            String field = List.copyOf(changed.keySet()).get(random.nextInt(changed.size()));
            switch (random.nextInt(8)) {
                case 0 -> changed.remove(field);
                case 1 -> changed.put(field + "x", changed.get(field));
                default -> changed.put(field, changed(changed.get(field), depth + 1));
            }
            return changed;
        }
        if (!here && plain instanceof List<?> list && !list.isEmpty()) {
            List<Object> changed = new ArrayList<>(list);
            int at = random.nextInt(changed.size());
            switch (random.nextInt(8)) {
                case 0 -> changed.remove(at);
                case 1 -> changed.add(at, changed.get(at));
                default -> changed.set(at, changed(changed.get(at), depth + 1));
            }
            return changed;
        }
        return ODD.get(random.nextInt(ODD.size()));
    }
}
