package harpel.sound;

import harpel.device.SoundBank;
import harpel.event.Message;
import harpel.piece.Preset;
import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javax.sound.midi.Instrument;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Synthesizer;
import javax.sound.midi.VoiceStatus;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The software synthesizer of the Java platform, read as a stream instead of heard. The platform's own interface for that lies in a
 * package it does not export; whoever starts the program adds it ({@code --add-exports java.desktop/com.sun.media.sound=ALL-UNNAMED}).
 */
final class Synth implements AutoCloseable {
    static final int CHANNELS = 2;
    private static final int SAMPLE_BYTES = 4;
    private static final int FRAME_BYTES = SAMPLE_BYTES * CHANNELS;
    private static final String STREAMS = "com.sun.media.sound.AudioSynthesizer";
    /** How often a second controls and starts are looked at; more often is slower, seldomer lets starts be late. */
    private static final float CONTROL_RATE = 300f;

    /** As many as one part can use. */
    static final int MOST_VOICES = 64;

    private static final int CHANNEL_COUNT = 16;

    private final Synthesizer synthesizer;
    private final AudioInputStream stream;
    private final Receiver receiver;
    private byte[] block = {};
    /** The sounds it has; only those that are used, since all would take a megabyte in each synthesizer. */
    private final Map<Preset, List<Instrument>> loaded = new LinkedHashMap<>();

    private final int[] banks = new int[CHANNEL_COUNT];
    private SoundBank bank;

    private Synth(Synthesizer synthesizer, AudioInputStream stream, SoundBank bank) throws MidiUnavailableException {
        this.bank = bank;
        this.synthesizer = synthesizer;
        this.stream = stream;
        this.receiver = synthesizer.getReceiver();
    }

    /** One for files. */
    static Synth open(float rate, SoundBank bank) throws IOException {
        return open(rate, bank, CONTROL_RATE, MOST_VOICES);
    }

    /**
     * @param rate frames a second
     * @param bank sounds in place of built-in ones, or null
     * @param controlRate how often a second controls and starts are looked at
     * @param voices so many notes sound at once
     */
    static Synth open(float rate, SoundBank bank, float controlRate, int voices) throws IOException {
        AudioFormat format = new AudioFormat(
                AudioFormat.Encoding.PCM_FLOAT, rate, 8 * SAMPLE_BYTES, CHANNELS, FRAME_BYTES, rate, false);
        try {
            Synthesizer synthesizer = MidiSystem.getSynthesizer();
            Map<String, Object> settings =
                    Map.of("control rate", controlRate, "max polyphony", voices, "load default soundbank", false);
            AudioInputStream stream = (AudioInputStream) Class.forName(STREAMS)
                    .getMethod("openStream", AudioFormat.class, Map.class)
                    .invoke(synthesizer, format, settings);
            Synth synth = new Synth(synthesizer, stream, bank);
            // What is heard before any sound is asked for: the piano, and the drums of channel 10.
            synth.load(Preset.of(0));
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

    /**
     * Adds what comes next to samples, 1 being full scale, as many as there are.
     *
     * @return the loudest of what was added
     */
    float addTo(float[] samples) throws IOException {
        int length = SAMPLE_BYTES * samples.length;
        if (block.length < length) {
            block = new byte[length];
        }
        if (stream.readNBytes(block, 0, length) < length) {
            throw new IOException("the synthesizer gives no more sound");
        }
        float loudest = 0;
        for (int i = 0; i < samples.length; i++) {
            int at = SAMPLE_BYTES * i;
            // The lowest byte first, as an IEEE 754 number.
            float sample = Float.intBitsToFloat(block[at] & 0xFF
                    | (block[at + 1] & 0xFF) << 8
                    | (block[at + 2] & 0xFF) << 16
                    | block[at + 3] << 24);
            loudest = Math.max(loudest, Math.abs(sample));
            samples[i] += sample;
        }
        return loudest;
    }

    /** How many voices are free. */
    int freeVoices() {
        int free = 0;
        for (VoiceStatus voice : synthesizer.getVoiceStatus()) {
            free += voice.active ? 0 : 1;
        }
        return free;
    }

    boolean isQuiet() {
        return freeVoices() == synthesizer.getMaxPolyphony();
    }

    /** Makes ready what a message that will be sent asks for; from any thread. */
    synchronized void prepare(byte[] message) {
        int channel = message[0] & 0x0F;
        int kind = message[0] & 0xF0;
        if (kind == Message.CONTROL_CHANGE && message[1] == Message.BANK) {
            banks[channel] = banks[channel] & 0x7F | message[2] << 7;
        } else if (kind == Message.CONTROL_CHANGE && message[1] == Message.BANK_FINE) {
            banks[channel] = banks[channel] & ~0x7F | message[2];
        } else if (kind == Message.PROGRAM_CHANGE) {
            try {
                load(Preset.of(message[1]));
                load(new Preset(banks[channel], message[1]));
            } catch (IOException e) {
                // It sounds like what is there.
                log().warn("a sound cannot be used", e);
            }
        }
    }

    private void load(Preset preset) throws IOException {
        if (!loaded.containsKey(preset)) {
            List<Instrument> given = new ArrayList<>(SoundBank.giveBuiltIn(preset, synthesizer));
            loaded.put(preset, given);
            if (bank != null) {
                given.addAll(bank.give(preset, synthesizer));
            }
        }
    }

    /** Takes the sounds of another bank from now on; null for none. */
    synchronized void use(SoundBank newBank) throws IOException {
        bank = newBank;
        List<Preset> wanted = List.copyOf(loaded.keySet());
        loaded.values().forEach(given -> given.forEach(synthesizer::unloadInstrument));
        loaded.clear();
        for (Preset preset : wanted) {
            load(preset);
        }
    }

    @Override
    public void close() throws IOException {
        stream.close();
        synthesizer.close();
    }

    private static Logger log() {
        return LoggerFactory.getLogger(Synth.class);
    }
}
