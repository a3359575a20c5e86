package harpel.engine;

import harpel.chain.Chain;
import harpel.piece.Piece;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.List;

/** All that the renderer needs of a piece, as one immutable value that is handed over whole. */
public record Plan(Key key, TimeMap time, long variation, List<PartPlan> parts) {
    /** One part's chain; {@code dry} when it is heard without it. */
    public record PartPlan(String id, Chain chain, boolean dry) {}

    public Plan {
        parts = List.copyOf(parts);
    }

    public static Plan of(Piece piece) {
        return new Plan(
                piece.key(),
                piece.time(),
                piece.variation(),
                piece.parts().stream()
                        .map(part -> new PartPlan(part.id(), part.chain(), false))
                        .toList());
    }

    /** A single chain, whose stages have {@code partId} in their addresses. */
    public static Plan ofChain(String partId, Chain chain, Key key, TimeMap time, long variation) {
        return new Plan(key, time, variation, List.of(new PartPlan(partId, chain, false)));
    }

    /** The same plan with one part heard without its chain, or with it again. */
    public Plan withDry(String partId, boolean dry) {
        return new Plan(
                key,
                time,
                variation,
                parts.stream()
                        .map(part -> part.id.equals(partId) ? new PartPlan(part.id, part.chain, dry) : part)
                        .toList());
    }
}
