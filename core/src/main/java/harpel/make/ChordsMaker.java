package harpel.make;

import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.NumberType;
import harpel.param.type.StepsType;
import harpel.param.type.TextType;
import harpel.phrase.Note;
import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.theory.Spelling;
import harpel.theory.Voicing;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;

/** Makes chords of a progression. */
public final class ChordsMaker {
    /** When the notes of a chord are struck. */
    public enum Rhythm {
        HELD,
        ON_BEATS,
        OFF_BEATS,
        STEPS
    }

    private static final double MOST_BARS = 16;

    public static final Param<String> PROGRESSION = Param.of(
            "progression",
            new TextType(200),
            "i VI III VII",
            "Roman numerals (i VI III VII, ii7 V7 Imaj7, bVII) or chord symbols (Dm7 G7 Cmaj7).");
    public static final Param<Double> BARS =
            Param.of("chord-lasts", new NumberType(0.25, MOST_BARS, 0.25, "bars"), 1.0, "How long each chord lasts.");
    public static final Param<Voicing> VOICING = Param.of(
            "voicing",
            ChoiceType.of(Voicing.class),
            Voicing.LEAD,
            "How the notes lie; lead moves each chord as little as can be from the one before.");
    public static final Param<Integer> LOWEST = Param.of(
            "lowest-note",
            IntType.ofPitch(),
            48,
            "The lowest note but for the bass; what lies below comes an octave or more up.");
    public static final Param<Integer> HIGHEST = Param.of(
            "highest-note", IntType.ofPitch(), 72, "The highest note; what lies above comes an octave or more down.");
    public static final Param<Boolean> BASS =
            Param.of("bass", new FlagType(), true, "Whether the root lies an octave below as well.");
    public static final Param<Rhythm> RHYTHM = Param.of(
            "rhythm",
            ChoiceType.of(Rhythm.class),
            Rhythm.HELD,
            "Held, or struck on beats, between them, or on the steps of the row.");
    public static final Param<String> STEPS = Param.of(
            "steps", new StepsType(32), "x..x..x.", "With rhythm steps: the row, which begins with each chord.");
    public static final Param<TimeValue> STEP =
            Param.of("step", TimeType.TIME, TimeValue.ofNote("1/8"), "With rhythm steps: how long a step is.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.of(1, 127, ""), 90, "How hard they are struck.");

    public static final ParamSpec SPEC =
            ParamSpec.of(PROGRESSION, BARS, VOICING, LOWEST, HIGHEST, BASS, RHYTHM, STEPS, STEP, VELOCITY);

    private ChordsMaker() {}

    /** How long all of it is. */
    static long length(ParamSet values, Key key, TimeMap time) {
        return chordTicks(values, time) * chords(values, key).size();
    }

    private static List<Chord> chords(ParamSet values, Key key) {
        return new Progression("", values.get(PROGRESSION)).chords(key);
    }

    private static long chordTicks(ParamSet values, TimeMap time) {
        return Math.max(1, Math.round(values.get(BARS) * time.meter().at(0).barTicks()));
    }

    /**
     * The notes, from tick 0 on.
     *
     * @throws IllegalArgumentException when the progression cannot be read or the range is less than an octave
     */
    static List<Note> notes(ParamSet values, Key key, TimeMap time) {
        int low = values.get(LOWEST);
        int high = values.get(HIGHEST);
        if (high - low < 11) {
            throw new IllegalArgumentException(
                    "chords need an octave: from " + LOWEST.show(values, Spelling.of(key)) + " on the highest note is "
                            + HIGHEST.type().show(Math.min(127, low + 11), Spelling.of(key)) + " or higher");
        }
        int middle = (low + high) / 2;
        List<Note> notes = new ArrayList<>();
        List<Integer> last = List.of();
        long at = 0;
        long ticks = chordTicks(values, time);
        for (Chord chord : chords(values, key)) {
            TreeSet<Integer> pitches = new TreeSet<>();
            last = values.get(VOICING).of(chord.pitchesNear(middle), 0, last);
            last.forEach(pitch -> pitches.add(within(pitch, low, high)));
            last = List.copyOf(pitches);
            if (values.get(BASS)) {
                pitches.add(chord.pitchesNear(middle - 12).get(0) - 12);
            }
            for (Strike strike : strikes(values, ticks, time)) {
                for (int pitch : pitches) {
                    if (pitch >= 0 && pitch <= 127) {
                        notes.add(Note.of(at + strike.tick, strike.lasts, pitch, strike.velocity));
                    }
                }
            }
            at += ticks;
        }
        return notes;
    }

    private static int within(int pitch, int low, int high) {
        int fitted = pitch;
        while (fitted < low) {
            fitted += 12;
        }
        while (fitted > high) {
            fitted -= 12;
        }
        return fitted;
    }

    private record Strike(long tick, long lasts, int velocity) {}

    /** When a chord that lasts so many ticks is struck. */
    private static List<Strike> strikes(ParamSet values, long ticks, TimeMap time) {
        List<Strike> strikes = new ArrayList<>();
        long beat = time.meter().at(0).beatTicks();
        int velocity = values.get(VELOCITY);
        switch (values.get(RHYTHM)) {
            case HELD -> strikes.add(new Strike(0, ticks, velocity));
            case ON_BEATS -> every(beat, 0, ticks, velocity, strikes);
            case OFF_BEATS -> every(beat, beat / 2, ticks, velocity, strikes);
            case STEPS -> {
                double step = Math.max(1, values.get(STEP).ticksAt(0, time));
                for (int n = 0; Ticks.round(n * step) < ticks; n++) {
                    double share = StepsType.at(values.get(STEPS), n);
                    long tick = Ticks.round(n * step);
                    if (share > 0) {
                        long lasts = Math.min(Ticks.round((n + 1) * step), ticks) - tick;
                        strikes.add(new Strike(tick, lasts, (int) Math.max(1, Math.round(velocity * share))));
                    }
                }
            }
        }
        return strikes;
    }

    private static void every(long beat, long first, long ticks, int velocity, List<Strike> strikes) {
        for (long tick = first; tick < ticks; tick += beat) {
            strikes.add(new Strike(tick, Math.max(1, Math.min(beat / 2, ticks - tick)), velocity));
        }
    }
}
