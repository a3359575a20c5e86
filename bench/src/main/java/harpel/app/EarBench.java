package harpel.app;

import harpel.app.session.Session;
import harpel.bench.Ear;
import harpel.bench.Material;
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
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.function.Supplier;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.input.KeyCode;
import javafx.scene.robot.Robot;
import javafx.stage.Stage;

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
        Thread measuring = new Thread(() -> measured(session), "measuring");
        measuring.setDaemon(true);
        measuring.start();
    }

    private static <T> T onFx(Supplier<T> work) {
        CompletableFuture<T> result = new CompletableFuture<>();
        Platform.runLater(() -> result.complete(work.get()));
        return result.join();
    }

    private static void measured(Session session) {
        try (Ear ear = new Ear()) {
            Robot robot = onFx(Robot::new);
            for (Delay delay : new Delay[] {Delay.NORMAL, Delay.SHORT}) {
                session.transport().sound().wish(new BuiltInSound.Wish("", Optional.of(delay)));
                await(session, delay);
                Thread.sleep(1500);
                keys(ear, robot, delay);
                grid(session, ear, delay);
            }
            session.transport().sound().wish(new BuiltInSound.Wish("", Optional.of(Delay.NORMAL)));
            demo(session);
        } catch (Exception e) {
            e.printStackTrace();
        } finally {
            Platform.exit();
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
        System.out.printf(
                "%-7s key to ear: median %.1f  worst %.1f ms, %d of %d heard (about 8 ms of it are the recording)%n",
                delay.label(), at(sorted, 0.5), at(sorted, 1), sorted.length, KEYS);
    }

    private static void grid(Session session, Ear ear, Delay delay) throws InterruptedException {
        ear.forget();
        session.transport().player().play();
        double step = 60 / BPM / 4;
        Thread.sleep(Math.round((HITS + 2) * step * 1000));
        session.transport().player().stop();
        Thread.sleep(500);
        List<Ear.Onset> heard = ear.heard();
        List<Ear.Onset> hits = heard.subList(0, Math.min(HITS, heard.size()));
        double[] off = Ear.offGrid(hits, step);
        long missing =
                Math.round((hits.get(hits.size() - 1).frame() - hits.get(0).frame()) / 44_100.0 / step)
                        + 1
                        - hits.size();
        System.out.printf(
                "%-7s even hits:  p50 %.2f  p95 %.2f  worst %.2f ms off the grid, %d of %d within 1 ms, %d missing%n",
                delay.label(),
                at(off, 0.5),
                at(off, 0.95),
                at(off, 1),
                Arrays.stream(off).filter(one -> one <= 1).count(),
                hits.size(),
                missing);
    }

    private static void demo(Session session) throws Exception {
        Piece piece = PieceFile.read(Files.readString(Path.of("demo/the-salt-clock.harpel")));
        onFx(() -> {
            session.replace(piece, "Demo");
            return null;
        });
        await(session, Delay.NORMAL);
        session.transport().player().play();
        Thread.sleep(5_000);
        long before = session.transport().sound().state().orElseThrow().lateBlocks();
        Thread.sleep(DEMO_MILLIS);
        SoundEngine.State state = session.transport().sound().state().orElseThrow();
        System.out.printf(
                "normal  the demo for a minute: %d late blocks, the sound thread %.0f %% of a core, %.0f LUFS%n",
                state.lateBlocks() - before, 100 * state.share(), state.loudness());
    }

    private static double at(double[] sorted, double share) {
        return sorted.length == 0 ? Double.NaN : sorted[(int) Math.round(share * (sorted.length - 1))];
    }
}
