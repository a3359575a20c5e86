package harpel.format.midi;

/**
 * How a Standard MIDI File is laid out (Standard MIDI Files 1.0, "Header Chunks").
 *
 * @param format 0: all in one track; 1: tempo, meter and what is about the whole in the first track, then one for each line
 * @param division ticks to a quarter
 * @param notesOnly without the bank, program and level that a line begins with
 */
public record SmfForm(int format, int division, boolean notesOnly) {
    public static final int LEAST_DIVISION = 24;
    /** The division is a number of 15 bits. */
    public static final int MOST_DIVISION = 32_767;

    public static final SmfForm PLAIN = of(1);

    public SmfForm {
        if (format != 0 && format != 1) {
            throw new IllegalArgumentException("format must be 0 or 1 but was " + format);
        }
        if (division < LEAST_DIVISION || division > MOST_DIVISION) {
            throw new IllegalArgumentException("division must be " + LEAST_DIVISION + "–" + MOST_DIVISION
                    + " ticks to a quarter but was " + division);
        }
    }

    /** With all that the lines have. */
    public SmfForm(int format, int division) {
        this(format, division, false);
    }

    /** At 960 to a quarter. */
    public static SmfForm of(int format) {
        return new SmfForm(format, 960);
    }
}
