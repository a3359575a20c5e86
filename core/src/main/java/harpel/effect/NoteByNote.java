package harpel.effect;

import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import java.util.IdentityHashMap;
import java.util.Map;

/** An effect that turns each note into one other, or none, and ends it where the note ends. */
public abstract class NoteByNote implements Effect {
    private final Map<NoteStart, NoteStart> sent = new IdentityHashMap<>();

    /** What this note becomes: itself to pass it on, another at the same tick, or null to drop it. */
    protected abstract NoteStart change(NoteStart note, Emitter out);

    @Override
    public final void start(NoteStart note, Emitter out) {
        NoteStart changed = change(note, out);
        if (changed != null) {
            sent.put(note, changed);
            out.start(changed);
        }
    }

    @Override
    public final void end(NoteEnd end, Emitter out) {
        NoteStart changed = sent.remove(end.start());
        if (changed != null) {
            out.end(changed, end.tick(), end.releaseVelocity());
        }
    }
}
