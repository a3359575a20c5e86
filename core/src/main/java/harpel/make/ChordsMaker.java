package harpel.make;

import harpel.param.ChoiceType;
import harpel.param.FlagType;
import harpel.param.IntType;
import harpel.param.NumberType;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.TextType;
import harpel.phrase.Note;
import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.theory.Voicing;
import harpel.time.MeterMap;
import java.util.ArrayList;
import java.util.List;

/**
 * Notes of a progression.
 *
 * @param bars how long each chord lasts
 * @param middle about which pitch they lie, 0–127
 * @param bass whether the root lies an octave below as well
 * @param rhythm held, or struck on steps
 * @param velocity 1–127
 */
public record ChordsMaker(
        Progression progression, double bars, Voicing voicing, int middle, boolean bass, Rhythm rhythm, int velocity) {
    /** When the notes of a chord are struck. */
    public enum Rhythm {
        HELD,
        ON_BEATS,
        OFF_BEATS
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
    public static final Param<Integer> MIDDLE =
            Param.of("around", IntType.ofPitch(), 60, "About which pitch the chords lie.");
    public static final Param<Boolean> BASS =
            Param.of("bass", new FlagType(), true, "Whether the root lies an octave below as well.");
    public static final Param<Rhythm> RHYTHM =
            Param.of("rhythm", ChoiceType.of(Rhythm.class), Rhythm.HELD, "Held, or struck on beats or between them.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.of(1, 127, ""), 90, "How hard they are struck.");

    public static final ParamSpec SPEC = ParamSpec.of(PROGRESSION, BARS, VOICING, MIDDLE, BASS, RHYTHM, VELOCITY);

    static ChordsMaker of(ParamSet values) {
        return new ChordsMaker(
                new Progression("", values.get(PROGRESSION)),
                values.get(BARS),
                values.get(VOICING),
                values.get(MIDDLE),
                values.get(BASS),
                values.get(RHYTHM),
                values.get(VELOCITY));
    }

    public ChordsMaker {
        if (!(bars > 0 && bars <= MOST_BARS)) {
            throw new IllegalArgumentException("a chord lasts up to " + MOST_BARS + " bars but was to last " + bars);
        }
    }

    /** How long all of it is. */
    public long length(Key key, MeterMap meter) {
        return chordTicks(meter) * progression.chords(key).size();
    }

    private long chordTicks(MeterMap meter) {
        return Math.max(1, Math.round(bars * meter.at(0).barTicks()));
    }

    /** The notes, from tick 0 on, in a key and a meter. */
    public List<Note> notes(Key key, MeterMap meter) {
        List<Note> notes = new ArrayList<>();
        long ticks = chordTicks(meter);
        long beat = meter.at(0).beatTicks();
        List<Integer> last = List.of();
        long at = 0;
        for (Chord chord : progression.chords(key)) {
            List<Integer> pitches = new ArrayList<>(voicing.of(chord.pitchesNear(middle), 0, last));
            last = List.copyOf(pitches);
            if (bass) {
                pitches.add(chord.pitchesNear(middle - 12).get(0) - 12);
            }
            long first = rhythm == Rhythm.OFF_BEATS ? at + beat / 2 : at;
            long step = rhythm == Rhythm.HELD ? ticks : beat;
            long lasts = rhythm == Rhythm.HELD ? ticks : beat / 2;
            for (long tick = first; tick < at + ticks; tick += step) {
                for (int pitch : pitches) {
                    if (pitch >= 0 && pitch <= 127) {
                        notes.add(Note.of(tick, Math.max(1, Math.min(lasts, at + ticks - tick)), pitch, velocity));
                    }
                }
            }
            at += ticks;
        }
        return notes;
    }
}
