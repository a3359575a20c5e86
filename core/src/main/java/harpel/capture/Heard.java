package harpel.capture;

import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Note;
import harpel.phrase.Traits;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.time.MeterMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Remembers exactly what came in, left each stage and was sent, by place: at least 5 minutes of 1,000 notes a second in ten places in 64 MB.
 *
 * <p>Its axis goes on over stops, starts and jumps: where time starts anew at a tick, the axis goes on at the next place after all that was
 * heard that lies on the same tick of a bar. So "the last eight bars" are just that, whatever was pressed meanwhile. Notes that were only
 * tried are not heard. Written by the engine's thread, which never waits for a reader; read by any.
 */
public final class Heard implements Tap {
    /** So many times shorter than a beat is what fingers of one chord hang into the next. */
    private static final int LATE_FINGERS = 8;
    /** So much is kept at most. */
    public static final long MOST_BYTES = 64L << 20;

    /**
     * A stretch of what was heard.
     *
     * @param notes in order, counted from the stretch's beginning; cut where they went over its edges
     */
    public record Take(List<Note> notes, List<Message> messages) {}

    /** So much is kept of a piece that is not open any more, for whoever brings it back. */
    static final long KEPT_BYTES = 8L << 20;

    /** What was heard while a piece was open. Written by the engine's thread alone. */
    public static final class Memory {
        /** By the part's id and what the place is called there; asked for each event, so nothing is made for the question. */
        private final Map<String, Map<String, HeardPlace>> places = new ConcurrentHashMap<>();

        private long bytes;
        /** What is added to a tick to be on the axis. */
        private volatile long offset;

        private volatile long last;

        private HeardPlace place(String part, String name) {
            Map<String, HeardPlace> ofPart = places.get(part);
            return ofPart == null ? null : ofPart.get(name);
        }

        /** Whatever was given up in its middle ends here, too. */
        private void endAll() {
            places.values().forEach(ofPart -> ofPart.values().forEach(place -> place.endAll(last)));
        }

        /** Gives up what is oldest until no more than this is left. */
        private void shrink(long most) {
            while (bytes > most) {
                HeardPlace oldest = null;
                for (Map<String, HeardPlace> ofPart : places.values()) {
                    for (HeardPlace place : ofPart.values()) {
                        oldest = oldest == null || place.oldest() < oldest.oldest() ? place : oldest;
                    }
                }
                if (oldest == null || oldest.oldest() == Long.MAX_VALUE) {
                    return;
                }
                bytes -= oldest.dropOldest();
            }
        }
    }

    private volatile long mostBytes;
    private volatile Memory memory = new Memory();
    /** The one that was written into last. Owned by the engine's thread. */
    private Memory written = memory;

    public Heard() {
        this(MOST_BYTES);
    }

    /** @param mostBytes how much is kept at most, at least one run a place */
    Heard(long mostBytes) {
        this.mostBytes = mostBytes;
    }

    /** How much is kept at most. */
    public long mostBytes() {
        return mostBytes;
    }

    /** Keeps no more than that from now on, where memory is short; what was heard longest ago goes with the next that is heard. */
    public void keepAtMost(long bytes) {
        mostBytes = bytes;
    }

    /** Goes on with another memory, as when another piece is opened, and gives the one until now. From any thread. */
    public Memory turnTo(Memory other) {
        Memory before = memory;
        memory = other;
        return before;
    }

    @Override
    public void tell(Told told) {
        Memory now = memory;
        if (now != written) {
            written.endAll();
            written.shrink(Math.min(mostBytes, KEPT_BYTES));
            written = now;
        }
        if (told instanceof Told.Left left) {
            hear(now, left.part(), left.place(), left.event());
        } else if (told instanceof Told.Restarted restarted) {
            now.endAll();
            now.offset = -Math.floorDiv(restarted.tick() - now.last, restarted.barTicks()) * restarted.barTicks();
        }
    }

    private static boolean isOnlyTried(Event event) {
        return event instanceof NoteStart note && note.isAuditioned()
                || event instanceof NoteEnd end && end.start().isAuditioned();
    }

    private void hear(Memory now, String part, String name, Event event) {
        if (isOnlyTried(event)) {
            return;
        }
        HeardPlace place = now.place(part, name);
        if (place == null) {
            place = now.places
                    .computeIfAbsent(part, key -> new ConcurrentHashMap<>())
                    .computeIfAbsent(name, key -> new HeardPlace());
        }
        long tick = event.tick() + now.offset;
        now.last = Math.max(now.last, tick);
        if (event instanceof NoteStart note) {
            now.bytes += place.start(note, tick);
            now.shrink(mostBytes);
        } else if (event instanceof NoteEnd end) {
            place.end(end, tick);
        } else {
            now.bytes += place.message((Message) event, tick);
            now.shrink(mostBytes);
        }
    }

    private HeardPlace place(String part, String name) {
        return memory.place(part, name);
    }

    /** Where a tick of the piece lies on the axis now. */
    public long onAxis(double tick) {
        return (long) tick + memory.offset;
    }

    /** The tick of the last event, on the axis. */
    public long last() {
        return memory.last;
    }

    /** From where on all of a place is still kept; {@link Long#MAX_VALUE} where nothing came by. */
    public long keptFrom(String part, String name) {
        HeardPlace place = place(part, name);
        return place == null ? Long.MAX_VALUE : place.from();
    }

    /** How many bytes are taken. */
    long bytes() {
        return memory.bytes;
    }

    /**
     * What came by a place in a stretch of the axis. A note that sounds still ends at the stretch's end.
     *
     * @param part the part's id
     * @param name a stage's address, {@link Tap#KEYS}, {@link Tap#INPUT} or {@link Tap#SOUND}
     */
    public Take take(String part, String name, long fromTick, long toTick) {
        return take(part, name, fromTick, toTick, false);
    }

    /** The same; with {@code begunThere} without what began before. */
    public Take take(String part, String name, long fromTick, long toTick, boolean begunThere) {
        List<Note> notes = new ArrayList<>();
        List<Message> messages = new ArrayList<>();
        HeardPlace place = place(part, name);
        if (place != null) {
            place.read(fromTick, toTick, (tick, endTick, pitch, velocity, release) -> {
                if (begunThere && tick < fromTick) {
                    return;
                }
                long begin = Math.max(fromTick, tick);
                long end = Math.min(toTick, endTick);
                notes.add(new Note(
                        Note.NEW, begin - fromTick, Math.max(1, end - begin), pitch, velocity, release, Traits.PLAIN));
            });
            place.readMessages(fromTick, toTick, messages::add);
        }
        return new Take(notes, messages);
    }

    /**
     * Where chords began on a part's input in a stretch: where a note was struck while nothing was held, but for fingers that leave the last
     * chord a little late. Their own starts, rising; the stretch's end stands behind them.
     */
    public List<Long> chords(String part, long fromTick, long toTick, MeterMap meter) {
        long late = meter.at(0).beatTicks() / LATE_FINGERS;
        TreeSet<Long> begins = new TreeSet<>();
        long[] heldUntil = {Long.MIN_VALUE};
        HeardPlace place = place(part, INPUT);
        if (place != null) {
            place.read(fromTick, toTick, (tick, endTick, pitch, velocity, release) -> {
                long begun = begins.isEmpty() ? Long.MIN_VALUE / 2 : begins.last();
                if (tick >= heldUntil[0] || tick >= heldUntil[0] - late && tick - begun > late) {
                    begins.add(Math.max(fromTick, tick));
                }
                heldUntil[0] = Math.max(heldUntil[0], endTick);
            });
        }
        List<Long> edges = new ArrayList<>(begins);
        edges.removeIf(edge -> edge >= toTick);
        if (!edges.isEmpty()) {
            edges.add(toTick);
        }
        return edges;
    }

    /** The same cut at the bar lines in which chords begin; one struck a little before a bar line is of the bar behind it. */
    public List<Long> chordBars(String part, long fromTick, long toTick, MeterMap meter) {
        long bar = meter.at(0).barTicks();
        long early = meter.at(0).beatTicks() / LATE_FINGERS;
        List<Long> starts = chords(part, fromTick, toTick, meter);
        TreeSet<Long> lines = new TreeSet<>();
        for (int i = 0; i + 1 < starts.size(); i++) {
            lines.add(Math.max(fromTick, Math.floorDiv(starts.get(i) + early, bar) * bar));
        }
        lines.removeIf(line -> line >= toTick);
        if (!lines.isEmpty()) {
            lines.add(toTick);
        }
        return List.copyOf(lines);
    }
}
