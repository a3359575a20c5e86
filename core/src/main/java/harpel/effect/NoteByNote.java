package harpel.effect;

import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.time.Ticks;

/** An effect that turns each note into one other, or none, which ends where the note ends. */
public abstract class NoteByNote implements Effect {
    /** What this note becomes: itself to pass it on, another at the same tick, or null to drop it. */
    public abstract NoteStart change(NoteStart note, Emitter out);

    /** It has no steps of its own. */
    @Override
    public final long nextStep() {
        return Ticks.NEVER;
    }

    @Override
    public final void start(NoteStart note, Emitter out) {
        NoteStart changed = change(note, out);
        if (changed != null) {
            out.follow(note, changed);
        }
    }

    @Override
    public final void end(NoteEnd end, Emitter out) {
        // What was dropped ends unheard; all else follows its note.
    }
}
