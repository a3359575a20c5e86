package harpel.move;

import harpel.param.Param;
import harpel.param.ParamSpec;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.CurveType;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.PathType;
import harpel.param.type.SpanType;
import harpel.param.type.SpanType.Span;
import harpel.param.type.TextType;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** What a parameter can be moved by. All but automation give a number from 0 to 1, of which an amount is added. */
public enum Source {
    AUTOMATION("points along the piece, in place of the base value while the transport runs"),
    CURVE("a drawn curve with a loop length of its own"),
    LEVER("a named performance control of the piece"),
    VELOCITY("the velocity of the last note"),
    KEY("the pitch of the last note, 0–127"),
    KEYS_HELD("how many notes are held at the stage"),
    CONTROLLER("a controller; 1 is the mod wheel"),
    PRESSURE("channel pressure"),
    KEY_PRESSURE("the pressure of a single key, of whichever sent it last"),
    RANDOM("drawn anew for each note"),
    LFO("a wave in note values"),
    ENVELOPE("rises with the first key and falls after the last"),
    STEPS("a row of steps");

    /** The shapes of a wave. */
    public enum Shape {
        SINE,
        TRIANGLE,
        RISE,
        FALL,
        SQUARE,
        RANDOM
    }

    /** How automation goes from one point to the next. */
    public enum Between {
        LINE,
        HOLD
    }

    /** Which note values a moved time may come to. */
    public enum NoteValues {
        STRAIGHT(""),
        DOTTED_TOO("d"),
        TRIPLETS_TOO("t"),
        ALL("dt");

        private final List<TimeValue.Note> values = new ArrayList<>();

        /** @param kinds the letters of those besides straight ones */
        NoteValues(String kinds) {
            for (String name : List.of("1/64", "1/32", "1/16", "1/8", "1/4", "1/2", "1/1", "2/1", "4/1")) {
                values.add((TimeValue.Note) TimeValue.ofNote(name));
                kinds.chars().forEach(kind -> values.add((TimeValue.Note) TimeValue.ofNote(name + (char) kind)));
            }
        }

        /** Those that one or the other allows. */
        NoteValues and(NoteValues other) {
            return this == other || other == STRAIGHT ? this : this == STRAIGHT ? other : ALL;
        }

        /** The one that is nearest in ratio. */
        TimeValue nearest(TimeValue.Note wanted) {
            double quarters = wanted.value().quarters();
            return Collections.min(
                    values,
                    Comparator.comparingDouble(
                            one -> Math.abs(Math.log(one.value().quarters() / quarters))));
        }
    }

    public static final Param<NoteValues> NOTE_VALUES = Param.of(
            "note-values",
            ChoiceType.of(NoteValues.class),
            NoteValues.STRAIGHT,
            "Which note values a time that is moved comes to: straight ones, dotted ones too, triplets too, or all.");
    public static final Param<Span> KEYS = Param.of(
            "keys", SpanType.ofPitches(), new Span(0, 127), "The notes that count as the lowest and the highest.");
    public static final Param<Integer> AMOUNT = Param.of(
            "amount",
            IntType.percent(-100, 100),
            50,
            "How much of the control's range is added when the source is at its highest.");
    public static final Param<Boolean> BOTH_WAYS = Param.of(
            "both-ways",
            FlagType.FLAG,
            false,
            "The middle of the source adds nothing, its lowest takes the amount away.");
    public static final Param<Span> RANGE = Param.of(
            "range",
            SpanType.of(0, 100),
            new Span(0, 100),
            "The part of the source, in %, that counts as its lowest to highest.");
    public static final Param<Integer> BEND = Param.of(
            "curve", IntType.of(-100, 100, ""), 0, "Above 0 it rises fast first, below 0 slowly first; 0 is straight.");

    public static final Param<TimeValue> LOOP =
            Param.of("loop", TimeType.LOOP, new TimeValue.Bars(1), "The length of the loop, up to 64 bars.");
    public static final Param<List<CurveType.Point>> SHAPE_POINTS = Param.of(
            "points",
            CurveType.CURVE,
            List.of(new CurveType.Point(0, 0), new CurveType.Point(2, 100), new CurveType.Point(4, 0)),
            "The curve: [beats from the start of the loop, height in %].");
    public static final Param<String> NAME =
            Param.of("lever", new TextType(60), "", "The lever's name; each control has its own amount of it.");
    public static final Param<Integer> MOST =
            Param.of("most", IntType.of(1, 16, ""), 8, "So many held notes are the highest.");
    public static final Param<Integer> NUMBER =
            Param.of("controller", IntType.of(0, 127, ""), 1, "Which controller; 1 is the mod wheel, 11 expression.");
    public static final Param<Shape> SHAPE = Param.of(
            "shape",
            ChoiceType.of(Shape.class),
            Shape.SINE,
            "The wave: a sine starts in the middle, rising; random holds a new value each time.");
    public static final Param<TimeValue> PACE =
            Param.of("pace", TimeType.TIME, TimeValue.ofNote("1/1"), "The length of one wave, or of one step.");
    public static final Param<Integer> PHASE =
            Param.of("phase", IntType.percent(0, 100), 0, "Where in the wave the piece begins.");
    public static final Param<TimeValue> ATTACK =
            Param.of("attack", TimeType.TIME, new TimeValue.Millis(100), "From the first key to the highest.");
    public static final Param<TimeValue> DECAY =
            Param.of("decay", TimeType.TIME, new TimeValue.Millis(300), "From there to the level that stays.");
    public static final Param<Integer> SUSTAIN =
            Param.of("sustain", IntType.percent(0, 100), 50, "The level while keys are held.");
    public static final Param<TimeValue> RELEASE =
            Param.of("release", TimeType.TIME, new TimeValue.Millis(300), "From the last key's release to nothing.");
    public static final Param<List<Integer>> VALUES = Param.of(
            "values", new ListType<>(IntType.percent(0, 100), 64), List.of(0, 100), "The height of each step.");
    public static final Param<Between> BETWEEN = Param.of(
            "between",
            ChoiceType.of(Between.class),
            Between.LINE,
            "Straight from point to point, or each holds to the next.");

    private static final ParamSpec COMMON = ParamSpec.of(AMOUNT, BOTH_WAYS, RANGE, BEND);
    private static final Map<Param<?>, ParamSpec> AUTOMATIONS = new ConcurrentHashMap<>();
    private static final Map<Source, ParamSpec> SPECS = new ConcurrentHashMap<>();
    /** The same where what is moved is a time. */
    private static final Map<Source, ParamSpec> OF_TIMES = new ConcurrentHashMap<>();

    private final String does;

    Source(String does) {
        this.does = does;
    }

    /** What it is, in words. */
    public String does() {
        return does;
    }

    /** The word in files. */
    public String word() {
        return ChoiceType.word(this);
    }

    /** Its settings where it moves that parameter: automation has points with values of the parameter's own type. */
    public ParamSpec spec(Param<?> moved) {
        if (this == AUTOMATION) {
            return AUTOMATIONS.computeIfAbsent(moved, param -> ParamSpec.of(points(param), BETWEEN));
        }
        ParamSpec spec =
                SPECS.computeIfAbsent(this, source -> ParamSpec.of(source.own()).and(COMMON));
        return moved.type() instanceof TimeType
                ? OF_TIMES.computeIfAbsent(this, source -> spec.and(ParamSpec.of(NOTE_VALUES)))
                : spec;
    }

    private static <T> Param<List<PathType.Point<T>>> points(Param<T> moved) {
        return Param.of(
                "points",
                new PathType<>(moved.type()),
                List.of(),
                "The way: [tick of the piece, value], 15,360 ticks a quarter.");
    }

    private Param<?>[] own() {
        return switch (this) {
            case CURVE -> new Param<?>[] {LOOP, SHAPE_POINTS};
            case LEVER -> new Param<?>[] {NAME};
            case KEY -> new Param<?>[] {KEYS};
            case KEYS_HELD -> new Param<?>[] {MOST};
            case CONTROLLER -> new Param<?>[] {NUMBER};
            case LFO -> new Param<?>[] {SHAPE, PACE, PHASE};
            case ENVELOPE -> new Param<?>[] {ATTACK, DECAY, SUSTAIN, RELEASE};
            case STEPS -> new Param<?>[] {PACE, VALUES};
            default -> new Param<?>[0];
        };
    }
}
