package harpel.app;

import com.sun.management.OperatingSystemMXBean;
import harpel.app.chain.StageActions;
import harpel.app.session.Session;
import harpel.bench.Material;
import harpel.format.PieceFile;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.port.OutputPort;
import harpel.time.Ticks;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.LongConsumer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.stage.Stage;
import org.HdrHistogram.Histogram;

/**
 * Frames a second of the window with six parts of 12 stages each whose traces are full, and the lateness of notes beside it; the
 * lateness of the same piece without a window is measured first. The window has 1280 by 800 points, or what two numbers say, and the piece of a file that is named behind them.
 */
public final class FrameBench extends Application {
    private static final int PARTS = 6;
    private static final int STAGES = 12;
    private static final long WARM_UP_NANOS = Integer.getInteger("bench.warm-up", 10) * 1_000_000_000L;
    private static final long MEASURED_NANOS = 20_000_000_000L;

    public static void main(String[] args) {
        Launcher.tune();
        launch(FrameBench.class, args);
    }

    private static Piece piece() {
        List<Note> notes = new ArrayList<>();
        // So that the echoes and steps of 12 stages fall on many moments.
        long sixteenth = Ticks.PER_QUARTER / 4;
        for (int i = 0; i < 16 * 4; i++) {
            for (int voice = 0; voice < 3; voice++) {
                notes.add(Note.of(i * sixteenth, sixteenth - 100, 50 + i % 7 + 5 * voice, 40 + i));
            }
        }
        Phrase phrase = Phrase.of("load", 16 * Ticks.PER_QUARTER, notes);
        List<Part> parts = new ArrayList<>();
        for (int i = 0; i < PARTS; i++) {
            parts.add(Part.of("Part " + (i + 1), Material.stages(STAGES))
                    .withPhrase("load")
                    .withChannel(i));
        }
        return Piece.empty().withPhrase(phrase).withParts(parts);
    }

    private static Piece read(Path file) {
        try {
            return PieceFile.read(Files.readString(file));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** How late messages are sent, from the moment it is told to count. */
    private static final class LatePort implements OutputPort {
        private final Histogram late = new Histogram(10_000_000_000L, 3);
        private volatile boolean counting;
        private long lastDue;

        @Override
        public String name() {
            return "Lateness";
        }

        @Override
        public void send(byte[] message, long dueNanos) {
            // The first message of a moment: what it waits for is the engine, not the messages before it.
            if (counting && dueNanos != lastDue) {
                lastDue = dueNanos;
                late.recordValue(Math.max(0, System.nanoTime() - dueNanos));
            }
        }

        @Override
        public void close() {
            // keeps what it has
        }

        void print(String what) {
            System.out.printf(
                    "lateness %-18s p50 %.2f  p90 %.2f  p99 %.2f  worst %.2f ms over %d moments%n",
                    what,
                    late.getValueAtPercentile(50) / 1e6,
                    late.getValueAtPercentile(90) / 1e6,
                    late.getValueAtPercentile(99) / 1e6,
                    late.getMaxValue() / 1e6,
                    late.getTotalCount());
        }
    }

    /** The processor time of the whole process. */
    private static long busy() {
        return ManagementFactory.getPlatformMXBean(OperatingSystemMXBean.class).getProcessCpuTime();
    }

    private static void withoutWindow() throws InterruptedException {
        try (Session session = new Session(piece())) {
            LatePort port = new LatePort();
            session.transport().listen(port);
            session.transport().start();
            session.transport().play();
            for (long end = System.nanoTime() + WARM_UP_NANOS; System.nanoTime() < end; ) {
                Thread.sleep(50);
                session.transport().traces();
            }
            port.counting = true;
            for (long end = System.nanoTime() + MEASURED_NANOS; System.nanoTime() < end; ) {
                Thread.sleep(50);
                session.transport().traces();
            }
            port.print("without a window");
        }
    }

    @Override
    public void start(Stage stage) throws InterruptedException {
        Launcher.drawBehindNotes();
        HarpelApp.loadFonts();
        withoutWindow();
        List<String> size = getParameters().getRaw();
        double width = size.size() >= 2 ? Double.parseDouble(size.get(0)) : 1280;
        double height = size.size() >= 2 ? Double.parseDouble(size.get(1)) : 800;
        Session session = new Session(size.size() < 3 ? piece() : read(Path.of(size.get(2))));
        LatePort port = new LatePort();
        session.transport().listen(port);
        HarpelPane pane = new HarpelPane(session);
        stage.setScene(SizedRoot.scene(session, pane, width, height));
        pane.setActions(new harpel.app.Files(session, stage));
        stage.show();
        session.transport().start();
        session.transport().play();
        StageActions.select(
                session.selection(),
                List.of(),
                session.selection().part().chain().stages().get(0).id());
        long began = System.nanoTime();
        new Frames(session, new LongConsumer() {
                    private int frames;
                    private long spent;
                    private long busy;

                    @Override
                    public void accept(long heard) {
                        long before = System.nanoTime();
                        pane.draw(heard);
                        if (before - began > WARM_UP_NANOS) {
                            port.counting = true;
                            busy = frames == 0 ? busy() : busy;
                            frames++;
                            spent += System.nanoTime() - before;
                        }
                        if (before - began > WARM_UP_NANOS + MEASURED_NANOS && port.counting) {
                            port.counting = false;
                            port.print("with the window");
                            System.out.printf(
                                    "%.0f x %.0f: %.1f frames a second, %.2f ms a frame on the interface thread, %.0f %% of a core in all;"
                                            + " notes in all rows %d; trace data dropped %d%n",
                                    width,
                                    height,
                                    frames / (MEASURED_NANOS / 1e9),
                                    spent / 1e6 / frames,
                                    100.0 * (busy() - busy) / MEASURED_NANOS,
                                    session.transport().traces().count(),
                                    session.transport().droppedTraces());
                            session.close();
                            Platform.exit();
                        }
                    }
                })
                .start(stage.getScene());
    }
}
