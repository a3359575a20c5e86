package harpel.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import harpel.chain.Chain;
import harpel.device.SoundBank;
import harpel.format.midi.SmfForm;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Preset;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import harpel.print.Printed;
import harpel.print.PrintedNotes;
import harpel.time.Ticks;
import java.io.File;
import java.io.InterruptedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Soundbank;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Sound files, read again by the platform's own reader. */
class SoundFileTest {
    private static final long QUARTER = Ticks.PER_QUARTER;
    private static final int CLAVES = 75;
    private static final int DRUMS = 9;

    @TempDir
    Path folder;

    /** A file's samples from −1 to 1, the left and the right in turn. */
    private record Heard(AudioFormat format, double[] samples) {
        double seconds() {
            return samples.length / 2 / format.getSampleRate();
        }

        double loudest(double from, double to) {
            double most = 0;
            for (int i = frame(from) * 2; i < Math.min(samples.length, frame(to) * 2); i++) {
                most = Math.max(most, Math.abs(samples[i]));
            }
            return most;
        }

        int frame(double seconds) {
            return (int) Math.max(0, seconds * format.getSampleRate());
        }

        /** When a sound begins in a stretch: where it first gets louder than a tenth of its loudest. */
        double onset(double from, double to) {
            double limit = loudest(from, to) / 10;
            for (int i = frame(from) * 2; i < frame(to) * 2; i++) {
                if (Math.abs(samples[i]) > limit) {
                    return i / 2 / (double) format.getSampleRate();
                }
            }
            return Double.NaN;
        }
    }

    private static Heard read(Path file) throws Exception {
        try (AudioInputStream in = AudioSystem.getAudioInputStream(file.toFile())) {
            byte[] bytes = in.readAllBytes();
            int width = in.getFormat().getSampleSizeInBits() / 8;
            double[] samples = new double[bytes.length / width];
            for (int i = 0; i < samples.length; i++) {
                int value = bytes[i * width + width - 1];
                for (int k = width - 2; k >= 0; k--) {
                    value = value << 8 | bytes[i * width + k] & 0xFF;
                }
                samples[i] = value / (double) (1 << 8 * width - 1);
            }
            return new Heard(in.getFormat(), samples);
        }
    }

    /** Strokes of claves on the percussion channel of General MIDI, at 120 bpm. */
    private static Piece piece(double... beats) {
        List<Note> notes = new ArrayList<>();
        for (double beat : beats) {
            notes.add(Note.of((long) (beat * QUARTER), QUARTER / 4, CLAVES, 110));
        }
        return Piece.empty()
                .withPhrase(Phrase.of("Tide", 8 * QUARTER, notes))
                .withParts(List.of(
                        Part.of("Clock", Chain.EMPTY).withPhrase("tide").withChannel(DRUMS),
                        Part.of("Pad", Chain.EMPTY).withSound("Bowed strings").withChannel(2)));
    }

    private static Printed print(Piece piece, String... parts) throws InterruptedException {
        return new PrintOrder(piece, Set.of(parts), 0, 8 * QUARTER, Tail.CUT).print(done -> {});
    }

    private Path file(String name) {
        return folder.resolve(name);
    }

    @ParameterizedTest
    @CsvSource({"44100, 16", "48000, 24"})
    void aFileIsAsLongAsItSoundsAndEachOnsetIsWithinTenMilliseconds(int rate, int bits) throws Exception {
        double[] beats = {0, 2, 3.5, 6.25};
        List<Double> progress = new ArrayList<>();
        new SoundFile(rate, bits, null)
                .write(print(piece(beats), "clock"), SmfForm.PLAIN, file("a.wav"), progress::add);
        Heard heard = read(file("a.wav"));
        assertThat(heard.format().getSampleRate()).isEqualTo(rate);
        assertThat(heard.format().getSampleSizeInBits()).isEqualTo(bits);
        assertThat(heard.format().getChannels()).isEqualTo(2);
        assertThat(heard.seconds())
                .as("two bars of two seconds, and what dies away")
                .isBetween(4.0, 6.0);
        assertThat(heard.loudest(0, 4)).as("not silent").isBetween(0.02, 1.0);
        assertThat(heard.loudest(heard.seconds() - 0.2, heard.seconds()))
                .as("until silence")
                .isLessThan(2e-4);
        for (double beat : beats) {
            double wanted = beat / 2;
            assertThat(heard.onset(Math.max(0, wanted - 0.02), wanted + 0.1) - wanted)
                    .as("the onset of the stroke on beat %s", beat)
                    .isBetween(-0.001, 0.010);
        }
        assertThat(progress).isNotEmpty().isSorted().allMatch(done -> done >= 0 && done <= 1);
    }

    @Test
    void itIsOneOfTheKindsOfFilesThatNotesAreWrittenAs() throws Exception {
        Printed printed = print(piece(0, 1), "clock");
        PrintFormat.ofFile("Tide.wav").write(printed, SmfForm.PLAIN, file("a.wav"), done -> {});
        byte[] stage = PrintFormat.ofEnding("wav")
                .bytes(printed.notes("clock", "sound", printed.events().get("clock")), SmfForm.PLAIN);
        assertThat(Files.readAllBytes(file("a.wav")))
                .as("with the sound of its part")
                .isEqualTo(stage);
        Phrase phrase = printed.order().piece().phrase("tide").orElseThrow();
        assertThat(PrintFormat.ofEnding("wav")
                        .bytes(PrintedNotes.of(phrase, printed.order().piece().time()), SmfForm.PLAIN))
                .as("nobody's notes, by a piano")
                .hasSizeGreaterThan(4 * 44_100)
                .isNotEqualTo(stage);
        Thread.currentThread().interrupt();
        assertThatThrownBy(() -> new SoundFile().write(printed, SmfForm.PLAIN, file("b.wav"), done -> {}))
                .isInstanceOf(InterruptedIOException.class);
        assertThat(file("b.wav")).doesNotExist();
    }

    @Test
    void theSamePrintGivesTheSameBytes() throws Exception {
        Printed printed = print(piece(0, 1, 5), "clock");
        for (String name : List.of("a.wav", "b.wav")) {
            new SoundFile(44_100, 16, null).write(printed, SmfForm.PLAIN, file(name), done -> {});
        }
        assertThat(Files.mismatch(file("a.wav"), file("b.wav"))).isEqualTo(-1);
        assertThat(folder).isDirectoryNotContaining("glob:**.harpel*");
    }

    private static Loudness measured(Heard heard) {
        Loudness loudness = new Loudness(heard.format().getSampleRate(), true);
        float[] samples = new float[heard.samples().length];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = (float) heard.samples()[i];
        }
        loudness.take(samples, samples.length);
        return loudness;
    }

    /** ITU-R BS.1770: what was asked for is what is measured, unless its true peak would come above −1 dBTP. */
    @ParameterizedTest
    @CsvSource({"16, -30", "24, -40", "24, -10"})
    void aFileIsBroughtToALoudness(int bits, double lufs) throws Exception {
        Printed printed = print(piece(0, 1, 2, 3, 4, 5, 6, 7), "clock");
        new SoundFile(44_100, bits, null).at(lufs).write(printed, SmfForm.PLAIN, file("at.wav"), done -> {});
        new SoundFile(44_100, bits, null).write(printed, SmfForm.PLAIN, file("plain.wav"), done -> {});
        Loudness measured = measured(read(file("at.wav")));
        if (lufs > -20) {
            assertThat(measured.truePeak()).as("strokes have high peaks").isCloseTo(SoundFile.MOST_PEAK, within(0.1));
            assertThat(measured.integrated()).isLessThan(lufs);
        } else {
            assertThat(measured.integrated()).isCloseTo(lufs, within(0.1));
            assertThat(measured.truePeak()).isLessThan(SoundFile.MOST_PEAK);
        }
        Heard plain = read(file("plain.wav"));
        assertThat(read(file("at.wav")).samples()).hasSameSizeAs(plain.samples());
        assertThat(folder).isDirectoryNotContaining("glob:**.harpel*");
    }

    /** General MIDI Level 2 and the MMA's recommendation for controller 7: a gain of 40 log (volume / 127) dB, so half is a quarter. */
    @Test
    void levelsOfPartsAreRespected() throws Exception {
        Piece loud = piece(0);
        Piece half = loud.withPart("clock", part -> part.withMix(Mix.PLAIN.withLevel(50)));
        SoundFile how = new SoundFile(44_100, 24, null);
        how.write(print(loud, "clock"), SmfForm.PLAIN, file("loud.wav"), done -> {});
        how.write(print(half, "clock"), SmfForm.PLAIN, file("half.wav"), done -> {});
        double gain = Math.pow(64 / 127.0, 2);
        assertThat(read(file("half.wav")).loudest(0, 1) / read(file("loud.wav")).loudest(0, 1))
                .isBetween(gain * 0.9, gain * 1.1);
    }

    @Test
    void whatIsThereStaysWhatItIs() throws Exception {
        SoundFile how = new SoundFile(44_100, 16, null);
        Path there = Files.writeString(file("there.wav"), "old");
        Files.setPosixFilePermissions(there, PosixFilePermissions.fromString("rw-rw-r--"));
        Path link = Files.createSymbolicLink(file("link.wav"), there);
        how.write(print(piece(0), "clock"), SmfForm.PLAIN, link, done -> {});
        assertThat(link).isSymbolicLink();
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(there)))
                .isEqualTo("rw-rw-r--");
        assertThat(read(there).loudest(0, 1)).isPositive();
        Path kept = Files.writeString(file("kept.wav"), "mine");
        Files.setPosixFilePermissions(kept, PosixFilePermissions.fromString("r--r--r--"));
        assertThatThrownBy(() -> how.write(print(piece(0), "clock"), SmfForm.PLAIN, kept, done -> {}))
                .hasMessageContaining("kept.wav: this file may not be written");
        assertThat(kept).hasContent("mine");
        Path empty = Files.createDirectory(file("empty.wav"));
        assertThatThrownBy(() -> how.write(print(piece(0), "clock"), SmfForm.PLAIN, empty, done -> {}))
                .hasMessageContaining("this is a folder");
        assertThat(empty).isEmptyDirectory();
        assertThatThrownBy(() ->
                        how.write(print(piece(0), "clock"), SmfForm.PLAIN, folder.resolve("no/x.wav"), done -> {}))
                .hasMessageContaining("there is no folder");
        try (var left = Files.list(folder)) {
            assertThat(left.map(one -> one.getFileName().toString())).noneMatch(name -> name.startsWith("."));
        }
    }

    /** Each part has a synthesizer for itself: two on one channel, here that of percussion, do not share a level or a sound. */
    @Test
    void partsOnOneChannelKeepTheirOwnLevelAndSound() throws Exception {
        Piece one = piece(0);
        Piece two = one.withPhrase(
                        Phrase.of("Late", 8 * QUARTER, List.of(Note.of(4 * QUARTER, QUARTER / 4, CLAVES, 110))))
                .withPart(
                        "pad",
                        part -> part.withPhrase("late").withChannel(DRUMS).withMix(Mix.PLAIN.withLevel(50)));
        SoundFile how = new SoundFile(44_100, 24, null);
        how.write(print(two, "clock", "pad"), SmfForm.PLAIN, file("two.wav"), done -> {});
        Heard heard = read(file("two.wav"));
        double gain = Math.pow(64 / 127.0, 2);
        assertThat(heard.loudest(2, 3) / heard.loudest(0, 1)).isBetween(gain * 0.9, gain * 1.1);
    }

    /** The platform's own sounds, saved as a SoundFont 2 file: parts find their sound there by name, others are named. */
    @Test
    void soundsComeFromAFileOfOnesChoice() throws Exception {
        Soundbank own = MidiSystem.getSynthesizer().getDefaultSoundbank();
        File bank = file("own.sf2").toFile();
        own.getClass().getMethod("save", File.class).invoke(own, bank);
        String name = own.getInstruments()[3].getName().strip();
        Piece piece = piece(0, 4).withPart("clock", part -> part.withChannel(3).withSound(name));
        SoundBank read = SoundBank.read(bank.toPath());
        assertThat(read.named()).containsKey(name);
        SoundFile how = new SoundFile(44_100, 16, read);
        how.write(print(piece, "clock", "pad"), SmfForm.PLAIN, file("a.wav"), done -> {});
        assertThat(how.lacks(piece.parts()))
                .as("its strings stand in for the built-in ones")
                .isEmpty();
        Piece elsewhere = piece.withPart(
                "pad",
                part -> part.withVoice(part.voice().withSound("Tide organ").withPreset(new Preset(5 << 7, 3))));
        assertThat(how.lacks(elsewhere.parts()))
                .containsExactly(
                        "no sound \"Tide organ\" in " + bank + "; the built-in one of the same number is taken");
        assertThat(new SoundFile().lacks(elsewhere.parts()))
                .singleElement()
                .asString()
                .startsWith("no sound \"Tide organ\" in the built-in ones");
        assertThat(new SoundFile()
                        .of(piece.withSounds("own.sf2"), folder)
                        .bank()
                        .named())
                .as("the sounds that the piece names")
                .containsKey(name);
        assertThat(read(file("a.wav")).loudest(0, 1)).isGreaterThan(0.005);
        Files.writeString(file("none.sf2"), "no sounds");
        assertThatThrownBy(() -> SoundBank.read(file("none.sf2")))
                .hasMessageContaining("none.sf2: this is neither a SoundFont 2 nor a DLS file");
        assertThatThrownBy(() -> SoundBank.read(file("gone.sf2")))
                .hasMessageContaining("gone.sf2: there is no such file");
    }

    @Test
    void whatIsNoSoundFileIsRefused() {
        assertThatThrownBy(() -> new SoundFile(22_050, 16, null)).hasMessageContaining("22050");
        assertThatThrownBy(() -> new SoundFile(44_100, 8, null)).hasMessageContaining("16 or 24 bits");
        assertThatThrownBy(() -> new SoundFile(44_100, 16, null).at(3))
                .hasMessageContaining("−60–0 LUFS")
                .hasMessageContaining("3.0");
    }
}
