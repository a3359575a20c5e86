package harpel.effect;

import harpel.event.NoteStart;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;

/** The notes that count as held: keys that are down, and what a latch or the pedal holds after they were let go. */
public final class HeldNotes {
    /** What happens to a key that is let go. */
    public enum Hold {
        /** It no longer counts. */
        OFF,
        /** It stays until the first key after all were let go. */
        REPLACE,
        /** It stays until let go by the action. */
        ADD,
        /** It stays until the same key is pressed again. */
        TOGGLE
    }

    private static final class Entry {
        final NoteStart note;
        boolean down = true;
        boolean latched;
        /** Let go while the pedal was down, and that has not come up since. */
        boolean pedalled;

        Entry(NoteStart note) {
            this.note = note;
        }
    }

    private final List<Entry> entries = new ArrayList<>();
    private Hold hold = Hold.OFF;
    private boolean pedal;
    private boolean stopped;

    /** Changes the rule; what the old rule held and the new does not is released. */
    public List<NoteStart> hold(Hold newHold) {
        hold = newHold;
        if (hold != Hold.OFF) {
            return List.of();
        }
        entries.forEach(entry -> entry.latched = false);
        return release(entry -> !entry.down && !pedal);
    }

    /** Whether any key is down now, or held by the pedal as if it were: what is played then joins it. */
    public boolean anyKeyDown() {
        return entries.stream().anyMatch(entry -> entry.down || entry.pedalled);
    }

    public boolean isEmpty() {
        return entries.isEmpty();
    }

    /** Whether anything is held that no key holds. */
    public boolean anyHeldWithoutKey() {
        return entries.stream().anyMatch(entry -> !entry.down);
    }

    /**
     * Takes a key that was pressed. The notes in {@code released} no longer count.
     *
     * @return false when the key only switched off a held one, and does not itself count
     */
    public boolean press(NoteStart note, List<NoteStart> released) {
        if (hold == Hold.TOGGLE && entries.stream().anyMatch(entry -> samePitch(entry, note))) {
            released.addAll(release(entry -> samePitch(entry, note)));
            return false;
        }
        if (hold == Hold.REPLACE && !anyKeyDown()) {
            released.addAll(release(entry -> true));
        }
        released.addAll(release(entry -> !entry.down && samePitch(entry, note)));
        entries.add(new Entry(note));
        return true;
    }

    /** Takes a key that was let go; true when the note no longer counts. */
    public boolean letKeyGo(NoteStart note) {
        for (Iterator<Entry> all = entries.iterator(); all.hasNext(); ) {
            Entry entry = all.next();
            if (entry.note == note) {
                entry.down = false;
                entry.pedalled = pedal && !stopped;
                entry.latched = hold != Hold.OFF && !stopped;
                if (!entry.latched && (!pedal || stopped)) {
                    all.remove();
                    return true;
                }
                return false;
            }
        }
        return false;
    }

    /** The sustain pedal went down or up; returns what no longer counts. */
    public List<NoteStart> pedal(boolean down) {
        pedal = down;
        entries.forEach(entry -> entry.pedalled &= down);
        return down ? List.of() : release(entry -> !entry.down && !entry.latched);
    }

    /** Releases everything that no key holds. */
    public List<NoteStart> letGo() {
        return release(entry -> !entry.down);
    }

    /** Holds nothing without a key from now on, so that what rings out upstream is not held for ever; returns what no longer counts. */
    public List<NoteStart> stopHolding() {
        stopped = true;
        return letGo();
    }

    /** The notes that count, in the order they were played. */
    public List<NoteStart> notes() {
        return entries.stream().map(entry -> entry.note).toList();
    }

    private static boolean samePitch(Entry entry, NoteStart note) {
        return entry.note.pitch() == note.pitch() && entry.note.channel() == note.channel();
    }

    private List<NoteStart> release(java.util.function.Predicate<Entry> which) {
        List<NoteStart> gone = new ArrayList<>();
        entries.removeIf(entry -> which.test(entry) && gone.add(entry.note));
        return gone;
    }
}
