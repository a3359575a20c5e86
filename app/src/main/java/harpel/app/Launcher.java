package harpel.app;

import harpel.app.session.Session;
import harpel.piece.Piece;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.stream.Stream;
import javafx.application.Application;

/**
 * Starts the application; a class of its own so that JavaFX may lie on the module path. The piece is read while JavaFX starts, on the
 * other processor.
 */
public final class Launcher {
    private static final String DRAWING_THREAD = "QuantumRenderer";
    private static final String DIRTY_REGIONS = "prism.dirtyregioncount";
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
        tune();
        opening = new FutureTask<>(opener(List.of(args)));
        new Thread(opening, "harpel-opening").start();
        Application.launch(HarpelApp.class, args);
    }

    private static Callable<Session> opener(List<String> words) {
        List<String> values = Stream.of("--shot", "--size", "--bars", "--window")
                .map(option -> after(words, option))
                .toList();
        for (String word : words) {
            if (!word.startsWith("--") && !values.contains(word)) {
                return () -> open(Path.of(word));
            }
        }
        return () -> new Session(Piece.empty());
    }

    /** A session with the piece of a file; with an empty one that says why when it cannot be read. */
    private static Session open(Path file) {
        try {
            return Session.of(file);
        } catch (IOException | IllegalArgumentException e) {
            Session session = new Session(Piece.empty());
            session.say(file + ": " + e.getMessage());
            return session;
        }
    }

    /** The session that was begun for the words of the command line. */
    static Session session() {
        try {
            opening.run();
            return opening.get();
        } catch (ExecutionException e) {
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** The word after an option, or null. */
    static String after(List<String> words, String option) {
        int place = words.indexOf(option);
        return place >= 0 && place + 1 < words.size() ? words.get(place + 1) : null;
    }
}
