package harpel.app;

import harpel.app.look.Look.View;
import harpel.app.session.Session;
import harpel.bench.Material;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.Set;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.stage.Stage;

/**
 * The Phrase view with 100,000 notes in a window of 1280 by 800 points: opening it, scrolling and zooming, edits of one note, what undo
 * keeps of 1,000 of them; and how soon what a chain of 8 stages makes of 2,000 notes is there after an edit.
 */
public final class PhraseBench extends Application {
    private static final int MANY = 100_000;
    private static final int FEW = 2_000;
    private static final int STAGES = 8;
    private static final int EDITS = 1_000;
    private static final int FRAMES = 400;
    private static final int PRINTS = 60;

    private Session session;
    private HarpelPane pane;

    public static void main(String[] args) {
        Launcher.tune();
        launch(PhraseBench.class, args);
    }

    private static Phrase phrase(String name, int notes) {
        Random random = new Random(7);
        long sixteenth = Ticks.PER_QUARTER / 4;
        List<Note> all = new ArrayList<>();
        for (int i = 0; i < notes; i++) {
            all.add(Note.of(i / 4 * sixteenth, sixteenth, 40 + random.nextInt(48), 30 + random.nextInt(90)));
        }
        return Phrase.of(name, (notes / 64 + 1) * 4L * Ticks.PER_QUARTER, all);
    }

    @Override
    public void start(Stage stage) {
        Launcher.drawBehindNotes();
        HarpelApp.loadFonts();
        Piece piece = Piece.empty()
                .withPhrase(phrase("Few", FEW))
                .withPhrase(phrase("Many", MANY))
                .withParts(List.of(
                        Part.of("Lead", Material.stages(STAGES)).withPhrase("few"),
                        Part.of("Long", Material.stages(1)).withPhrase("many")));
        session = new Session(piece);
        pane = new HarpelPane(session);
        stage.setScene(SizedRoot.scene(session, pane, 1280, 800));
        pane.setActions(new Files(session, stage));
        stage.show();
        session.transport().start();
        session.look().view().set(View.PHRASE);
        new AnimationTimer() {
            private int step = -120;
            private final List<Double> frames = new ArrayList<>();
            private final List<Double> prints = new ArrayList<>();
            private long asked;
            private Object before;
            private long lastPulse;
            private final List<Double> pulses = new ArrayList<>();

            @Override
            public void handle(long now) {
                long begin = System.nanoTime();
                pane.draw(begin);
                double took = (System.nanoTime() - begin) / 1e6;
                if (step < 0) {
                    step++;
                } else if (step < PRINTS) {
                    prints(begin);
                } else if (step == PRINTS) {
                    show("made of 2,000 notes through 8 stages after an edit, ms", prints);
                    open();
                    step++;
                } else if (step < PRINTS + FRAMES) {
                    if (lastPulse != 0) {
                        pulses.add((now - lastPulse) / 1e6);
                    }
                    lastPulse = now;
                    frames.add(took);
                    move();
                    step++;
                } else {
                    show("a frame while scrolling and zooming, ms on the interface thread", frames);
                    System.out.printf(
                            "%-64s %.1f%n",
                            "frames a second while scrolling and zooming",
                            1000
                                    * pulses.size()
                                    / pulses.stream()
                                            .mapToDouble(Double::doubleValue)
                                            .sum());
                    edits();
                    session.close();
                    Platform.exit();
                    stop();
                }
            }

            private void prints(long now) {
                Object result = session.made().result().get();
                if (asked == 0) {
                    before = result;
                    asked = System.nanoTime();
                    Phrase few = session.desk().phrase().orElseThrow();
                    Note note = few.notes().get(FEW / 2);
                    session.desk()
                            .set(
                                    "Move",
                                    "",
                                    few.withNotes(few.notes().with(note.withPitch(40 + step % 40))),
                                    Set.of(note.id()));
                } else if (result != before && result != null) {
                    prints.add((now - asked) / 1e6);
                    asked = 0;
                    step++;
                }
            }

            private void move() {
                if (step % 40 < 20) {
                    pane.phrases().scroll(0.05);
                } else {
                    pane.phrases().zoom(step % 40 < 30);
                }
            }
        }.start();
    }

    private void open() {
        long begin = System.nanoTime();
        session.selection().partId().set("long");
        pane.applyCss();
        pane.layout();
        pane.draw(System.nanoTime());
        pane.draw(System.nanoTime());
        System.out.printf(
                "%-64s %.0f%n", "opening 100,000 notes, ms on the interface thread", (System.nanoTime() - begin) / 1e6);
    }

    private void edits() {
        double[] times = new double[EDITS];
        Random random = new Random(3);
        for (int i = 0; i < EDITS; i++) {
            Phrase many = session.desk().phrase().orElseThrow();
            Note note = many.notes().get(random.nextInt(MANY));
            long begin = System.nanoTime();
            session.desk()
                    .set(
                            "Move",
                            "",
                            many.withNotes(many.notes().with(note.withTick(note.tick() ^ 64))),
                            Set.of(note.id()));
            pane.draw(System.nanoTime());
            times[i] = (System.nanoTime() - begin) / 1e6;
        }
        show(
                "an edit of one note of 100,000 and its frame, ms",
                Arrays.stream(times).boxed().toList());
        System.out.printf(
                "%-64s %.1f%n",
                "kept for undo of 1,000 edits, MB", session.document().keptBytes() / 1e6);
    }

    private static void show(String what, List<Double> values) {
        double[] sorted =
                values.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        System.out.printf(
                "%-64s median %.2f  p90 %.2f  worst %.2f%n",
                what, sorted[sorted.length / 2], sorted[sorted.length * 9 / 10], sorted[sorted.length - 1]);
    }
}
