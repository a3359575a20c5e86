package harpel.plan;

import harpel.piece.Mix;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.Preset;
import harpel.piece.Voice;
import harpel.theory.GeneralMidi;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Where every part sounds. Immutable. */
public record Patch(Map<String, Way> ways) {
    /** A volume that is not sent: the instrument's own is left alone until a part's level is set. */
    public static final int OWN_VOLUME = -1;

    /**
     * A part's way out.
     *
     * @param port the output it goes to, or its own way to the built-in sounds
     * @param heard whether it is heard among the others
     * @param preset null for an instrument that is not told which sound to play
     * @param volume controller 7, 0–127, or {@link #OWN_VOLUME}
     */
    public record Way(String part, String port, int channel, boolean heard, Preset preset, int volume) {
        /** The channels that are told its sound. */
        public List<Integer> channels() {
            return preset == null ? List.of(channel) : GeneralMidi.channelsBeside(channel);
        }

        /** Whether the instrument must be told its sound and volume anew. */
        public boolean goesElsewhereThan(Way other) {
            return other == null || !port.equals(other.port) || channel != other.channel;
        }
    }

    /** The patch of a piece; the same as before where nothing about it has changed. */
    static Patch after(Patch before, Piece piece) {
        Patch patch = of(piece);
        return patch.equals(before) ? before : patch;
    }

    static Patch of(Piece piece) {
        Map<String, Way> ways = new LinkedHashMap<>();
        for (Part part : piece.parts()) {
            Voice voice = part.voice();
            boolean builtIn = voice.port().equals(Voice.BUILT_IN);
            ways.put(
                    part.id(),
                    new Way(
                            part.id(),
                            builtIn ? Voice.builtIn(part.id()) : voice.port(),
                            voice.channel(),
                            piece.isHeard(part),
                            builtIn ? voice.played() : null,
                            part.mix().level() == Mix.PLAIN.level()
                                    ? OWN_VOLUME
                                    : part.mix().volume()));
        }
        return new Patch(ways);
    }
}
