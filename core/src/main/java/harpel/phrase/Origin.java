package harpel.phrase;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Where a phrase comes from, for people and to make it again.
 *
 * @param from the file it was read from, or the id of the part it was kept from, recorded for or printed through; empty where there is none
 * @param details in words, such as the track, or which bars of what a part sent
 * @param how what it was made with, as a file has it, so that it can be made again; empty where it was not made
 * @param unknown what a newer version wrote and this one does not know
 */
public record Origin(Kind kind, String from, String details, Map<String, Object> how, Map<String, Object> unknown) {
    /** How a phrase came to be. */
    public enum Kind {
        DRAWN,
        READ,
        KEPT,
        RECORDED,
        PRINTED,
        MADE
    }

    /** With what the details begin where it is what a part's chain sent. */
    public static final String SENT = "what it sent";

    public static final Origin DRAWN = of(Kind.DRAWN, "", "");

    public Origin {
        how = how.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(how));
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    /** Whether it is the result of a chain. */
    public boolean isResult() {
        return kind == Kind.PRINTED || details.startsWith(SENT);
    }

    public static Origin of(Kind kind, String from, String details) {
        return new Origin(kind, from, details, Map.of(), Map.of());
    }
}
