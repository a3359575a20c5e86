package harpel.format.midi;

import harpel.chain.Chain;
import harpel.format.midi.MidiFile.Line;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.KeyChange;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.theory.Key;
import harpel.time.MeterMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** A whole MIDI file as parts with blocks on a timeline: each track and channel is a part, its notes a phrase, where they lie a block. */
public final class MidiPiece {
    private MidiPiece() {}

    /**
     * A piece of some lines of a file, with its tempo, meters, keys and marks.
     *
     * @param file the file's name
     */
    public static Piece piece(MidiFile midi, List<Line> lines, String file) {
        Piece empty = Piece.empty()
                .withName(file)
                .withParts(List.of())
                .withTime(midi.time())
                .withMarks(midi.marks());
        TreeMap<Long, Key> keys = new TreeMap<>(midi.keys());
        Piece keyed = empty.withKey(keys.getOrDefault(0L, midi.key().orElse(Key.C_MAJOR)))
                .withKeys(keys.tailMap(1L).entrySet().stream()
                        .map(entry -> KeyChange.of(entry.getKey(), entry.getValue()))
                        .toList());
        return with(keyed, midi, lines, file);
    }

    /** A piece with some lines of a file as parts more, each where it lies in the file. It plays as its timeline then. */
    public static Piece with(Piece piece, MidiFile midi, List<Line> lines, String file) {
        Piece with = piece.withTimeline(true);
        for (Line line : lines) {
            Phrase whole = midi.toPhrase(line, file);
            String name = line.shown();
            String id = with.freeId(Part.idFor(name));
            Part part = Part.of(name, Chain.EMPTY).withId(id).withChannel(line.channel());
            if (!whole.notes().isEmpty() || !whole.messages().isEmpty()) {
                Phrase phrase = whole.withId(with.freePhraseId(whole.id()));
                long begin = begin(phrase, midi.time().meter());
                phrase = from(phrase, begin);
                with = with.withPhrase(phrase);
                part = part.withPhrase(phrase.id()).withBlocks(List.of(Block.of(begin, phrase.length(), phrase.id())));
            }
            List<Part> more = new ArrayList<>(with.parts());
            more.add(part);
            with = with.withParts(more);
        }
        return with;
    }

    /** The bar in which anything happens first. */
    private static long begin(Phrase phrase, MeterMap meter) {
        long first = phrase.notes().isEmpty()
                ? Long.MAX_VALUE
                : phrase.notes().get(0).tick();
        if (!phrase.messages().isEmpty()) {
            first = Math.min(first, phrase.messages().get(0).tick());
        }
        return meter.tickOfBar(meter.barAt(first));
    }

    private static Phrase from(Phrase phrase, long begin) {
        List<Note> notes = phrase.notes().stream()
                .map(note -> note.withTick(note.tick() - begin))
                .toList();
        return new Phrase(
                phrase.id(),
                phrase.name(),
                phrase.length() - begin,
                Notes.of(notes),
                phrase.messages().stream()
                        .map(message -> message.at(message.tick() - begin, message.arrival()))
                        .toList(),
                phrase.ready(),
                phrase.origin(),
                Map.of());
    }
}
