package harpel.app;

import harpel.app.session.Session;
import harpel.bench.Ear;
import harpel.bench.Material;
import harpel.bench.Stolen;
import harpel.format.PieceFile;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.sound.BuiltInSound;
import harpel.sound.Delay;
import harpel.sound.SoundEngine;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.input.KeyCode;
import javafx.scene.robot.Robot;
import javafx.stage.Stage;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.SourceDataLine;

/**
 * What is heard, at the monitor of a sound server: how long after a key of the computer is pressed, through the real window; how even the
 * hits of an even phrase are; and how often sound breaks off while the demo plays, and what that costs. Strokes of claves, on channel 10
 * of General MIDI.
 */
public final class EarBench extends Application {
    private static final int DRUMS = 9;
    private static final int CLAVES = 75;
    private static final int KEYS = 14;
    private static final int HITS = 87;
    private static final double BPM = 115;
    private static final long DEMO_MILLIS = 60_000;
    private static final int ROUNDS = 3;
    private static final int READY_BLOCK = 93;

    /** Others of the host's may take the processors meanwhile, and then a figure says little. */
    private static final Stolen STOLEN = new Stolen();

    private static void tell(String form, Object... values) {
        System.out.println(String.format(form, values) + STOLEN.since());
    }

    public static void main(String[] args) {
        Launcher.tune();
        launch(EarBench.class, args);
    }

    private static Piece piece() {
        List<Note> hits = new ArrayList<>();
        long sixteenth = Ticks.PER_QUARTER / 4;
        for (int i = 0; i < 64; i++) {
            hits.add(Note.of(i * sixteenth, sixteenth / 2, CLAVES, 110));
        }
        return Piece.empty()
                .withTime(new TimeMap(TempoMap.of(BPM), MeterMap.FOUR_FOUR))
                .withPhrase(Phrase.of("Grid", 16 * Ticks.PER_QUARTER, hits))
                .withParts(List.of(
                        // The key Q is C5.
                        Part.of(
                                        "Keys",
                                        Material.chain(
                                                "{\"harpel\":1,\"chain\":[{\"effect\":\"transpose\",\"semitones\":3}]}"))
                                .withChannel(DRUMS),
                        Part.of("Grid", harpel.chain.Chain.EMPTY)
                                .withPhrase("grid")
                                .withChannel(DRUMS)));
    }

    @Override
    public void start(Stage stage) {
        Launcher.drawBehindNotes();
        HarpelApp.loadFonts();
        Session session = new Session(piece());
        HarpelPane pane = new HarpelPane(session);
        stage.setScene(SizedRoot.scene(session, pane, 1280, 800));
        pane.setActions(new harpel.app.Files(session, stage));
        stage.show();
        stage.requestFocus();
        session.transport().start();
        session.transport().openDevices();
        Thread measuring = new Thread(() -> measured(session, stage), "measuring");
        measuring.setDaemon(true);
        measuring.start();
    }

    private static <T> T onFx(Supplier<T> work) {
        CompletableFuture<T> result = new CompletableFuture<>();
        Platform.runLater(() -> result.complete(work.get()));
        return result.join();
    }

    private static void measured(Session session, Stage stage) {
        try (Ear ear = new Ear()) {
            readyMade(ear);
            Robot robot = onFx(Robot::new);
            for (Delay delay : new Delay[] {Delay.NORMAL, Delay.SHORT}) {
                session.transport().sound().wish(new BuiltInSound.Wish("", Optional.of(delay)));
                await(session, delay);
                Thread.sleep(1500);
                keys(ear, robot, delay);
                grid(session, ear, delay);
            }
            session.transport().sound().wish(new BuiltInSound.Wish("", Optional.of(Delay.NORMAL)));
            await(session, Delay.NORMAL);
            Thread.sleep(1500);
            silence(session, ear, robot);
            besideTheDemo(session, ear);
            demo(session);
            busy(session, stage);
        } catch (Exception e) {
            e.printStackTrace();
        } finally {
            Platform.exit();
        }
    }

    /** What this machine and its sound server make of even clicks that are ready beforehand: no better can come of anything below. */
    private static void readyMade(Ear ear) throws Exception {
        AudioFormat format = new AudioFormat(44_100, 16, 2, true, false);
        try (SourceDataLine line = AudioSystem.getSourceDataLine(format)) {
            byte[] block = new byte[READY_BLOCK * 4];
            line.open(format, 3 * block.length);
            line.start();
            ear.forget();
            int step = (int) Math.round(44_100 * 60 / BPM / 4);
            for (long written = 0; written < (long) HITS * step; written += READY_BLOCK) {
                for (int i = 0; i < READY_BLOCK; i++) {
                    long at = (written + i) % step;
                    short sample = (short) (at < 300 ? 8000 * Math.sin(at * 0.3) : 0);
                    block[4 * i] = block[4 * i + 2] = (byte) sample;
                    block[4 * i + 1] = block[4 * i + 3] = (byte) (sample >> 8);
                }
                while (line.available() < block.length) {
                    LockSupport.parkNanos(300_000);
                }
                line.write(block, 0, block.length);
            }
            Thread.sleep(300);
            even(ear, "ready-made", step / 44_100.0, 0);
        }
    }

    private static void await(Session session, Delay delay) throws InterruptedException {
        for (int i = 0; i < 100; i++) {
            if (session.transport()
                    .sound()
                    .state()
                    .filter(one -> one.delay() == delay)
                    .isPresent()) {
                return;
            }
            Thread.sleep(100);
        }
        throw new IllegalStateException("no sound device");
    }

    private static void keys(Ear ear, Robot robot, Delay delay) throws InterruptedException {
        List<Double> late = new ArrayList<>();
        for (int i = 0; i < KEYS; i++) {
            long pressed = onFx(() -> {
                long now = System.nanoTime();
                robot.keyPress(KeyCode.Q);
                return now;
            });
            Ear.Onset onset = ear.after(pressed, 500);
            onFx(() -> {
                robot.keyRelease(KeyCode.Q);
                return null;
            });
            if (onset != null) {
                late.add((onset.nanos() - pressed) / 1e6);
            }
            Thread.sleep(150 + 13 * i);
        }
        double[] sorted =
                late.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        tell(
                "%-7s key to ear: median %.1f  worst %.1f ms, %d of %d heard (about 8 ms of it are the recording)",
                delay.label(), at(sorted, 0.5), at(sorted, 1), sorted.length, KEYS);
    }

    private static void grid(Session session, Ear ear, Delay delay) throws InterruptedException {
        grid(session, ear, delay.label());
    }

    private static void grid(Session session, Ear ear, String how) throws InterruptedException {
        ear.forget();
        long before = session.transport().sound().state().orElseThrow().lateNotes();
        session.transport().player().play();
        double step = 60 / BPM / 4;
        Thread.sleep(Math.round((HITS + 2) * step * 1000));
        session.transport().player().stop();
        Thread.sleep(500);
        long lateNotes = session.transport().sound().state().orElseThrow().lateNotes() - before;
        even(ear, how, step, lateNotes);
    }

    private static void even(Ear ear, String how, double step, long lateNotes) {
        List<Ear.Onset> heard = ear.heard();
        List<Ear.Onset> hits = heard.subList(0, Math.min(HITS, heard.size()));
        double[] off = Ear.offGrid(hits, step);
        long missing =
                Math.round((hits.get(hits.size() - 1).frame() - hits.get(0).frame()) / 44_100.0 / step)
                        + 1
                        - hits.size();
        tell(
                "%-7s even hits: p50 %.2f  p95 %.2f  worst %.2f ms off the grid, %d of %d within 1 ms, %d missing; %d messages came too late",
                how,
                at(off, 0.5),
                at(off, 0.95),
                at(off, 1),
                Arrays.stream(off).filter(one -> one <= 1).count(),
                hits.size(),
                missing,
                lateNotes);
    }

    /** Keys of a pad are held, and ring on by themselves: how long after Silence is pressed is it silent? */
    private static void silence(Session session, Ear ear, Robot robot) throws InterruptedException {
        onFx(() -> {
            session.replace(Piece.empty().withPart("part-1", part -> part.withSound("Lamp pad")), "Pad");
            return null;
        });
        Thread.sleep(2000);
        List<Double> late = new ArrayList<>();
        for (int i = 0; i < KEYS; i++) {
            onFx(() -> {
                robot.keyPress(KeyCode.Q);
                robot.keyPress(KeyCode.E);
                return null;
            });
            Thread.sleep(700 + 13 * i);
            long pressed = onFx(() -> {
                long now = System.nanoTime();
                robot.keyPress(KeyCode.ESCAPE);
                robot.keyRelease(KeyCode.ESCAPE);
                return now;
            });
            Thread.sleep(600);
            late.add((ear.lastLoudNanos() - pressed) / 1e6);
            onFx(() -> {
                robot.keyRelease(KeyCode.Q);
                robot.keyRelease(KeyCode.E);
                return null;
            });
            Thread.sleep(200);
        }
        double[] sorted =
                late.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        tell(
                "normal  Silence to the ear: median %.1f  worst %.1f ms (about 8 ms of it are the recording)",
                at(sorted, 0.5), at(sorted, 1));
    }

    private static Piece theSaltClock() throws IOException {
        return PieceFile.read(Files.readString(Path.of("demo/the-salt-clock.harpel")));
    }

    /** The demo's parts play, at level 0, beside the even hits. */
    private static void besideTheDemo(Session session, Ear ear) throws Exception {
        Piece demo = theSaltClock();
        Piece grid = piece();
        List<Part> parts = new ArrayList<>();
        demo.parts().forEach(part -> parts.add(part.withMix(part.mix().withLevel(0))));
        parts.add(grid.part("grid").orElseThrow());
        Piece both = demo.withTimeline(false)
                .withTime(grid.time())
                .withPhrase(grid.phrase("grid").orElseThrow())
                .withParts(parts);
        onFx(() -> {
            session.replace(both, "Both");
            return null;
        });
        Thread.sleep(4000);
        for (int i = 0; i < ROUNDS; i++) {
            grid(session, ear, "beside the demo’s " + demo.parts().size() + " parts");
        }
    }

    private static long lateBlocks(Session session) {
        return session.transport().sound().state().orElseThrow().lateBlocks();
    }

    private static void demo(Session session) throws Exception {
        Piece piece = theSaltClock();
        onFx(() -> {
            session.replace(piece, "Demo");
            return null;
        });
        await(session, Delay.NORMAL);
        for (int i = 0; i < ROUNDS; i++) {
            // It ends after a while: from its beginning each time.
            session.transport().player().stop();
            session.transport().player().locate(0);
            session.transport().player().play();
            Thread.sleep(2_000);
            long before = lateBlocks(session);
            Thread.sleep(DEMO_MILLIS);
            SoundEngine.State state = session.transport().sound().state().orElseThrow();
            tell(
                    "normal  the demo for a minute: %d late blocks, the sound thread %.0f %% of a core, %.0f LUFS",
                    state.lateBlocks() - before, 100 * state.share(), state.loudness());
        }
    }

    /** The demo plays on while much is done beside it. */
    private static void busy(Session session, Stage stage) throws Exception {
        session.transport().player().stop();
        session.transport().player().locate(0);
        session.transport().player().play();
        long before = lateBlocks(session);
        for (int i = 0; i < 10; i++) {
            int more = 150 * (i % 4);
            onFx(() -> {
                stage.setWidth(1280 - more);
                stage.setHeight(800 - more / 2.0);
                return null;
            });
            Thread.sleep(300);
        }
        tell("normal  the window resized ten times: %d late blocks", lateBlocks(session) - before);
        before = lateBlocks(session);
        onFx(() -> {
            session.variations().toggleSheet();
            return null;
        });
        for (int i = 0; i < 4; i++) {
            Thread.sleep(1500);
            onFx(() -> {
                session.variations().more();
                return null;
            });
        }
        Thread.sleep(3000);
        tell(
                "normal  a sheet of %d variations printed: %d late blocks",
                session.variations().cards().size(), lateBlocks(session) - before);
        before = lateBlocks(session);
        Piece piece = theSaltClock();
        for (int i = 0; i < 5; i++) {
            onFx(() -> {
                session.variations().close();
                session.replace(piece, "Open");
                return null;
            });
            Thread.sleep(1500);
        }
        tell("normal  a piece opened five times: %d late blocks", lateBlocks(session) - before);
    }

    private static double at(double[] sorted, double share) {
        return sorted.length == 0 ? Double.NaN : sorted[(int) Math.round(share * (sorted.length - 1))];
    }
}
