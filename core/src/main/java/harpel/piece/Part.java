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
 * @param input where it takes played notes from
 * @param run whether its chain runs by the keys alone when the transport stands
 * @param sound the name of a stand-in instrument
 * @param output the name of an output port; empty for the built-in sounds
 * @param channel 0–15
 * @param mix how loud it is among the others, and its colour
 * @param compare whether the chain is heard, and the other one it is compared with
 * @param unknown what a newer version wrote
 */
public record Part(
        String id,
        String name,
        String phrase,
        Input input,
        Run run,
        String sound,
        String output,
        int channel,
        Mix mix,
        Chain chain,
        Compare compare,
        Map<String, Object> unknown) {
    /**
     * Where a part takes its notes from, besides its phrase.
     *
     * @param from the name of a device, or the id of a part; empty where neither is meant
     * @param channel of a device, 1–16, or 0 for all
     */
    public record Input(Source source, String from, int channel) {
        /** The keys of whoever plays, while the part is chosen. */
        public static final Input KEYS = new Input(Source.KEYS, "", 0);

        /** What kind of place it is. */
        public enum Source {
            KEYS,
            NONE,
            DEVICE,
            OUTPUT_OF,
            INPUT_OF
        }

        /** Whether it hears another part. */
        public boolean ofPart() {
            return source == Source.OUTPUT_OF || source == Source.INPUT_OF;
        }

        /** Whether a message of that device and channel (1–16) comes in here. */
        public boolean takes(String device, int fromChannel) {
            return source == Source.DEVICE && from.equals(device) && (channel == 0 || channel == fromChannel);
        }

        @Override
        public String toString() {
            return switch (source) {
                case KEYS -> "keys";
                case NONE -> "none";
                case DEVICE -> from + (channel == 0 ? "" : ", channel " + channel);
                case OUTPUT_OF -> "what " + from + " sends";
                case INPUT_OF -> "what " + from + " hears";
            };
        }
    }

    /**
     * A part among the others.
     *
     * @param mute whether it is not heard
     * @param solo whether only it, and others that are solo, are heard
     * @param level its volume, 0–100 %
     * @param colour one of {@link #COLOURS}
     */
    public record Mix(boolean mute, boolean solo, int level, int colour) {
        public static final int COLOURS = 8;
        public static final Mix PLAIN = new Mix(false, false, 100, 0);

        public Mix {
            if (level < 0 || level > 100) {
                throw new IllegalArgumentException("level must be 0–100 % but was " + level);
            }
            if (colour < 0 || colour >= COLOURS) {
                throw new IllegalArgumentException("colour must be 0–" + (COLOURS - 1) + " but was " + colour);
            }
        }

        public Mix withMute(boolean newMute) {
            return new Mix(newMute, solo, level, colour);
        }

        public Mix withSolo(boolean newSolo) {
            return new Mix(mute, newSolo, level, colour);
        }

        public Mix withLevel(int newLevel) {
            return new Mix(mute, solo, newLevel, colour);
        }

        public Mix withColour(int newColour) {
            return new Mix(mute, solo, level, newColour);
        }
    }

    /**
     * The two chains of a part, A and B, of which one is its chain and the other waits.
     *
     * @param chainOff whether the part is heard without its chain
     * @param letter of the chain that is heard, A or B
     * @param other the chain of the other letter; null while there is only one
     */
    public record Compare(boolean chainOff, char letter, Chain other) {
        public static final Compare PLAIN = new Compare(false, 'A', null);

        public Compare {
            if (letter != 'A' && letter != 'B') {
                throw new IllegalArgumentException("the chain that is heard is A or B but was \"" + letter + "\"");
            }
        }

        public char otherLetter() {
            return letter == 'A' ? 'B' : 'A';
        }
    }

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
        return new Part(
                idFor(name),
                name,
                "",
                Input.KEYS,
                Run.KEYS,
                "Glass harp",
                "",
                0,
                Mix.PLAIN,
                chain,
                Compare.PLAIN,
                Map.of());
    }

    /** An id made from a name: "Harbour bells" is harbour-bells. */
    public static String idFor(String name) {
        String id = name.toLowerCase(java.util.Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        return id.isEmpty() ? "part" : id;
    }

    public Part withChain(Chain newChain) {
        return new Part(id, name, phrase, input, run, sound, output, channel, mix, newChain, compare, unknown);
    }

    public Part withPhrase(String newPhrase) {
        return new Part(id, name, newPhrase, input, run, sound, output, channel, mix, chain, compare, unknown);
    }

    public Part withInput(Input newInput) {
        return new Part(id, name, phrase, newInput, run, sound, output, channel, mix, chain, compare, unknown);
    }

    public Part withChannel(int newChannel) {
        return new Part(id, name, phrase, input, run, sound, output, newChannel, mix, chain, compare, unknown);
    }

    public Part withMix(Mix newMix) {
        return new Part(id, name, phrase, input, run, sound, output, channel, newMix, chain, compare, unknown);
    }

    public Part withName(String newName) {
        return new Part(id, newName, phrase, input, run, sound, output, channel, mix, chain, compare, unknown);
    }

    public Part withId(String newId) {
        return new Part(newId, name, phrase, input, run, sound, output, channel, mix, chain, compare, unknown);
    }

    public Part withSound(String newSound) {
        return new Part(id, name, phrase, input, run, newSound, output, channel, mix, chain, compare, unknown);
    }

    public Part withOutput(String newOutput) {
        return new Part(id, name, phrase, input, run, sound, newOutput, channel, mix, chain, compare, unknown);
    }

    public Part withCompare(Compare newCompare) {
        return new Part(id, name, phrase, input, run, sound, output, channel, mix, chain, newCompare, unknown);
    }

    /** Heard without its chain, or with it again. */
    public Part withChainOff(boolean off) {
        return withCompare(new Compare(off, compare.letter, compare.other));
    }

    /** With the other chain in place of this one, which waits; the first time both are alike. */
    public Part withOtherChain() {
        Chain next = compare.other == null ? chain : compare.other;
        return withChain(next).withCompare(new Compare(compare.chainOff, compare.otherLetter(), chain));
    }

    /** With the other chain made like this one. */
    public Part withOtherAlike() {
        return withCompare(new Compare(compare.chainOff, compare.letter, chain));
    }
}
