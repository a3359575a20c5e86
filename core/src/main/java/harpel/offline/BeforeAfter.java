package harpel.offline;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.Family;
import harpel.effect.Trait;
import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.plan.Plan;
import harpel.run.Tap;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * What a stage does with its present settings: to three notes that are held for a bar, or, where it works on single notes, to a scale. It is
 * made by the engine, for the picture in help.
 *
 * @param before what came in
 * @param after what went on
 * @param length in ticks
 * @param words what came in and how many notes went on
 */
public record BeforeAfter(List<Sounding> before, List<Sounding> after, long length, String words) {
    private static final int MIDDLE_C = 60;
    private static final int VELOCITY = 90;
    private static final int SCALE = 8;

    /** A note from start to end. */
    public record Sounding(long tick, long end, int pitch, int velocity) {}

    /** On any thread; throws {@link InterruptedException} when that is interrupted. */
    public static BeforeAfter of(Piece piece, Stage stage) throws InterruptedException {
        long bar = piece.time().meter().at(0).barTicks();
        Family family = stage.kind().words().family();
        boolean held = family == Family.HELD || stage.kind().has(Trait.PLAYS_BY_ITSELF);
        List<Sounding> before = held ? held(piece.key(), bar) : scale(piece.key(), bar);
        List<Event> input = new ArrayList<>();
        for (Sounding one : before) {
            NoteStart start = NoteStart.played(one.tick, one.tick, 0, one.pitch, one.velocity);
            input.add(start);
            input.add(NoteEnd.plain(one.end, start));
        }
        input.sort(EventOrder.INSTANCE);
        Plan plan = Plan.ofChain("part", Chain.EMPTY.plus(0, stage), piece.key(), piece.time(), piece.variation());
        List<Sounding> after = soundings(
                new PrintJob(plan, "part", Tail.CUT, Tap.NONE).print(input, bar).events(), bar);
        Spelling spelling = Spelling.of(piece.key());
        String came = held
                ? String.join(
                                " ",
                                before.stream()
                                        .map(one -> letter(one.pitch, spelling))
                                        .toList()) + " held"
                : "a scale of " + SCALE + " notes";
        return new BeforeAfter(
                before,
                after,
                bar,
                came + " for a bar: " + (after.size() == 1 ? "1 note" : after.size() + " notes")
                        + " with these settings");
    }

    private static String letter(int pitch, Spelling spelling) {
        return Pitch.shown(pitch, spelling).replaceAll("-?\\d+$", "");
    }

    /** The chord of the key's first degree. */
    private static List<Sounding> held(Key key, long bar) {
        int root = root(key);
        return List.of(0, 2, 4).stream()
                .map(degree -> new Sounding(0, bar, key.shift(root, degree), VELOCITY))
                .toList();
    }

    private static List<Sounding> scale(Key key, long bar) {
        List<Sounding> notes = new ArrayList<>();
        long step = bar / SCALE;
        for (int i = 0; i < SCALE; i++) {
            // Louder and softer, so that what is done to velocities is seen.
            notes.add(new Sounding(
                    i * step, i * step + step * 3 / 4, key.shift(root(key), i), VELOCITY - 30 + i * 60 / (SCALE - 1)));
        }
        return notes;
    }

    private static int root(Key key) {
        return MIDDLE_C + key.root();
    }

    private static List<Sounding> soundings(List<? extends Event> events, long length) {
        Map<NoteStart, Long> ends = new IdentityHashMap<>();
        for (Event event : events) {
            if (event instanceof NoteEnd end) {
                ends.put(end.start(), end.tick());
            }
        }
        return events.stream()
                .filter(NoteStart.class::isInstance)
                .map(NoteStart.class::cast)
                .filter(note -> note.tick() < length)
                .map(note -> new Sounding(
                        note.tick(), Math.min(length, ends.getOrDefault(note, length)), note.pitch(), note.velocity()))
                .toList();
    }
}
