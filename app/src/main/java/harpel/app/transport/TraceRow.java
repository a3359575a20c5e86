package harpel.app.transport;

import harpel.app.transport.TraceStore.Drawn;
import harpel.app.transport.TraceStore.Mark;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** The notes that lately left a place, rising in tick. Owned by the interface thread. */
final class TraceRow {
    /** Among the last so many notes is the one that ends last, or nearly. */
    static final int LOOKED_BACK = 64;

    /** So few are kept whatever else there is. */
    private static final int FEW = 64;

    private static final int SHARE = 8;

    final List<Drawn> notes = new ArrayList<>();
    final Map<NoteStart, Drawn> open = new HashMap<>();
    /** Bends, controllers and what was lost, rising in tick. */
    final ArrayList<Mark> marks = new ArrayList<>();

    /** The longest of those that have ended. */
    long longest;

    void start(NoteStart note, boolean away) {
        Drawn drawn = new Drawn(note, away);
        notes.add(drawn);
        open.put(note, drawn);
    }

    void end(NoteEnd end) {
        Drawn drawn = open.remove(end.start());
        if (drawn != null) {
            drawn.endTick = end.tick();
            longest = Math.max(longest, end.tick() - drawn.note.tick());
        }
    }

    /** Where the last of it is drawn. */
    long last() {
        long last = Long.MIN_VALUE;
        // Ends rise with starts but for the lengths of notes.
        for (int i = Math.max(0, notes.size() - LOOKED_BACK); i < notes.size(); i++) {
            Drawn drawn = notes.get(i);
            last = Math.max(last, drawn.sounds() ? drawn.startTick() + 1 : drawn.endTick);
        }
        return last;
    }

    /** Ends what sounds and moves all to the left. */
    void move(long by, long end) {
        endAll(end);
        for (Drawn drawn : notes) {
            drawn.moved -= by;
            drawn.endTick -= by;
        }
        marks.forEach(mark -> mark.tick -= by);
    }

    /** The place of the first note at or after a tick. */
    int firstAt(double tick) {
        int low = 0;
        int high = notes.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (notes.get(middle).startTick() < tick) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** How much is kept. */
    int size() {
        return notes.size() + marks.size();
    }

    /** Where the first note is drawn; {@link Long#MAX_VALUE} where so little is kept that it stays. */
    long oldest() {
        return size() < FEW ? Long.MAX_VALUE : firstTick();
    }

    private long firstTick() {
        long note = notes.isEmpty() ? Long.MAX_VALUE : notes.get(0).startTick();
        return marks.isEmpty() ? note : Math.min(note, marks.get(0).tick);
    }

    /** Gives up what is oldest; gives how much that was. */
    int dropOldest() {
        int before = size();
        int gone = share(notes.size());
        List<Drawn> old = notes.subList(0, gone);
        old.forEach(drawn -> open.remove(drawn.note));
        old.clear();
        int marked = 0;
        if (notes.isEmpty()) {
            marked = share(marks.size());
        } else {
            while (marked < marks.size()
                    && marks.get(marked).tick < notes.get(0).startTick()) {
                marked++;
            }
        }
        marks.subList(0, marked).clear();
        return before - size();
    }

    private static int share(int size) {
        return Math.min(size, Math.max(FEW / 2, size / SHARE));
    }

    /** Ends what sounds where it is not known any more when it did. */
    void endAll(long tick) {
        open.values().forEach(drawn -> {
            drawn.end(Math.max(drawn.startTick() + 1, tick));
            longest = Math.max(longest, drawn.endTick() - drawn.startTick());
        });
        open.clear();
    }
}
