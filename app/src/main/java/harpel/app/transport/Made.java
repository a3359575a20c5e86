package harpel.app.transport;

import harpel.app.transport.Places.Place;
import harpel.app.transport.TraceStore.Drawn;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.offline.PrintJob;
import harpel.offline.Tail;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.run.Tap;
import harpel.run.Told;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What a part's chain makes of its phrase, once round from the beginning, or of what it plays by itself or hears: printed in the background
 * after each edit, so that it is exactly what would be heard, and given up when the next edit comes. Interface thread, but for the
 * printing.
 */
public final class Made implements AutoCloseable {
    /**
     * What came by each place of a part.
     *
     * @param part its id
     * @param phrase the id of what it plays
     * @param notes the notes of each place in order
     */
    public record Result(Piece piece, String part, String phrase, Map<Place, List<Drawn>> notes) {
        public List<Drawn> at(Place place) {
            return notes.getOrDefault(place, List.of());
        }
    }

    private static final int BARS = 4;

    private final ExecutorService printer = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "harpel-made");
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY + 1);
        return thread;
    });
    private final ReadOnlyObjectWrapper<Result> result = new ReadOnlyObjectWrapper<>();
    private Future<?> running;
    /** What was compiled last, so that what did not change is not compiled anew. Owned by the printing thread. */
    private Program compiled;

    private Piece asked;
    private String askedPart = "";

    /** The latest; null where there is none yet. */
    public ReadOnlyObjectProperty<Result> result() {
        return result.getReadOnlyProperty();
    }

    /** Asks for what a part of a piece makes; what was asked for before is given up. */
    public void ask(Piece piece, String part) {
        if (piece == asked && part.equals(askedPart)) {
            return;
        }
        asked = piece;
        askedPart = part;
        if (running != null) {
            running.cancel(true);
        }
        Part one = piece.part(part).orElse(null);
        if (one == null) {
            result.set(null);
            return;
        }
        running = printer.submit(() -> print(piece, one));
    }

    private void print(Piece piece, Part part) {
        try {
            compiled = Program.after(compiled, piece.withTimeline(false));
            long length = length(piece, part);
            Collecting collecting = new Collecting(part.id());
            new PrintJob(compiled.plan(), part.id(), Tail.STOP, collecting).print(compiled, length);
            Result done = new Result(piece, part.id(), part.phrase(), collecting.notes);
            Platform.runLater(() -> {
                if (asked == piece && askedPart.equals(part.id())) {
                    result.set(done);
                }
            });
        } catch (InterruptedException e) {
            // The next edit has come, and asks for its own.
            log().debug("given up for a newer edit");
        } catch (RuntimeException | Error e) {
            log().error("what the chain makes could not be printed", e);
        }
    }

    /** Of a part without a phrase of its own, which plays by itself or hears others, some bars. */
    private static long length(Piece piece, Part part) {
        return piece.phrase(part.phrase())
                .map(Phrase::length)
                .orElse(BARS * piece.time().meter().at(0).barTicks());
    }

    /** Keeps the notes of one part. Owned by the printing thread until it is done. */
    private static final class Collecting implements Tap {
        private final String part;
        private final Map<Place, List<Drawn>> notes = new HashMap<>();
        private final Map<Place, Map<NoteStart, Drawn>> open = new HashMap<>();

        Collecting(String part) {
            this.part = part;
        }

        @Override
        public void tell(Told told) {
            if (told instanceof Told.Left left && left.part().equals(part)) {
                take(new Place(left.part(), left.place()), left.event(), false);
            } else if (told instanceof Told.Away away && away.part().equals(part)) {
                take(new Place(away.part(), away.place()), away.event(), true);
            }
        }

        private void take(Place place, Event event, boolean away) {
            if (event instanceof NoteStart note) {
                Drawn drawn = new Drawn(note, away);
                notes.computeIfAbsent(place, key -> new ArrayList<>()).add(drawn);
                open.computeIfAbsent(place, key -> new HashMap<>()).put(note, drawn);
            } else if (event instanceof NoteEnd end) {
                Drawn drawn = open.getOrDefault(place, Map.of()).remove(end.start());
                if (drawn != null) {
                    drawn.end(end.tick());
                }
            }
        }
    }

    @Override
    public void close() {
        printer.shutdownNow();
    }

    private static Logger log() {
        return LoggerFactory.getLogger(Made.class);
    }
}
