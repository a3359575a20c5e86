package harpel.theory;

import java.util.Locale;

/** What is made of names. */
public final class Words {
    private Words() {}

    /** A name as lower-case letters, digits and hyphens, as ids are: "Harbour bells" is harbour-bells; empty where nothing is left. */
    public static String idFor(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
    }
}
