package harpel.vary;

import harpel.phrase.Note;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** How alike results are: the notes they have in common, by start and pitch, over all notes of both. */
public final class Likeness {
    /** Where a note begins, and its pitch. */
    public record Spot(long tick, int pitch) {
        static Spot of(Note note) {
            return new Spot(note.tick(), note.pitch());
        }
    }

    private Likeness() {}

    public static Set<Spot> spots(Iterable<Note> notes) {
        Set<Spot> spots = new HashSet<>();
        notes.forEach(note -> spots.add(Spot.of(note)));
        return spots;
    }

    /** Whether a note is among those. */
    public static boolean has(Set<Spot> spots, Note note) {
        return spots.contains(Spot.of(note));
    }

    /** How many notes are not among those. */
    public static int differing(Iterable<Note> notes, Set<Spot> spots) {
        int differing = 0;
        for (Note note : notes) {
            differing += has(spots, note) ? 0 : 1;
        }
        return differing;
    }

    /** From 0, nothing in common, to 1, alike; two without notes are alike. */
    public static double between(Set<Spot> a, Set<Spot> b) {
        int common = 0;
        for (Spot spot : a) {
            common += b.contains(spot) ? 1 : 0;
        }
        int all = a.size() + b.size() - common;
        return all == 0 ? 1 : common / (double) all;
    }

    /**
     * Which of many are most unlike one another: the first, then each time the one whose nearest of those taken is farthest.
     *
     * @param count how many are wanted
     * @return their places, in the order in which they were taken
     */
    public static List<Integer> farthestFirst(List<Set<Spot>> all, int count) {
        List<Integer> taken = new ArrayList<>();
        double[] nearest = new double[all.size()];
        while (taken.size() < Math.min(count, all.size())) {
            int next = taken.isEmpty() ? 0 : -1;
            for (int i = 0; i < all.size() && !taken.isEmpty(); i++) {
                if (!taken.contains(i) && (next < 0 || nearest[i] < nearest[next])) {
                    next = i;
                }
            }
            taken.add(next);
            for (int i = 0; i < all.size(); i++) {
                nearest[i] = Math.max(nearest[i], between(all.get(i), all.get(next)));
            }
        }
        return taken;
    }
}
