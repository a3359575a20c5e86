package harpel.offline;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.plan.Plan;
import harpel.run.Told;
import harpel.script.Script;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/** What a stage makes of three notes, one after the other: how a script is tried in place while it is written. */
public final class Trial {
    private static final int[] KEYS = {60, 64, 67};
    private static final int VELOCITY = 100;
    /** So many notes of each are shown. */
    private static final int MOST = 6;

    private Trial() {}

    /** In lines, one a note and one for what was said. On any thread; throws {@link InterruptedException} when that is interrupted. */
    public static List<String> of(Piece piece, Stage stage) throws InterruptedException {
        Spelling spelling = Spelling.of(piece.key());
        List<Event> input = new ArrayList<>();
        List<NoteStart> keys = new ArrayList<>();
        for (int i = 0; i < KEYS.length; i++) {
            NoteStart key = NoteStart.played(i * Ticks.PER_QUARTER, i, 0, KEYS[i], VELOCITY);
            keys.add(key);
            input.add(key);
            input.add(NoteEnd.plain((i + 1) * Ticks.PER_QUARTER, key));
        }
        List<String> said = new ArrayList<>();
        long[] most = new long[2];
        Plan plan = Plan.ofChain("part", Chain.EMPTY.plus(0, stage), piece.key(), piece.time(), piece.variation());
        List<Event> heard = new PrintJob(plan, "part", Tail.STOP, told -> {
                    if (told instanceof Told.Said one) {
                        said.add(one.text());
                    } else if (told instanceof Told.Worked work) {
                        most[0] = Math.max(most[0], work.steps());
                        most[1] = Math.max(most[1], work.nanos());
                    }
                })
                .print(input, 2 * piece.time().meter().at(0).barTicks())
                .events();
        List<NoteStart> notes = heard.stream()
                .filter(NoteStart.class::isInstance)
                .map(NoteStart.class::cast)
                .toList();
        List<String> lines = new ArrayList<>();
        for (NoteStart key : keys) {
            Stream<NoteStart> of = notes.stream().filter(note -> root(note) == key);
            lines.add(Pitch.shown(key.pitch(), spelling) + " → " + shown(of, key.tick(), spelling));
        }
        List<NoteStart> own = notes.stream()
                .filter(note -> keys.stream().noneMatch(key -> key == root(note)))
                .toList();
        if (!own.isEmpty()) {
            lines.add("by itself → " + shown(own.stream(), 0, spelling));
        }
        // Steps are counted by the hundreds.
        String steps = most[0] == 0 ? "a few" : String.format(Locale.ROOT, "at most %,d", most[0]);
        lines.add(String.format(
                Locale.ROOT, "%s steps of %,d and %.1f ms a call", steps, Script.CALL_STEPS, most[1] / 1e6));
        said.stream().distinct().limit(2).forEach(lines::add);
        return lines;
    }

    /** Some of the notes, those that come later than they could with how much later. */
    private static String shown(Stream<NoteStart> made, long from, Spelling spelling) {
        List<String> notes = made.map(note -> Pitch.shown(note.pitch(), spelling)
                        + (note.tick() == from ? "" : " +" + Ticks.shown(note.tick() - from, Ticks.PER_QUARTER)))
                .toList();
        return notes.isEmpty()
                ? "nothing"
                : String.join("  ", notes.subList(0, Math.min(MOST, notes.size())))
                        + (notes.size() > MOST ? "  …" : "");
    }

    /** What a note came from in the end. */
    private static NoteStart root(NoteStart note) {
        NoteStart first = note;
        while (first.cause() != null) {
            first = first.cause();
        }
        return first;
    }
}
