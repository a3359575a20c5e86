package harpel.plan;

import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * A piece compiled for playing: the stages and routes in order, what each part plays of itself, and where it sounds. Whoever edits
 * compiles it; the engine only swaps it in. What did not change is the same object as before.
 */
public record Program(Piece piece, Plan plan, Map<String, Line> lines, Patch patch) {
    public static Program of(Piece piece) {
        return after(null, piece);
    }

    /**
     * The program of a piece, sharing what is as it was.
     *
     * @param before what was compiled before, or null
     */
    public static Program after(Program before, Piece piece) {
        boolean sameParts = before != null && before.piece.parts() == piece.parts();
        // Where variations are taken in turn a plan depends on how long phrases are, too.
        boolean samePlan = sameParts
                && (before.piece.phrases() == piece.phrases() || !takesTurns(piece))
                && before.piece.key() == piece.key()
                && before.piece.time() == piece.time()
                && before.piece.variation() == piece.variation()
                && before.piece.levers() == piece.levers()
                && before.piece.timeline() == piece.timeline()
                && before.piece.bracket().equals(piece.bracket())
                && before.piece.keys() == piece.keys();
        Plan plan = samePlan ? before.plan : Plan.of(piece, before == null ? null : before.plan);
        Map<String, Line> lines = new LinkedHashMap<>();
        for (Part part : piece.parts()) {
            Line line = Line.of(piece, part, before == null ? null : before.lines.get(part.id()));
            if (line != null) {
                lines.put(part.id(), line);
            }
        }
        if (!samePlan) {
            plan.prepare();
        }
        return new Program(
                piece,
                plan,
                lines,
                sameParts ? before.patch : Patch.after(before == null ? null : before.patch, piece));
    }

    /** The same where nothing comes round. */
    public Program straight() {
        if (!plan.bracket().on()) {
            return this;
        }
        Map<String, Line> straight = new LinkedHashMap<>();
        lines.forEach((part, line) -> straight.put(part, line.straight()));
        return new Program(piece, plan.straight(piece.time()), straight, patch);
    }

    private static boolean takesTurns(Piece piece) {
        return piece.parts().stream()
                .anyMatch(part -> !part.playing().variations().isEmpty());
    }
}
