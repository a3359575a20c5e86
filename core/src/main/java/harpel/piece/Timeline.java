package harpel.piece;

import harpel.event.Message;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;

/**
 * Edits of the timeline, each from a piece to a piece. A block that comes to lie over others cuts them: what sticks out of it stays, in
 * its place in the phrase.
 */
public final class Timeline {
    /**
     * A block of a part.
     *
     * @param at where it begins
     */
    public record Ref(String part, long at) implements Comparable<Ref> {
        @Override
        public int compareTo(Ref other) {
            return at == other.at ? part.compareTo(other.part) : Long.compare(at, other.at);
        }
    }

    /** What came of an edit, and the blocks that it moved or made. */
    public record Result(Piece piece, Set<Ref> refs) {}

    private Timeline() {}

    /** The block, if it is there. */
    public static Optional<Block> find(Piece piece, Ref ref) {
        return piece.part(ref.part).stream()
                .flatMap(part -> part.blocks().stream())
                .filter(block -> block.at() == ref.at)
                .findFirst();
    }

    /** The block of a part that holds a tick. */
    public static Optional<Block> at(Part part, long tick) {
        return part.blocks().stream()
                .filter(block -> block.at() <= tick && tick < block.end())
                .findFirst();
    }

    /** Every block. */
    public static Set<Ref> all(Piece piece) {
        Set<Ref> refs = new TreeSet<>();
        piece.parts().forEach(part -> part.blocks().forEach(block -> refs.add(new Ref(part.id(), block.at()))));
        return refs;
    }

    /** Lays a block onto a part; what lay there is cut. */
    public static Piece put(Piece piece, String part, Block block) {
        return piece.withPart(part, one -> {
            List<Block> blocks = new ArrayList<>();
            for (Block other : one.blocks()) {
                blocks.addAll(without(piece, other, block.at(), block.end()));
            }
            blocks.add(block);
            return one.withBlocks(blocks);
        });
    }

    /** What of a block lies outside a stretch: none, one or two pieces. */
    private static List<Block> without(Piece piece, Block block, long from, long to) {
        if (block.end() <= from || block.at() >= to) {
            return List.of(block);
        }
        List<Block> left = new ArrayList<>();
        long length = phraseLength(piece, block);
        if (block.at() < from) {
            left.add(block.within(block.at(), from, length));
        }
        if (block.end() > to) {
            left.add(block.within(to, block.end(), length));
        }
        return left;
    }

    private static long phraseLength(Piece piece, Block block) {
        return piece.phrase(block.phrase()).map(Phrase::length).orElse(0L);
    }

    /** Takes blocks away. */
    public static Piece remove(Piece piece, Collection<Ref> refs) {
        return piece.withParts(piece.parts().stream()
                .map(part -> part.withBlocks(part.blocks().stream()
                        .filter(block -> !refs.contains(new Ref(part.id(), block.at())))
                        .toList()))
                .toList());
    }

    /**
     * Moves blocks, together, at most to the beginning and to the first or last part.
     *
     * @param by ticks
     * @param down so many parts further down
     * @param copy whether they stay where they are, too
     */
    public static Result move(Piece piece, Set<Ref> refs, long by, int down, boolean copy) {
        long first = refs.stream().mapToLong(Ref::at).min().orElse(0);
        long shift = Math.max(-first, by);
        List<String> ids = piece.parts().stream().map(Part::id).toList();
        int top = refs.stream().mapToInt(ref -> ids.indexOf(ref.part)).min().orElse(0);
        int bottom = refs.stream().mapToInt(ref -> ids.indexOf(ref.part)).max().orElse(0);
        int rows = Math.max(-top, Math.min(ids.size() - 1 - bottom, down));
        Piece moved = copy ? piece : remove(piece, refs);
        Set<Ref> now = new TreeSet<>();
        for (Ref ref : sorted(refs)) {
            Block block = find(piece, ref).orElseThrow();
            String part = ids.get(ids.indexOf(ref.part) + rows);
            moved = put(moved, part, block.withAt(block.at() + shift));
            now.add(new Ref(part, block.at() + shift));
        }
        return new Result(moved, now);
    }

    private static List<Ref> sorted(Collection<Ref> refs) {
        return refs.stream().sorted().toList();
    }

    /** Lays copies right behind them, as a whole, so many times. */
    public static Result repeat(Piece piece, Set<Ref> refs, int times) {
        long first = refs.stream().mapToLong(Ref::at).min().orElse(0);
        long end = refs.stream()
                .mapToLong(ref -> find(piece, ref).orElseThrow().end())
                .max()
                .orElse(0);
        Result result = new Result(piece, refs);
        Set<Ref> made = new TreeSet<>();
        Piece with = piece;
        for (int i = 1; i <= times; i++) {
            result = move(with, refs, i * (end - first), 0, true);
            with = result.piece;
            made.addAll(result.refs);
        }
        return new Result(with, made);
    }

    /** Cuts blocks in two at a tick that lies within them. */
    public static Piece cut(Piece piece, Collection<Ref> refs, long tick) {
        Piece with = piece;
        for (Ref ref : refs) {
            Block block = find(piece, ref).orElseThrow();
            if (block.at() < tick && tick < block.end()) {
                Block behind = block.within(tick, block.end(), phraseLength(piece, block));
                with = put(with, ref.part, behind);
            }
        }
        return with;
    }

    /**
     * Joins those that lie side by side and are heard the same way. Where one does not go on in the phrase of the one before, the notes of
     * both become one phrase.
     */
    public static Result join(Piece piece, Set<Ref> refs) {
        Set<Ref> left = new TreeSet<>();
        Piece with = piece;
        for (Part part : piece.parts()) {
            List<Block> blocks = new ArrayList<>();
            for (Block block : part.blocks()) {
                Block last = blocks.isEmpty() ? null : blocks.get(blocks.size() - 1);
                boolean picked = refs.contains(new Ref(part.id(), block.at()));
                boolean beside = picked
                        && last != null
                        && last.end() == block.at()
                        && left.contains(new Ref(part.id(), last.at()));
                if (beside && goesOn(with, last, block)) {
                    blocks.set(blocks.size() - 1, last.withLength(block.end() - last.at()));
                } else if (beside && isHeardAlike(with, last, block)) {
                    Phrase both = both(with, last, block);
                    with = with.withPhrase(both);
                    blocks.set(
                            blocks.size() - 1,
                            last.withLength(block.end() - last.at())
                                    .withPhrase(both.id())
                                    .withFrom(0));
                } else {
                    blocks.add(block);
                    if (picked) {
                        left.add(new Ref(part.id(), block.at()));
                    }
                }
            }
            with = with.withPart(part.id(), one -> one.withBlocks(blocks));
        }
        return new Result(with, left);
    }

    /** Whether two blocks with phrases go both through the chain, or both past it, with one variation. */
    private static boolean isHeardAlike(Piece piece, Block one, Block next) {
        Optional<Phrase> first = piece.phrase(one.phrase());
        Optional<Phrase> second = piece.phrase(next.phrase());
        return one.chain() == next.chain()
                && one.variation() == next.variation()
                && first.isPresent()
                && second.map(Phrase::ready).equals(first.map(Phrase::ready));
    }

    /** What two blocks play, one behind the other, written out as a phrase. */
    private static Phrase both(Piece piece, Block one, Block next) {
        Phrase first = piece.phrase(one.phrase()).orElseThrow();
        Phrase second = piece.phrase(next.phrase()).orElseThrow();
        String name = first.name().equals(second.name()) ? first.name() : first.name() + " + " + second.name();
        List<Note> notes = new ArrayList<>();
        List<Message> messages = new ArrayList<>();
        writeOut(first, one, 0, notes, messages);
        writeOut(second, next, one.length(), notes, messages);
        String id = piece.freePhraseId(Phrase.idFor(name));
        return Phrase.of(name, one.length() + next.length(), notes)
                .withId(id)
                .withReady(first.ready())
                .withMessages(messages);
    }

    private static void writeOut(Phrase phrase, Block block, long at, List<Note> notes, List<Message> messages) {
        for (long round = -block.from(); round < block.length(); round += phrase.length()) {
            for (Note note : phrase.notes()) {
                long tick = round + note.tick();
                if (tick >= 0 && tick < block.length()) {
                    long length = Math.min(note.length(), block.length() - tick);
                    notes.add(note.withId(Note.NEW).withTick(at + tick).withLength(length));
                }
            }
            for (Message message : phrase.messages()) {
                long tick = round + message.tick();
                if (tick >= 0 && tick < block.length()) {
                    messages.add(message.at(at + tick, messages.size()));
                }
            }
        }
    }

    private static boolean goesOn(Piece piece, Block one, Block next) {
        Block continued =
                one.withLength(one.length() + next.length()).within(one.end(), next.end(), phraseLength(piece, one));
        return one.end() == next.at() && continued.equals(next);
    }

    /** Lets a block begin or end elsewhere; its phrase stays where it lies in time. */
    public static Result resize(Piece piece, Ref ref, long begin, long end) {
        Block block = find(piece, ref).orElseThrow();
        long first = Math.max(0, Math.min(begin, end - 1));
        long length = phraseLength(piece, block);
        long place = length == 0 ? 0 : Math.floorMod(block.from() + first - block.at(), length);
        Block sized = block.withAt(first).withLength(Math.max(1, end - first)).withFrom(place);
        return new Result(put(remove(piece, Set.of(ref)), ref.part, sized), Set.of(new Ref(ref.part, first)));
    }

    /** Changes blocks in their places. */
    public static Piece change(Piece piece, Collection<Ref> refs, UnaryOperator<Block> change) {
        return piece.withParts(piece.parts().stream()
                .map(part -> part.withBlocks(part.blocks().stream()
                        .map(block -> refs.contains(new Ref(part.id(), block.at())) ? change.apply(block) : block)
                        .toList()))
                .toList());
    }

    /** Makes room for so many ticks from a tick on, in all parts and in what stands above them; blocks that lie across are cut. */
    public static Piece insert(Piece piece, long tick, long ticks) {
        Piece cut = cut(piece, all(piece), tick);
        return shifted(cut, tick, ticks, block -> block.at() >= tick ? block.withAt(block.at() + ticks) : block);
    }

    /** Takes a stretch out of all parts and what stands above them. */
    public static Piece takeOut(Piece piece, long from, long to) {
        Piece cut = cut(cut(piece, all(piece), from), all(cut(piece, all(piece), from)), to);
        Piece without = cut.withParts(cut.parts().stream()
                .map(part -> part.withBlocks(part.blocks().stream()
                        .filter(block -> block.at() < from || block.at() >= to)
                        .toList()))
                .toList());
        return shifted(
                without, to, from - to, block -> block.at() >= to ? block.withAt(block.at() + from - to) : block);
    }

    /** Moves everything from a tick on by so many ticks; what stands between there and where it comes to is gone. */
    private static Piece shifted(Piece piece, long from, long by, UnaryOperator<Block> move) {
        long gone = by < 0 ? from + by : Long.MAX_VALUE;
        List<KeyChange> keys = new ArrayList<>();
        for (KeyChange change : piece.keys()) {
            if (change.tick() >= from && change.tick() + by > 0) {
                keys.add(new KeyChange(change.tick() + by, change.key(), change.unknown()));
            } else if (change.tick() < gone) {
                keys.add(change);
            }
        }
        if (by < 0 && gone > 0 && keys.stream().noneMatch(change -> change.tick() == gone)) {
            // What changed within the stretch holds behind it.
            keys.add(KeyChange.of(gone, piece.keyAt(from)));
        }
        List<Mark> marks = piece.marks().stream()
                .filter(mark -> mark.tick() >= from || mark.tick() < gone)
                .map(mark -> mark.tick() >= from ? new Mark(mark.tick() + by, mark.name(), mark.unknown()) : mark)
                .toList();
        Piece keyed = by < 0 && gone == 0 ? piece.withKey(piece.keyAt(from)) : piece;
        List<KeyChange> after =
                keys.stream().filter(change -> change.tick() > 0).toList();
        Piece shifted = keyed.withKeys(plain(keyed.withKeys(after)))
                .withMarks(marks)
                .withTime(new TimeMap(
                        tempo(piece.time().tempo(), from, by),
                        meter(piece.time().meter(), from, by)))
                .withParts(piece.parts().stream()
                        .map(part ->
                                part.withBlocks(part.blocks().stream().map(move).toList()))
                        .toList());
        for (Lane<?> lane : Lane.of(shifted)) {
            shifted = lane.shifted(shifted, from, by);
        }
        // The chains that wait have points of their own.
        for (Part part : piece.parts()) {
            if (part.rack().other() != null) {
                Piece turned = shifted.withPart(part.id(), Part::withOtherChain);
                for (Lane<?> lane : Lane.of(turned)) {
                    boolean own = lane instanceof Lane.OfStage<?> && lane.part().equals(part.id());
                    turned = own ? lane.shifted(turned, from, by) : turned;
                }
                shifted = turned.withPart(part.id(), Part::withOtherChain);
            }
        }
        return shifted;
    }

    /** Without changes to the key that holds already. */
    private static List<KeyChange> plain(Piece piece) {
        return piece.keys().stream()
                .filter(change -> !piece.keyAt(change.tick() - 1).equals(change.key()))
                .toList();
    }

    private static TempoMap tempo(TempoMap tempo, long from, long by) {
        List<TempoMap.Change> changes = new ArrayList<>();
        for (TempoMap.Change change : tempo.changes()) {
            if (change.tick() < Math.max(1, Math.min(from, from + by)) && !(by < 0 && from + by == 0)) {
                changes.add(change);
            } else if (change.tick() >= from) {
                changes.add(new TempoMap.Change(change.tick() + by, change.bpm(), change.ramp()));
            }
        }
        long gone = from + by;
        boolean differs = gone == 0 || tempo.bpmAt(Math.max(0, gone - 1)) != tempo.bpmAt(from);
        if (by < 0 && differs && changes.stream().noneMatch(change -> change.tick() == gone)) {
            changes.add(new TempoMap.Change(gone, tempo.bpmAt(from), tempo.rampsAt(from)));
        }
        return TempoMap.ofChanges(changes);
    }

    private static MeterMap meter(MeterMap meter, long from, long by) {
        List<MeterMap.Change> changes = new ArrayList<>();
        for (MeterMap.Change change : meter.changes()) {
            if (change.tick() < Math.max(1, Math.min(from, from + by)) && !(by < 0 && from + by == 0)) {
                changes.add(change);
            } else if (change.tick() >= from) {
                changes.add(new MeterMap.Change(change.tick() + by, change.beats(), change.unit()));
            }
        }
        long gone = from + by;
        MeterMap.Change behind = meter.at(from);
        boolean differs = gone == 0
                || !meter.at(Math.max(0, gone - 1)).shown().equals(behind.shown())
                // In the midst of a bar a new one begins where the next meter does.
                || meter.barLineAtOrAfter(Math.max(0, gone)) != gone;
        if (by < 0 && differs && changes.stream().noneMatch(change -> change.tick() == gone)) {
            changes.add(new MeterMap.Change(gone, behind.beats(), behind.unit()));
        }
        return MeterMap.ofChanges(changes);
    }
}
