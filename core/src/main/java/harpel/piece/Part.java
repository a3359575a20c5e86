package harpel.piece;

import harpel.chain.Chain;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * One line of music: what it hears, its chain, its sound.
 *
 * @param id the part's name in addresses of stages
 * @param phrase the name of the phrase it hears while the transport runs; empty for none
 * @param run whether its chain runs by the keys alone when the transport stands
 * @param sound the name of a stand-in instrument
 * @param output the name of an output port; empty for the built-in sounds
 * @param channel 0–15
 * @param unknown what a newer version wrote
 */
public record Part(
        String id,
        String name,
        String phrase,
        Run run,
        String sound,
        String output,
        int channel,
        Chain chain,
        Map<String, Object> unknown) {
    /** What makes the chain's time go. */
    public enum Run {
        KEYS,
        TRANSPORT
    }

    public Part {
        if (!id.matches("[a-z0-9][a-z0-9-]*")) {
            throw new IllegalArgumentException(
                    "a part's id is lower-case letters, digits and hyphens but was \"" + id + "\"");
        }
        if (channel < 0 || channel > 15) {
            throw new IllegalArgumentException(
                    "channel must be 1–16 but was " + (channel + 1) + " (part \"" + name + "\")");
        }
        unknown = Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    public static Part of(String name, Chain chain) {
        return new Part(idFor(name), name, "", Run.KEYS, "Glass harp", "", 0, chain, Map.of());
    }

    /** An id made from a name: "Harbour bells" is harbour-bells. */
    public static String idFor(String name) {
        String id = name.toLowerCase(java.util.Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        return id.isEmpty() ? "part" : id;
    }

    public Part withChain(Chain newChain) {
        return new Part(id, name, phrase, run, sound, output, channel, newChain, unknown);
    }

    public Part withPhrase(String newPhrase) {
        return new Part(id, name, newPhrase, run, sound, output, channel, chain, unknown);
    }

    public Part withSound(String newSound) {
        return new Part(id, name, phrase, run, newSound, output, channel, chain, unknown);
    }

    public Part withOutput(String newOutput) {
        return new Part(id, name, phrase, run, sound, newOutput, channel, chain, unknown);
    }
}
