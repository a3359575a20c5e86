package harpel.engine;

import harpel.effect.Draws;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * A piece compiled for playing: the stages and routes in order, what each part plays of its phrase, and where it sounds. Whoever edits
 * compiles it; the engine only swaps it in. What did not change is the same object as before.
 */
public record Program(Piece piece, Plan plan, Map<String, Score> scores, Patch patch) {
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
                && before.piece.levers() == piece.levers();
        Plan plan = samePlan ? before.plan : Plan.of(piece, before == null ? null : before.plan);
        Map<String, Score> scores = new LinkedHashMap<>();
        for (Part part : piece.parts()) {
            Phrase phrase = piece.phrase(part.phrase()).orElse(null);
            if (phrase != null) {
                Score old = before == null ? null : before.scores.get(part.id());
                Draws own = Plan.draws(piece, part);
                Draws draws = own == null ? Draws.of(piece.variation()) : own;
                boolean same = old != null && old.is(phrase, part.channel(), draws);
                scores.put(part.id(), same ? old : Score.of(phrase, part.channel(), draws));
            }
        }
        if (!samePlan) {
            plan.prepare();
        }
        return new Program(piece, plan, scores, sameParts ? before.patch : Patch.of(piece));
    }

    private static boolean takesTurns(Piece piece) {
        return piece.parts().stream()
                .anyMatch(part -> !part.playing().variations().isEmpty());
    }
}
