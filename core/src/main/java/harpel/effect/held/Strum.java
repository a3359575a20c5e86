package harpel.effect.held;

import com.google.auto.service.AutoService;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.Trait;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.NumberType;
import harpel.time.MeterMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Plays the notes of a chord one shortly after another, as a hand strokes strings. */
@AutoService(EffectKind.class)
public final class Strum extends EffectKind {
    /** Which way the hand goes. */
    public enum Stroke {
        LOW_TO_HIGH,
        HIGH_TO_LOW,
        ALTERNATE,
        BY_EIGHTH,
        BY_BEAT
    }

    /** When the notes of a chord end. */
    public enum Ends {
        OWN_LENGTH,
        TOGETHER
    }

    public static final Param<Stroke> STROKE = Param.of(
            "stroke",
            ChoiceType.of(Stroke.class),
            Stroke.LOW_TO_HIGH,
            "Which way the hand goes; by-eighth: down on the beat and up off it; by-beat: down on odd beats, up on even ones.");
    public static final Param<TimeValue> SPREAD = Param.of(
            "spread", TimeType.TIME, new TimeValue.Millis(60), "The time from the first note of a chord to the last.");
    public static final Param<Integer> CURVE = Param.of(
            "curve", IntType.of(-100, 100, ""), 0, "Below 0 the stroke slows down, above 0 it rushes; 0 is even.");
    public static final Param<Integer> SLOPE = Param.of(
            "slope", IntType.percent(-100, 100), 0, "How much louder or softer the last note is than it was played.");
    public static final Param<Double> GATHER = Param.of(
            "gather",
            new NumberType(0, 500, 5, "ms"),
            25.0,
            "Keys that come within this time of the first are one chord, whose stroke begins when it is over; 0 delays nothing."
                    + " Notes of a phrase, of a step or of a chord that one key makes are known and wait for nothing.");
    public static final Param<Ends> ENDS = Param.of(
            "ends",
            ChoiceType.of(Ends.class),
            Ends.OWN_LENGTH,
            "Each note keeps its own length, or all end with the last key.");

    private static final EffectWords WORDS = EffectWords.of("Strum", Family.HELD, "strokes chords like strings")
            .withFoundBy("guitar harp stroke")
            .withSetting(Strum::describe)
            .withNotes(
                    "String k of n starts at T·(k/(n − 1))^p with p = 2^(−curve/100): evenly spread over T a chord starts at 0, T/(n − 1),"
                            + " 2T/(n − 1), … T. One note alone has nothing to strum and passes when the gathering is over."
                            + " A down stroke goes from low to high.");

    public Strum() {
        super("strum", WORDS, EffectNature.of(Trait.NEEDS_CHORDS), STROKE, SPREAD, CURVE, SLOPE, GATHER, ENDS);
    }

    /** Where string k of n starts, as a share of the spread. */
    public static double place(ParamSet values, int k, int n) {
        return n < 2 ? 0 : Math.pow(k / (n - 1.0), Math.pow(2, -values.get(CURVE) / 100.0));
    }

    /** The velocity of string k of n for one that was played so. */
    public static double velocity(ParamSet values, int played, int k, int n) {
        return played * (1 + (n < 2 ? 0 : k / (n - 1.0)) * values.get(SLOPE) / 100.0);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        int curve = values.get(CURVE);
        String shape = curve == 0 ? "" : curve < 0 ? " · slowing" : " · rushing";
        return STROKE.show(values) + " · over " + SPREAD.show(values) + shape;
    }

    /** Notes that are one chord: what came in and what was made of it. */
    private static final class Chord {
        final long openedTick;
        final List<NoteStart> notes = new ArrayList<>();
        final Map<NoteStart, Long> ended = new HashMap<>();
        Map<NoteStart, NoteStart> made;

        Chord(long openedTick) {
            this.openedTick = openedTick;
        }
    }

    private static final class Running implements Effect {
        private final Map<NoteStart, Chord> chords = new HashMap<>();
        private ParamSet values;
        private TimeMap time;
        private Chord gathering;
        private long closesTick = Ticks.NEVER;
        private boolean down = true;

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            values = newValues;
            time = context.time();
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            if (gathering == null) {
                gathering = new Chord(note.tick());
                closesTick = time.after(note.tick(), new TimeValue.Millis(values.get(GATHER)), 1);
            }
            gathering.notes.add(note);
            chords.put(note, gathering);
            if (note.lasts() > 0 || isMadeOfOneKey()) {
                closesTick = note.tick();
            }
        }

        /** Whether it is a chord already, that a stage before made of one key: no other key is waited for. */
        private boolean isMadeOfOneKey() {
            List<NoteStart> notes = gathering.notes;
            long arrival = notes.get(0).arrival();
            return notes.size() > 1 && notes.stream().allMatch(one -> one.arrival() == arrival);
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            Chord chord = chords.remove(end.start());
            chord.ended.put(end.start(), end.tick());
            if (chord.made != null) {
                endNotes(chord, out);
            }
        }

        @Override
        public long nextStep() {
            return closesTick;
        }

        @Override
        public void step(Emitter out) {
            Chord chord = gathering;
            gathering = null;
            closesTick = Ticks.NEVER;
            stroke(chord, out);
            endNotes(chord, out);
        }

        private void stroke(Chord chord, Emitter out) {
            List<NoteStart> strings = new ArrayList<>(chord.notes);
            strings.sort(Comparator.comparingInt(NoteStart::pitch));
            if (!goesDown(chord.openedTick)) {
                Collections.reverse(strings);
            }
            chord.made = new HashMap<>();
            boolean known = strings.stream().allMatch(note -> note.lasts() > 0);
            long lastKnown = known
                    ? strings.stream()
                            .mapToLong(note -> note.tick() + note.lasts())
                            .max()
                            .orElse(0)
                    : 0;
            int n = strings.size();
            for (int k = 0; k < n; k++) {
                long tick = time.after(out.tick(), values.get(SPREAD), place(values, k, n));
                NoteStart played = strings.get(k);
                NoteStart made = played.derive(tick, played.pitch(), velocity(values, played.velocity(), k, n));
                chord.made.put(played, made);
                if (values.get(ENDS) == Ends.TOGETHER) {
                    made.lasting(lastKnown == 0 ? 0 : lastKnown - tick);
                }
                out.start(made);
            }
        }

        private boolean goesDown(long tick) {
            MeterMap.Place place = time.meter().placeAt(tick);
            return switch (values.get(STROKE)) {
                case LOW_TO_HIGH -> true;
                case HIGH_TO_LOW -> false;
                case ALTERNATE -> {
                    boolean now = down;
                    down = !down;
                    yield now;
                }
                // An eighth off the beat begins half a quarter after it; a hand is allowed to be a little early.
                case BY_EIGHTH ->
                    Math.floorMod(tick + Ticks.PER_QUARTER / 4, Ticks.PER_QUARTER) < Ticks.PER_QUARTER / 2;
                case BY_BEAT -> place.beat() % 2 == 1;
            };
        }

        /** Ends what may end: each note with its own key, or all with the last. */
        private void endNotes(Chord chord, Emitter out) {
            boolean together = values.get(ENDS) == Ends.TOGETHER;
            if (together && chord.ended.size() < chord.notes.size()) {
                return;
            }
            long lastEnd = chord.ended.values().stream()
                    .mapToLong(Long::longValue)
                    .max()
                    .orElse(0);
            for (NoteStart played : chord.notes) {
                Long ended = chord.ended.get(played);
                NoteStart made = ended == null ? null : chord.made.remove(played);
                if (made != null) {
                    long end = together ? lastEnd : made.tick() + ended - played.tick();
                    out.end(made, end, NoteEnd.PLAIN_RELEASE);
                }
            }
        }
    }
}
