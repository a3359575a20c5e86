package harpel.port;

import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;

/** Events as the bytes of MIDI 1.0. */
public final class MidiBytes {
    private MidiBytes() {}

    public static byte[] of(Event event) {
        if (event instanceof NoteStart note) {
            return new byte[] {(byte) (0x90 | note.channel()), (byte) note.pitch(), (byte) note.velocity()};
        }
        if (event instanceof NoteEnd end) {
            return new byte[] {(byte) (0x80 | end.channel()), (byte) end.start().pitch(), (byte) end.releaseVelocity()};
        }
        return ((Message) event).bytes();
    }

    static byte[] control(int channel, int controller, int value) {
        return new byte[] {(byte) (Message.CONTROL_CHANGE | channel), (byte) controller, (byte) value};
    }
}
