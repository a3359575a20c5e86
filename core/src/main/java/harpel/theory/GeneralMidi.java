package harpel.theory;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Names that published standards give to numbers. */
public final class GeneralMidi {
    private static final int FIRST_DRUM = 115;
    private static final int LAST_DRUM = 118;

    /** The channel of percussion, 0–15: General MIDI 1 says channel 10. */
    public static final int PERCUSSION_CHANNEL = 9;

    /** All others. */
    private static final List<Integer> MELODIC_CHANNELS = IntStream.range(0, 16)
            .filter(channel -> channel != PERCUSSION_CHANNEL)
            .boxed()
            .toList();

    public static final int FIRST_PERCUSSION = 35;

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

    /** General MIDI 1, sound set: families of eight programs. */
    private static final List<String> FAMILIES = List.of(
            "Piano",
            "Chromatic Percussion",
            "Organ",
            "Guitar",
            "Bass",
            "Strings",
            "Ensemble",
            "Brass",
            "Reed",
            "Pipe",
            "Synth Lead",
            "Synth Pad",
            "Synth Effects",
            "Ethnic",
            "Percussive",
            "Sound Effects");

    private static final int FAMILY_PROGRAMS = 8;

    /** General MIDI 1, sound set: programs 1–128. */
    private static final List<String> PROGRAMS = List.of(
            "Acoustic Grand Piano",
            "Bright Acoustic Piano",
            "Electric Grand Piano",
            "Honky-tonk Piano",
            "Electric Piano 1",
            "Electric Piano 2",
            "Harpsichord",
            "Clavi",
            "Celesta",
            "Glockenspiel",
            "Music Box",
            "Vibraphone",
            "Marimba",
            "Xylophone",
            "Tubular Bells",
            "Dulcimer",
            "Drawbar Organ",
            "Percussive Organ",
            "Rock Organ",
            "Church Organ",
            "Reed Organ",
            "Accordion",
            "Harmonica",
            "Tango Accordion",
            "Acoustic Guitar (nylon)",
            "Acoustic Guitar (steel)",
            "Electric Guitar (jazz)",
            "Electric Guitar (clean)",
            "Electric Guitar (muted)",
            "Overdriven Guitar",
            "Distortion Guitar",
            "Guitar Harmonics",
            "Acoustic Bass",
            "Electric Bass (finger)",
            "Electric Bass (pick)",
            "Fretless Bass",
            "Slap Bass 1",
            "Slap Bass 2",
            "Synth Bass 1",
            "Synth Bass 2",
            "Violin",
            "Viola",
            "Cello",
            "Contrabass",
            "Tremolo Strings",
            "Pizzicato Strings",
            "Orchestral Harp",
            "Timpani",
            "String Ensemble 1",
            "String Ensemble 2",
            "SynthStrings 1",
            "SynthStrings 2",
            "Choir Aahs",
            "Voice Oohs",
            "Synth Voice",
            "Orchestra Hit",
            "Trumpet",
            "Trombone",
            "Tuba",
            "Muted Trumpet",
            "French Horn",
            "Brass Section",
            "SynthBrass 1",
            "SynthBrass 2",
            "Soprano Sax",
            "Alto Sax",
            "Tenor Sax",
            "Baritone Sax",
            "Oboe",
            "English Horn",
            "Bassoon",
            "Clarinet",
            "Piccolo",
            "Flute",
            "Recorder",
            "Pan Flute",
            "Blown Bottle",
            "Shakuhachi",
            "Whistle",
            "Ocarina",
            "Lead 1 (square)",
            "Lead 2 (sawtooth)",
            "Lead 3 (calliope)",
            "Lead 4 (chiff)",
            "Lead 5 (charang)",
            "Lead 6 (voice)",
            "Lead 7 (fifths)",
            "Lead 8 (bass + lead)",
            "Pad 1 (new age)",
            "Pad 2 (warm)",
            "Pad 3 (polysynth)",
            "Pad 4 (choir)",
            "Pad 5 (bowed)",
            "Pad 6 (metallic)",
            "Pad 7 (halo)",
            "Pad 8 (sweep)",
            "FX 1 (rain)",
            "FX 2 (soundtrack)",
            "FX 3 (crystal)",
            "FX 4 (atmosphere)",
            "FX 5 (brightness)",
            "FX 6 (goblins)",
            "FX 7 (echoes)",
            "FX 8 (sci-fi)",
            "Sitar",
            "Banjo",
            "Shamisen",
            "Koto",
            "Kalimba",
            "Bagpipe",
            "Fiddle",
            "Shanai",
            "Tinkle Bell",
            "Agogo",
            "Steel Drums",
            "Woodblock",
            "Taiko Drum",
            "Melodic Tom",
            "Synth Drum",
            "Reverse Cymbal",
            "Guitar Fret Noise",
            "Breath Noise",
            "Seashore",
            "Bird Tweet",
            "Telephone Ring",
            "Helicopter",
            "Applause",
            "Gunshot");

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

    /** Whether a program is one drum at every pitch: wood block, taiko, toms and electronic drums (General MIDI 1, 116–119). */
    public static boolean isDrum(int program) {
        return program >= FIRST_DRUM && program <= LAST_DRUM;
    }

    /** What a key sounds on the percussion channel. */
    public static Optional<String> percussion(int key) {
        int place = key - FIRST_PERCUSSION;
        return place >= 0 && place < PERCUSSION.size() ? Optional.of(PERCUSSION.get(place)) : Optional.empty();
    }

    /** The name of a drum without the words that do not tell it from another: "Snare" for "Acoustic Snare". */
    public static String brief(String drum) {
        return drum.replace("Acoustic ", "").replace(" Drum", "");
    }

    /** "Harpsichord" for a program, 0–127. */
    public static String program(int number) {
        return PROGRAMS.get(number);
    }

    /** The family of a program, 0–127: "Piano". */
    public static String family(int program) {
        return FAMILIES.get(program / FAMILY_PROGRAMS);
    }

    /** The keys that have a sound on the percussion channel. */
    public static List<Integer> percussionKeys() {
        return IntStream.range(FIRST_PERCUSSION, FIRST_PERCUSSION + PERCUSSION.size())
                .boxed()
                .toList();
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
