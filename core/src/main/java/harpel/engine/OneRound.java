package harpel.engine;

import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.StepsType;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/** One round of a pattern as notes: what leaves a stage until its rows come round, of the part's phrase or else of the key's triad, held. */
public final class OneRound {
    private static final int MOST_BARS = 16;
    private static final String PACE = "pace";
    private static final String STEPS = "steps";
    private static final int MIDDLE = 60;

    private OneRound() {}

    /** After how many ticks the rows of a stage come round together, in whole beats and at most 16 bars; a bar where it has none. */
    public static long ticks(Stage stage, TimeMap time) {
        long beat = time.meter().at(0).beatTicks();
        long bar = time.meter().at(0).barTicks();
        Set<Integer> lengths = new TreeSet<>();
        collect(stage.params(), lengths);
        Object pace = stage.params()
                .spec()
                .byId(PACE)
                .map(param -> (Object) stage.params().get(param))
                .orElse(null);
        if (lengths.isEmpty() || !(pace instanceof TimeValue value)) {
            return bar;
        }
        long together = 1;
        for (int length : lengths) {
            together = together / gcd(together, length) * length;
        }
        long ticks = Math.round(together * value.ticksAt(0, time));
        return Math.max(beat, Math.min(MOST_BARS * bar, -Math.floorDiv(-ticks, beat) * beat));
    }

    private static long gcd(long a, long b) {
        return b == 0 ? a : gcd(b, a % b);
    }

    private static void collect(ParamSet values, Set<Integer> lengths) {
        for (Param<?> param : values.spec().params()) {
            Object value = values.get(param);
            if (param.type() instanceof StepsType) {
                lengths.add(String.valueOf(value).length());
            } else if (param.id().equals(STEPS) && value instanceof Integer steps) {
                lengths.add(steps);
            } else if (value instanceof List<?> list && !list.isEmpty()) {
                Set<Integer> inside = new TreeSet<>();
                list.stream().filter(ParamSet.class::isInstance).forEach(one -> collect((ParamSet) one, inside));
                // A list of rows, each of a length of its own, or one row itself.
                lengths.addAll(inside.isEmpty() ? Set.of(list.size()) : inside);
            }
        }
    }

    /** @throws InterruptedException when the thread was interrupted */
    public static Phrase of(Piece piece, StageAddress address, Stage stage) throws InterruptedException {
        Part part = piece.part(address.part()).orElseThrow();
        long length = ticks(stage, piece.time());
        List<Note> notes = new ArrayList<>();
        Map<NoteStart, Integer> open = new HashMap<>();
        String place = address.toString();
        Tap tap = (from, at, event) -> {
            if (!at.equals(place)) {
                return;
            }
            if (event instanceof NoteStart start && start.tick() < length) {
                open.put(start, notes.size());
                notes.add(Note.of(start.tick(), length - start.tick(), start.pitch(), start.velocity()));
            } else if (event instanceof NoteEnd end && open.containsKey(end.start())) {
                int index = open.remove(end.start());
                long lasts =
                        Math.max(1, Math.min(length, end.tick()) - end.start().tick());
                Note note = notes.get(index);
                notes.set(
                        index,
                        new Note(
                                Note.NEW,
                                note.tick(),
                                lasts,
                                note.pitch(),
                                note.velocity(),
                                end.releaseVelocity(),
                                Traits.PLAIN));
            }
        };
        Program program = Program.of(piece);
        PrintJob job = new PrintJob(program.plan(), part.id(), false, tap);
        if (piece.phrase(part.phrase()).filter(phrase -> !phrase.ready()).isPresent()) {
            job.print(program, length);
        } else {
            job.print(triad(piece.key(), length), length);
        }
        String name = stage.name() + " round 1";
        String id = piece.freePhraseId(Phrase.idFor(name));
        return new Phrase(
                id,
                stage.name() + " round " + id.replaceFirst(".*-(?=\\d+$)", ""),
                length,
                Notes.of(notes),
                List.of(),
                false,
                Origin.of(Origin.Kind.KEPT, part.id(), "one round of " + stage.name()),
                Map.of());
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
