package harpel.theory;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * A set of pitch classes counted from a root.
 *
 * @param name the name used on screen and in files; empty for a set of one's own
 * @param steps semitones above the root, rising, the first always 0, all below 12
 */
public record Scale(String name, List<Integer> steps) {
    private static final Map<String, Scale> NAMED = new LinkedHashMap<>();

    static {
        named("major", 0, 2, 4, 5, 7, 9, 11);
        named("minor", 0, 2, 3, 5, 7, 8, 10);
        named("dorian", 0, 2, 3, 5, 7, 9, 10);
        named("phrygian", 0, 1, 3, 5, 7, 8, 10);
        named("lydian", 0, 2, 4, 6, 7, 9, 11);
        named("mixolydian", 0, 2, 4, 5, 7, 9, 10);
        named("locrian", 0, 1, 3, 5, 6, 8, 10);
        named("harmonic minor", 0, 2, 3, 5, 7, 8, 11);
        named("melodic minor", 0, 2, 3, 5, 7, 9, 11);
        named("harmonic major", 0, 2, 4, 5, 7, 8, 11);
        named("major pentatonic", 0, 2, 4, 7, 9);
        named("minor pentatonic", 0, 3, 5, 7, 10);
        named("major blues", 0, 2, 3, 4, 7, 9);
        named("minor blues", 0, 3, 5, 6, 7, 10);
        named("phrygian dominant", 0, 1, 4, 5, 7, 8, 10);
        named("lydian dominant", 0, 2, 4, 6, 7, 9, 10);
        named("altered", 0, 1, 3, 4, 6, 8, 10);
        named("whole tone", 0, 2, 4, 6, 8, 10);
        named("diminished", 0, 2, 3, 5, 6, 8, 9, 11);
        named("half-whole diminished", 0, 1, 3, 4, 6, 7, 9, 10);
        named("chromatic", 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11);
    }

    private static void named(String name, Integer... steps) {
        NAMED.put(name, new Scale(name, List.of(steps)));
    }

    public Scale {
        steps = List.copyOf(steps);
        if (steps.isEmpty() || steps.get(0) != 0) {
            throw new IllegalArgumentException("a scale begins with its root, 0, but was " + steps);
        }
        for (int i = 1; i < steps.size(); i++) {
            if (steps.get(i) <= steps.get(i - 1) || steps.get(i) > 11) {
                throw new IllegalArgumentException("scale steps rise from 0 to at most 11 but were " + steps);
            }
        }
    }

    /** Every scale known by name, simple ones first. */
    public static Set<String> names() {
        return NAMED.keySet();
    }

    /**
     * The scale of that name, with spaces or hyphens between its words.
     *
     * @throws IllegalArgumentException naming the known scales
     */
    public static Scale of(String name) {
        String spaced = spaced(name);
        Scale scale = NAMED.values().stream()
                .filter(one -> spaced(one.name()).equals(spaced))
                .findFirst()
                .orElse(null);
        if (scale == null) {
            throw new IllegalArgumentException(
                    "unknown scale \"" + name + "\"; known are " + String.join(", ", NAMED.keySet()));
        }
        return scale;
    }

    private static String spaced(String name) {
        return name.strip().toLowerCase(java.util.Locale.ROOT).replaceAll("[\\s-]+", " ");
    }

    /** A set of one's own; the root is added, and a set that has a name gets it. */
    public static Scale ofSteps(Iterable<Integer> semitones) {
        TreeSet<Integer> set = new TreeSet<>(List.of(0));
        for (int semitone : semitones) {
            set.add(Math.floorMod(semitone, 12));
        }
        List<Integer> steps = new ArrayList<>(set);
        return NAMED.values().stream()
                .filter(scale -> scale.steps.equals(steps))
                .findFirst()
                .orElseGet(() -> new Scale("", steps));
    }

    /**
     * Reads "0 2 5 7".
     *
     * @throws IllegalArgumentException when these are not semitones 0–11
     */
    static Scale parseSteps(String text) {
        List<Integer> semitones = new ArrayList<>();
        for (String word : text.strip().split("[\\s,]+")) {
            if (!word.matches("\\d|1[01]")) {
                throw new IllegalArgumentException("scale steps are semitones 0–11 but were \"" + text + "\"");
            }
            semitones.add(Integer.valueOf(word));
        }
        return ofSteps(semitones);
    }

    public int size() {
        return steps.size();
    }

    /** What to call it: its name, or its steps. */
    public String shown() {
        return name.isEmpty() ? "steps " + steps.stream().map(String::valueOf).collect(Collectors.joining(" ")) : name;
    }
}
