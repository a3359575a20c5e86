package harpel.app;

import harpel.engine.Tap;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/** The notes that lately left each place, for the traces. Owned by the interface thread. */
public final class TraceStore {
    private static final int MOST_NOTES = 4000;
    private static final int MOST_LINES = 200;

    /** A note as it is drawn; it ends at {@link Long#MAX_VALUE} while it sounds. */
    public static final class Drawn {
        public final NoteStart note;
        private long endTick = Long.MAX_VALUE;

        Drawn(NoteStart note) {
            this.note = note;
        }

        public long endTick() {
            return endTick;
        }

        public boolean sounds() {
            return endTick == Long.MAX_VALUE;
        }
    }

    private static final class Row {
        final Deque<Drawn> notes = new ArrayDeque<>();
        final Map<NoteStart, Drawn> open = new IdentityHashMap<>();
    }

    private final Map<String, Row> rows = new HashMap<>();
    private final Map<String, Deque<String>> said = new HashMap<>();
    private final Map<String, ParamSet> moved = new HashMap<>();
    private long saidCount;
    private long count;

    public void take(TraceQueue.Left left) {
        if (left.text() != null) {
            Deque<String> lines = said.computeIfAbsent(left.place(), place -> new ArrayDeque<>());
            lines.addLast(left.text());
            if (lines.size() > MOST_LINES) {
                lines.removeFirst();
            }
            saidCount++;
            return;
        }
        if (left.values() != null) {
            moved.put(left.place(), left.values());
            return;
        }
        if (left.event() == null) {
            rows.clear();
            return;
        }
        Row row = rows.computeIfAbsent(key(left.part(), left.place()), place -> new Row());
        if (left.event() instanceof NoteStart note) {
            Drawn drawn = new Drawn(note);
            row.notes.add(drawn);
            row.open.put(note, drawn);
            count++;
            if (row.notes.size() > MOST_NOTES) {
                row.open.remove(row.notes.removeFirst().note);
            }
        } else if (left.event() instanceof NoteEnd end) {
            Drawn drawn = row.open.remove(end.start());
            if (drawn != null) {
                drawn.endTick = end.tick();
            }
        }
    }

    private static String key(String part, String place) {
        return place.equals(Tap.INPUT) || place.equals(Tap.SOUND) ? part + "|" + place : place;
    }

    /** What a stage has said lately, oldest first. */
    public List<String> said(String place) {
        return List.copyOf(said.getOrDefault(place, new ArrayDeque<>()));
    }

    /** How much has been said in all, to know whether anything is new. */
    public long saidCount() {
        return saidCount;
    }

    /** Forgets what a stage has said. */
    public void forgetSaid(String place) {
        said.remove(place);
        saidCount++;
    }

    /** The values that a stage was moved to last, or null. */
    public ParamSet moved(String place) {
        return moved.get(place);
    }

    /** How many notes have been taken in all, to know whether anything is new. */
    public long count() {
        return count;
    }

    /** The notes of a place, oldest first. */
    public Collection<Drawn> notes(String part, String place) {
        Row row = rows.get(key(part, place));
        return row == null ? List.of() : row.notes;
    }

    /** The pitches that sound at a place. */
    public Set<Integer> sounding(String part, String place) {
        Set<Integer> pitches = new TreeSet<>();
        Row row = rows.get(key(part, place));
        if (row != null) {
            row.open.keySet().forEach(note -> pitches.add(note.pitch()));
        }
        return pitches;
    }

    /** The notes of a place that sound or sounded in a stretch of time. */
    public List<Drawn> within(String part, String place, long fromTick, long toTick) {
        List<Drawn> found = new ArrayList<>();
        for (Drawn drawn : notes(part, place)) {
            if (drawn.note.tick() < toTick && drawn.endTick > fromTick) {
                found.add(drawn);
            }
        }
        return found;
    }
}
