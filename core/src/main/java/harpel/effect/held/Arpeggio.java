package harpel.effect.held;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Family;
import harpel.effect.Pedal;
import harpel.effect.Trait;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.music.IntervalType;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.NumberType;
import harpel.param.type.RowType;
import harpel.theory.Interval;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;

/** Plays held notes one at a time. What it is set to; {@link ArpeggioRun} plays. */
@AutoService(EffectKind.class)
public final class Arpeggio extends EffectKind {
    /** In which order held notes come. */
    public enum Order {
        UP,
        DOWN,
        UP_DOWN,
        UP_DOWN_ENDS_TWICE,
        DOWN_UP,
        EDGES_FIRST,
        MIDDLE_FIRST,
        AS_PLAYED,
        AS_PLAYED_REVERSED,
        RANDOM,
        SHUFFLE,
        TOGETHER
    }

    /** Where steps lie. */
    public enum Lie {
        BAR_GRID,
        FIRST_KEY
    }

    /** When the order begins again. */
    public enum StartOver {
        NEVER,
        EACH_CHORD,
        EACH_NOTE,
        EVERY_BARS
    }

    /** Where velocity comes from. */
    public enum Velocity {
        PATTERN,
        AS_PLAYED,
        FIXED
    }

    /** What a key that was let go does. */
    public enum LatchMode {
        OFF,
        REPLACE,
        ADD
    }

    /** What a step of the pattern plays. */
    public enum Play {
        NEXT,
        LOWEST,
        HIGHEST,
        NTH,
        CHORD,
        REST,
        TIE
    }

    public static final Param<Play> PLAY = Param.of(
            "play",
            ChoiceType.of(Play.class),
            Play.NEXT,
            "The next note of the order, the lowest, the highest, the n-th from below, the whole chord, nothing, or the last one on.");
    public static final Param<Integer> NTH =
            Param.of("n", IntType.of(1, 16, ""), 1, "With play nth: which note, counted from the lowest.");
    public static final Param<Integer> STEP_VELOCITY =
            Param.of("velocity", IntType.of(1, 127, "").orWord("as-played"), 0, "Velocity of the step.");
    public static final Param<Integer> STEP_GATE =
            Param.of("gate", IntType.percent(1, 200).orWord("as-set"), 0, "Length of the step; as set for all.");
    public static final Param<Integer> STEP_OCTAVE =
            Param.of("octave", IntType.of(-4, 4, "octaves"), 0, "Octaves up or down.");
    public static final Param<Integer> STEP_CHANCE = Param.of(
            "chance", IntType.percent(0, 100), 100, "How often the step sounds; the order moves on all the same.");
    public static final ParamSpec STEP = ParamSpec.of(PLAY, NTH, STEP_VELOCITY, STEP_GATE, STEP_OCTAVE, STEP_CHANCE);

    public static final Param<Order> ORDER =
            Param.of("order", ChoiceType.of(Order.class), Order.UP, "The order in which held notes come.");
    public static final Param<TimeValue> PACE =
            Param.of("pace", TimeType.TIME, TimeValue.ofNote("1/16"), "From one step to the next.");
    public static final Param<Integer> GATE =
            Param.of("gate", IntType.percent(1, 200), 80, "How much of the step a note lasts; 100 % is legato.");
    public static final Param<Integer> OCTAVES =
            Param.of("octaves", IntType.of(1, 5, ""), 1, "Over how many octaves the whole order is laid.");
    public static final Param<Interval> CLIMB_BY = Param.of(
            "climb-by",
            new IntervalType(-24, 24),
            Interval.ofSemitones(12),
            "How much higher each further level lies than the last.");
    public static final Param<Integer> CLIMB_TIMES = Param.of(
            "climb-times",
            IntType.of(0, 16, ""),
            0,
            "How many further levels are played before the order begins again.");
    public static final Param<Double> SWING = Param.of(
            "swing",
            new NumberType(50, 75, 1, "%"),
            50.0,
            "Where the second step of each pair starts: 50 straight, 66.67 triplet feel.");
    public static final Param<Lie> STEPS_LIE_ON = Param.of(
            "steps-lie-on",
            ChoiceType.of(Lie.class),
            Lie.BAR_GRID,
            "On the grid of the bars, or counted from the first key.");
    public static final Param<Double> LATE_CATCH = Param.of(
            "late-catch",
            new NumberType(0, 500, 10, "ms"),
            30.0,
            "A key at most this late after a step at which nothing was held still plays that step at once.");
    public static final Param<StartOver> START_OVER = Param.of(
            "start-over",
            ChoiceType.of(StartOver.class),
            StartOver.EACH_CHORD,
            "never: the order goes on with the bars; each-chord: at the first key after none was held; each-note; every-bars.");
    public static final Param<Integer> START_OVER_EVERY =
            Param.of("start-over-every", IntType.of(1, 64, "bars"), 1, "With start over every bars: after how many.");
    public static final Param<Velocity> VELOCITY = Param.of(
            "velocity",
            ChoiceType.of(Velocity.class),
            Velocity.PATTERN,
            "pattern: the step's, and as played where the step names none; as-played; fixed.");
    public static final Param<Integer> FIXED_VELOCITY =
            Param.of("fixed-velocity", IntType.of(1, 127, ""), 96, "With velocity fixed: the velocity of every note.");
    public static final Param<Integer> KEEP_EVEN = Param.of(
            "keep-even",
            IntType.of(1, 16, "slots").orWord("off"),
            0,
            "So many slots for every chord: one with fewer notes repeats its first, one with more drops the highest.");
    public static final Param<List<ParamSet>> PATTERN = Param.of(
            "pattern",
            new ListType<>(new RowType(STEP), 64),
            List.of(),
            "Up to 64 steps of its own, whatever is held.");
    public static final Param<LatchMode> LATCH = Param.of(
            "latch",
            ChoiceType.of(LatchMode.class),
            LatchMode.OFF,
            "Keys let go stay: until the next chord, or adding up.");

    private static final EffectWords WORDS = EffectWords.of("Arpeggio", Family.HELD, "plays held notes one at a time")
            .withFoundBy("pattern line broken chord")
            .withAction("Release")
            .withSetting(Arpeggio::describe)
            .withNotes(
                    "The note at a step is the order's entry at (counter mod length of the order), so keys pressed or let go between two"
                            + " steps count from the next step on. The grid begins anew at each change of meter. Orders that fall (down, down-up,"
                            + " as-played-reversed) begin at the highest octave. Gate counts from the step to the next, swing included."
                            + " A second arpeggio fed by a first one wants `start-over: never`.");
    private static final EffectNature NATURE = EffectNature.of(Trait.MAKES_A_PATTERN)
            .withHoldsNotes(true)
            .withRound(Arpeggio::roundTicks)
            .withStep((values, time) -> values.get(PACE).ticksAt(0, time));

    public Arpeggio() {
        super(
                "arpeggio",
                WORDS,
                NATURE,
                ORDER,
                PACE,
                GATE,
                OCTAVES,
                CLIMB_BY,
                CLIMB_TIMES,
                SWING,
                STEPS_LIE_ON,
                LATE_CATCH,
                START_OVER,
                START_OVER_EVERY,
                VELOCITY,
                FIXED_VELOCITY,
                KEEP_EVEN,
                PATTERN,
                LATCH,
                Pedal.PARAM,
                Pedal.LET_GO,
                Beyond.PARAM,
                SEED);
    }

    @Override
    public Effect create() {
        return new ArpeggioRun();
    }

    private static String describe(ParamSet values) {
        List<String> parts = new ArrayList<>(List.of(ORDER.show(values), PACE.show(values)));
        if (values.get(OCTAVES) > 1) {
            parts.add(values.get(OCTAVES) + " octaves");
        }
        if (values.get(CLIMB_TIMES) > 0) {
            parts.add("climb " + CLIMB_BY.show(values) + " × " + values.get(CLIMB_TIMES));
        }
        parts.add("gate " + GATE.show(values));
        if (!values.get(PATTERN).isEmpty()) {
            parts.add("pattern of " + values.get(PATTERN).size());
        }
        if (values.get(LATCH) != LatchMode.OFF) {
            parts.add("latch");
        }
        return String.join(" · ", parts);
    }

    private static double roundTicks(ParamSet values, TimeMap time) {
        int steps = values.get(PATTERN).size();
        return steps == 0 ? Double.NaN : steps * values.get(PACE).ticksAt(0, time);
    }
}
