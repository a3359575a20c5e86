package harpel.format;

import harpel.engine.SoundRun;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.format.MidiFile.Meta;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** Writes Standard MIDI Files of format 0 or 1 at 960 to a quarter (Standard MIDI Files 1.0). */
public final class SmfWriter {
    public static final int RESOLUTION = 960;

    private final ByteArrayOutputStream chunk = new ByteArrayOutputStream();
    private long written;
    private int running;

    private SmfWriter() {}

    /**
     * @param format 0: one track; 1: tempo, meter and names in the first track, the events in the second
     * @param events in the order of events; every start has its end
     */
    public static byte[] write(
            int format, TimeMap time, List<Meta> metas, List<? extends Event> events, long lengthTicks) {
        if (format != 0 && format != 1) {
            throw new IllegalArgumentException("format must be 0 or 1 but was " + format);
        }
        long length = Ticks.toResolution(lengthTicks, RESOLUTION);
        List<Meta> conductor = conductor(time, metas);
        List<Event> scaled = toResolution(events);
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        file.writeBytes(new byte[] {'M', 'T', 'h', 'd', 0, 0, 0, 6, 0, (byte) format, 0, (byte) (format + 1)});
        file.write(RESOLUTION >> 8);
        file.write(RESOLUTION & 0xFF);
        if (format == 0) {
            file.writeBytes(new SmfWriter().track(conductor, scaled, length));
        } else {
            file.writeBytes(new SmfWriter().track(conductor, List.of(), length));
            file.writeBytes(new SmfWriter().track(List.of(), scaled, length));
        }
        return file.toByteArray();
    }

    private static List<Meta> conductor(TimeMap time, List<Meta> metas) {
        List<Meta> all = new ArrayList<>();
        for (MeterMap.Change change : time.meter().changes()) {
            byte[] data = {(byte) change.beats(), (byte) Integer.numberOfTrailingZeros(change.unit()), 24, 8};
            all.add(new Meta(change.tick(), Meta.TIME_SIGNATURE, data));
        }
        for (TempoMap.Change change : time.tempo().changes()) {
            int micros = (int) Math.max(1, Math.min(0xFFFFFF, Ticks.round(60e6 / change.bpm())));
            byte[] data = {(byte) (micros >> 16), (byte) (micros >> 8), (byte) micros};
            all.add(new Meta(change.tick(), Meta.TEMPO, data));
        }
        all.addAll(metas);
        all.sort(Comparator.comparingLong(Meta::tick));
        return all;
    }

    /**
     * Moves events to the file's coarser ticks. What falls together there is settled by the rule of the sound stage: a later start of
     * one pitch strikes again, two at one tick are one.
     */
    private static List<Event> toResolution(List<? extends Event> events) {
        EventBuffer coarse = new EventBuffer();
        Map<NoteStart, NoteStart> moved = new IdentityHashMap<>();
        for (Event event : events) {
            long tick = Ticks.toResolution(event.tick(), RESOLUTION);
            if (event instanceof NoteStart note) {
                NoteStart start = NoteStart.played(tick, note.arrival(), note.channel(), note.pitch(), note.velocity());
                moved.put(note, start);
                coarse.add(start);
            } else if (event instanceof NoteEnd end) {
                NoteStart start = moved.remove(end.start());
                coarse.add(new NoteEnd(Math.max(tick, start.tick() + 1), start, end.releaseVelocity()));
            } else {
                coarse.add(new Message(tick, event.arrival(), ((Message) event).bytes()));
            }
        }
        coarse.sortAll();
        EventBuffer settled = new EventBuffer();
        new SoundRun().process(coarse, settled);
        return settled;
    }

    private byte[] track(List<Meta> metas, List<Event> events, long length) {
        int meta = 0;
        long last = 0;
        for (Event event : events) {
            while (meta < metas.size() && metaTick(metas.get(meta)) <= event.tick()) {
                write(metas.get(meta++));
            }
            write(event);
            last = event.tick();
        }
        while (meta < metas.size()) {
            write(metas.get(meta++));
        }
        write(Math.max(Math.max(length, last), written), Meta.END_OF_TRACK, new byte[0]);
        byte[] data = chunk.toByteArray();
        ByteArrayOutputStream whole = new ByteArrayOutputStream(data.length + 8);
        whole.writeBytes("MTrk".getBytes(StandardCharsets.ISO_8859_1));
        for (int shift = 24; shift >= 0; shift -= 8) {
            whole.write(data.length >> shift);
        }
        whole.writeBytes(data);
        return whole.toByteArray();
    }

    private static long metaTick(Meta meta) {
        return Ticks.toResolution(meta.tick(), RESOLUTION);
    }

    private void write(Meta meta) {
        write(metaTick(meta), meta.type(), meta.data());
    }

    private void write(long tick, int type, byte[] data) {
        delta(tick);
        chunk.write(0xFF);
        chunk.write(type);
        writeVariableLength(chunk, data.length);
        chunk.writeBytes(data);
        running = 0;
    }

    private void write(Event event) {
        delta(event.tick());
        if (event instanceof NoteStart note) {
            status(0x90 | note.channel());
            chunk.write(note.pitch());
            chunk.write(note.velocity());
        } else if (event instanceof NoteEnd end) {
            status(0x80 | end.channel());
            chunk.write(end.start().pitch());
            chunk.write(end.releaseVelocity());
        } else if (event instanceof Message message) {
            byte[] bytes = message.bytes();
            if (message.status() >= 0xF0) {
                chunk.write(message.status());
                writeVariableLength(chunk, bytes.length - 1);
                running = 0;
            } else {
                status(message.status());
            }
            chunk.write(bytes, 1, bytes.length - 1);
        }
    }

    private void status(int status) {
        if (status != running) {
            chunk.write(status);
            running = status;
        }
    }

    private void delta(long tick) {
        writeVariableLength(chunk, tick - written);
        written = tick;
    }

    /** Seven bits a byte, the highest first, all but the last with the top bit set. */
    static void writeVariableLength(ByteArrayOutputStream out, long value) {
        if (value < 0 || value > 0x0FFF_FFFF) {
            throw new IllegalArgumentException("a variable-length number must be 0–0FFFFFFF but was "
                    + Long.toHexString(value) + "; no event of a MIDI file may lie further from the one before");
        }
        for (int shift = 21; shift > 0; shift -= 7) {
            if (value >> shift != 0) {
                out.write((int) (value >> shift & 0x7F | 0x80));
            }
        }
        out.write((int) (value & 0x7F));
    }
}
