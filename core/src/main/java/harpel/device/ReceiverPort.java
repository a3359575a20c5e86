package harpel.device;

import harpel.port.OutputPort;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.SysexMessage;

/** A MIDI device of the machine. */
public final class ReceiverPort implements OutputPort {
    private final String name;
    private final MidiDevice device;
    private Receiver receiver;

    private ReceiverPort(String name, MidiDevice device, Receiver receiver) {
        this.name = name;
        this.device = device;
        this.receiver = receiver;
    }

    /** @throws MidiUnavailableException when the machine does not let it open */
    public static ReceiverPort open(String name, MidiDevice device) throws MidiUnavailableException {
        device.open();
        return new ReceiverPort(name, device, device.getReceiver());
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public void send(byte[] message, long dueNanos) {
        try {
            receiver.send(toMidi(message), -1);
        } catch (InvalidMidiDataException e) {
            throw new IllegalArgumentException(
                    "not a MIDI message: " + java.util.HexFormat.of().formatHex(message), e);
        }
    }

    @Override
    public void reopen() throws MidiUnavailableException {
        receiver.close();
        device.close();
        device.open();
        receiver = device.getReceiver();
    }

    private static MidiMessage toMidi(byte[] message) throws InvalidMidiDataException {
        int status = message[0] & 0xFF;
        if (status == 0xF0 || status == 0xF7) {
            return new SysexMessage(message, message.length);
        }
        int data1 = message.length > 1 ? message[1] : 0;
        int data2 = message.length > 2 ? message[2] : 0;
        return new ShortMessage(status, data1, data2);
    }

    @Override
    public void close() {
        receiver.close();
        device.close();
    }
}
