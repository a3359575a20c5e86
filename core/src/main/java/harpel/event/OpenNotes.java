package harpel.event;

import java.util.ArrayList;
import java.util.List;

/** The ledger of notes that have started and not ended. One writer. */
public final class OpenNotes {
    private final NoteMap<NoteStart> open = new NoteMap<>();

    /**
     * Notes that a note has started.
     *
     * @throws IllegalStateException when it had started already: an effect's mistake, never a user's
     */
    public void started(NoteStart note) {
        if (open.put(note, note) != null) {
            throw new IllegalStateException("one note was started twice: " + note);
        }
    }

    /** Notes an end; false when the note is not open, so that its end must not be sent again. */
    public boolean ended(NoteStart note) {
        return open.remove(note) != null;
    }

    public boolean isOpen(NoteStart note) {
        return open.containsKey(note);
    }

    public boolean isEmpty() {
        return open.isEmpty();
    }

    public int size() {
        return open.size();
    }

    /** The open notes in the order of events. */
    public List<NoteStart> inOrder() {
        List<NoteStart> notes = new ArrayList<>(open.size());
        open.forEach((note, same) -> notes.add(note));
        notes.sort(EventOrder.INSTANCE);
        return notes;
    }

    public void clear() {
        open.clear();
    }
}
