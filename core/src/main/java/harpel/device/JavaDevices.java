package harpel.device;

import harpel.port.InputPort;
import harpel.port.OutputPort;
import java.util.ArrayList;
import java.util.List;
import java.util.function.LongSupplier;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Sequencer;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Synthesizer;
import org.slf4j.LoggerFactory;

/** The MIDI devices of this machine, as the JDK finds them. */
public final class JavaDevices implements MachineDevices {
    private static final long LONGEST_AGO_NANOS = 250_000_000;

    private record Device(String name, boolean isInput, MidiDevice device) implements Found {
        @Override
        public AutoCloseable openInput(InputPort to) throws MidiUnavailableException {
            device.open();
            device.getTransmitter().setReceiver(receiver(to, System::nanoTime, device::getMicrosecondPosition));
            return device::close;
        }

        @Override
        public OutputPort openOutput() throws MidiUnavailableException {
            return ReceiverPort.open(name, device);
        }
    }

    @Override
    public List<Found> found() {
        List<Found> found = new ArrayList<>();
        for (MidiDevice.Info info : MidiSystem.getMidiDeviceInfo()) {
            try {
                MidiDevice device = MidiSystem.getMidiDevice(info);
                boolean software = device instanceof Synthesizer || device instanceof Sequencer;
                if (!software && device.getMaxTransmitters() != 0) {
                    found.add(new Device(info.getName(), true, device));
                } else if (!software && device.getMaxReceivers() != 0) {
                    found.add(new Device(info.getName(), false, device));
                }
            } catch (MidiUnavailableException | IllegalArgumentException e) {
                // It went away while it was looked at.
                LoggerFactory.getLogger(JavaDevices.class).debug("{} is not there: {}", info.getName(), e.getMessage());
            }
        }
        return found;
    }

    /**
     * Hands what a device sends to the engine: what is played, and clocks; other system messages are nothing to it. It was played when the
     * device says so, where it does, and not when it has come through here.
     *
     * @param clock as {@link System#nanoTime}
     * @param position the device's own time, in microseconds; below 0 where it has none
     */
    static Receiver receiver(InputPort port, LongSupplier clock, LongSupplier position) {
        return new Receiver() {
            @Override
            public void send(MidiMessage message, long timeStamp) {
                if (message instanceof ShortMessage shortMessage
                        && (shortMessage.getStatus() < 0xF0 || isClock(shortMessage.getStatus()))) {
                    port.offer(
                            shortMessage.getStatus(),
                            shortMessage.getData1(),
                            shortMessage.getData2(),
                            clock.getAsLong() - agoNanos(timeStamp));
                }
            }

            private long agoNanos(long timeStamp) {
                long now = position.getAsLong();
                long ago = timeStamp < 0 || now < 0 ? 0 : (now - timeStamp) * 1_000;
                // What lies further back is another time than that of the device.
                return ago > LONGEST_AGO_NANOS ? 0 : Math.max(0, ago);
            }

            @Override
            public void close() {
                // the device is closed by who opened it
            }
        };
    }

    private static boolean isClock(int status) {
        return status == ShortMessage.TIMING_CLOCK
                || status == ShortMessage.START
                || status == ShortMessage.CONTINUE
                || status == ShortMessage.STOP
                || status == ShortMessage.SONG_POSITION_POINTER;
    }
}
