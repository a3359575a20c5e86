package harpel.theory;

/** Which octave number note 60 carries; makers differ by one, so it is a setting. */
public enum OctaveNaming {
    /** Note 60 is C4 (scientific pitch notation): the default, and what files use. */
    C4(-1),
    /** Note 60 is C3, the other common habit. */
    C3(-2);

    private static volatile OctaveNaming shown = C4;
    private final int lowest;

    OctaveNaming(int lowest) {
        this.lowest = lowest;
    }

    /** How pitches are shown to and typed by people; files and the command line keep to C4. */
    public static OctaveNaming shown() {
        return shown;
    }

    /** Sets how pitches are shown from now on: a setting of the whole program. */
    public static void show(OctaveNaming naming) {
        shown = naming;
    }

    /** The number of the octave that begins at note 0. */
    public int lowestOctave() {
        return lowest;
    }
}
