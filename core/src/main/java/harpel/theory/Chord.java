package harpel.theory;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A chord by its symbol: a root and a quality, such as Cm7 or F♯maj9.
 *
 * @param root pitch class 0–11
 * @param quality the symbol behind the root; empty for a major triad
 * @param intervals semitones above the root, rising, the first 0
 */
public record Chord(int root, String quality, List<Integer> intervals) {
    private static final Pattern SYMBOL = Pattern.compile("([A-G][#♯b♭]?)(.*)");
    private static final Map<String, List<Integer>> QUALITIES = new LinkedHashMap<>();

    static {
        // Triads and fifths
        quality("", 0, 4, 7);
        quality("m", 0, 3, 7);
        quality("dim", 0, 3, 6);
        quality("aug", 0, 4, 8);
        quality("5", 0, 7);
        // Suspended and added
        quality("sus2", 0, 2, 7);
        quality("sus4", 0, 5, 7);
        quality("add9", 0, 4, 7, 14);
        quality("madd9", 0, 3, 7, 14);
        // Sixths
        quality("6", 0, 4, 7, 9);
        quality("m6", 0, 3, 7, 9);
        quality("6/9", 0, 4, 7, 9, 14);
        // Sevenths
        quality("7", 0, 4, 7, 10);
        quality("maj7", 0, 4, 7, 11);
        quality("m7", 0, 3, 7, 10);
        quality("mMaj7", 0, 3, 7, 11);
        quality("m7b5", 0, 3, 6, 10);
        quality("dim7", 0, 3, 6, 9);
        quality("7sus4", 0, 5, 7, 10);
        quality("maj7#5", 0, 4, 8, 11);
        // Ninths and beyond
        quality("9", 0, 4, 7, 10, 14);
        quality("maj9", 0, 4, 7, 11, 14);
        quality("m9", 0, 3, 7, 10, 14);
        quality("11", 0, 7, 10, 14, 17);
        quality("m11", 0, 3, 7, 10, 14, 17);
        quality("13", 0, 4, 7, 10, 14, 21);
        // Altered
        quality("7b5", 0, 4, 6, 10);
        quality("7#5", 0, 4, 8, 10);
        quality("7b9", 0, 4, 7, 10, 13);
        quality("7#9", 0, 4, 7, 10, 15);
    }

    private static void quality(String symbol, Integer... intervals) {
        QUALITIES.put(symbol, List.of(intervals));
    }

    /** By semitones above the tonic: flats for roots outside the major scale, but the fourth is raised. */
    private static final List<String> ROMANS =
            List.of("I", "♭II", "II", "♭III", "III", "IV", "♯IV", "V", "♭VI", "VI", "♭VII", "VII");

    public Chord {
        intervals = List.copyOf(intervals);
    }

    /** Every quality known by its symbol, simple ones first. */
    public static Set<String> qualities() {
        return QUALITIES.keySet();
    }

    /**
     * Reads a symbol such as C, Dm7, F#maj7 or B♭sus4.
     *
     * @throws IllegalArgumentException naming the known qualities
     */
    public static Chord parse(String symbol) {
        Matcher matcher = SYMBOL.matcher(symbol.strip());
        if (!matcher.matches()) {
            throw new IllegalArgumentException(
                    "a chord symbol begins with its root, such as Cm7, but was \"" + symbol + "\"");
        }
        String quality = Pitch.plain(matcher.group(2));
        List<Integer> intervals = QUALITIES.get(quality);
        if (intervals == null) {
            throw new IllegalArgumentException("unknown chord \"" + symbol + "\"; known behind the root are "
                    + String.join(", ", QUALITIES.keySet().stream().skip(1).toList()));
        }
        return new Chord(Pitch.parseClass(matcher.group(1)), quality, intervals);
    }

    /**
     * The symbol of the chord that pitches make, over its bass where that is not the root: "Cmaj7", "C/E"; empty where none of the known
     * ones has just these notes. The lowest note is tried as the root first, then the others upwards.
     */
    public static Optional<String> named(Collection<Integer> pitches, Spelling spelling) {
        List<Integer> rising = pitches.stream().sorted().toList();
        TreeSet<Integer> classes = new TreeSet<>();
        rising.forEach(pitch -> classes.add(Pitch.pitchClass(pitch)));
        if (classes.size() < 2) {
            return Optional.empty();
        }
        int bass = Pitch.pitchClass(rising.get(0));
        return rising.stream()
                .map(Pitch::pitchClass)
                .distinct()
                .flatMap(root -> QUALITIES.entrySet().stream()
                        .filter(one -> one.getValue().stream()
                                .map(interval -> (root + interval) % 12)
                                .collect(Collectors.toCollection(TreeSet::new))
                                .equals(classes))
                        .map(one -> spelling.of(root) + one.getKey() + (root == bass ? "" : "/" + spelling.of(bass))))
                .findFirst();
    }

    /** "C4 E4 G4 B4, Cmaj7": notes by name, and the chord they make if that has one. */
    public static String told(Collection<Integer> pitches, Spelling spelling) {
        String notes = pitches.stream()
                .sorted()
                .map(pitch -> Pitch.shown(pitch, spelling))
                .collect(Collectors.joining(" "));
        return notes + named(pitches, spelling).map(name -> ", " + name).orElse("");
    }

    /** The symbol, with ♯ for a black root. */
    public String symbol() {
        return Pitch.className(root) + quality;
    }

    /** The symbol with its root as people see it. */
    public String shown(Spelling spelling) {
        return spelling.of(root) + quality;
    }

    /** Its Roman numeral in a key, with the quality behind it: Dm7 in C is IIm7, B♭7 is ♭VII7. */
    public String romanIn(Key key) {
        return ROMANS.get(Math.floorMod(root - key.root(), 12)) + quality;
    }

    /** The chord's pitches in close root position, its root as near as can be to {@code near}; below when two are equally near. */
    public List<Integer> pitchesNear(int near) {
        int up = Math.floorMod(root - near, 12);
        int lowest = near + (up < 6 ? up : up - 12);
        return intervals.stream().map(interval -> lowest + interval).toList();
    }

    /** Notes of a key stacked in thirds on one of its pitches: so many, rising. */
    public static List<Integer> stackedThirds(Key key, int pitch, int notes) {
        List<Integer> pitches = new ArrayList<>();
        for (int i = 0; i < notes; i++) {
            pitches.add(key.shift(pitch, 2 * i));
        }
        return pitches;
    }
}
