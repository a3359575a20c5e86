package harpel.offline;

import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.phrase.Notes;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * One round of a pattern as notes: what leaves a stage until its rows come round, of the part's phrase, else by itself, or where nothing
 * comes of that, of the key's triad, held.
 */
public final class OneRound {
    private static final int MOST_BARS = 16;
    private static final int MIDDLE = 60;

    private OneRound() {}

    /** How long a round of a stage is: its rows together, at most 16 bars; a bar where it has no rows. */
    public static long ticks(Stage stage, TimeMap time) {
        long bar = time.meter().at(0).barTicks();
        double round = stage.kind().nature().roundTicks(stage.params(), time);
        return Double.isNaN(round) ? bar : (long) Math.max(1, Math.min((double) MOST_BARS * bar, Math.rint(round)));
    }

    /** @throws InterruptedException when the thread was interrupted */
    public static Phrase of(Piece piece, StageAddress address, Stage stage) throws InterruptedException {
        Part part = piece.part(address.part()).orElseThrow();
        long length = ticks(stage, piece.time());
        Program program = Program.of(piece.withTimeline(false));
        List<Event> left;
        if (piece.phrase(part.phrase()).filter(phrase -> !phrase.ready()).isPresent()) {
            left = leaving(program, address, job -> job.print(program, length));
        } else {
            left = leaving(program, address, job -> job.print(List.of(), length));
            if (left.isEmpty()) {
                left = leaving(program, address, job -> job.print(triad(piece.key(), length), length));
            }
        }
        String name = stage.name() + " round 1";
        String id = piece.freePhraseId(Phrase.idFor(name));
        return new Phrase(
                id,
                stage.name() + " round " + id.replaceFirst(".*-(?=\\d+$)", ""),
                length,
                Notes.heard(left, 0, length),
                List.of(),
                false,
                Origin.of(Origin.Kind.KEPT, part.id(), "one round of " + stage.name()),
                Map.of());
    }

    private interface Print {
        void of(PrintJob job) throws InterruptedException;
    }

    private static List<Event> leaving(Program program, StageAddress address, Print print) throws InterruptedException {
        String place = address.toString();
        List<Event> left = new ArrayList<>();
        Tap tap = told -> {
            if (told instanceof Told.Left one && one.place().equals(place)) {
                left.add(one.event());
            }
        };
        print.of(new PrintJob(program.plan(), address.part(), Tail.STOP, tap));
        return left;
    }

    private static List<Event> triad(Key key, long length) {
        List<Event> events = new ArrayList<>();
        long arrival = 0;
        for (int pitch : Chord.stackedThirds(key, MIDDLE + key.root(), 3)) {
            NoteStart start = NoteStart.played(0, arrival++, 0, pitch, 100);
            events.add(start);
            events.add(NoteEnd.plain(length, start));
        }
        events.sort(EventOrder.INSTANCE);
        return events;
    }
}
