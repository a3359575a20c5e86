package harpel.piece;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.move.Moves;
import harpel.param.Param;
import harpel.param.type.IntType;
import harpel.phrase.Phrase;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.theory.GeneralMidi;
import harpel.theory.Key;
import harpel.time.TimeMap;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/**
 * The document. Immutable: an edit makes another piece that shares all that did not change.
 *
 * @param variation the number that all chance depends on
 * @param sounds the path of a SoundFont or DLS file whose sounds stand in for the built-in ones; empty for none
 * @param levers with different names
 * @param marks in order of their places
 * @param timeline whether it plays as its timeline, or as loops
 * @param bracket what of the timeline is played over and over
 * @param keys where the key changes on the timeline, in order
 * @param pads in the order of their places, one at each
 * @param moments with different names, in the user's order
 * @param unknown what a newer version wrote and this one does not know
 */
@RecordBuilder
public record Piece(
        String name,
        Key key,
        long variation,
        TimeMap time,
        String sounds,
        List<Part> parts,
        List<Phrase> phrases,
        List<Lever> levers,
        List<Mark> marks,
        boolean timeline,
        Bracket bracket,
        List<KeyChange> keys,
        List<Pad> pads,
        List<Moment> moments,
        Map<String, Object> unknown)
        implements PieceBuilder.With {
    /** What a piece is called that nobody has given a name. */
    public static final String UNTITLED = "Untitled";

    /** How many parts, blocks and notes there may be in all: what opens, plays and is drawn in the memory that Harpel takes. */
    public static final int MOST_PARTS = 1_000;

    public static final int MOST_BLOCKS = 100_000;
    public static final int MOST_NOTES = 1_500_000;

    public Piece {
        parts = List.copyOf(parts);
        phrases = List.copyOf(phrases);
        levers = List.copyOf(levers);
        marks = marks.stream().sorted(Comparator.comparingLong(Mark::tick)).toList();
        keys = keys.stream().sorted(Comparator.comparingLong(KeyChange::tick)).toList();
        pads = pads.stream().sorted(Comparator.comparingInt(Pad::at)).toList();
        moments = List.copyOf(moments);
        unknown = Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
        for (int i = 1; i < pads.size(); i++) {
            if (pads.get(i).at() == pads.get(i - 1).at()) {
                throw new IllegalArgumentException(
                        "two pads are at place " + pads.get(i).at());
            }
        }
        for (Moment moment : moments) {
            if (moments.stream().filter(one -> one.name().equals(moment.name())).count() > 1) {
                throw new IllegalArgumentException("two moments are called \"" + moment.name() + "\"");
            }
        }
        refuseMore(MOST_PARTS, "parts", parts.size());
        refuseMore(
                MOST_BLOCKS,
                "blocks",
                parts.stream().mapToLong(part -> part.blocks().size()).sum());
        refuseMore(
                MOST_NOTES,
                "notes",
                phrases.stream().mapToLong(phrase -> phrase.notes().size()).sum());
        Set<String> ids = new HashSet<>();
        for (Part part : parts) {
            if (!ids.add(part.id())) {
                throw new IllegalArgumentException("two parts have the id \"" + part.id() + "\"");
            }
        }
        Routes.refuseCircle(parts);
        Set<String> phraseIds = new HashSet<>();
        for (Phrase phrase : phrases) {
            if (!phraseIds.add(phrase.id())) {
                throw new IllegalArgumentException("two phrases have the id \"" + phrase.id() + "\"");
            }
        }
        for (Lever lever : levers) {
            if (levers.stream().filter(one -> one.name().equals(lever.name())).count() > 1) {
                throw new IllegalArgumentException("two levers are called \"" + lever.name() + "\"");
            }
        }
    }

    private static void refuseMore(int most, String what, long found) {
        if (found > most) {
            throw new IllegalArgumentException(String.format(
                    Locale.ROOT, "a piece holds at most %,d %s, but these would be %,d", most, what, found));
        }
    }

    /** The parts that hear that part, one way or the other. */
    public List<String> hearing(Hearing.Source way, String id) {
        List<String> hearing = List.of();
        for (Part part : parts) {
            if (part.hearing().source() == way && part.hearing().from().equals(id)) {
                hearing = hearing.isEmpty() ? new ArrayList<>() : hearing;
                hearing.add(part.id());
            }
        }
        return List.copyOf(hearing);
    }

    /** A new piece with one part and no effects. */
    public static Piece empty() {
        return new Piece(
                UNTITLED,
                Key.C_MAJOR,
                1,
                TimeMap.DEFAULT,
                "",
                List.of(Part.of("Part 1", Chain.EMPTY)),
                List.of(),
                List.of(),
                List.of(),
                false,
                Bracket.NONE,
                List.of(),
                List.of(),
                List.of(),
                Map.of());
    }

    /** The moment of that name. */
    public Optional<Moment> moment(String wanted) {
        return moments.stream().filter(one -> one.name().equals(wanted)).findFirst();
    }

    /** The pad at a place. */
    public Optional<Pad> pad(int at) {
        return pads.stream().filter(one -> one.at() == at).findFirst();
    }

    /** With a pad, in place of one at the same place. */
    public Piece withPad(Pad pad) {
        List<Pad> changed = new ArrayList<>(withoutPad(pad.at()).pads);
        changed.add(pad);
        return withPads(changed);
    }

    /** Without the pad at a place. */
    public Piece withoutPad(int at) {
        return withPads(pads.stream().filter(one -> one.at() != at).toList());
    }

    public Optional<Part> part(String id) {
        return parts.stream().filter(part -> part.id().equals(id)).findFirst();
    }

    /** The phrase of that id. */
    public Optional<Phrase> phrase(String id) {
        // Asked for each block at each edit, so without more ado.
        for (int i = 0; i < phrases.size(); i++) {
            if (phrases.get(i).id().equals(id)) {
                return Optional.of(phrases.get(i));
            }
        }
        return Optional.empty();
    }

    /** With the part of that id changed; the same piece where nothing changes. */
    public Piece withPart(String id, UnaryOperator<Part> change) {
        for (int i = 0; i < parts.size(); i++) {
            Part before = parts.get(i);
            if (before.id().equals(id)) {
                Part after = change.apply(before);
                return after == before ? this : withParts(replaced(parts, i, after));
            }
        }
        return this;
    }

    private static <T> List<T> replaced(List<T> list, int place, T item) {
        List<T> changed = new ArrayList<>(list);
        changed.set(place, item);
        return changed;
    }

    /** An id no part here has: the wanted one, or with the next free number. */
    public String freeId(String wanted) {
        return free(wanted, id -> part(id).isPresent());
    }

    /** An id no phrase here has: the wanted one, or with the next free number. */
    public String freePhraseId(String wanted) {
        return free(wanted, id -> phrase(id).isPresent());
    }

    /** The key that holds at a tick of the timeline. */
    public Key keyAt(long tick) {
        Key now = key;
        for (KeyChange change : keys) {
            if (change.tick() <= tick) {
                now = change.key();
            }
        }
        return now;
    }

    /** Where the last block ends; 0 where there is none. */
    public long timelineEnd() {
        return parts.stream()
                .flatMap(part -> part.blocks().stream())
                .mapToLong(Block::end)
                .max()
                .orElse(0);
    }

    /** Without the phrase of that id; parts that played it play none, and its blocks are gone. */
    public Piece withoutPhrase(String id) {
        List<Phrase> left =
                phrases.stream().filter(phrase -> !phrase.id().equals(id)).toList();
        List<Part> changed = parts.stream()
                .map(part -> part.phrase().equals(id) ? part.withPhrase("") : part)
                .map(part -> part.withBlocks(part.blocks().stream()
                        .filter(block -> !block.phrase().equals(id))
                        .toList()))
                .toList();
        return withPhrases(left).withParts(changed);
    }

    private static String free(String wanted, Predicate<String> taken) {
        String id = wanted;
        for (int number = 2; taken.test(id); number++) {
            id = wanted.replaceFirst("-\\d+$", "") + "-" + number;
        }
        return id;
    }

    /** The first channel, 0–15, that no part on an output uses; percussion's is passed over. The wanted one where all are taken. */
    public int freeChannel(String output, int wanted) {
        for (int i = 0; i < 16; i++) {
            int channel = (wanted + i) % 16;
            boolean taken = parts.stream().anyMatch(part -> part.port().equals(output) && part.channel() == channel);
            if (!taken && (channel != GeneralMidi.PERCUSSION_CHANNEL || i == 0)) {
                return channel;
            }
        }
        return wanted;
    }

    /** With a copy of a part behind it: on the next free channel or, if it is percussion, on its own with the next free drum. */
    public Piece withDuplicate(String id) {
        Part part = part(id).orElseThrow();
        boolean drums = part.channel() == GeneralMidi.PERCUSSION_CHANNEL;
        Part named = part.withId(freeId(id))
                .withName(freeName(part.name()))
                .withMix(part.mix().withColour((part.mix().colour() + 1) % Mix.COLOURS));
        Part copy = drums
                ? named.withChain(withFreeDrums(part.chain()))
                : named.withChannel(freeChannel(part.port(), part.channel()));
        List<Part> changed = new ArrayList<>(parts);
        changed.add(parts.indexOf(part) + 1, copy);
        return withParts(changed);
    }

    /** "Bells 2", or the next number that no part has. */
    private String freeName(String name) {
        String bare = name.replaceFirst(" \\d+$", "");
        int number = 2;
        while (isName(bare + " " + number)) {
            number++;
        }
        return bare + " " + number;
    }

    private boolean isName(String name) {
        return parts.stream().anyMatch(part -> part.name().equals(name));
    }

    /** A chain whose stages that play a note of their own play the next drums that no percussion part plays. */
    private Chain withFreeDrums(Chain chain) {
        Set<Integer> taken = new HashSet<>();
        parts.stream()
                .filter(part -> part.channel() == GeneralMidi.PERCUSSION_CHANNEL)
                .forEach(part -> part.chain()
                        .stages()
                        .forEach(stage -> ownNote(stage)
                                .ifPresent(param -> taken.add(stage.params().get(param)))));
        List<Stage> changed = new ArrayList<>();
        for (Stage stage : chain.stages()) {
            Optional<Param<Integer>> own = ownNote(stage);
            int drum =
                    own.map(param -> freeDrum(taken, stage.params().get(param))).orElse(-1);
            taken.add(drum);
            changed.add(drum < 0 ? stage : stage.with(own.orElseThrow(), drum));
        }
        return new Chain(changed);
    }

    /** The parameter for the note that a stage plays by itself. */
    @SuppressWarnings("unchecked") // an IntType holds an Integer
    private static Optional<Param<Integer>> ownNote(Stage stage) {
        return stage.params()
                .spec()
                .byId("root")
                .filter(param -> param.type() instanceof IntType type && type.pitch())
                .map(param -> (Param<Integer>) param);
    }

    /** The next drum of General MIDI above one that is not taken, round to the lowest; the wanted one where all are. */
    private static int freeDrum(Set<Integer> taken, int wanted) {
        for (int i = 1; i <= 128; i++) {
            int drum = (wanted + i) % 128;
            if (GeneralMidi.percussion(drum).isPresent() && !taken.contains(drum)) {
                return drum;
            }
        }
        return wanted;
    }

    /** Whether a part is heard: it is not mute and, where any is solo, it is. */
    public boolean isHeard(Part part) {
        return !part.mix().mute()
                && (part.mix().solo()
                        || parts.stream().noneMatch(one -> one.mix().solo()));
    }

    /** With a lever under another name; what it moves goes on being moved by it. */
    public Piece withLeverRenamed(int place, String newName) {
        Lever old = levers.get(place);
        List<Lever> changed = replaced(levers, place, old.withName(newName));
        return withMoves(moves -> moves.withLeverRenamed(old.name(), newName))
                .withBetween(old.name(), newName)
                .withLevers(changed)
                .withMoments(moments.stream()
                        .map(moment -> moment.withLeverRenamed(old.name(), newName))
                        .toList());
    }

    /** With another lever between the two chains of parts. */
    private Piece withBetween(String before, String now) {
        return withParts(parts.stream()
                .map(part -> part.rack().between().equals(before)
                        ? part.withRack(part.rack().withBetween(now))
                        : part)
                .toList());
    }

    /** Without a lever; nothing is moved by it any more. */
    public Piece withoutLever(int place) {
        List<Lever> left = new ArrayList<>(levers);
        String name = left.remove(place).name();
        boolean another = left.stream().anyMatch(lever -> lever.name().equals(name));
        return (another ? this : withMoves(moves -> moves.withoutLever(name)).withBetween(name, "")).withLevers(left);
    }

    /** With the movers of every stage of every chain changed. */
    private Piece withMoves(UnaryOperator<Moves> change) {
        return withParts(parts.stream()
                .map(part -> {
                    Rack rack = part.rack();
                    Chain other = rack.other() == null ? null : withMoves(rack.other(), change);
                    return part.withRack(
                            rack.withChain(withMoves(rack.chain(), change)).withOther(other));
                })
                .toList());
    }

    private static Chain withMoves(Chain chain, UnaryOperator<Moves> change) {
        return new Chain(chain.stages().stream()
                .map(stage -> stage.withMoves(change.apply(stage.moves()))
                        .withBranches(stage.branches().stream()
                                .map(branch -> branch.withChain(withMoves(branch.chain(), change)))
                                .toList()))
                .toList());
    }

    /** With a phrase more, or in place of the one of that id; the same piece where it is that one. */
    public Piece withPhrase(Phrase phrase) {
        for (int i = 0; i < phrases.size(); i++) {
            if (phrases.get(i).id().equals(phrase.id())) {
                return phrases.get(i) == phrase ? this : withPhrases(replaced(phrases, i, phrase));
            }
        }
        List<Phrase> longer = new ArrayList<>(phrases);
        longer.add(phrase);
        return withPhrases(longer);
    }
}
