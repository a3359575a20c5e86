package harpel.theory;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Names that published standards give to numbers. */
public final class GeneralMidi {
    /** The channel of percussion, 0–15: General MIDI 1 says channel 10. */
    public static final int PERCUSSION_CHANNEL = 9;

    /** All others. */
    private static final List<Integer> MELODIC_CHANNELS = IntStream.range(0, 16)
            .filter(channel -> channel != PERCUSSION_CHANNEL)
            .boxed()
            .toList();

    private static final int FIRST_PERCUSSION = 35;

    /** General MIDI 1, percussion key map, keys 35–81. */
    private static final List<String> PERCUSSION = List.of(
            "Acoustic Bass Drum",
            "Bass Drum 1",
            "Side Stick",
            "Acoustic Snare",
            "Hand Clap",
            "Electric Snare",
            "Low Floor Tom",
            "Closed Hi-Hat",
            "High Floor Tom",
            "Pedal Hi-Hat",
            "Low Tom",
            "Open Hi-Hat",
            "Low-Mid Tom",
            "Hi-Mid Tom",
            "Crash Cymbal 1",
            "High Tom",
            "Ride Cymbal 1",
            "Chinese Cymbal",
            "Ride Bell",
            "Tambourine",
            "Splash Cymbal",
            "Cowbell",
            "Crash Cymbal 2",
            "Vibraslap",
            "Ride Cymbal 2",
            "Hi Bongo",
            "Low Bongo",
            "Mute Hi Conga",
            "Open Hi Conga",
            "Low Conga",
            "High Timbale",
            "Low Timbale",
            "High Agogo",
            "Low Agogo",
            "Cabasa",
            "Maracas",
            "Short Whistle",
            "Long Whistle",
            "Short Guiro",
            "Long Guiro",
            "Claves",
            "Hi Wood Block",
            "Low Wood Block",
            "Mute Cuica",
            "Open Cuica",
            "Mute Triangle",
            "Open Triangle");

    /** MIDI 1.0 Detailed Specification, controller numbers. */
    private static final Map<Integer, String> CONTROLLERS = Map.ofEntries(
            Map.entry(0, "bank select"),
            Map.entry(1, "modulation wheel"),
            Map.entry(2, "breath"),
            Map.entry(4, "foot"),
            Map.entry(5, "portamento time"),
            Map.entry(6, "data entry"),
            Map.entry(7, "volume"),
            Map.entry(8, "balance"),
            Map.entry(10, "pan"),
            Map.entry(11, "expression"),
            Map.entry(32, "bank select, fine"),
            Map.entry(38, "data entry, fine"),
            Map.entry(64, "sustain pedal"),
            Map.entry(65, "portamento"),
            Map.entry(66, "sostenuto"),
            Map.entry(67, "soft pedal"),
            Map.entry(68, "legato"),
            Map.entry(69, "hold 2"),
            Map.entry(71, "timbre"),
            Map.entry(72, "release time"),
            Map.entry(73, "attack time"),
            Map.entry(74, "brightness"),
            Map.entry(91, "reverb"),
            Map.entry(93, "chorus"),
            Map.entry(98, "non-registered parameter, fine"),
            Map.entry(99, "non-registered parameter"),
            Map.entry(100, "registered parameter, fine"),
            Map.entry(101, "registered parameter"),
            Map.entry(120, "all sound off"),
            Map.entry(121, "reset all controllers"),
            Map.entry(122, "local control"),
            Map.entry(123, "all notes off"));

    private GeneralMidi() {}

    /** What a key sounds on the percussion channel. */
    public static Optional<String> percussion(int key) {
        int place = key - FIRST_PERCUSSION;
        return place >= 0 && place < PERCUSSION.size() ? Optional.of(PERCUSSION.get(place)) : Optional.empty();
    }

    /**
     * The channels that are told the sound of a part that has an instrument for itself: of percussion its own, else all but that, so that a
     * note that the chain puts on another channel sounds like the others.
     */
    public static List<Integer> channelsBeside(int channel) {
        return channel == PERCUSSION_CHANNEL ? List.of(channel) : MELODIC_CHANNELS;
    }

    /** "F♯2 Closed Hi-Hat" on the percussion channel, elsewhere "F♯2". */
    public static String note(int pitch, int channel, Spelling spelling) {
        String drum = channel == PERCUSSION_CHANNEL
                ? percussion(pitch).map(name -> " " + name).orElse("")
                : "";
        return Pitch.shown(pitch, spelling) + drum;
    }

    /** "controller 1 (modulation wheel)". */
    public static String controller(int number) {
        String name = CONTROLLERS.get(number);
        return "controller " + number + (name == null ? "" : " (" + name + ")");
    }

    /** The same for several, one after the other. */
    public static String controllers(Collection<Integer> numbers) {
        return numbers.stream().map(GeneralMidi::controller).collect(Collectors.joining(", "));
    }
}
