package harpel.app.perform;

import harpel.app.look.Messages;
import harpel.control.ControllerMap;
import java.util.Optional;

/** Learns which note of a controller plays which pad, by touching both: a pad on the screen, then one of the device. Interface thread. */
public final class PadLearning {
    /** A note of the device that plays another pad already than the one it was to be learnt for; both counted from 0. */
    public record Conflict(int note, int plays, int wanted) {}

    private final Messages messages;
    private final ControllerDesk desk;
    /** Looked at by the thread of the device, too. */
    private volatile boolean on;
    /** The pad that was touched; -1 for none. */
    private int pad = -1;

    private Conflict conflict;

    PadLearning(Messages messages, ControllerDesk desk) {
        this.messages = messages;
        this.desk = desk;
    }

    public boolean isOn() {
        return on;
    }

    public void turn(boolean nowOn) {
        on = nowOn;
        forget();
        messages.say(on ? "Press a pad here, then one of the device." : "");
        desk.changed();
    }

    /** Another device or map is in hand: what was touched for the one before counts no more. */
    void forget() {
        pad = -1;
        conflict = null;
    }

    /** A pad is touched on the screen; false when nothing is learnt. */
    public boolean touched(int at) {
        if (!on) {
            return false;
        }
        pad = at;
        conflict = null;
        desk.changed();
        messages.say("Pad " + (at + 1) + ": now press one of the device.");
        return true;
    }

    /**
     * A pad of the device is pressed; false when none of the screen was touched before.
     *
     * @param leads whether it leads to other hands, which it always does
     */
    boolean pressed(int note, boolean leads) {
        if (pad < 0) {
            return false;
        }
        Integer other = desk.map().learnt().get(note);
        if (leads) {
            messages.say(
                    "Note " + note + " leads between board, pads, parts and keys: press another pad of the device.");
        } else if (other != null && other != pad) {
            conflict = new Conflict(note, other, pad);
            pad = -1;
            messages.say("Note " + note + " plays pad " + (other + 1) + " already.");
            desk.changed();
        } else {
            learn(note, pad);
        }
        return true;
    }

    /** A note that plays a pad already, and was touched for another: which holds is to be said. */
    public Optional<Conflict> conflict() {
        return Optional.ofNullable(conflict);
    }

    /** Says whether the wanted pad takes the note, or all stays as it was. */
    public void resolve(boolean take) {
        Conflict now = conflict;
        conflict = null;
        if (now != null && take && desk.map() != null) {
            learn(now.note, now.wanted);
        } else if (now != null) {
            messages.say("Note " + now.note + " plays pad " + (now.plays + 1) + " as before.");
            desk.changed();
        }
    }

    private void learn(int note, int to) {
        ControllerMap with = desk.map().withLearnt(note, to);
        messages.say("Note " + note + " plays pad " + (to + 1) + " now.");
        pad = -1;
        desk.replace(with);
    }
}
