package harpel.make;

import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.theory.Numeral;
import java.util.ArrayList;
import java.util.List;

/**
 * A progression of chords.
 *
 * @param mood what it is like, in a word
 * @param text Roman numerals or chord symbols, with spaces between them
 */
public record Progression(String mood, String text) {
    /** Thirty that are common practice, by mood and length; those in small letters are for minor keys. */
    public static final List<Progression> COMMON = List.of(
            new Progression("bright", "I IV"),
            new Progression("bright", "I V"),
            new Progression("bright", "I IV V"),
            new Progression("bright", "I IV V I"),
            new Progression("bright", "I V vi IV"),
            new Progression("bright", "I vi IV V"),
            new Progression("bright", "I IV vi V"),
            new Progression("bright", "I iii IV V"),
            new Progression("bright", "I V vi iii IV I IV V"),
            new Progression("longing", "vi IV I V"),
            new Progression("longing", "IV V iii vi"),
            new Progression("longing", "I iii vi IV"),
            new Progression("longing", "I IV iv I"),
            new Progression("dark", "i iv"),
            new Progression("dark", "i VI"),
            new Progression("dark", "i iv V"),
            new Progression("dark", "i VI III VII"),
            new Progression("dark", "i VII VI VII"),
            new Progression("dark", "i VI iv V"),
            new Progression("dark", "i VII VI V"),
            new Progression("dark", "i III VII iv"),
            new Progression("modal", "i IV"),
            new Progression("modal", "I bVII IV I"),
            new Progression("modal", "I II"),
            new Progression("modal", "i bII"),
            new Progression("smooth", "ii7 V7 Imaj7"),
            new Progression("smooth", "Imaj7 vi7 ii7 V7"),
            new Progression("smooth", "iii7 vi7 ii7 V7"),
            new Progression("smooth", "iiø V7 i7"),
            new Progression("blues", "I7 I7 I7 I7 IV7 IV7 I7 I7 V7 IV7 I7 V7"));

    /** What a key may begin with, for the modes in turn: major, minor, dorian, mixolydian, phrygian, lydian. Common practice. */
    private static final List<String> USUAL =
            List.of("I V vi IV", "i VI III VII", "i III VII IV", "I VII IV I", "i II vii i", "I II vi I");

    /** What a key begins with: one whose chords stay in it; where none does, that of major or minor by its third. */
    public static Progression usualIn(Key key) {
        boolean minor = key.contains(key.root() + 3) && !key.contains(key.root() + 4);
        return USUAL.stream()
                .map(text -> new Progression("", text))
                .filter(one -> one.staysIn(key))
                .findFirst()
                .orElse(new Progression("", USUAL.get(minor ? 1 : 0)));
    }

    private boolean staysIn(Key key) {
        return chords(key).stream()
                .allMatch(chord -> chord.intervals().stream().allMatch(step -> key.contains(chord.root() + step)));
    }

    /**
     * Its chords in a key; symbols are the same in all.
     *
     * @throws IllegalArgumentException naming the word that is neither numeral nor symbol
     */
    public List<Chord> chords(Key key) {
        List<Chord> chords = new ArrayList<>();
        for (String word : text.strip().split("[\\s|,–-]+")) {
            if (!word.isEmpty()) {
                chords.add(Numeral.isOne(word) ? Numeral.parse(word, key) : Chord.parse(word));
            }
        }
        if (chords.isEmpty()) {
            throw new IllegalArgumentException(
                    "a progression is Roman numerals such as i VI III VII, or symbols such as Dm7 G7");
        }
        return chords;
    }
}
