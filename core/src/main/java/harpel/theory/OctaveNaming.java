package harpel.theory;

/** Which octave number note 60 carries; makers differ by one, so it is a setting. */
public enum OctaveNaming {
    /** Note 60 is C4 (scientific pitch notation): the default, and what files use. */
    C4(-1),
    /** Note 60 is C3, the other common habit. */
    C3(-2);

    private final int lowest;

    OctaveNaming(int lowest) {
        this.lowest = lowest;
    }

    /** The number of the octave that begins at note 0. */
    public int lowestOctave() {
        return lowest;
    }
}
