package harpel.app;

import harpel.app.document.Document;
import harpel.app.file.Disk;
import harpel.app.look.Look;
import harpel.app.session.Session;
import harpel.piece.Piece;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;
import javafx.application.Application;
import javafx.geometry.Dimension2D;

/**
 * Starts the application; a class of its own so that JavaFX may lie on the module path. The piece is read while JavaFX starts, on the
 * other processor.
 */
public final class Launcher {
    static final int LEAST_WIDTH = 640;
    static final int LEAST_HEIGHT = 480;
    private static final int WIDTH = 1280;
    private static final int HEIGHT = 800;
    private static final double MOST_BARS = 1_000;
    private static final long PATIENCE_SECONDS = 5;
    private static final String DRAWING_THREAD = "QuantumRenderer";
    private static final String DIRTY_REGIONS = "prism.dirtyregioncount";
    private static FutureTask<Document.Opened> reading;
    private static FutureTask<Session> opening = new FutureTask<>(() -> new Session(Piece.empty()));

    private Launcher() {}

    /** Lets many small changes be drawn one by one, such as the traces of a long chain, rather than all that lies between them. */
    static void tune() {
        if (System.getProperty(DIRTY_REGIONS) == null) {
            System.setProperty(DIRTY_REGIONS, "24");
        }
    }

    /** Lets notes go before pictures where there are fewer processors than threads that want one. Interface thread. */
    static void drawBehindNotes() {
        Thread.currentThread().setPriority(Thread.MIN_PRIORITY);
        Thread.getAllStackTraces().keySet().stream()
                .filter(thread -> thread.getName().startsWith(DRAWING_THREAD))
                .forEach(thread -> thread.setPriority(Thread.MIN_PRIORITY));
    }

    public static void main(String[] args) {
        if (List.of(args).contains("--verbose")) {
            LogSetup.beVerbose();
        }
        try {
            size(List.of(args));
            bars(List.of(args), 1);
            window(List.of(args));
        } catch (IllegalArgumentException e) {
            System.err.println("harpel: " + e.getMessage());
            System.exit(2);
        }
        tune();
        opening = new FutureTask<>(opener(List.of(args)));
        Thread thread = new Thread(opening, "harpel-opening");
        // A file that does not come does not keep an ended window running.
        thread.setDaemon(true);
        thread.start();
        Application.launch(HarpelApp.class, args);
    }

    private static Callable<Session> opener(List<String> words) {
        Path file = file(words);
        if (file == null) {
            return () -> new Session(Piece.empty());
        }
        reading = new FutureTask<>(() -> Document.Opened.read(file));
        return () -> open(file);
    }

    /** The file that the words of the command line name; null for none. */
    static Path file(List<String> words) {
        List<String> values = Stream.of("--shot", "--size", "--bars", "--window")
                .map(option -> after(words, option))
                .toList();
        return words.stream()
                .filter(word -> !word.startsWith("--") && !values.contains(word))
                .findFirst()
                .map(Path::of)
                .orElse(null);
    }

    /** A session with the piece of a file; with an empty one that says why when it cannot be read. */
    private static Session open(Path file) {
        try {
            reading.run();
            return Session.of(reading.get());
        } catch (ExecutionException e) {
            Session session = new Session(Piece.empty());
            session.say(file + ": " + Disk.words(e.getCause()));
            return session;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return new Session(Piece.empty());
        }
    }

    /** What is in the file of the command line, once it is read. Throws what went wrong. */
    static Document.Opened read() throws Exception {
        try {
            return reading.get();
        } catch (ExecutionException e) {
            throw e.getCause() instanceof Exception cause ? cause : e;
        }
    }

    /** The session that was begun for the words of the command line; none where its file keeps a start waiting. */
    static Optional<Session> session() {
        try {
            opening.run();
            return Optional.of(opening.get(PATIENCE_SECONDS, TimeUnit.SECONDS));
        } catch (TimeoutException e) {
            return Optional.empty();
        } catch (ExecutionException e) {
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** How much larger a picture shows everything, 1–2; as designed where nothing is said. */
    static double size(List<String> words) {
        return number(words, "--size", 100, 100, 100 * Look.LARGEST) / 100;
    }

    /** After how many bars a picture is taken. */
    static double bars(List<String> words, double usual) {
        return number(words, "--bars", usual, 0, MOST_BARS);
    }

    /** How wide and high the window opens. */
    static Dimension2D window(List<String> words) {
        if (!words.contains("--window")) {
            return new Dimension2D(WIDTH, HEIGHT);
        }
        String word = Objects.requireNonNullElse(after(words, "--window"), "");
        String[] sides = word.split("x");
        if (!word.matches("\\d{3,4}x\\d{3,4}")
                || Integer.parseInt(sides[0]) < LEAST_WIDTH
                || Integer.parseInt(sides[1]) < LEAST_HEIGHT) {
            throw new IllegalArgumentException("--window must be WIDTHxHEIGHT, from " + LEAST_WIDTH + "x" + LEAST_HEIGHT
                    + " to 9999x9999, but was “" + word + "”");
        }
        return new Dimension2D(Integer.parseInt(sides[0]), Integer.parseInt(sides[1]));
    }

    /** @throws IllegalArgumentException naming value and range, where what stands after the option is no such number */
    private static double number(List<String> words, String option, double usual, double least, double most) {
        int place = words.indexOf(option);
        if (place < 0) {
            return usual;
        }
        String word = place + 1 < words.size() ? words.get(place + 1) : "";
        try {
            double number = Double.parseDouble(word);
            if (number >= least && number <= most) {
                return number;
            }
        } catch (NumberFormatException e) {
            // Said below, as what lies outside is.
        }
        throw new IllegalArgumentException(option + " must be a number from " + Math.round(least) + " to "
                + Math.round(most) + " but was “" + word + "”");
    }

    /** The word after an option, or null. */
    static String after(List<String> words, String option) {
        int place = words.indexOf(option);
        return place >= 0 && place + 1 < words.size() ? words.get(place + 1) : null;
    }
}
