package harpel.app.phrase;

import harpel.app.session.Session;
import harpel.phrase.Note;

/** Notes that are heard as they are touched in the roll. What is only touched is neither stepped in nor recorded. Interface thread. */
final class RollTouch {
    private final Session session;
    private int sounding = -1;

    RollTouch(Session session) {
        this.session = session;
    }

    private boolean isHeard() {
        return !session.desk().stepping().get() && !session.recorder().armed().get();
    }

    /** A pitch sounds until another does, or {@link #letGo}. */
    void hold(int pitch, int velocity) {
        if (pitch != sounding && isHeard()) {
            letGo();
            sounding = pitch;
            session.transport().press(pitch, velocity);
        }
    }

    void letGo() {
        if (sounding >= 0) {
            session.transport().release(sounding);
            sounding = -1;
        }
    }

    /** A note sounds for a moment. */
    void tap(Note note) {
        if (isHeard()) {
            session.transport().touch(note.pitch(), note.velocity());
        }
    }
}
