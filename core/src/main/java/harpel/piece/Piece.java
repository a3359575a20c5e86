package harpel.piece;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.param.IntType;
import harpel.param.Param;
import harpel.theory.GeneralMidi;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * The document. Immutable: an edit makes another piece that shares all that did not change.
 *
 * @param variation the number that all chance depends on
 * @param levers with different names
 * @param unknown what a newer version wrote and this one does not know
 */
public record Piece(
        String name,
        Key key,
        long variation,
        TimeMap time,
        List<Part> parts,
        List<Phrase> phrases,
        List<Lever> levers,
        Map<String, Object> unknown) {
    public Piece {
        parts = List.copyOf(parts);
        phrases = List.copyOf(phrases);
        levers = List.copyOf(levers);
        unknown = Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
        Set<String> ids = new HashSet<>();
        for (Part part : parts) {
            if (!ids.add(part.id())) {
                throw new IllegalArgumentException("two parts have the id \"" + part.id() + "\"");
            }
        }
        Routes.refuseCircle(parts);
        for (Lever lever : levers) {
            if (levers.stream().filter(one -> one.name().equals(lever.name())).count() > 1) {
                throw new IllegalArgumentException("two levers are called \"" + lever.name() + "\"");
            }
        }
    }

    /** The parts that hear that part, one way or the other. */
    public List<String> hearing(Part.Input.Source way, String id) {
        return parts.stream()
                .filter(part ->
                        part.input().source() == way && part.input().from().equals(id))
                .map(Part::id)
                .toList();
    }

    /** A new piece with one part and no effects. */
    public static Piece empty() {
        return new Piece(
                "Untitled",
                Key.C_MAJOR,
                1,
                TimeMap.DEFAULT,
                List.of(Part.of("Part 1", Chain.EMPTY)),
                List.of(),
                List.of(),
                Map.of());
    }

    public Optional<Part> part(String id) {
        return parts.stream().filter(part -> part.id().equals(id)).findFirst();
    }

    public Optional<Phrase> phrase(String phraseName) {
        return phrases.stream()
                .filter(phrase -> phrase.name().equals(phraseName))
                .findFirst();
    }

    public Piece withPart(String id, UnaryOperator<Part> change) {
        List<Part> changed = parts.stream()
                .map(part -> part.id().equals(id) ? change.apply(part) : part)
                .toList();
        return new Piece(name, key, variation, time, changed, phrases, levers, unknown);
    }

    /** With these parts in place of the old ones. */
    public Piece withParts(List<Part> newParts) {
        return new Piece(name, key, variation, time, newParts, phrases, levers, unknown);
    }

    /** An id no part here has: the wanted one, or with the next free number. */
    public String freeId(String wanted) {
        String id = wanted;
        for (int number = 2; part(id).isPresent(); number++) {
            id = wanted.replaceFirst("-\\d+$", "") + "-" + number;
        }
        return id;
    }

    /** The first channel, 0–15, that no part on an output uses; percussion's is passed over. The wanted one where all are taken. */
    public int freeChannel(String output, int wanted) {
        for (int i = 0; i < 16; i++) {
            int channel = (wanted + i) % 16;
            boolean taken = parts.stream().anyMatch(part -> part.output().equals(output) && part.channel() == channel);
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
        Part named = part.withId(freeId(id)).withName(part.name() + " 2");
        Part copy = drums
                ? named.withChain(withFreeDrums(part.chain()))
                : named.withChannel(freeChannel(part.output(), part.channel()));
        List<Part> changed = new ArrayList<>(parts);
        changed.add(parts.indexOf(part) + 1, copy);
        return withParts(changed);
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

    public Piece withName(String newName) {
        return new Piece(newName, key, variation, time, parts, phrases, levers, unknown);
    }

    public Piece withKey(Key newKey) {
        return new Piece(name, newKey, variation, time, parts, phrases, levers, unknown);
    }

    public Piece withVariation(long newVariation) {
        return new Piece(name, key, newVariation, time, parts, phrases, levers, unknown);
    }

    public Piece withTime(TimeMap newTime) {
        return new Piece(name, key, variation, newTime, parts, phrases, levers, unknown);
    }

    public Piece withLevers(List<Lever> newLevers) {
        return new Piece(name, key, variation, time, parts, phrases, newLevers, unknown);
    }

    /** With a lever under another name; what it moves goes on being moved by it. */
    public Piece withLeverRenamed(int place, String newName) {
        Lever old = levers.get(place);
        List<Lever> changed = new ArrayList<>(levers);
        changed.set(place, new Lever(newName, old.value(), old.controller()));
        return withParts(parts.stream()
                        .map(part -> {
                            Part.Compare compare = part.compare();
                            Chain other =
                                    compare.other() == null ? null : renamed(compare.other(), old.name(), newName);
                            return part.withChain(renamed(part.chain(), old.name(), newName))
                                    .withCompare(new Part.Compare(compare.chainOff(), compare.letter(), other));
                        })
                        .toList())
                .withLevers(changed);
    }

    private static Chain renamed(Chain chain, String oldName, String newName) {
        return new Chain(chain.stages().stream()
                .map(stage -> stage.withMoves(stage.moves().withLeverRenamed(oldName, newName))
                        .withBranches(stage.branches().stream()
                                .map(branch -> new Branch(branch.takes(), renamed(branch.chain(), oldName, newName)))
                                .toList()))
                .toList());
    }

    /** With a phrase more, in place of one of that name. */
    public Piece withPhrase(Phrase phrase) {
        List<Phrase> changed = new ArrayList<>(phrases);
        changed.removeIf(one -> one.name().equals(phrase.name()));
        changed.add(phrase);
        return new Piece(name, key, variation, time, parts, changed, levers, unknown);
    }
}
