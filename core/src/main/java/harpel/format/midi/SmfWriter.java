package harpel.format.midi;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.midi.MidiFile.Meta;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.KeyChange;
import harpel.piece.Piece;
import harpel.theory.Key;
import harpel.theory.Scale;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Writes Standard MIDI Files of format 0 or 1 (Standard MIDI Files 1.0), in one pass. What falls together in the
 * file's coarser ticks is settled by the rule of the sound stage: a later start of one pitch strikes again, two at one tick are one, and
 * the last end ends.
 */
public final class SmfWriter {
    private static final int LONGEST_DELTA = 0x0FFF_FFFF;
    private static final int VOICES = 16 * 128;
    private static final long RAMP_STEP = Ticks.PER_QUARTER / 4;

    private byte[] bytes = new byte[1 << 12];
    private int size;
    private long written;
    private int running;

    /** How many notes sound on each channel and pitch, and the one that was struck last. */
    private final int[] sounding = new int[VOICES];

    private final NoteStart[] struck = new NoteStart[VOICES];

    private final EventBuffer group = new EventBuffer();
    private final EventBuffer settled = new EventBuffer();
    /** Ends that fall on the tick of their start, and come a tick later. */
    private final EventBuffer late = new EventBuffer();

    private long groupTick;

    private final int division;

    private SmfWriter(int division) {
        this.division = division;
    }

    /**
     * A line of a file.
     *
     * @param name empty for none
     * @param sound which bank, program and level it begins with; empty for none
     * @param events in the order of events; every start has its end
     */
    public record Track(String name, List<Message> sound, List<? extends Event> events) {
        public Track(String name, List<? extends Event> events) {
            this(name, List.of(), events);
        }

        /** What it begins with and what follows. */
        private List<Event> all(SmfForm form) {
            List<Event> all = new ArrayList<>(sound(form));
            all.addAll(events);
            return all;
        }

        private List<Message> sound(SmfForm form) {
            return form.notesOnly() ? List.of() : sound;
        }
    }

    /**
     * One line of notes, in the second track of format 1.
     *
     * @param events in the order of events; every start has its end
     */
    public static byte[] write(
            SmfForm form, TimeMap time, List<Meta> metas, List<? extends Event> events, long lengthTicks) {
        return writeTracks(form, time, metas, List.of(new Track("", events)), lengthTicks);
    }

    public static byte[] writeTracks(
            SmfForm form, TimeMap time, List<Meta> metas, List<Track> tracks, long lengthTicks) {
        int format = form.format();
        int division = form.division();
        long length = Ticks.toResolution(lengthTicks, division);
        List<Meta> conductor = conductor(time, metas, lengthTicks);
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        file.writeBytes(new byte[] {'M', 'T', 'h', 'd', 0, 0, 0, 6, 0, (byte) format});
        int chunks = format == 0 ? 1 : tracks.size() + 1;
        file.write(chunks >> 8);
        file.write(chunks & 0xFF);
        file.write(division >> 8);
        file.write(division & 0xFF);
        if (format == 0) {
            List<Event> all = new ArrayList<>();
            tracks.forEach(track -> all.addAll(track.events));
            if (tracks.size() > 1) {
                all.sort(EventOrder.INSTANCE);
            }
            tracks.forEach(track -> all.addAll(0, track.sound(form)));
            new SmfWriter(division).track(conductor, all, length, file);
        } else {
            new SmfWriter(division).track(conductor, List.of(), length, file);
            for (Track track : tracks) {
                List<Meta> name = track.name.isEmpty() ? List.of() : List.of(text(0, Meta.TRACK_NAME, track.name));
                new SmfWriter(division).track(name, track.all(form), length, file);
            }
        }
        return file.toByteArray();
    }

    private static Meta text(long tick, int type, String text) {
        return new Meta(tick, type, text.getBytes(StandardCharsets.UTF_8));
    }

    /** What a file says about a stretch of a piece besides tempo and meter: its name, its key where a signature can say it, its marks. */
    public static List<Meta> about(Piece piece, long from, long to) {
        List<Meta> metas = new ArrayList<>();
        metas.add(text(0, Meta.TRACK_NAME, piece.name()));
        signature(0, piece.timeline() ? piece.keyAt(from) : piece.key()).ifPresent(metas::add);
        for (KeyChange change : piece.timeline() ? piece.keys() : List.<KeyChange>of()) {
            if (change.tick() > from && change.tick() < to) {
                signature(change.tick() - from, change.key()).ifPresent(metas::add);
            }
        }
        piece.marks().stream()
                .filter(mark -> mark.tick() >= from && mark.tick() < to)
                .forEach(mark -> metas.add(text(mark.tick() - from, Meta.MARKER, mark.name())));
        return metas;
    }

    /**
     * The key signature of a key: of a minor key that of minor, of other modes of the major scale that of the major key with the same
     * notes, as they are written (common practice); nothing for other scales.
     */
    private static Optional<Meta> signature(long tick, Key key) {
        for (int sharps = -5; sharps <= 6; sharps++) {
            Key major = new Key(Math.floorMod(7 * sharps, 12), Scale.of("major"));
            boolean same = key.scale().size() == 7
                    && IntStream.range(0, 12).allMatch(pitch -> key.contains(pitch) == major.contains(pitch));
            if (same) {
                boolean minor = Math.floorMod(major.root() - key.root(), 12) == 3;
                return Optional.of(
                        new Meta(tick, Meta.KEY_SIGNATURE, new byte[] {(byte) sharps, (byte) (minor ? 1 : 0)}));
            }
        }
        return Optional.empty();
    }

    /**
     * A phrase as a file of format 1, its name that of the track. Notes that are off are left out; chances have no place in such a file
     * and all others are written.
     *
     * @param channel 0–15
     */
    public static byte[] write(TimeMap time, Phrase phrase, int channel) {
        List<Meta> name = List.of(text(0, Meta.TRACK_NAME, phrase.name()));
        return write(SmfForm.PLAIN, time, name, events(phrase, channel), phrase.length());
    }

    /** The notes and messages of a phrase, but for notes that are off, in the order of events. */
    public static List<Event> events(Phrase phrase, int channel) {
        List<Event> events = new ArrayList<>();
        long arrival = 0;
        for (Message message : phrase.messages()) {
            events.add(message.onChannel(channel).at(message.tick(), arrival++));
        }
        for (Note note : phrase.notes()) {
            if (!note.traits().off()) {
                NoteStart start = NoteStart.played(note.tick(), arrival++, channel, note.pitch(), note.velocity());
                events.add(start);
                events.add(new NoteEnd(Math.min(phrase.length(), note.endTick()), start, note.release()));
            }
        }
        events.sort(EventOrder.INSTANCE);
        return events;
    }

    /** What changes behind the end is left out, or it would make the file longer. */
    private static List<Meta> conductor(TimeMap time, List<Meta> metas, long length) {
        List<Meta> all = new ArrayList<>();
        for (MeterMap.Change change : time.meter().changes()) {
            byte[] data = {(byte) change.beats(), (byte) Integer.numberOfTrailingZeros(change.unit()), 24, 8};
            all.add(new Meta(change.tick(), Meta.TIME_SIGNATURE, data));
        }
        tempos(time.tempo(), all);
        all.addAll(metas);
        all.removeIf(meta -> meta.tick() > 0 && meta.tick() >= length && meta.type() != Meta.MARKER);
        all.sort(Comparator.comparingLong(Meta::tick));
        return all;
    }

    /** Such a file knows steps only: a ramp is one of sixteenths, each as long as that stretch of the ramp. */
    private static void tempos(TempoMap tempo, List<Meta> all) {
        List<TempoMap.Change> changes = tempo.changes();
        for (int i = 0; i < changes.size(); i++) {
            long tick = changes.get(i).tick();
            long next = i + 1 < changes.size() ? changes.get(i + 1).tick() : tick;
            if (!changes.get(i).ramp() || next == tick) {
                all.add(tempo(tick, changes.get(i).bpm()));
                continue;
            }
            for (long at = tick; at < next; at += RAMP_STEP) {
                long to = Math.min(next, at + RAMP_STEP);
                double quarters = (to - at) / (double) Ticks.PER_QUARTER;
                all.add(tempo(at, quarters * 60e9 / (tempo.nanosAt(to) - tempo.nanosAt(at))));
            }
        }
    }

    private static Meta tempo(long tick, double bpm) {
        int micros = (int) Math.max(1, Math.min(0xFFFFFF, Ticks.round(60e6 / bpm)));
        return new Meta(tick, Meta.TEMPO, new byte[] {(byte) (micros >> 16), (byte) (micros >> 8), (byte) micros});
    }

    private void track(List<Meta> metas, List<? extends Event> events, long length, ByteArrayOutputStream file) {
        int meta = 0;
        for (int i = 0; i < events.size(); i++) {
            Event event = events.get(i);
            long tick = Ticks.toResolution(event.tick(), division);
            if (tick != groupTick) {
                flush();
                if (!late.isEmpty() && tick > groupTick) {
                    flush();
                }
                groupTick = tick;
            }
            while (meta < metas.size() && metaTick(metas.get(meta)) <= tick) {
                flush();
                groupTick = tick;
                write(metas.get(meta++));
            }
            group.add(event);
        }
        flush();
        flush();
        while (meta < metas.size()) {
            write(metas.get(meta++));
        }
        write(Math.max(length, written), Meta.END_OF_TRACK, new byte[0]);
        file.writeBytes(new byte[] {'M', 'T', 'r', 'k'});
        for (int shift = 24; shift >= 0; shift -= 8) {
            file.write(size >> shift);
        }
        file.write(bytes, 0, size);
    }

    /** Writes the events of one tick of the file; what comes a tick later is then the next tick's. */
    private void flush() {
        if (group.isEmpty() && late.isEmpty()) {
            return;
        }
        settled.clear();
        for (int i = 0; i < group.size(); i++) {
            if (group.get(i) instanceof NoteEnd end) {
                boolean tooShort = Ticks.toResolution(end.start().tick(), division) >= groupTick;
                (tooShort ? late : settled).add(end);
            }
        }
        int ends = settled.size();
        for (int i = 0; i < ends; i++) {
            NoteEnd end = (NoteEnd) settled.get(i);
            int voice = voice(end.start());
            if (sounding[voice] > 0 && --sounding[voice] == 0) {
                settled.add(end);
                struck[voice] = null;
            }
        }
        settled.removeFirst(ends);
        for (int i = 0; i < group.size(); i++) {
            Event event = group.get(i);
            if (event instanceof NoteStart start) {
                start(start);
            } else if (event instanceof Message) {
                settled.add(event);
            }
        }
        settled.sortTick(0);
        for (int i = 0; i < settled.size(); i++) {
            write(settled.get(i));
        }
        group.clear();
        groupTick++;
        if (!late.isEmpty()) {
            group.addAll(late);
            late.clear();
        }
    }

    private void start(NoteStart start) {
        int voice = voice(start);
        NoteStart before = struck[voice];
        boolean together = before != null && Ticks.toResolution(before.tick(), division) == groupTick;
        if (sounding[voice]++ > 0 && together) {
            NoteStart joined = before.mergedWith(start);
            for (int i = 0; i < settled.size(); i++) {
                if (settled.get(i) == before) {
                    settled.set(i, joined);
                }
            }
            struck[voice] = joined;
            return;
        }
        if (before != null) {
            settled.add(NoteEnd.plain(start.tick(), before));
        }
        struck[voice] = start;
        settled.add(start);
    }

    private static int voice(NoteStart note) {
        return note.channel() << 7 | note.pitch();
    }

    private long metaTick(Meta meta) {
        return Ticks.toResolution(meta.tick(), division);
    }

    private void write(Meta meta) {
        write(metaTick(meta), meta.type(), meta.data());
    }

    private void write(long tick, int type, byte[] data) {
        delta(tick);
        put(0xFF);
        put(type);
        putLength(data.length);
        put(data, 0);
        running = 0;
    }

    private void write(Event event) {
        delta(groupTick);
        if (event instanceof NoteStart note) {
            status(0x90 | note.channel());
            put(note.pitch());
            put(note.velocity());
        } else if (event instanceof NoteEnd end) {
            status(0x80 | end.channel());
            put(end.start().pitch());
            put(end.releaseVelocity());
        } else if (event instanceof Message message) {
            if (message.status() >= 0xF0) {
                put(message.status());
                putLength(message.length() - 1);
                running = 0;
            } else {
                status(message.status());
            }
            for (int i = 1; i < message.length(); i++) {
                put(message.data(i));
            }
        }
    }

    private void status(int status) {
        if (status != running) {
            put(status);
            running = status;
        }
    }

    /** A way longer than a number of a file can say is gone in steps, each with an empty text behind it. */
    private void delta(long tick) {
        long left = tick - written;
        for (; left > LONGEST_DELTA; left -= LONGEST_DELTA) {
            putLength(LONGEST_DELTA);
            put(0xFF);
            put(Meta.TEXT);
            putLength(0);
            running = 0;
        }
        putLength((int) left);
        written = tick;
    }

    private void put(int value) {
        if (size == bytes.length) {
            bytes = Arrays.copyOf(bytes, size * 2);
        }
        bytes[size++] = (byte) value;
    }

    private void put(byte[] data, int from) {
        for (int i = from; i < data.length; i++) {
            put(data[i]);
        }
    }

    /** A variable-length number. */
    private void putLength(int value) {
        if (value < 0x80) {
            put(value);
            return;
        }
        for (byte one : variableLength(value)) {
            put(one);
        }
    }

    /** Seven bits a byte, the highest first, all but the last with the top bit set. */
    static byte[] variableLength(long value) {
        if (value < 0 || value > LONGEST_DELTA) {
            throw new IllegalArgumentException(
                    "a variable-length number must be 0–0FFFFFFF but was " + Long.toHexString(value));
        }
        int count = value < 1 << 7 ? 1 : value < 1 << 14 ? 2 : value < 1 << 21 ? 3 : 4;
        byte[] number = new byte[count];
        for (int i = 0; i < count; i++) {
            int shift = 7 * (count - 1 - i);
            number[i] = (byte) (value >> shift & 0x7F | (i < count - 1 ? 0x80 : 0));
        }
        return number;
    }
}
