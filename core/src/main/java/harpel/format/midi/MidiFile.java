package harpel.format.midi;

import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Notes;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import harpel.piece.Mark;
import harpel.theory.Key;
import harpel.theory.Scale;
import harpel.time.TimeMap;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * What a Standard MIDI File holds, in Harpel's ticks.
 *
 * @param notes in order of their starts; of one tick in the order of the file
 * @param lines the notes and messages of each track and channel that has any, in the order of the file
 * @param metas what is neither note, message, tempo nor meter: names, key signatures, markers
 * @param endTick the latest end of track
 * @param repairs what had to be mended to read it whole, such as notes without an end, in words
 */
public record MidiFile(
        TimeMap time,
        List<Note> notes,
        List<Message> messages,
        List<Line> lines,
        List<Meta> metas,
        long endTick,
        List<String> repairs) {
    /**
     * What one channel of one track holds.
     *
     * @param track counted from 1
     * @param channel 0–15
     * @param name of the track; empty where it has none
     */
    public record Line(int track, int channel, String name, List<Note> notes, List<Message> messages) {
        /** What it is called: its track's name, or which track and channel it is. */
        public String shown() {
            return name.isEmpty() ? "Track " + track + ", channel " + (channel + 1) : name;
        }
    }

    /**
     * A note of a file.
     *
     * @param channel 0–15
     */
    public record Note(long tick, long lengthTicks, int channel, int pitch, int velocity, int releaseVelocity) {}

    /** A meta event that is kept as it is. */
    public record Meta(long tick, int type, byte[] data) {
        static final int TEXT = 0x01;
        /** In the first track of a file it names the whole. */
        static final int TRACK_NAME = 0x03;

        /** A named place (Standard MIDI Files 1.0). */
        static final int MARKER = 0x06;

        /** How many sharps, or flats below nought, and 1 for minor (Standard MIDI Files 1.0). */
        static final int KEY_SIGNATURE = 0x59;

        static final int END_OF_TRACK = 0x2F;
        static final int TEMPO = 0x51;
        static final int TIME_SIGNATURE = 0x58;
    }

    /** As a phrase that lasts to the next bar line after its end; it has no channels. */
    public Phrase toPhrase(String name) {
        return toPhrase(name, notes, messages, Origin.of(Origin.Kind.READ, name, ""));
    }

    /**
     * One line as a phrase as long as the whole file.
     *
     * @param file the file's name
     */
    public Phrase toPhrase(Line line, String file) {
        return toPhrase(
                line.shown(),
                line.notes(),
                line.messages(),
                Origin.of(Origin.Kind.READ, file, "track " + line.track()));
    }

    /** The key of the first key signature, as a major or minor one; nothing where there is none. */
    public Optional<Key> key() {
        return keys().values().stream().findFirst();
    }

    /** The keys of all key signatures, as major or minor ones, by their ticks. */
    public Map<Long, Key> keys() {
        Map<Long, Key> keys = new TreeMap<>();
        for (Meta meta : metas) {
            if (meta.type == Meta.KEY_SIGNATURE && meta.data.length == 2) {
                boolean minor = meta.data[1] == 1;
                // A fifth up for each sharp, down for each flat; minor keys lie three semitones below.
                int root = Math.floorMod(7 * meta.data[0] - (minor ? 3 : 0), 12);
                keys.put(meta.tick, new Key(root, Scale.of(minor ? "minor" : "major")));
            }
        }
        return keys;
    }

    /** Its markers, where they have a name. */
    public List<Mark> marks() {
        return metas.stream()
                .filter(meta -> meta.type == Meta.MARKER && meta.data.length > 0)
                .map(meta -> Mark.of(meta.tick, new String(meta.data, StandardCharsets.UTF_8)))
                .toList();
    }

    private Phrase toPhrase(String name, List<Note> from, List<Message> said, Origin origin) {
        Notes written = Notes.of(from.stream()
                .map(note -> new harpel.phrase.Note(
                        harpel.phrase.Note.NEW,
                        note.tick,
                        note.lengthTicks,
                        note.pitch,
                        note.velocity,
                        note.releaseVelocity,
                        Traits.PLAIN))
                .toList());
        long length = printedEnd();
        List<Message> within =
                said.stream().filter(message -> message.tick() < length).toList();
        return new Phrase(Phrase.idFor(name), name, length, written, within, false, origin, Map.of());
    }

    /** Everything that sounds or steers, on its own channel, in the order of events. What would last past the end ends there. */
    public List<Event> events() {
        long end = printedEnd();
        long arrival = 0;
        Event[] others = new Event[messages.size() + notes.size()];
        Event[] ends = new Event[notes.size()];
        for (Message message : messages) {
            others[(int) arrival] = message.at(message.tick(), arrival++);
        }
        for (int i = 0; i < ends.length; i++) {
            Note note = notes.get(i);
            NoteStart start = NoteStart.played(note.tick, arrival, note.channel, note.pitch, note.velocity);
            others[(int) arrival++] = start;
            long endTick = Math.min(end, note.tick + note.lengthTicks);
            ends[i] = new NoteEnd(endTick, start.lasting(endTick - note.tick), note.releaseVelocity);
        }
        // Each is nearly in order already, all of them together are not.
        Arrays.sort(others, EventOrder.INSTANCE);
        Arrays.sort(ends, EventOrder.INSTANCE);
        return Arrays.asList(merged(ends, others));
    }

    private static Event[] merged(Event[] a, Event[] b) {
        Event[] all = new Event[a.length + b.length];
        int i = 0;
        int k = 0;
        for (int place = 0; place < all.length; place++) {
            boolean first = k == b.length || i < a.length && EventOrder.INSTANCE.compare(a[i], b[k]) <= 0;
            all[place] = first ? a[i++] : b[k++];
        }
        return all;
    }

    /** Where a print of this file ends: its end of track rounded up to a bar, past the start of every note. */
    public long printedEnd() {
        long lastStart = notes.isEmpty() ? 0 : notes.get(notes.size() - 1).tick() + 1;
        return time.meter().barLineAtOrAfter(Math.max(endTick, lastStart));
    }
}
