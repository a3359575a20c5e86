package harpel.print;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.run.Tap;
import harpel.run.Told;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Counts what is lost on the way through chains. Owned by the printing thread. */
public final class Losses implements Tap {
    /** What happened to notes. */
    public enum Kind {
        OUT_OF_RANGE("outside 0–127 or the range of the stage"),
        ASTRAY("sent to a part that is not there"),
        TOO_SHORT("held too short for a step"),
        TOO_MANY("left out, since more sounded or waited at once than can be carried"),
        COMPLAINT("");

        private final String words;

        Kind(String words) {
            this.words = words;
        }
    }

    /**
     * What was lost at one place.
     *
     * @param where the part and the stage, as people call them
     * @param count how many notes; 0 for a complaint
     * @param text what a stage complained of, or to which part notes were sent
     */
    public record Loss(Kind kind, String where, long count, String text) {
        /** In words: "Harbour bells, Arpeggio: 3 notes held too short for a step". */
        public String shown() {
            String what = kind == Kind.COMPLAINT ? text : (count == 1 ? "1 note " : count + " notes ") + kind.words;
            return (where.isEmpty() ? "" : where + ": ") + what + (kind == Kind.ASTRAY ? " (“" + text + "”)" : "");
        }
    }

    private record Key(Kind kind, String place, String text) {}

    private final Piece piece;
    private final Set<String> parts;
    private final Map<Key, Long> counts = new LinkedHashMap<>();
    /** The notes shorter than a step that a stage that steps through held notes was given, and those that became a note. */
    private record Steps(String stage, double stepTicks, Set<NoteStart> tooShort, Set<NoteStart> used) {
        Steps(String stage, double stepTicks) {
            this(stage, stepTicks, identitySet(), identitySet());
        }

        void given(NoteEnd end) {
            if (end.tick() - end.start().tick() < stepTicks) {
                tooShort.add(end.start());
            }
        }

        void use(NoteStart made) {
            for (NoteStart one = made; one != null && used.add(one); ) {
                one = one.cause();
            }
        }

        long unused() {
            return tooShort.stream().filter(note -> !used.contains(note)).count();
        }
    }

    private final Map<String, Steps> byStage = new LinkedHashMap<>();
    /** The same by the place where their notes come from: a stage's address, or a part's id for its input. */
    private final Map<String, Steps> bySource = new HashMap<>();

    /** @param parts those that are printed; what others lose counts where these hear them */
    public Losses(Piece piece, Set<String> parts) {
        this.piece = piece;
        this.parts = parts;
        for (Part part : piece.parts()) {
            if (parts.contains(part.id()) && !part.rack().off()) {
                gather(part.chain(), part.id(), List.of(), part.id());
            }
        }
    }

    private void gather(Chain chain, String part, List<Step> way, String from) {
        String last = from;
        for (Stage stage : chain.stages()) {
            StageAddress address = StageAddress.of(part, way, stage.id());
            double step = stage.isKnown() && stage.on()
                    ? stage.kind().nature().stepTicks(stage.params(), piece.time())
                    : Double.NaN;
            if (!Double.isNaN(step)) {
                Steps one = new Steps(address.toString(), step);
                byStage.put(one.stage, one);
                bySource.put(last, one);
            }
            for (int branch = 0; branch < stage.branches().size(); branch++) {
                // Which branch a note goes to is not known here, so that only what a branch itself hands on is counted.
                gather(stage.branches().get(branch).chain(), part, address.branchWay(branch + 1), "");
            }
            last = address.toString();
        }
    }

    @Override
    public void tell(Told told) {
        if (told instanceof Told.Left left) {
            hear(left.part(), left.place(), left.event());
        } else if (told instanceof Told.Away away) {
            use(away.place(), away.event());
        } else if (told instanceof Told.Lost lost) {
            count(Kind.OUT_OF_RANGE, lost.part(), lost.place(), "");
        } else if (told instanceof Told.Astray astray) {
            count(Kind.ASTRAY, astray.part(), astray.place(), astray.to());
        } else if (told instanceof Told.Said said && said.complaint() && parts.contains(said.part())) {
            counts.putIfAbsent(new Key(Kind.COMPLAINT, said.place(), said.text()), 0L);
        }
    }

    private void hear(String part, String place, Event event) {
        if (byStage.isEmpty()) {
            return;
        }
        Steps given = bySource.get(place.equals(INPUT) ? part : place);
        if (given != null && event instanceof NoteEnd end) {
            given.given(end);
        }
        use(place, event);
    }

    private void use(String place, Event event) {
        Steps steps = byStage.get(place);
        if (steps != null && event instanceof NoteStart note) {
            steps.use(note);
        }
    }

    private static Set<NoteStart> identitySet() {
        return Collections.newSetFromMap(new IdentityHashMap<>());
    }

    private void count(Kind kind, String part, String place, String text) {
        if (parts.contains(part)) {
            counts.merge(new Key(kind, place, text), 1L, Long::sum);
        }
    }

    /**
     * All that was lost, each kind at each place once.
     *
     * @param refused how many notes the engine left out
     */
    public List<Loss> found(long refused) {
        List<Loss> found = new ArrayList<>();
        counts.forEach((key, count) -> found.add(new Loss(key.kind, where(key.place), count, key.text)));
        for (Steps steps : byStage.values()) {
            if (steps.unused() > 0) {
                found.add(new Loss(Kind.TOO_SHORT, where(steps.stage), steps.unused(), ""));
            }
        }
        if (refused > 0) {
            found.add(new Loss(Kind.TOO_MANY, "", refused, ""));
        }
        return found;
    }

    private String where(String place) {
        StageAddress address = StageAddress.parse(place);
        Part part = piece.part(address.part()).orElseThrow();
        return part.name() + ", " + part.chain().at(address).map(Stage::name).orElse(address.stageId());
    }
}
