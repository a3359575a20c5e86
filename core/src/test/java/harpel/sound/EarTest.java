package harpel.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import harpel.chain.Chain;
import harpel.format.midi.SmfForm;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.port.OutputPort;
import harpel.print.PrintOrder;
import harpel.time.Ticks;
import java.io.ByteArrayInputStream;
import java.io.File;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is heard, recorded at a sound server of its own; where none is installed, nothing can be heard and it is left out. */
class EarTest {
    private static final int RATE = 44_100;
    private static final int DRUMS = 9;
    private static final int CLAVES = 75;
    private static final double[] BEATS = {0, 1, 1.5, 2.75, 4, 5, 5.25, 6, 7};

    @TempDir
    Path home;

    private final List<Process> running = new ArrayList<>();

    /** Plays the strokes; a program of its own, since the sound server is found by what surrounds a program. */
    public static final class Player {
        private Player() {}

        public static void main(String[] args) throws Exception {
            SoundEngine engine = SoundEngine.open("", Delay.SAFE, null);
            OutputPort strokes = engine.part("strokes");
            // After a while in which the thread has found its pace.
            long begin = System.nanoTime() + 1_600_000_000;
            for (double beat : BEATS) {
                long due = begin + Math.round(beat * 5e8);
                while (System.nanoTime() < due) {
                    Thread.sleep(1);
                }
                strokes.send(new byte[] {(byte) (0x90 | DRUMS), CLAVES, 110}, due);
                strokes.send(new byte[] {(byte) (0x80 | DRUMS), CLAVES, 64}, due + 125_000_000);
            }
            long end = begin + 4_200_000_000L;
            while (System.nanoTime() < end) {
                Thread.sleep(10);
            }
            SoundEngine.State state = engine.state();
            System.out.println("late " + state.lateBlocks() + " " + state.lateNotes());
            engine.close();
        }
    }

    private Process start(File to, String... command) throws Exception {
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.environment()
                .putAll(Map.of(
                        "HOME",
                        home.toString(),
                        "XDG_RUNTIME_DIR",
                        home.resolve("run").toString()));
        builder.redirectOutput(to);
        Process process = builder.start();
        running.add(process);
        return process;
    }

    @AfterEach
    void stop() throws InterruptedException {
        for (Process process : running) {
            process.destroy();
            process.waitFor(5, TimeUnit.SECONDS);
        }
    }

    private static boolean isInstalled(String program) {
        return Arrays.stream(System.getenv("PATH").split(File.pathSeparator))
                .anyMatch(folder -> Files.isExecutable(Path.of(folder, program)));
    }

    @Test
    void whatIsHeardAndASoundFileOfTheSameAgreeToAMillisecond() throws Exception {
        assumeTrue(isInstalled("pulseaudio") && isInstalled("parec"), "no sound server is installed here");
        Files.createDirectory(
                home.resolve("run"),
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
        Files.writeString(home.resolve(".asoundrc"), "pcm.!default { type pulse }\nctl.!default { type pulse }\n");
        start(
                home.resolve("server.txt").toFile(),
                "pulseaudio",
                "-n",
                "--exit-idle-time=-1",
                "--daemonize=no",
                "-L",
                "module-native-protocol-unix",
                "-L",
                "module-null-sink sink_name=ear rate=" + RATE);
        Path recorded = home.resolve("recorded.raw");
        Path socket = home.resolve("run/pulse/native");
        for (long end = System.nanoTime() + 10_000_000_000L; !Files.exists(socket) && System.nanoTime() < end; ) {
            Thread.sleep(20);
        }
        Process recorder = start(
                recorded.toFile(),
                "parec",
                "--device=ear.monitor",
                "--latency-msec=20",
                "--format=s16le",
                "--rate=" + RATE,
                "--channels=1",
                "--raw");
        Path said = home.resolve("said.txt");
        Process player = start(
                said.toFile(),
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "--add-exports=java.desktop/com.sun.media.sound=ALL-UNNAMED",
                "-cp",
                System.getProperty("java.class.path"),
                Player.class.getName());
        assertThat(player.waitFor(60, TimeUnit.SECONDS)).isTrue();
        assumeTrue(
                Files.readString(said).contains("late 0 0"),
                () -> "this machine was too busy to send each stroke in time, or its sound server cannot be reached");
        recorder.destroy();
        recorder.waitFor();
        List<Integer> heard = onsets(mono(Files.readAllBytes(recorded)));
        List<Integer> written = onsets(file());
        assertThat(heard).hasSameSizeAs(written).hasSize(BEATS.length);
        // The server's clock is not ours: a little faster, or slower.
        double slope = (heard.get(BEATS.length - 1) - heard.get(0))
                / (double) (written.get(BEATS.length - 1) - written.get(0));
        assumeTrue(Math.abs(slope - 1) < 0.003, "this machine was too busy for its sound server to keep time");
        for (int i = 0; i < BEATS.length; i++) {
            double off = heard.get(i) - heard.get(0) - slope * (written.get(i) - written.get(0));
            assertThat(Math.abs(off) * 1000 / RATE)
                    .as("the stroke on beat %s, ms", BEATS[i])
                    .isLessThan(1);
        }
    }

    /** The same strokes as a sound file, its left channel. */
    private float[] file() throws Exception {
        List<Note> notes = new ArrayList<>();
        for (double beat : BEATS) {
            notes.add(Note.of((long) (beat * Ticks.PER_QUARTER), Ticks.PER_QUARTER / 4, CLAVES, 110));
        }
        Piece piece = Piece.empty()
                .withPhrase(Phrase.of("Tide", 8L * Ticks.PER_QUARTER, notes))
                .withParts(
                        List.of(Part.of("Clock", Chain.EMPTY).withPhrase("tide").withChannel(DRUMS)));
        Path wav = home.resolve("a.wav");
        new SoundFile(RATE, 16, null)
                .write(
                        new PrintOrder(piece, Set.of("clock"), 0, 8L * Ticks.PER_QUARTER, Tail.CUT).print(done -> {}),
                        SmfForm.PLAIN,
                        wav,
                        done -> {});
        try (InputStream all = new ByteArrayInputStream(Files.readAllBytes(wav));
                AudioInputStream in = AudioSystem.getAudioInputStream(all)) {
            float[] both = mono(in.readAllBytes());
            float[] left = new float[both.length / 2];
            for (int i = 0; i < left.length; i++) {
                left[i] = both[2 * i];
            }
            return left;
        }
    }

    private static float[] mono(byte[] bytes) {
        float[] samples = new float[bytes.length / 2];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = bytes[2 * i] & 0xFF | bytes[2 * i + 1] << 8;
        }
        return samples;
    }

    /** Where it gets louder than a tenth of its loudest after a while in which it was not. */
    private static List<Integer> onsets(float[] samples) {
        float loudest = 0;
        for (float sample : samples) {
            loudest = Math.max(loudest, Math.abs(sample));
        }
        List<Integer> found = new ArrayList<>();
        int soft = RATE;
        for (int i = 0; i < samples.length; i++) {
            if (Math.abs(samples[i]) <= loudest / 10) {
                soft++;
            } else {
                if (soft > 1500) {
                    found.add(i);
                }
                soft = 0;
            }
        }
        return found;
    }
}
