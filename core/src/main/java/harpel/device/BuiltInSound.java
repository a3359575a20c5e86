package harpel.device;

import harpel.port.Ports;
import java.io.IOException;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Synthesizer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The software synthesizer of the machine, which plays the built-in sounds. */
public final class BuiltInSound {
    /** Held, since what is set of it is forgotten with it. */
    private java.util.logging.Logger preferences;

    /** The software synthesizer, if it is open. */
    private Synthesizer synthesizer;
    /** What stands in for its own sounds, or null. */
    private SoundBank bank;

    /** Opens the software synthesizer; gives in words why there is no sound, or nothing. Takes up to a second. */
    public String openSound(Ports ports) {
        // The first time, the synthesizer makes itself preferences, of which Java tells everyone on standard error.
        preferences = java.util.logging.Logger.getLogger("java.util.prefs");
        preferences.setLevel(java.util.logging.Level.WARNING);
        try {
            openSynthesizer(MidiSystem.getSynthesizer(), ports);
            return "";
        } catch (MidiUnavailableException | IllegalArgumentException e) {
            log().info("no sound: {}", e.getMessage());
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
                log().warn("the sounds were not taken again: {}", e.getMessage());
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

    private static Logger log() {
        return LoggerFactory.getLogger(BuiltInSound.class);
    }
}
