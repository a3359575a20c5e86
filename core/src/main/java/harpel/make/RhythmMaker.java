package harpel.make;

import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.music.TimeType;
import harpel.param.type.IntType;
import harpel.param.type.TextType;
import harpel.phrase.Note;
import harpel.theory.EvenSpread;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Makes rhythms: so many hits in so many steps, as evenly as can be, a row for each drum. */
public final class RhythmMaker {
    private static final int MOST_STEPS = 64;

    public static final Param<Integer> BARS = Param.of("bars", IntType.of(1, 16, "bars"), 2, "How many bars are made.");
    public static final Param<TimeValue> GRID =
            Param.of("grid", TimeType.TIME, TimeValue.ofNote("1/16"), "How long a step is.");
    public static final Param<String> LOW = row("low-drum", "4 in 16", "bass drum (36)");
    public static final Param<String> SNARE = row("snare", "2 in 16 from 5", "snare drum (38)");
    public static final Param<String> HAT = row("hi-hat", "7 in 16", "closed hi-hat (42)");
    public static final ParamSpec SPEC = ParamSpec.of(BARS, GRID, LOW, SNARE, HAT);

    private static final Pattern ROW =
            Pattern.compile("(\\d{1,2})\\s*(?:in|/)\\s*(\\d{1,2})(?:\\s*(?:from|\\+)\\s*(\\d{1,2}))?");

    private RhythmMaker() {}

    private static Param<String> row(String id, String plain, String drum) {
        return Param.of(
                id,
                new TextType(20),
                plain,
                "Hits of the " + drum
                        + ", spread evenly over steps: 3 in 8, or 3 in 8 from 2 to begin on the second step;"
                        + " empty for none.");
    }

    /** The rows that are set; drums are those of General MIDI percussion. */
    static List<Row> rows(ParamSet values) {
        List<Row> rows = new ArrayList<>();
        add(rows, values.get(LOW), 36, 110);
        add(rows, values.get(SNARE), 38, 100);
        add(rows, values.get(HAT), 42, 75);
        return rows;
    }

    private static void add(List<Row> rows, String text, int pitch, int velocity) {
        if (text.isBlank()) {
            return;
        }
        Matcher matcher = ROW.matcher(text.strip());
        if (!matcher.matches()) {
            throw new IllegalArgumentException(
                    "a row is written like 3 in 8, or 3 in 8 from 2, but was \"" + text + "\"");
        }
        int turned = matcher.group(3) == null ? 0 : Integer.parseInt(matcher.group(3)) - 1;
        rows.add(new Row(
                pitch, Integer.parseInt(matcher.group(1)), Integer.parseInt(matcher.group(2)), turned, velocity));
    }

    /**
     * A row.
     *
     * @param pitch which drum
     * @param hits how many of the steps are struck
     * @param steps how many steps it has before it begins again
     * @param turned by how many steps it begins later
     */
    public record Row(int pitch, int hits, int steps, int turned, int velocity) {
        public Row {
            if (steps < 1 || steps > MOST_STEPS || hits < 0 || hits > steps) {
                throw new IllegalArgumentException("a row has 0 to as many hits as steps, of which there are 1–"
                        + MOST_STEPS + ", but was to have " + hits + " in " + steps);
            }
        }

        boolean strikes(long step) {
            return EvenSpread.of(hits, steps)[(int) Math.floorMod(step - turned, (long) steps)];
        }
    }

    /**
     * The notes of rows that run on beside one another.
     *
     * @param stepTicks how long a step is
     * @param length where it ends
     */
    public static List<Note> notes(List<Row> rows, long stepTicks, long length) {
        List<Note> notes = new ArrayList<>();
        for (long step = 0; step * stepTicks < length; step++) {
            for (Row row : rows) {
                if (row.strikes(step)) {
                    notes.add(Note.of(step * stepTicks, Math.max(1, stepTicks / 2), row.pitch, row.velocity));
                }
            }
        }
        return notes;
    }
}
