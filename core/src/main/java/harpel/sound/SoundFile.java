package harpel.sound;

import com.google.auto.service.AutoService;
import harpel.device.SoundBank;
import harpel.event.Event;
import harpel.event.Message;
import harpel.format.midi.SmfForm;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Preset;
import harpel.piece.Voice;
import harpel.port.MidiBytes;
import harpel.print.PrintFormat;
import harpel.print.PrintedNotes;
import harpel.theory.GeneralMidi;
import harpel.time.TempoMap;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.function.DoubleConsumer;
import javax.sound.midi.MidiMessage;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;

/**
 * Writes what was printed as a sound file (RIFF WAVE, PCM, stereo), with the sounds and levels of the parts, until the last of it has died
 * away. The same print gives the same bytes.
 *
 * @param rate samples a second, 44,100 or 48,000
 * @param bits of a sample, 16 or 24
 * @param bank sounds in place of built-in ones, or null
 * @param loudness of the whole in LUFS (BS.1770) to which it is brought, as far as its true peak stays below {@link #MOST_PEAK}; empty to
 *     leave it as it is
 */
@AutoService(PrintFormat.class)
public record SoundFile(int rate, int bits, SoundBank bank, OptionalDouble loudness) implements PrintFormat {
    static final String ENDING = "wav";

    /** What music services ask for, as common practice; in LUFS. */
    public static final double USUAL_LOUDNESS = -14;
    /** In dBTP. */
    public static final double MOST_PEAK = -1;

    private static final double LEAST_LOUDNESS = -60;

    /** What is softer than this share of the loudest possible is silence: −80 dB. */
    private static final double SILENCE = 1e-4;

    private static final double QUIET_SECONDS = 0.3;
    private static final double LONGEST_TAIL_SECONDS = 20;
    private static final double BLOCK_SECONDS = 0.05;

    public SoundFile {
        if (rate != 44_100 && rate != 48_000) {
            throw new IllegalArgumentException(
                    "a sound file has 44100 or 48000 samples a second but was to have " + rate);
        }
        if (bits != 16 && bits != 24) {
            throw new IllegalArgumentException("a sound file has samples of 16 or 24 bits but was to have " + bits);
        }
        if (loudness.isPresent() && !(loudness.getAsDouble() >= LEAST_LOUDNESS && loudness.getAsDouble() <= 0)) {
            throw new IllegalArgumentException(
                    "a sound file is brought to −60–0 LUFS but was to be brought to " + loudness.getAsDouble());
        }
    }

    /** As most programs and players take it, with built-in sounds. */
    public SoundFile() {
        this(44_100, 16, null);
    }

    /** One that is as loud as its parts make it. */
    public SoundFile(int rate, int bits, SoundBank bank) {
        this(rate, bits, bank, OptionalDouble.empty());
    }

    /** The same brought to a loudness. */
    public SoundFile at(double lufs) {
        return new SoundFile(rate, bits, bank, OptionalDouble.of(lufs));
    }

    @Override
    public String name() {
        return "sound file (WAV)";
    }

    @Override
    public String ending() {
        return ENDING;
    }

    /** With the sounds of the piece, where it names a file of them and none is chosen. */
    @Override
    public SoundFile of(Piece piece, Path folder) throws IOException {
        return bank != null || piece.sounds().isEmpty() ? this : with(SoundBank.read(folder.resolve(piece.sounds())));
    }

    /** The same with sounds in place of built-in ones, or with null with these. */
    public SoundFile with(SoundBank other) {
        return new SoundFile(rate, bits, other, loudness);
    }

    /** The sounds that the bank does not have. */
    @Override
    public List<String> lacks(Collection<Part> parts) {
        return parts.stream()
                .map(Part::voice)
                .filter(voice -> bank != null || voice.preset() != null)
                .filter(voice -> !named().containsValue(preset(voice)))
                .map(voice ->
                        "no sound \"" + voice.sound() + "\" in " + (bank == null ? "the built-in ones" : bank.path())
                                + "; the built-in one of the same number is taken")
                .distinct()
                .toList();
    }

    /**
     * Writes all tracks into one stream; one that is nobody's has the first of the built-in sounds.
     *
     * @throws InterruptedIOException when the thread is interrupted
     */
    @Override
    public void write(PrintedNotes notes, SmfForm form, OutputStream out, DoubleConsumer done) throws IOException {
        Path raw = Files.createTempFile("harpel-", ".pcm");
        List<Synth> synths = new ArrayList<>();
        try {
            TempoMap tempo = notes.time().tempo();
            for (int i = 0; i < notes.tracks().size(); i++) {
                Synth synth = Synth.open(rate, bank);
                synths.add(synth);
                if (!notes.parts().isEmpty()) {
                    for (MidiMessage message : setUp(notes.parts().get(i))) {
                        send(synth, message, 0);
                    }
                }
                for (Event event : notes.tracks().get(i).events()) {
                    byte[] bytes = MidiBytes.of(event);
                    if ((bytes[0] & 0xFF) < Message.SYSTEM_EXCLUSIVE) {
                        send(synth, Synth.message(bytes), Math.round(tempo.nanosAt(event.tick()) / 1000));
                    }
                }
            }
            long frames;
            try (OutputStream samples = new BufferedOutputStream(Files.newOutputStream(raw), 1 << 16)) {
                frames = read(synths, tempo.nanosAt(notes.length()) / 1e9, samples, done);
            }
            loudness.ifPresent(lufs -> bring(raw, lufs));
            AudioFormat format = new AudioFormat(rate, bits, Synth.CHANNELS, true, false);
            try (AudioInputStream sound =
                    new AudioInputStream(new BufferedInputStream(Files.newInputStream(raw)), format, frames)) {
                AudioSystem.write(sound, AudioFileFormat.Type.WAVE, out);
            }
        } finally {
            for (Synth synth : synths) {
                synth.close();
            }
            Files.deleteIfExists(raw);
        }
    }

    private static void send(Synth synth, MidiMessage message, long micros) {
        synth.prepare(message.getMessage());
        synth.send(message, micros);
    }

    private List<MidiMessage> setUp(Part part) {
        List<MidiMessage> all = new ArrayList<>();
        Preset preset = preset(part.voice());
        for (int channel : GeneralMidi.channelsBeside(part.channel())) {
            if (preset.bank() > 0) {
                all.add(control(channel, Message.BANK, preset.bank() >> 7));
                all.add(control(channel, Message.BANK_FINE, preset.bank() & 0x7F));
            }
            byte status = (byte) (Message.PROGRAM_CHANGE | channel);
            all.add(Synth.message(new byte[] {status, (byte) preset.program()}));
            all.add(control(channel, Message.VOLUME, part.mix().volume()));
        }
        return all;
    }

    /** The bank's sound of that name, or that of the same numbers, or the built-in one in its place. */
    private Preset preset(Voice voice) {
        return named().getOrDefault(voice.sound(), voice.played());
    }

    private Map<String, Preset> named() {
        return bank == null ? Map.of() : bank.named();
    }

    private static MidiMessage control(int channel, int controller, int value) {
        return Synth.message(new byte[] {(byte) (Message.CONTROL_CHANGE | channel), (byte) controller, (byte) value});
    }

    /** Reads until the end, and on until it is quiet; gives how many frames there were. */
    private long read(List<Synth> synths, double seconds, OutputStream out, DoubleConsumer progress)
            throws IOException {
        int frames = (int) (BLOCK_SECONDS * rate);
        float[] samples = new float[frames * Synth.CHANNELS];
        byte[] block = new byte[samples.length * bits / 8];
        Limiter limiter = new Limiter(rate);
        double done = 0;
        double quiet = 0;
        long all = 0;
        while (done < seconds || quiet < QUIET_SECONDS && done < seconds + LONGEST_TAIL_SECONDS) {
            if (Thread.interrupted()) {
                throw new InterruptedIOException("writing the sound file was cancelled");
            }
            Arrays.fill(samples, 0);
            for (Synth synth : synths) {
                synth.addTo(samples);
            }
            limiter.limit(samples, samples.length);
            for (int i = 0; i < samples.length; i++) {
                put(block, i, samples[i]);
            }
            out.write(block);
            all += frames;
            done += BLOCK_SECONDS;
            quiet = limiter.takePeak() < SILENCE ? quiet + BLOCK_SECONDS : 0;
            progress.accept(Math.min(1, done / (seconds + 1)));
        }
        return all;
    }

    /** Makes all of it louder or softer by the same, so that it comes to a loudness, or to the most its peak may be. */
    private void bring(Path raw, double lufs) {
        try {
            byte[] sound = Files.readAllBytes(raw);
            float[] samples = samples(sound);
            Loudness meter = new Loudness(rate, true);
            meter.take(samples, samples.length);
            double by = Math.min(lufs - meter.integrated(), MOST_PEAK - meter.truePeak());
            if (Double.isFinite(by)) {
                float gain = (float) Math.pow(10, by / 20);
                for (int i = 0; i < samples.length; i++) {
                    put(sound, i, samples[i] * gain);
                }
                Files.write(raw, sound);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private float[] samples(byte[] sound) {
        int bytes = bits / 8;
        float[] samples = new float[sound.length / bytes];
        for (int i = 0; i < samples.length; i++) {
            int value = 0;
            for (int k = bytes - 1; k >= 0; k--) {
                value = value << 8 | sound[i * bytes + k] & 0xFF;
            }
            samples[i] = (value << 32 - bits >> 32 - bits) / (float) (1 << bits - 1);
        }
        return samples;
    }

    private void put(byte[] sound, int place, float sample) {
        int bytes = bits / 8;
        int most = (1 << bits - 1) - 1;
        int value = Math.max(-most - 1, Math.min(most, Math.round(sample * (1 << bits - 1))));
        for (int k = 0; k < bytes; k++) {
            sound[place * bytes + k] = (byte) (value >> 8 * k);
        }
    }
}
