package harpel.format.midi;

import harpel.chain.Chain;
import harpel.event.Message;
import harpel.format.midi.MidiFile.Line;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Instrument;
import harpel.piece.KeyChange;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Preset;
import harpel.theory.Key;
import harpel.time.MeterMap;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
            Sound sound = Sound.of(whole);
            Part part = sound.give(Part.of(name, Chain.EMPTY).withId(id).withChannel(line.channel()));
            whole = sound.without(whole);
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

    /**
     * Which sound and level a line is told to have before its first note.
     *
     * @param bank null where none is told, as are the others
     */
    private record Sound(Integer bankCoarse, Integer bankFine, Integer program, Integer volume, Set<Message> told) {
        static Sound of(Phrase phrase) {
            long first = phrase.notes().isEmpty()
                    ? Long.MAX_VALUE
                    : phrase.notes().get(0).tick();
            Integer[] values = new Integer[4];
            Set<Message> told = new LinkedHashSet<>();
            for (Message message : phrase.messages()) {
                int which = message.tick() > first ? -1 : which(message);
                if (which >= 0) {
                    values[which] = message.data(message.length() - 1);
                    told.add(message);
                }
            }
            return new Sound(values[0], values[1], values[2], values[3], told);
        }

        private static int which(Message message) {
            return (message.status() & 0xF0) == Message.PROGRAM_CHANGE
                    ? 2
                    : message.isController(Message.BANK)
                            ? 0
                            : message.isController(Message.BANK_FINE)
                                    ? 1
                                    : message.isController(Message.VOLUME) ? 3 : -1;
        }

        Part give(Part part) {
            Part given = volume == null ? part : part.withMix(part.mix().withLevel(Mix.levelOf(volume)));
            if (program == null) {
                return given;
            }
            int bank = (bankCoarse == null ? 0 : bankCoarse << 7) + (bankFine == null ? 0 : bankFine);
            Instrument instrument = Instrument.every().stream()
                    .filter(one -> one.program() == program)
                    .findFirst()
                    .orElseThrow();
            return bank == 0
                    ? given.withSound(instrument.name())
                    : given.withVoice(given.voice().withSound(instrument.name()).withPreset(new Preset(bank, program)));
        }

        /** The phrase without what the part has by now. */
        Phrase without(Phrase phrase) {
            return told.isEmpty()
                    ? phrase
                    : phrase.withMessages(phrase.messages().stream()
                            .filter(message -> !told.contains(message))
                            .toList());
        }
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
