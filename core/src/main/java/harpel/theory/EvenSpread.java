package harpel.theory;

import java.util.ArrayList;
import java.util.List;

/** Rhythms whose onsets are spread as evenly as possible. */
public final class EvenSpread {
    private EvenSpread() {}

    /**
     * E(onsets, steps): Bjorklund's pairing of onsets with rests, as in G. Toussaint, The Euclidean Algorithm Generates Traditional
     * Musical Rhythms, 2005. It begins with an onset; E(3,8) is x..x..x.
     *
     * @param onsets 0 to {@code steps}
     * @return true where a step sounds
     */
    public static boolean[] of(int onsets, int steps) {
        if (steps < 1 || onsets < 0 || onsets > steps) {
            throw new IllegalArgumentException("onsets must be 0–" + steps + " but were " + onsets);
        }
        List<List<Boolean>> heads = groups(onsets, true);
        List<List<Boolean>> tails = groups(steps - onsets, false);
        // Rests are dealt out once at least: E(3,4) is x.xx.
        for (boolean dealt = false; onsets > 0 && tails.size() > (dealt ? 1 : 0); dealt = true) {
            int pairs = Math.min(heads.size(), tails.size());
            List<List<Boolean>> joined = new ArrayList<>();
            for (int i = 0; i < pairs; i++) {
                List<Boolean> both = new ArrayList<>(heads.get(i));
                both.addAll(tails.get(i));
                joined.add(both);
            }
            List<List<Boolean>> left =
                    heads.size() > pairs ? heads.subList(pairs, heads.size()) : tails.subList(pairs, tails.size());
            tails = new ArrayList<>(left);
            heads = joined;
        }
        boolean[] rhythm = new boolean[steps];
        int place = 0;
        for (List<List<Boolean>> groups : List.of(heads, tails)) {
            for (List<Boolean> group : groups) {
                for (boolean sounds : group) {
                    rhythm[place++] = sounds;
                }
            }
        }
        return rhythm;
    }

    private static List<List<Boolean>> groups(int count, boolean sounds) {
        List<List<Boolean>> groups = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            groups.add(List.of(sounds));
        }
        return groups;
    }
}
