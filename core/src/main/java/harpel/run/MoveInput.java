package harpel.run;

import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteStart;

/** What has come to a stage, as far as it moves anything there. Owned by the renderer. */
final class MoveInput {
    private final byte[] controllers = new byte[128];
    private NoteStart last;
    private long notes;
    private int held;
    private int pressure;
    private int keyPressure;

    void hear(Event event) {
        if (event instanceof NoteStart note) {
            notes = last != null && note.tick() == last.tick() ? notes + 1 : 0;
            last = note;
        } else if (event instanceof Message message) {
            switch (message.status() & 0xF0) {
                case Message.CONTROL_CHANGE -> controllers[message.data(1)] = (byte) message.data(2);
                case Message.CHANNEL_PRESSURE -> pressure = message.data(1);
                case Message.POLY_PRESSURE -> keyPressure = message.data(2);
                default -> {}
            }
        }
    }

    void hold(int newHeld) {
        held = newHeld;
    }

    /** The last note that came; null before the first. */
    NoteStart last() {
        return last;
    }

    /** How many notes came before the last one at its tick. */
    long before() {
        return notes;
    }

    int held() {
        return held;
    }

    int controller(int number) {
        return controllers[number];
    }

    int pressure() {
        return pressure;
    }

    int keyPressure() {
        return keyPressure;
    }
}
