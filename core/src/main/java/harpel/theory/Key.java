package harpel.theory;

import java.util.Optional;

/**
 * A root and a scale on it, such as D dorian.
 *
 * @param root pitch class 0–11
 */
public record Key(int root, Scale scale) {
    public static final Key C_MAJOR = new Key(0, Scale.of("major"));

    public Key {
        if (root < 0 || root > 11) {
            throw new IllegalArgumentException("a root is a pitch class 0–11 but was " + root);
        }
    }

    /**
     * Reads "D dorian" or "F# minor pentatonic"; a root alone is major.
     *
     * @throws IllegalArgumentException naming what was wrong
     */
    public static Key parse(String text) {
        String[] words = text.strip().split("\\s+", 2);
        int root = Pitch.parseClass(words[0]);
        if (words.length == 1) {
            return new Key(root, Scale.of("major"));
        }
        boolean ownSteps = words[1].startsWith("steps ");
        return new Key(root, ownSteps ? Scale.parseSteps(words[1].substring(6)) : Scale.of(words[1]));
    }

    /** A scale of its own on a root of its own; without one, this key. */
    public Key or(Optional<Scale> own, int ownRoot) {
        return own.map(one -> new Key(ownRoot, one)).orElse(this);
    }

    /** Its root and scale, the root as the key writes it: "B♭ major", "C♯ minor". */
    public String name() {
        return rootName() + " " + scale.shown();
    }

    public String rootName() {
        return Spelling.of(this).of(root);
    }

    public boolean contains(int pitch) {
        return scale.steps().contains(Math.floorMod(pitch - root, 12));
    }

    /**
     * Moves a pitch by degrees of this key. A pitch outside the key keeps its distance above the degree below it, so that
     * two different pitches never become one.
     */
    public int shift(int pitch, int degrees) {
        int above = Math.floorMod(pitch - root, 12);
        int degree = scale.size() - 1;
        while (scale.steps().get(degree) > above) {
            degree--;
        }
        int outside = above - scale.steps().get(degree);
        int index = Math.floorDiv(pitch - root, 12) * scale.size() + degree + degrees;
        return root
                + 12 * Math.floorDiv(index, scale.size())
                + scale.steps().get(Math.floorMod(index, scale.size()))
                + outside;
    }
}
