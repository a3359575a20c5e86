package harpel.app;

import harpel.bench.Material;
import harpel.piece.Note;
import harpel.piece.Phrase;
import harpel.piece.Piece;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;

/** Frames a second of the window with 8 stages whose traces are full, and the lateness of notes beside it. */
public final class FrameBench extends Application {
    private static final long WARM_UP_NANOS = 8_000_000_000L;
    private static final long MEASURED_NANOS = 15_000_000_000L;

    public static void main(String[] args) {
        launch(FrameBench.class, args);
    }

    @Override
    public void start(Stage stage) {
        HarpelApp.loadFonts();
        List<Note> notes = new ArrayList<>();
        long sixteenth = Ticks.PER_QUARTER / 4;
        for (int i = 0; i < 16 * 4; i++) {
            for (int voice = 0; voice < 4; voice++) {
                notes.add(new Note(i * sixteenth, sixteenth - 100, 0, 50 + i % 7 + 5 * voice, 40 + i, 64));
            }
        }
        Phrase phrase = new Phrase("load", 16 * Ticks.PER_QUARTER, notes, List.of());
        Piece piece = Piece.empty()
                .withPhrase(phrase)
                .withPart("part-1", part -> part.withPhrase("load").withChain(Material.stages(8)));
        Session session = new Session(piece);
        HarpelPane pane = new HarpelPane(session);
        stage.setScene(new Scene(pane, 1280, 800));
        pane.setActions(new Files(session, stage));
        stage.show();
        session.start();
        session.play();
        new AnimationTimer() {
            private long began;
            private int frames;
            private long spent;

            @Override
            public void handle(long now) {
                began = began == 0 ? now : began;
                long before = System.nanoTime();
                pane.draw(before);
                if (now - began > WARM_UP_NANOS) {
                    frames++;
                    spent += System.nanoTime() - before;
                }
                if (now - began > WARM_UP_NANOS + MEASURED_NANOS) {
                    System.out.printf(
                            "%.1f frames a second, %.2f ms a frame on the interface thread; notes in all rows %d; worst lateness of a"
                                    + " note in the last minute %s; trace data dropped %d%n",
                            frames / (MEASURED_NANOS / 1e9),
                            spent / 1e6 / frames,
                            session.traces().count(),
                            Words.milliseconds(session.status().worstLateNanos()),
                            session.droppedTraces());
                    session.close();
                    Platform.exit();
                    stop();
                }
            }
        }.start();
    }
}
