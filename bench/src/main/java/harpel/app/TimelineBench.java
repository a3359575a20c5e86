package harpel.app;

import harpel.app.look.Look.View;
import harpel.app.session.Session;
import harpel.bench.Material;
import harpel.bench.MeasuringPort;
import harpel.engine.LiveEngine;
import harpel.format.PieceFile;
import harpel.offline.Tail;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.plan.Program;
import harpel.port.Ports;
import harpel.print.PrintOrder;
import harpel.print.Printed;
import harpel.run.Tap;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.stage.Stage;
import org.HdrHistogram.Histogram;

/**
 * A timeline of 64 parts, 512 bars and 50,000 written notes: reading and compiling it, an edit, going to a bar and printing; then the
 * view in a window of 1280 by 800 points while it plays: opening, scrolling and zooming, and how late notes are sent meanwhile.
 */
public final class TimelineBench extends Application {
    private static final int PARTS = 64;
    private static final int BARS = 512;
    private static final int PHRASES = 4;
    private static final int NOTES = 50_000;
    private static final int FRAMES = 600;
    private static final int PLACES = 40;
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    private static Piece piece;
    private Session session;
    private HarpelPane pane;

    public static void main(String[] args) throws Exception {
        Launcher.tune();
        piece = made();
        files();
        launch(TimelineBench.class, args);
    }

    private static Piece made() {
        Random random = new Random(5);
        Piece made = Piece.empty().withTimeline(true);
        List<Part> parts = new ArrayList<>();
        for (int i = 0; i < PARTS; i++) {
            List<Block> blocks = new ArrayList<>();
            for (int k = 0; k < PHRASES; k++) {
                String name = "Phrase " + (i * PHRASES + k);
                List<Note> notes = new ArrayList<>();
                int count = NOTES / PARTS / PHRASES;
                long length = BARS / PHRASES / 2 * BAR;
                for (int n = 0; n < count; n++) {
                    notes.add(Note.of(n * (length / count), length / count - 50, 40 + random.nextInt(48), 30 + n % 90));
                }
                made = made.withPhrase(Phrase.of(name, length, notes));
                long at = k * BARS / PHRASES * BAR;
                for (int cut = 0; cut < 8; cut++) {
                    blocks.add(Block.of(at + cut * 16L * BAR, 12 * BAR, Phrase.idFor(name)));
                }
            }
            parts.add(Part.of("Part " + (i + 1), Material.stages(1))
                    .withChannel(i % 16)
                    .withBlocks(blocks));
        }
        return made.withParts(parts);
    }

    private static double ms(long since) {
        return (System.nanoTime() - since) / 1e6;
    }

    private static void say(String what, double value) {
        System.out.printf("%-64s %.1f%n", what, value);
    }

    private static void files() throws Exception {
        String text = PieceFile.write(piece);
        for (int round = 0; round < 3; round++) {
            long begin = System.nanoTime();
            Piece read = PieceFile.read(text);
            double reading = ms(begin);
            begin = System.nanoTime();
            Program program = Program.of(read);
            double compiling = ms(begin);
            begin = System.nanoTime();
            Piece edited = read.withPart(
                    "part-7", part -> part.withBlocks(part.blocks().subList(1, 20)));
            Program.after(program, edited);
            if (round == 2) {
                say("reading " + text.length() / 1_000_000 + " MB, ms", reading);
                say("compiling, ms", compiling);
                say("compiling after an edit of a block, ms", ms(begin));
            }
        }
        Set<String> all = new LinkedHashSet<>();
        piece.parts().forEach(part -> all.add(part.id()));
        long begin = System.nanoTime();
        Printed printed = new PrintOrder(piece, all, 0, BARS * BAR, Tail.CUT).print(done -> {});
        double seconds = ms(begin) / 1000;
        say(
                "printing " + printed.count() + " notes, times real time",
                piece.time().tempo().nanosAt(BARS * BAR) / 1e9 / seconds);
        Histogram late = new Histogram(10_000_000_000L, 3);
        try (Ports ports = MeasuringPort.ofLateness(late);
                LiveEngine live = new LiveEngine(piece, ports, Tap.NONE)) {
            live.start();
            live.play();
            Thread.sleep(4000);
            List<Double> places = new ArrayList<>();
            Random random = new Random(1);
            for (int i = 0; i < PLACES; i++) {
                long run = live.status().run();
                begin = System.nanoTime();
                live.locate(random.nextInt(BARS) * BAR);
                while (live.status().run() == run) {
                    Thread.onSpinWait();
                }
                places.add(ms(begin));
                Thread.sleep(50);
            }
            places.sort(null);
            say("going to a bar in play, ms, median", places.get(PLACES / 2));
            say("going to a bar in play, ms, worst", places.get(PLACES - 1));
            late.reset();
            Thread.sleep(10_000);
            say("lateness in play, ms, median", late.getValueAtPercentile(50) / 1e6);
            say("lateness in play, ms, 99 %", late.getValueAtPercentile(99) / 1e6);
        }
    }

    @Override
    public void start(Stage stage) {
        Launcher.drawBehindNotes();
        HarpelApp.loadFonts();
        session = new Session(piece);
        pane = new HarpelPane(session);
        stage.setScene(SizedRoot.scene(session, pane, 1280, 800));
        pane.setActions(new Files(session, stage));
        stage.show();
        session.transport().start();
        session.transport().play();
        new AnimationTimer() {
            private int step = -120;
            private long last;
            private long first;
            private double took;

            @Override
            public void handle(long now) {
                long from = System.nanoTime();
                pane.draw(from);
                if (step == -60) {
                    open();
                }
                if (++step > 0) {
                    first = first == 0 ? now : first;
                    last = now;
                    took += ms(from);
                    pane.timeline().scroll(step % 40 < 20 ? 0.03 : -0.03);
                    if (step % 40 == 0) {
                        pane.timeline().zoom(step % 80 == 0);
                    }
                }
                if (step == FRAMES) {
                    say("a frame while scrolling in play, ms on the interface thread", took / FRAMES);
                    say("frames a second", 1e9 * (FRAMES - 1) / (last - first));
                    long edit = System.nanoTime();
                    session.document()
                            .apply(PieceEdit.of(
                                    "Cut",
                                    one -> one.withPart(
                                            "part-7",
                                            part -> part.withBlocks(
                                                    part.blocks().subList(1, 20)))));
                    pane.draw(System.nanoTime());
                    say("an edit of a block and its frame, ms", ms(edit));
                    session.close();
                    Platform.exit();
                    stop();
                }
            }
        }.start();
    }

    private void open() {
        long begin = System.nanoTime();
        session.look().view().set(View.TIMELINE);
        pane.applyCss();
        pane.layout();
        pane.draw(System.nanoTime());
        pane.draw(System.nanoTime());
        say("opening the view, ms on the interface thread", ms(begin));
    }
}
