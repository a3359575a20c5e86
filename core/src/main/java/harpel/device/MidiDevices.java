package harpel.device;

import harpel.engine.InputPort;
import harpel.engine.LiveEngine;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Sequencer;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Synthesizer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The MIDI devices and the synthesizer of the machine. */
public final class MidiDevices implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(MidiDevices.class);

    private final List<MidiDevice> opened = new ArrayList<>();
    /** The software synthesizer, if it is open. */
    private Synthesizer synthesizer;
    /** What stands in for its own sounds, or null. */
    private SoundBank bank;

    /** What became of opening the machine's devices. {@code sound} says in words why there is none, or is empty. */
    public record Report(List<String> inputs, List<String> outputs, String noSound) {}

    /** Opens every MIDI input and output and the software synthesizer; what does not open is left out and said. Takes up to a second. */
    public Report openAll(LiveEngine engine, Ports ports) {
        List<String> inputs = new ArrayList<>();
        List<String> outputs = new ArrayList<>();
        for (MidiDevice.Info info : MidiSystem.getMidiDeviceInfo()) {
            try {
                MidiDevice device = MidiSystem.getMidiDevice(info);
                if (device instanceof Synthesizer || device instanceof Sequencer) {
                    continue;
                }
                if (device.getMaxTransmitters() != 0) {
                    openInput(device, engine);
                    inputs.add(info.getName());
                } else if (device.getMaxReceivers() != 0) {
                    ports.add(info.getName(), ReceiverPort.open(info.getName(), device));
                    outputs.add(info.getName());
                }
            } catch (MidiUnavailableException | IllegalArgumentException e) {
                LOG.info("{} does not open: {}", info.getName(), e.getMessage());
            }
        }
        return new Report(inputs, outputs, openSynthesizer(ports));
    }

    private void openInput(MidiDevice device, LiveEngine engine) throws MidiUnavailableException {
        device.open();
        opened.add(device);
        device.getTransmitter()
                .setReceiver(receiver(engine.openInput(device.getDeviceInfo().getName())));
    }

    /** Hands what a device sends to the engine: what is played, and clocks; other system messages are nothing to it. */
    static Receiver receiver(InputPort port) {
        return new Receiver() {
            @Override
            public void send(MidiMessage message, long timeStamp) {
                if (message instanceof ShortMessage shortMessage
                        && (shortMessage.getStatus() < 0xF0 || isClock(shortMessage.getStatus()))) {
                    port.offer(
                            shortMessage.getStatus(),
                            shortMessage.getData1(),
                            shortMessage.getData2(),
                            System.nanoTime());
                }
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

    private String openSynthesizer(Ports ports) {
        try {
            openSynthesizer(MidiSystem.getSynthesizer(), ports);
            return "";
        } catch (MidiUnavailableException | IllegalArgumentException e) {
            LOG.info("no sound: {}", e.getMessage());
            return "This machine has no sound device: notes are computed, shown and sent to MIDI outputs, but not heard here.";
        }
    }

    synchronized void openSynthesizer(Synthesizer synth, Ports ports) throws MidiUnavailableException {
        ports.add(Ports.BUILT_IN, ReceiverPort.open("Built-in sounds", synth, () -> loadAgain(synth)));
        synthesizer = synth;
    }

    /** A synthesizer that is opened has its own sounds only. */
    private synchronized void loadAgain(Synthesizer synth) {
        if (bank != null) {
            try {
                bank.load(synth);
            } catch (IOException e) {
                LOG.warn("the sounds were not taken again: {}", e.getMessage());
            }
        }
    }

    /**
     * Lets other sounds stand in for the built-in ones from now on. Takes up to seconds.
     *
     * @param newBank null for the built-in ones
     */
    public synchronized void useSounds(SoundBank newBank, Ports ports) throws IOException {
        SoundBank before = bank;
        bank = newBank;
        if (synthesizer == null) {
            return;
        }
        if (before != null) {
            before.unload(synthesizer);
        }
        if (newBank != null) {
            newBank.load(synthesizer);
        }
        ports.tellAnew(Ports.BUILT_IN);
    }

    @Override
    public void close() {
        opened.forEach(MidiDevice::close);
    }
}
