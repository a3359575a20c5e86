package harpel.theory;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/**
 * Roman numerals of chords, as they are commonly written: capitals are major, small letters minor; behind them 7, maj7, 6, 9, sus4, add9
 * and the like, ° or dim, ø, + or aug. Without a sign in front a numeral is a degree of the key; with ♭ or ♯ (b, #) it is one of the
 * major scale on the key's root (common practice), so that ♭VII is the same chord in major and in minor; ♮VII is the seventh of major
 * in a key that has another.
 */
public final class Numeral {
    private static final Pattern FORM = Pattern.compile("([b♭#♯♮]?)(VII|VI|V|IV|III|II|I|vii|vi|v|iv|iii|ii|i)(.*)");
    private static final String[] DEGREES = {"I", "II", "III", "IV", "V", "VI", "VII"};
    private static final Map<String, String> SMALL = new LinkedHashMap<>();

    static {
        SMALL.put("", "m");
        SMALL.put("7", "m7");
        SMALL.put("maj7", "mMaj7");
        SMALL.put("6", "m6");
        SMALL.put("9", "m9");
        SMALL.put("11", "m11");
        SMALL.put("add9", "madd9");
    }

    private Numeral() {}

    /** Whether a word is written as a numeral, well or not. */
    public static boolean isOne(String word) {
        return FORM.matcher(word.strip()).matches();
    }

    /**
     * Reads a numeral in a key.
     *
     * @throws IllegalArgumentException naming what can be written
     */
    public static Chord parse(String text, Key key) {
        Matcher matcher = FORM.matcher(text.strip());
        if (!matcher.matches()) {
            throw new IllegalArgumentException(
                    "a numeral is I–VII or i–vii, such as ii7, V7, ♭VII or vii°, but was \"" + text + "\"");
        }
        String letters = matcher.group(2);
        boolean small = Character.isLowerCase(letters.charAt(0));
        int degree = IntStream.range(0, DEGREES.length)
                .filter(i -> DEGREES[i].equalsIgnoreCase(letters))
                .findFirst()
                .orElseThrow();
        int sign = matcher.group(1).isEmpty()
                ? 0
                : matcher.group(1).matches("[b♭]") ? -1 : matcher.group(1).equals("♮") ? 0 : 1;
        Scale scale = matcher.group(1).isEmpty() ? sevenNotes(key) : Scale.of("major");
        int root = Math.floorMod(key.root() + scale.steps().get(degree) + sign, 12);
        String quality = quality(small, Pitch.plain(matcher.group(3)));
        try {
            return Chord.parse(Pitch.className(root) + quality);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(
                    "unknown numeral \"" + text + "\": " + e.getMessage().replaceFirst("^[^;]*; ", ""), e);
        }
    }

    /** How a chord is written as a numeral in a key, so that {@link #parse} gives it again: Dm7 in C major is ii7. */
    public static String of(Chord chord, Key key) {
        int above = Math.floorMod(chord.root() - key.root(), 12);
        int degree = sevenNotes(key).steps().indexOf(above);
        String sign = "";
        if (degree < 0) {
            List<Integer> major = Scale.of("major").steps();
            // Flats, but the fourth is raised (common practice); ♮ where the key has the degree of major otherwise.
            sign = major.contains(above) ? "♮" : above == 6 ? "♯" : "♭";
            degree = major.indexOf(sign.equals("♮") ? above : above == 6 ? 5 : above + 1);
        }
        String quality = chord.quality();
        String after = SMALL.entrySet().stream()
                .filter(one -> one.getValue().equals(quality))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(null);
        if (after != null) {
            return sign + DEGREES[degree].toLowerCase(Locale.ROOT) + after;
        }
        return switch (quality) {
            case "dim" -> sign + DEGREES[degree].toLowerCase(Locale.ROOT) + "°";
            case "dim7" -> sign + DEGREES[degree].toLowerCase(Locale.ROOT) + "°7";
            case "m7b5" -> sign + DEGREES[degree].toLowerCase(Locale.ROOT) + "ø";
            case "aug" -> sign + DEGREES[degree] + "+";
            default -> sign + DEGREES[degree] + quality;
        };
    }

    private static String quality(boolean small, String written) {
        String plain = switch (written) {
            case "°", "o", "dim" -> "dim";
            case "°7", "o7", "dim7" -> "dim7";
            case "ø", "ø7", "m7b5" -> "m7b5";
            case "+", "aug" -> "aug";
            case "M7", "Δ" -> "maj7";
            default -> written;
        };
        return small ? SMALL.getOrDefault(plain, plain) : plain;
    }

    /** The degrees of a key; of one with more or fewer than seven notes those of minor or major, as its third is. */
    private static Scale sevenNotes(Key key) {
        if (key.scale().size() == DEGREES.length) {
            return key.scale();
        }
        boolean minor = key.scale().steps().contains(3) && !key.scale().steps().contains(4);
        return Scale.of(minor ? "minor" : "major");
    }
}
