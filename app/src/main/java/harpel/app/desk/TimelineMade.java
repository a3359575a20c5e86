package harpel.app.desk;

import harpel.app.document.Document;
import harpel.offline.Tail;
import harpel.phrase.Notes;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.PrintOrder;
import harpel.print.Printed;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Future;
import javafx.application.Platform;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** What every part sends along the timeline, printed in the background whenever the piece changes. Interface thread. */
public final class TimelineMade {
    private final Document document;
    private final Printing printing;
    private final ObjectProperty<Map<String, Notes>> notes = new SimpleObjectProperty<>(Map.of());
    private Piece asked;
    private Future<?> running;

    public TimelineMade(Document document, Printing printing) {
        this.document = document;
        this.printing = printing;
    }

    /** The notes of each part, at their places; nothing until they have been printed. */
    public ObjectProperty<Map<String, Notes>> notes() {
        return notes;
    }

    /** Asks for those of the piece as it is; what was asked for before is given up. */
    public void ask() {
        Piece piece = document.piece().get();
        if (piece == asked) {
            return;
        }
        asked = piece;
        if (running != null) {
            running.cancel(true);
        }
        long end = piece.timelineEnd();
        // Only who makes notes of another kind than its blocks say is to be printed.
        Set<String> wanted = new LinkedHashSet<>();
        for (Part part : piece.parts()) {
            if (part.blocks().stream().anyMatch(block -> block.phrase().isEmpty())) {
                wanted.add(part.id());
            }
        }
        if (wanted.isEmpty()) {
            notes.set(Map.of());
            return;
        }
        PrintOrder order = new PrintOrder(piece.withTimeline(true), wanted, 0, end, Tail.CUT);
        running = printing.pool().submit(() -> {
            try {
                Printed printed = order.print(done -> {});
                Map<String, Notes> made = new LinkedHashMap<>();
                printed.events().forEach((part, events) -> made.put(part, Notes.heard(events, 0, end)));
                Platform.runLater(() -> {
                    if (asked == piece) {
                        notes.set(made);
                    }
                });
            } catch (InterruptedException e) {
                log().debug("given up for a newer edit");
            } catch (RuntimeException | Error e) {
                log().error("what the timeline sends could not be printed", e);
            }
            return null;
        });
    }

    /** What a part sends, as far as it has been printed. */
    public Notes of(String part) {
        return notes.get().getOrDefault(part, Notes.of(List.of()));
    }

    private static Logger log() {
        return LoggerFactory.getLogger(TimelineMade.class);
    }
}
