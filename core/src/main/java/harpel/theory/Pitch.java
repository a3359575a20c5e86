package harpel.theory;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** MIDI note numbers 0–127 and their names. Note 60 is C4 in files and by default. */
public final class Pitch {
    public static final int LOWEST = 0;
    public static final int HIGHEST = 127;

    private static final Pattern NAME = Pattern.compile("([A-Ga-g])([#♯b♭]{0,2})(-?\\d+)?");
    private static final int[] NATURAL = {9, 11, 0, 2, 4, 5, 7};

    private Pitch() {}

    public static boolean inRange(int pitch) {
        return pitch >= LOWEST && pitch <= HIGHEST;
    }

    /** Brings a pitch back into 0–127 by whole octaves. */
    public static int fold(int pitch) {
        if (pitch < LOWEST) {
            return Math.floorMod(pitch, 12);
        }
        // The highest pitch of the same name that still fits: 116–127.
        return pitch <= HIGHEST ? pitch : HIGHEST - Math.floorMod(HIGHEST - pitch, 12);
    }

    /** The pitch class 0–11 of a pitch, C being 0. */
    public static int pitchClass(int pitch) {
        return Math.floorMod(pitch, 12);
    }

    /** The name with octave, such as C4 or F♯3. */
    public static String name(int pitch, OctaveNaming naming) {
        return className(pitch) + octave(pitch, naming);
    }

    private static int octave(int pitch, OctaveNaming naming) {
        return Math.floorDiv(pitch, 12) + naming.lowestOctave();
    }

    /** The name in files, where note 60 is C4. */
    public static String name(int pitch) {
        return name(pitch, OctaveNaming.C4);
    }

    /** The name as people see it: black keys as a key writes them, octaves as they chose. */
    public static String shown(int pitch, Spelling spelling) {
        return spelling.of(pitch) + octave(pitch, OctaveNaming.shown());
    }

    /** The name without octave, sharps for the black keys. */
    public static String className(int pitch) {
        return Spelling.SHARPS.of(pitch);
    }

    /** A name, or words with names in them, as files have it: # and b for the signs. */
    public static String plain(String name) {
        return name.replace('♯', '#').replace('♭', 'b');
    }

    /**
     * Reads a name with octave ("C4", "f#3", "B♭2") in the naming where note 60 is C4.
     *
     * @throws IllegalArgumentException when it is not a note name or lies outside 0–127
     */
    public static int parse(String name) {
        return parse(name, OctaveNaming.C4);
    }

    /** The same in another octave naming. */
    public static int parse(String name, OctaveNaming naming) {
        Matcher matcher = NAME.matcher(name.strip());
        if (!matcher.matches() || matcher.group(3) == null) {
            throw new IllegalArgumentException(
                    "a pitch is a number 0–127 or a name such as C4, F#3 or Bb2, but was \"" + name + "\"");
        }
        int octave = Integer.parseInt(matcher.group(3));
        int pitch = letterAndSigns(matcher) + 12 * (octave - naming.lowestOctave());
        if (!inRange(pitch)) {
            throw new IllegalArgumentException("pitch must be " + name(LOWEST, naming) + " to " + name(HIGHEST, naming)
                    + " (0–127) but was \"" + name + "\" (" + pitch + ")");
        }
        return pitch;
    }

    /**
     * Reads a name without octave ("C", "F#", "Bb") as a pitch class 0–11.
     *
     * @throws IllegalArgumentException when it is not a note name
     */
    public static int parseClass(String name) {
        Matcher matcher = NAME.matcher(name.strip());
        if (!matcher.matches() || matcher.group(3) != null) {
            throw new IllegalArgumentException("a root is a note name such as C, F# or Bb, but was \"" + name + "\"");
        }
        return Math.floorMod(letterAndSigns(matcher), 12);
    }

    private static int letterAndSigns(Matcher matcher) {
        int semitones = NATURAL[matcher.group(1).toUpperCase(Locale.ROOT).charAt(0) - 'A'];
        for (char sign : matcher.group(2).toCharArray()) {
            semitones += sign == '#' || sign == '♯' ? 1 : -1;
        }
        return semitones;
    }

    /** The frequency in Hz in equal temperament with A4 at 440 Hz (ISO 16). */
    public static double frequency(int pitch) {
        return 440 * Math.pow(2, (pitch - 69) / 12.0);
    }
}
