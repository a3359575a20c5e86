package harpel.app.document;

import harpel.chain.Chain;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * What an edit changed, so that a view makes anew only what it must.
 *
 * @param parts the ids of the parts that are not as they were
 * @param partList whether parts were added, taken away or put in another order
 * @param around whether the key, the time, the variation, the levers or the phrases are others
 */
public record Change(Piece before, Piece after, Set<String> parts, boolean partList, boolean around) {
    static Change of(Piece before, Piece after) {
        Set<String> parts = new HashSet<>();
        if (before.parts() != after.parts()) {
            for (Part part : after.parts()) {
                if (before.part(part.id()).filter(old -> old == part).isEmpty()) {
                    parts.add(part.id());
                }
            }
        }
        boolean around = !before.key().equals(after.key())
                || !before.time().equals(after.time())
                || before.variation() != after.variation()
                || !before.levers().equals(after.levers())
                || before.phrases() != after.phrases()
                || !before.name().equals(after.name());
        return new Change(before, after, parts, !ids(before).equals(ids(after)), around);
    }

    private static List<String> ids(Piece piece) {
        return piece.parts().stream().map(Part::id).toList();
    }

    /**
     * Whether nothing but values of stages is different in a part: the same stages stand in the same places, and all else of it is as it
     * was.
     */
    public boolean onlyValues(String part) {
        if (partList || around) {
            return false;
        }
        Part old = before.part(part).orElse(null);
        Part now = after.part(part).orElse(null);
        return old != null
                && now != null
                && old.withRack(now.rack()).equals(now)
                && old.rack().withChain(now.chain()).equals(now.rack())
                && sameShape(old.chain(), now.chain());
    }

    private static boolean sameShape(Chain a, Chain b) {
        if (a.stages().size() != b.stages().size()) {
            return false;
        }
        for (int i = 0; i < a.stages().size(); i++) {
            var one = a.stages().get(i);
            var other = b.stages().get(i);
            if (one == other) {
                continue;
            }
            if (!one.id().equals(other.id())
                    || one.kind() != other.kind()
                    || one.branches().size() != other.branches().size()) {
                return false;
            }
            for (int k = 0; k < one.branches().size(); k++) {
                boolean same = one.branches()
                                .get(k)
                                .takes()
                                .equals(other.branches().get(k).takes())
                        && sameShape(
                                one.branches().get(k).chain(),
                                other.branches().get(k).chain());
                if (!same) {
                    return false;
                }
            }
        }
        return true;
    }
}
