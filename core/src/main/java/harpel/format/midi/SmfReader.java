package harpel.format.midi;

import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.format.FileException;
import harpel.format.midi.MidiFile.Meta;
import harpel.format.midi.MidiFile.Note;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Locale;

/**
 * Reads Standard MIDI Files of format 0, 1 and 2, also in a RIFF wrapping, with metrical or SMPTE time (Standard MIDI Files 1.0).
 * Strict: what the specification does not allow is refused with its byte.
 */
public final class SmfReader {
    private static final int HEADER = 0x4D546864;
    private static final int TRACK = 0x4D54726B;
    private static final int RIFF = 0x52494646;
    private static final int CHANNELS = 16;

    private static final double SMPTE_BPM = 120;
    private static final long FARTHEST_QUARTER = Ticks.FARTHEST / Ticks.PER_QUARTER;

    private final byte[] bytes;
    /** Where the file's own bytes end: those of the data chunk in a RIFF wrapping. */
    private int fileEnd;

    private int position;

    private long unitsPerQuarter;
    private double ticksPerSmpteUnit;
    private int track;
    private long trackShift;

    private final List<Note> notes = new ArrayList<>();
    private final List<Message> messages = new ArrayList<>();
    private final List<MidiFile.Line> lines = new ArrayList<>();
    private final List<Meta> metas = new ArrayList<>();
    private final List<TempoMap.Change> tempos = new ArrayList<>();
    private final List<MeterMap.Change> meters = new ArrayList<>();
    private int unended;
    private int strayEnds;
    private long endTick;

    private SmfReader(byte[] bytes) {
        this.bytes = bytes;
        this.fileEnd = bytes.length;
    }

    /** @throws FileException naming the byte and what was expected there */
    public static MidiFile read(byte[] bytes) throws FileException {
        return new SmfReader(bytes).readFile();
    }

    private MidiFile readFile() throws FileException {
        if (bytes.length >= 4 && int32At(0) == RIFF) {
            unwrapRiff();
        }
        need(8, "a header chunk \"MThd\"");
        if (int32At(position) != HEADER) {
            throw FileException.atByte(
                    position,
                    "expected \"MThd\", the beginning of a Standard MIDI File, but found " + found(position, 4));
        }
        int headerStart = position + 8;
        long headerLength = uint32At(position + 4);
        if (headerLength < 6 || headerLength > fileEnd - headerStart) {
            throw FileException.atByte(
                    position + 4, "expected a header length of 6 (or more, within the file) but found " + headerLength);
        }
        int format = int16At(headerStart);
        int tracks = int16At(headerStart + 2);
        if (format > 2) {
            throw FileException.atByte(headerStart, "expected format 0, 1 or 2 but found " + format);
        }
        if (tracks == 0 || format == 0 && tracks != 1) {
            throw FileException.atByte(
                    headerStart + 2,
                    "expected " + (format == 0 ? "1 track in format 0" : "at least 1 track") + " but found " + tracks);
        }
        readDivision(headerStart + 4);
        position = headerStart + (int) headerLength;
        readTracks(format, tracks);
        return result();
    }

    /** RIFF: chunks of a name, a length and as many bytes, padded to an even count; the file is in the one called data. */
    private void unwrapRiff() throws FileException {
        need(12, "a RIFF file of kind \"RMID\" with a \"data\" chunk");
        String kind = new String(bytes, 8, 4, StandardCharsets.ISO_8859_1);
        if (!kind.equals("RMID")) {
            throw FileException.atByte(8, "expected \"RMID\" in a RIFF file but found " + found(8, 4));
        }
        position = 12;
        while (true) {
            need(8, "a \"data\" chunk in the RIFF file");
            String name = new String(bytes, position, 4, StandardCharsets.ISO_8859_1);
            long length = Integer.toUnsignedLong(Integer.reverseBytes(int32At(position + 4)));
            int start = position + 8;
            if (length > bytes.length - start) {
                throw FileException.atByte(
                        position + 4,
                        "expected a chunk of " + length + " bytes but the file ends after " + (bytes.length - start));
            }
            if (name.equals("data")) {
                position = start;
                fileEnd = start + (int) length;
                return;
            }
            position = start + (int) (length + (length & 1));
        }
    }

    private void readDivision(int at) throws FileException {
        int division = int16At(at);
        if (division == 0) {
            throw FileException.atByte(at, "expected ticks to a quarter note, 1–32767, but found 0");
        }
        if (division < 0x8000) {
            unitsPerQuarter = division;
            return;
        }
        int frames = -(byte) (division >> 8);
        int perFrame = division & 0xFF;
        if (frames != 24 && frames != 25 && frames != 29 && frames != 30 || perFrame == 0) {
            throw FileException.atByte(
                    at,
                    "expected SMPTE time of 24, 25, 29 or 30 frames and 1–255 units a frame but found " + frames
                            + " and " + perFrame);
        }
        double framesPerSecond = frames == 29 ? 30_000 / 1001.0 : frames;
        ticksPerSmpteUnit = Ticks.PER_QUARTER * SMPTE_BPM / 60 / (framesPerSecond * perFrame);
    }

    private void readTracks(int format, int tracks) throws FileException {
        while (position < fileEnd) {
            if (fileEnd - position < 8) {
                throw FileException.atByte(
                        position,
                        "expected a chunk's 8 byte header or the end of the file but found only " + (fileEnd - position)
                                + " bytes");
            }
            int kind = int32At(position);
            long length = uint32At(position + 4);
            int start = position + 8;
            if (length > fileEnd - start) {
                throw FileException.atByte(
                        position + 4,
                        "expected a chunk of " + length + " bytes but the file ends after " + (fileEnd - start));
            }
            if (kind == TRACK) {
                if (track == tracks) {
                    throw FileException.atByte(
                            position, "expected " + tracks + " tracks, as the header says, but found another");
                }
                position = start;
                int note = notes.size();
                int message = messages.size();
                int meta = metas.size();
                readTrack(start + (int) length);
                track++;
                addLines(notes.subList(note, notes.size()), messages.subList(message, messages.size()), nameIn(meta));
                if (format == 2) {
                    trackShift = meterSoFar().barLineAtOrAfter(endTick);
                }
            } else {
                // The specification asks readers to skip chunks they do not know.
                position = start + (int) length;
            }
        }
        if (track < tracks) {
            throw FileException.atByte(
                    position, "expected " + tracks + " tracks, as the header says, but found " + track);
        }
    }

    private String nameIn(int firstMeta) {
        return metas.subList(firstMeta, metas.size()).stream()
                .filter(meta -> meta.type() == Meta.TRACK_NAME)
                .findFirst()
                .map(meta -> new String(meta.data(), StandardCharsets.UTF_8).strip())
                .orElse("");
    }

    /** Adds what each channel of the track that was read last holds. */
    private void addLines(List<Note> read, List<Message> said, String name) {
        List<List<Note>> byChannel = new ArrayList<>();
        List<List<Message>> saidByChannel = new ArrayList<>();
        for (int channel = 0; channel < CHANNELS; channel++) {
            byChannel.add(new ArrayList<>());
            saidByChannel.add(new ArrayList<>());
        }
        read.forEach(note -> byChannel.get(note.channel()).add(note));
        said.stream()
                .filter(message -> message.channel() >= 0)
                .forEach(message -> saidByChannel.get(message.channel()).add(message));
        for (int channel = 0; channel < CHANNELS; channel++) {
            if (!byChannel.get(channel).isEmpty()) {
                lines.add(new MidiFile.Line(track, channel, name, byChannel.get(channel), saidByChannel.get(channel)));
            }
        }
    }

    private MeterMap meterSoFar() {
        return MeterMap.ofChanges(meters);
    }

    /** A note that has started, and its place among all. */
    private record Open(int place, long tick, int velocity) {}

    /** What sounds of a track: of each key of each channel the starts that wait for their ends, the oldest first. */
    private static final class Sounding {
        private final List<Deque<Open>> keys = new ArrayList<>(Collections.nCopies(CHANNELS << 7, null));

        void start(int key, Open open) {
            if (keys.get(key) == null) {
                keys.set(key, new ArrayDeque<>(1));
            }
            keys.get(key).add(open);
        }

        /** The oldest start of that key; null where there is none. */
        Open end(int key) {
            Deque<Open> open = keys.get(key);
            return open == null ? null : open.poll();
        }
    }

    private void readTrack(int end) throws FileException {
        Sounding open = new Sounding();
        long units = 0;
        int running = 0;
        while (true) {
            int deltaAt = position;
            if (position >= end) {
                throw FileException.atByte(
                        position, "expected End of Track (FF 2F 00) before the end of track " + (track + 1));
            }
            units += variableLength(end);
            long tick = tick(deltaAt, units);
            if (position >= end) {
                throw FileException.atByte(
                        deltaAt, "expected an event after the delta time but track " + (track + 1) + " ends");
            }
            int status = bytes[position] & 0xFF;
            if (status < 0x80) {
                if (running == 0) {
                    throw FileException.atByte(
                            position,
                            "expected a status byte 80–FF but found " + found(position, 1) + " with no running status");
                }
                status = running;
            } else {
                position++;
            }
            if (status < 0xF0) {
                running = status;
                readChannelMessage(status, tick, end, open);
            } else {
                running = 0;
                if (status == 0xFF) {
                    if (readMeta(tick, end)) {
                        finishTrack(tick, end, open);
                        return;
                    }
                } else if (status == 0xF0 || status == 0xF7) {
                    readSystemExclusive(status, tick, end);
                } else {
                    throw FileException.atByte(
                            position - 1,
                            String.format(
                                    "expected a channel message, F0, F7 or FF but found %02X, which has no place in a file",
                                    status));
                }
            }
        }
    }

    private void readChannelMessage(int status, long tick, int end, Sounding open) throws FileException {
        int kind = status & 0xF0;
        int channel = status & 0x0F;
        int first = dataByte(end);
        int second = kind == 0xC0 || kind == 0xD0 ? -1 : dataByte(end);
        if (kind == 0x90 && second > 0) {
            // Its place is kept until its end is known, so that notes stand in the order of their starts.
            open.start(channel << 7 | first, new Open(notes.size(), tick, second));
            notes.add(null);
        } else if (kind == 0x80 || kind == 0x90) {
            Open started = open.end(channel << 7 | first);
            if (started == null) {
                strayEnds++;
            } else {
                add(started, tick, channel, first, kind == 0x80 ? second : NoteEnd.PLAIN_RELEASE);
            }
        } else if (second < 0) {
            messages.add(new Message(tick, 0, (byte) status, (byte) first));
        } else {
            messages.add(new Message(tick, 0, (byte) status, (byte) first, (byte) second));
        }
    }

    private void add(Open start, long endTickOfNote, int channel, int pitch, int release) {
        long length = Math.max(1, endTickOfNote - start.tick);
        notes.set(start.place, new Note(start.tick, length, channel, pitch, start.velocity, release));
    }

    /** True at the end of the track. */
    private boolean readMeta(long tick, int end) throws FileException {
        int typeAt = position;
        if (position >= end) {
            throw FileException.atByte(
                    position, "expected the type of a meta event but track " + (track + 1) + " ends");
        }
        int type = bytes[position++] & 0xFF;
        byte[] data = counted(end, "a meta event");
        switch (type) {
            case Meta.END_OF_TRACK -> {
                length(data, 0, typeAt, "End of Track");
                return true;
            }
            case Meta.TEMPO -> {
                length(data, 3, typeAt, "a tempo");
                int micros = (data[0] & 0xFF) << 16 | (data[1] & 0xFF) << 8 | data[2] & 0xFF;
                if (micros == 0) {
                    throw FileException.atByte(typeAt, "expected a tempo of 1–16777215 µs a quarter but found 0");
                }
                if (ticksPerSmpteUnit == 0) {
                    tempos.add(new TempoMap.Change(tick, 60e6 / micros));
                }
            }
            case Meta.TIME_SIGNATURE -> {
                length(data, 4, typeAt, "a time signature");
                if (data[0] < 1 || data[0] > 64 || data[1] < 0 || data[1] > 6) {
                    throw FileException.atByte(
                            typeAt,
                            "expected a meter of 1–64 over 2^0–2^6 but found " + data[0] + " over 2^" + data[1]);
                }
                meters.add(new MeterMap.Change(tick, data[0], 1 << data[1]));
            }
            default -> metas.add(new Meta(tick, type, data));
        }
        return false;
    }

    private static void length(byte[] data, int expected, int at, String what) throws FileException {
        if (data.length != expected) {
            throw FileException.atByte(at, "expected " + expected + " bytes in " + what + " but found " + data.length);
        }
    }

    private void readSystemExclusive(int status, long tick, int end) throws FileException {
        byte[] data = counted(end, "a system exclusive event");
        byte[] whole = new byte[data.length + 1];
        whole[0] = (byte) status;
        System.arraycopy(data, 0, whole, 1, data.length);
        try {
            messages.add(new Message(tick, 0, whole));
        } catch (IllegalArgumentException e) {
            throw FileException.atByte(
                    position - data.length,
                    "expected data bytes 00–7F and at most an F7 at the end of a system exclusive event but found "
                            + found(position - data.length, Math.min(8, data.length)));
        }
    }

    private void finishTrack(long tick, int end, Sounding open) throws FileException {
        if (position != end) {
            throw FileException.atByte(
                    position,
                    "expected the end of track " + (track + 1) + " after End of Track but " + (end - position)
                            + " bytes follow");
        }
        endTick = Math.max(endTick, tick);
        for (int key = 0; key < CHANNELS << 7; key++) {
            for (Open start = open.end(key); start != null; start = open.end(key)) {
                unended++;
                add(start, tick, key >> 7, key & 0x7F, NoteEnd.PLAIN_RELEASE);
            }
        }
    }

    private MidiFile result() {
        notes.sort(Comparator.comparingLong(Note::tick));
        messages.sort(Comparator.comparingLong(Message::tick));
        metas.sort(Comparator.comparingLong(Meta::tick));
        List<String> repairs = new ArrayList<>();
        if (unended > 0) {
            repairs.add(unended + (unended == 1 ? " note has" : " notes have")
                    + " no end in the file; ended at the end of the track");
        }
        if (strayEnds > 0) {
            repairs.add(
                    strayEnds + (strayEnds == 1 ? " note end belongs" : " note ends belong") + " to no note; left out");
        }
        TempoMap tempo = ticksPerSmpteUnit > 0 ? TempoMap.of(SMPTE_BPM) : TempoMap.ofChanges(tempos);
        return new MidiFile(new TimeMap(tempo, meterSoFar()), notes, messages, lines, metas, endTick, repairs);
    }

    private long tick(int at, long units) throws FileException {
        double quarters = ticksPerSmpteUnit > 0
                ? units * ticksPerSmpteUnit / Ticks.PER_QUARTER
                : (double) units / unitsPerQuarter;
        long tick = quarters > FARTHEST_QUARTER
                ? Ticks.NEVER
                : ticksPerSmpteUnit > 0
                        ? Ticks.round(units * ticksPerSmpteUnit)
                        : Ticks.fromResolution(units, unitsPerQuarter);
        if (tick > Ticks.FARTHEST - trackShift) {
            throw FileException.atByte(
                    at,
                    String.format(
                            Locale.ROOT,
                            "expected an event within %,d quarters of the beginning but found one after %,.0f",
                            FARTHEST_QUARTER,
                            quarters + (double) trackShift / Ticks.PER_QUARTER));
        }
        return trackShift + tick;
    }

    private int dataByte(int end) throws FileException {
        if (position >= end) {
            throw FileException.atByte(position, "expected a data byte 00–7F but track " + (track + 1) + " ends");
        }
        int value = bytes[position];
        if (value < 0) {
            throw FileException.atByte(position, "expected a data byte 00–7F but found " + found(position, 1));
        }
        position++;
        return value;
    }

    private byte[] counted(int end, String what) throws FileException {
        int at = position;
        long length = variableLength(end);
        if (length > end - position) {
            throw FileException.atByte(
                    at,
                    "expected " + length + " bytes of " + what + " but track " + (track + 1) + " ends after "
                            + (end - position));
        }
        byte[] data = Arrays.copyOfRange(bytes, position, position + (int) length);
        position += (int) length;
        return data;
    }

    private long variableLength(int end) throws FileException {
        int at = position;
        long value = 0;
        for (int count = 0; count < 4; count++) {
            if (position >= end) {
                throw FileException.atByte(at, "expected a variable-length number but track " + (track + 1) + " ends");
            }
            int next = bytes[position++];
            value = value << 7 | next & 0x7F;
            if (next >= 0) {
                return value;
            }
        }
        throw FileException.atByte(
                at, "expected a variable-length number of at most 4 bytes but found " + found(at, 5));
    }

    private void need(int count, String what) throws FileException {
        if (fileEnd - position < count) {
            throw FileException.atByte(
                    position, "expected " + what + " but only " + Math.max(0, fileEnd - position) + " bytes are left");
        }
    }

    private String found(int at, int count) {
        byte[] part = Arrays.copyOfRange(bytes, at, Math.min(bytes.length, at + count));
        return java.util.HexFormat.ofDelimiter(" ").withUpperCase().formatHex(part);
    }

    private int int32At(int at) {
        return (bytes[at] & 0xFF) << 24
                | (bytes[at + 1] & 0xFF) << 16
                | (bytes[at + 2] & 0xFF) << 8
                | bytes[at + 3] & 0xFF;
    }

    private long uint32At(int at) {
        return Integer.toUnsignedLong(int32At(at));
    }

    private int int16At(int at) {
        return (bytes[at] & 0xFF) << 8 | bytes[at + 1] & 0xFF;
    }
}
