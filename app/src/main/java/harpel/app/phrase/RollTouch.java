package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.desk.Recorder;
import harpel.app.transport.Transport;
import harpel.phrase.Note;

/** Notes that are heard as they are touched in the roll. What is only touched is neither stepped in nor recorded. Interface thread. */
final class RollTouch {
    private final Transport transport;
    private final PhraseDesk desk;
    private final Recorder recorder;
    private int sounding = -1;

    RollTouch(Transport transport, PhraseDesk desk, Recorder recorder) {
        this.transport = transport;
        this.desk = desk;
        this.recorder = recorder;
    }

    private boolean isHeard() {
        return !desk.stepping().get() && !recorder.armed().get();
    }

    /** A pitch sounds until another does, or {@link #letGo}. */
    void hold(int pitch, int velocity) {
        if (pitch != sounding && isHeard()) {
            letGo();
            sounding = pitch;
            transport.audition(pitch, velocity);
        }
    }

    void letGo() {
        if (sounding >= 0) {
            transport.letGo(sounding);
            sounding = -1;
        }
    }

    /** A note sounds for a moment. */
    void tap(Note note) {
        if (isHeard()) {
            transport.touch(note.pitch(), note.velocity());
        }
    }
}
