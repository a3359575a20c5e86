package harpel.print;

import harpel.chain.Chain;
import harpel.effect.Trait;
import harpel.format.ChainFile;
import harpel.format.Json;
import harpel.format.PartsFile;
import harpel.offline.Tail;
import harpel.param.type.ChoiceType;
import harpel.phrase.Note;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Hearing;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Timeline;
import harpel.time.MeterMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** How a printed phrase came to be: of which phrase, through which chain, with which variation; kept with the phrase. */
public final class Provenance {
    private static final String PHRASE = "phrase";
    private static final String NOTES = "notes";
    private static final String CHAIN = "chain";
    private static final String VARIATION = "variation";
    private static final String TAIL = "tail";
    private static final String INPUT = "input";
    private static final String CHAIN_OFF = "chain-off";
    private static final String KEPT_FOR = "kept-for";
    private static final String FROM = "from";
    private static final String TO = "to";

    private Provenance() {}

    static Origin origin(PrintOrder order, Part part) {
        Piece piece = order.piece();
        MeterMap meter = piece.time().meter();
        long first = meter.barAt(order.from()) + 1;
        long last = meter.barAt(order.to() - 1) + 1;
        Optional<Phrase> phrase = piece.phrase(part.phrase());
        Map<String, Object> how = new LinkedHashMap<>();
        phrase.ifPresent(one -> {
            how.put(PHRASE, one.id());
            how.put(NOTES, fingerprint(one));
        });
        if (!part.hearing().equals(Hearing.KEYS)) {
            how.put(INPUT, PartsFile.plain(part.hearing()));
        }
        how.put(CHAIN, ChainFile.plain(part.chain()));
        how.put(FROM, order.from());
        how.put(TO, order.to());
        how.put(VARIATION, piece.variation());
        how.put(TAIL, ChoiceType.word(order.tail()));
        String details = phrase.map(one -> "“" + one.name() + "”, ").orElse("")
                + (first == last ? "bar " + first : "bars " + first + "–" + last)
                + ", variation " + piece.variation();
        return new Origin(Origin.Kind.PRINTED, part.id(), details, how, Map.of());
    }

    /** What tells whether a phrase holds other notes than it did. */
    private static String fingerprint(Phrase phrase) {
        long mixed = phrase.length();
        for (Note note : phrase.notes()) {
            long what = (note.pitch() * 128L + note.velocity()) * 128 + note.release();
            long traits = note.traits().chance() * 2L + (note.traits().off() ? 1 : 0);
            for (long one : new long[] {note.tick(), note.length(), what, traits}) {
                mixed = (mixed ^ one) * 0x100000001B3L;
                mixed ^= mixed >>> 29;
            }
        }
        return Long.toHexString(mixed);
    }

    /** The phrase that was printed; nothing where it was none, or is no longer there. */
    public static Optional<Phrase> source(Piece piece, Phrase printed) {
        return Optional.ofNullable(printed.origin().how().get(PHRASE)).flatMap(id -> piece.phrase(String.valueOf(id)));
    }

    /** The chain that it was printed through. */
    public static Optional<Chain> chain(Phrase printed) {
        return Optional.ofNullable(printed.origin().how().get(CHAIN)).map(ChainFile::chainOf);
    }

    /**
     * The piece with a printed phrase in the place of what it was printed from: the part plays it past its chain, hears no other part
     * meanwhile, and a chain that plays by itself is off.
     */
    public static Piece put(Piece piece, String part, Phrase printed) {
        return piece.part(part).map(one -> put(piece, one, printed)).orElse(piece);
    }

    /**
     * The piece with a print of its timeline in the place of the blocks it was printed from: as a block past the chain, no longer than to
     * the next block of the part. A part without blocks, which is there all along, gets one only where all of the timeline was printed.
     */
    public static Piece putBlock(Piece piece, String part, PrintOrder order, Phrase printed) {
        Part one = piece.part(part).orElse(null);
        boolean whole = order.from() == 0 && order.to() >= piece.timelineEnd();
        if (one == null || one.blocks().isEmpty() && !whole) {
            return piece.withPhrase(printed);
        }
        long next = one.blocks().stream()
                .mapToLong(Block::at)
                .filter(at -> at >= order.to())
                .min()
                .orElse(Long.MAX_VALUE);
        long length = Math.min(printed.length(), next - order.from());
        return Timeline.put(
                piece.withPhrase(printed),
                part,
                Block.of(order.from(), length, printed.id()).withChain(false));
    }

    private static Piece put(Piece piece, Part part, Phrase printed) {
        boolean playsByItself = !part.rack().off() && playsByItself(part.chain());
        Phrase off = playsByItself ? printed.withOrigin(with(printed.origin(), CHAIN_OFF, true)) : printed;
        List<String> sisters = sisters(piece, part);
        Phrase kept = sisters.isEmpty() ? off : off.withOrigin(with(off.origin(), KEPT_FOR, sisters));
        Piece heard = piece;
        for (String sister : sisters) {
            heard = heard.withPart(sister, one -> one.withPhrase(part.phrase()));
        }
        return heard.withPhrase(kept).withPart(part.id(), one -> {
            Part quiet = one.hearing().ofPart() ? one.withHearing(Hearing.NOTHING) : one;
            return (playsByItself ? quiet.withChainOff(true) : quiet).withPhrase(kept.id());
        });
    }

    /** Those who hear the phrase at the part's input and have none of their own: they keep it when the part plays a print. */
    public static List<String> sisters(Piece piece, Part part) {
        return piece.phrase(part.phrase()).filter(phrase -> !phrase.ready()).isEmpty()
                ? List.of()
                : piece.hearing(Hearing.Source.INPUT_OF, part.id()).stream()
                        .filter(id -> piece.part(id).orElseThrow().phrase().isEmpty())
                        .toList();
    }

    private static boolean playsByItself(Chain chain) {
        return chain.stages().stream()
                .anyMatch(stage -> stage.on()
                        && (stage.isKnown() && stage.kind().has(Trait.PLAYS_BY_ITSELF)
                                || stage.branches().stream().anyMatch(branch -> playsByItself(branch.chain()))));
    }

    private static Origin with(Origin origin, String field, Object value) {
        Map<String, Object> how = new LinkedHashMap<>(origin.how());
        how.put(field, value);
        return new Origin(origin.kind(), origin.from(), origin.details(), how, origin.unknown());
    }

    /** Whether a part plays a phrase that was printed from it, so that there is a way back. */
    public static boolean isPrinted(Piece piece, Part part) {
        return piece.phrase(part.phrase())
                .filter(phrase -> phrase.origin().kind() == Origin.Kind.PRINTED
                        && phrase.origin().from().equals(part.id())
                        && phrase.origin().how().containsKey(CHAIN))
                .isPresent();
    }

    /** The piece with a part as it was before its phrase was printed: through the chain again. The printed phrase stays in the list. */
    public static Piece back(Piece piece, String part) {
        Part one = piece.part(part).orElse(null);
        if (one == null || !isPrinted(piece, one)) {
            return piece;
        }
        Phrase printed = piece.phrase(one.phrase()).orElseThrow();
        Map<String, Object> how = printed.origin().how();
        Object input = how.get(INPUT);
        boolean off = Boolean.TRUE.equals(how.get(CHAIN_OFF));
        String phrase = source(piece, printed).map(Phrase::id).orElse("");
        Piece alone = piece;
        if (how.get(KEPT_FOR) instanceof List<?> sisters && !phrase.isEmpty()) {
            for (Object sister : sisters) {
                alone = alone.withPart(
                        String.valueOf(sister), now -> now.phrase().equals(phrase) ? now.withPhrase("") : now);
            }
        }
        return alone.withPart(part, now -> {
            Part hears = input == null ? now : now.withHearing(PartsFile.hearingOf(input));
            return (off ? hears.withChainOff(false) : hears).withPhrase(phrase);
        });
    }

    /** What prints a part's printed phrase again, of its phrase and through its chain as they are now, with the variation of then. */
    public static PrintOrder again(Piece piece, String part) {
        Phrase printed =
                piece.part(part).flatMap(one -> piece.phrase(one.phrase())).orElseThrow();
        Map<String, Object> how = printed.origin().how();
        Tail tail = new ChoiceType<>(Tail.class).read(how.getOrDefault(TAIL, "stop"));
        Piece was = back(piece, part);
        // What goes round was printed as loops, whatever the piece plays as by now.
        Piece before = tail == Tail.ROUND ? was.withTimeline(false) : was;
        long from = number(how, FROM, 0);
        long then = number(how, TO, from + 1);
        // As many rounds as then, or one where the phrase has another length now.
        long once = PrintOrder.phraseLength(before, Set.of(part))
                .map(length -> PrintOrder.onceThrough(before, Set.of(part)))
                .orElse(then - from);
        long to = (then - from) % once == 0 ? then : from + once;
        return new PrintOrder(before, Set.of(part), from, to, tail)
                .withVariation(number(how, VARIATION, piece.variation()));
    }

    private static long number(Map<String, Object> how, String field, long fallback) {
        return how.get(field) instanceof Number number ? number.longValue() : fallback;
    }

    /** Whether a phrase was printed from a part of this piece in which something that matters has changed since. */
    public static boolean isStale(Piece piece, Phrase printed) {
        Origin origin = printed.origin();
        Optional<Part> part = piece.part(origin.from());
        if (origin.kind() != Origin.Kind.PRINTED
                || part.isEmpty()
                || !origin.how().containsKey(CHAIN)) {
            return false;
        }
        boolean sameChain = text(origin.how().get(CHAIN))
                .equals(text(ChainFile.plain(part.get().chain())));
        boolean samePhrase = source(piece, printed)
                .map(one -> fingerprint(one).equals(origin.how().get(NOTES)))
                .orElse(true);
        return !sameChain || !samePhrase;
    }

    private static String text(Object plain) {
        return Json.write(Map.of(CHAIN, plain));
    }
}
