package harpel.theory;

import java.util.Arrays;
import java.util.Locale;

/** What is made of names. */
public final class Words {
    private Words() {}

    /** Whether a text has every word, or beginning of one, that was typed. */
    public static boolean finds(String typed, String text) {
        String all = " " + text.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", " ");
        return Arrays.stream(typed.toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+"))
                .allMatch(word -> all.contains(" " + word));
    }

    /** A name as lower-case letters, digits and hyphens, as ids are: "Harbour bells" is harbour-bells; empty where nothing is left. */
    public static String idFor(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
    }
}
