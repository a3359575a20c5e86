package harpel.offline;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.plan.Plan;
import harpel.run.Told;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** What a stage makes of three notes, one after the other: how a script is tried in place while it is written. */
public final class Trial {
    private static final int[] KEYS = {60, 64, 67};
    private static final int VELOCITY = 100;

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
        List<String> lines = new ArrayList<>();
        keys.forEach(key -> lines.add(Pitch.shown(key.pitch(), spelling) + " → " + made(key, heard, spelling)));
        String by = made(null, heard, spelling);
        if (!by.equals("nothing")) {
            lines.add("by itself → " + by);
        }
        // Steps are counted by the hundreds.
        String steps = most[0] == 0 ? "a few" : String.format(Locale.ROOT, "at most %,d", most[0]);
        lines.add(String.format(Locale.ROOT, "%s steps of 500,000 and %.1f ms a call", steps, most[1] / 1e6));
        said.stream().distinct().limit(2).forEach(lines::add);
        return lines;
    }

    /** The notes that came of a key, later ones with how much later; with null those of none. */
    private static String made(NoteStart key, List<Event> heard, Spelling spelling) {
        List<NoteStart> notes = heard.stream()
                .filter(NoteStart.class::isInstance)
                .map(NoteStart.class::cast)
                .filter(note -> root(note, key) == key)
                .toList();
        String shown = notes.stream()
                .limit(6)
                .map(note -> Pitch.shown(note.pitch(), spelling)
                        + (key == null || note.tick() == key.tick()
                                ? ""
                                : " +" + Ticks.shown(note.tick() - key.tick(), Ticks.PER_QUARTER)))
                .collect(Collectors.joining("  "));
        return notes.isEmpty() ? "nothing" : shown + (notes.size() > 6 ? "  …" : "");
    }

    /** What a note came from: a key that was played, or nothing where it was made by itself. */
    private static NoteStart root(NoteStart note, NoteStart key) {
        NoteStart first = note;
        while (first != key && first.cause() != null) {
            first = first.cause();
        }
        boolean played = first.velocity() == VELOCITY && first.tick() % Ticks.PER_QUARTER == 0 && first != note;
        return first == key ? key : key == null && !played ? null : first;
    }
}
