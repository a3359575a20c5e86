package harpel.theory;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** How the notes of a chord lie: takes them in close root position, rising. */
public enum Voicing {
    /** As close as they lie. */
    CLOSE,
    /** Every second note an octave up. */
    OPEN,
    /** The second highest an octave down. */
    DROP_2,
    /** The lowest an octave down and every second note an octave up. */
    SPREAD,
    /** The inversion whose notes move least from the last chord. */
    LEAD;

    /**
     * The chord in this voicing, rising.
     *
     * @param inversion how many of the lowest notes go up an octave first
     * @param last the chord before, for {@link #LEAD}; empty for the first
     */
    public List<Integer> of(List<Integer> close, int inversion, List<Integer> last) {
        List<Integer> notes = inverted(close, inversion);
        switch (this) {
            case CLOSE -> {}
            case OPEN, SPREAD -> {
                for (int i = 1; i < notes.size(); i += 2) {
                    notes.set(i, notes.get(i) + 12);
                }
                if (this == SPREAD) {
                    notes.set(0, notes.get(0) - 12);
                }
            }
            case DROP_2 -> {
                if (notes.size() > 2) {
                    notes.set(notes.size() - 2, notes.get(notes.size() - 2) - 12);
                }
            }
            case LEAD -> {
                return last.isEmpty() ? notes : nearest(close, last);
            }
        }
        Collections.sort(notes);
        return notes;
    }

    private static List<Integer> inverted(List<Integer> close, int inversion) {
        List<Integer> notes = new ArrayList<>(close);
        for (int i = 0; i < Math.min(inversion, close.size() - 1); i++) {
            notes.set(i, notes.get(i) + 12);
        }
        Collections.sort(notes);
        return notes;
    }

    private static List<Integer> nearest(List<Integer> close, List<Integer> last) {
        List<Integer> best = close;
        int least = Integer.MAX_VALUE;
        for (int inversion = 0; inversion < close.size(); inversion++) {
            for (int octave = -24; octave <= 24; octave += 12) {
                int shift = octave;
                List<Integer> candidate = inverted(close, inversion).stream()
                        .map(pitch -> pitch + shift)
                        .toList();
                int moved = movement(last, candidate);
                if (moved < least) {
                    least = moved;
                    best = candidate;
                }
            }
        }
        return best;
    }

    /** How far the voices move in all, from the lowest up; a voice more or less is counted from its neighbour. */
    static int movement(List<Integer> from, List<Integer> to) {
        int moved = 0;
        for (int i = 0; i < Math.max(from.size(), to.size()); i++) {
            moved += Math.abs(from.get(Math.min(i, from.size() - 1)) - to.get(Math.min(i, to.size() - 1)));
        }
        return moved;
    }
}
