package harpel.sound;

import harpel.device.SoundBank;
import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.util.Map;
import java.util.Objects;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Synthesizer;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;

/**
 * The software synthesizer of the Java platform, read as a stream instead of heard. The platform's own interface for that lies in a
 * package it does not export; whoever starts the program adds it ({@code --add-exports java.desktop/com.sun.media.sound=ALL-UNNAMED}).
 */
final class Synth implements AutoCloseable {
    private static final String STREAMS = "com.sun.media.sound.AudioSynthesizer";
    /** How often a second controls and starts are looked at; more often is slower, seldomer lets starts be late. */
    private static final float CONTROL_RATE = 300f;

    private static final int MOST_VOICES = 256;

    private final Synthesizer synthesizer;
    private final AudioInputStream stream;
    private final Receiver receiver;

    private Synth(Synthesizer synthesizer, AudioInputStream stream) throws MidiUnavailableException {
        this.synthesizer = synthesizer;
        this.stream = stream;
        this.receiver = synthesizer.getReceiver();
    }

    /** One for files. */
    static Synth open(AudioFormat format, SoundBank bank) throws IOException {
        return open(format, bank, CONTROL_RATE);
    }

    /**
     * @param bank sounds in place of built-in ones, or null
     * @param controlRate how often a second controls and starts are looked at
     */
    static Synth open(AudioFormat format, SoundBank bank, float controlRate) throws IOException {
        try {
            Synthesizer synthesizer = MidiSystem.getSynthesizer();
            Map<String, Object> settings =
                    Map.of("control rate", controlRate, "max polyphony", MOST_VOICES, "load default soundbank", true);
            AudioInputStream stream = (AudioInputStream) Class.forName(STREAMS)
                    .getMethod("openStream", AudioFormat.class, Map.class)
                    .invoke(synthesizer, format, settings);
            Synth synth = new Synth(synthesizer, stream);
            if (bank != null) {
                bank.load(synthesizer);
            }
            return synth;
        } catch (MidiUnavailableException | ReflectiveOperationException | IllegalArgumentException e) {
            Throwable why = e instanceof InvocationTargetException ? e.getCause() : e;
            throw new IOException("this Java platform's synthesizer cannot be read as a stream: " + why, e);
        }
    }

    static MidiMessage message(byte[] bytes) {
        try {
            return bytes.length == 2
                    ? new ShortMessage(bytes[0] & 0xFF, bytes[1], 0)
                    : new ShortMessage(bytes[0] & 0xFF, bytes[1], bytes[2]);
        } catch (InvalidMidiDataException e) {
            throw new IllegalArgumentException("no MIDI message: " + Objects.toString(e.getMessage()), e);
        }
    }

    /** Plays a message so many microseconds after the beginning of the stream. */
    void send(MidiMessage message, long micros) {
        receiver.send(message, micros);
    }

    /** Fills a block with what comes next; gives how many bytes there are. */
    int read(byte[] block) throws IOException {
        int filled = 0;
        while (filled < block.length) {
            int length = stream.read(block, filled, block.length - filled);
            if (length < 0) {
                return filled;
            }
            filled += length;
        }
        return filled;
    }

    /** Gives back the sounds of one bank and takes those of another; null for none. */
    void use(SoundBank before, SoundBank bank) throws IOException {
        if (before != null) {
            before.unload(synthesizer);
        }
        if (bank != null) {
            bank.load(synthesizer);
        }
    }

    @Override
    public void close() throws IOException {
        stream.close();
        synthesizer.close();
    }
}
