package harpel.theory;

import java.util.ArrayList;
import java.util.List;

/**
 * How the black keys are written in a key (common practice): a note of the key by the letter of its degree, so that the third of C minor is E♭,
 * every other with the sign that more of the key's own black keys have, and ♯ where neither has more. White keys keep their plain
 * letters, also where theory writes E♯ or C♭.
 */
public final class Spelling {
    /** Sharps for all black keys, as in files. */
    public static final Spelling SHARPS =
            new Spelling(List.of("C", "C♯", "D", "D♯", "E", "F", "F♯", "G", "G♯", "A", "A♯", "B"));

    private static final List<String> FLATS = List.of("C", "D♭", "D", "E♭", "E", "F", "G♭", "G", "A♭", "A", "B♭", "B");
    private static final int[] NATURAL = {0, 2, 4, 5, 7, 9, 11};
    /** How many letters above the root a degree stands, by its semitones; the sixth is the fourth raised or the fifth lowered. */
    private static final int[] LETTERS = {0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6};

    private final List<String> names;

    private Spelling(List<String> names) {
        this.names = List.copyOf(names);
    }

    /** How a key writes its notes: a black root as what needs fewer signs in the key, or is more usual where both need as many. */
    public static Spelling of(Key key) {
        if (key.scale().size() == FLATS.size()) {
            return SHARPS;
        }
        if (isWhite(key.root())) {
            return of(key, letterOf(key.root()));
        }
        int below = letterOf(key.root() - 1);
        int sharp = signs(key, below);
        int flat = signs(key, below + 1);
        boolean usuallySharp = key.root() == 1 || key.root() == 6;
        return of(key, sharp < flat || sharp == flat && usuallySharp ? below : below + 1);
    }

    private static Spelling of(Key key, int rootLetter) {
        int sum = 0;
        for (int step : key.scale().steps()) {
            sum += isWhite(key.root() + step) ? 0 : sign(key, rootLetter, step);
        }
        List<String> names = new ArrayList<>(sum < 0 ? FLATS : SHARPS.names);
        for (int step : key.scale().steps()) {
            int pitchClass = Pitch.pitchClass(key.root() + step);
            int sign = sign(key, rootLetter, step);
            if (!isWhite(pitchClass) && Math.abs(sign) == 1) {
                names.set(pitchClass, (sign < 0 ? FLATS : SHARPS.names).get(pitchClass));
            }
        }
        return new Spelling(names);
    }

    /** How many signs the notes of a key need; double ones count for three. */
    private static int signs(Key key, int rootLetter) {
        return key.scale().steps().stream()
                .mapToInt(step -> Math.abs(sign(key, rootLetter, step)))
                .map(sign -> sign > 1 ? 3 : sign)
                .sum();
    }

    /** The sharps (above 0) or flats of a degree that stands so many semitones above the root. */
    private static int sign(Key key, int rootLetter, int step) {
        boolean lowFifth = step == 6
                && (key.scale().steps().contains(5) || !key.scale().steps().contains(7));
        int letter = rootLetter + LETTERS[step] + (lowFifth ? 1 : 0);
        int apart = Math.floorMod(key.root() + step - NATURAL[Math.floorMod(letter, NATURAL.length)], 12);
        return apart > 6 ? apart - 12 : apart;
    }

    private static boolean isWhite(int pitch) {
        return SHARPS.of(pitch).length() == 1;
    }

    /** The place of a white key's letter among C D E F G A B. */
    private static int letterOf(int pitch) {
        int letter = 0;
        while (NATURAL[letter] != Pitch.pitchClass(pitch)) {
            letter++;
        }
        return letter;
    }

    /** The name of a pitch, without octave. */
    public String of(int pitch) {
        return names.get(Pitch.pitchClass(pitch));
    }
}
