package harpel.effect.held;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.Generator;
import harpel.effect.Root;
import harpel.effect.StepClock;
import harpel.effect.Trait;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.NumberType;
import harpel.param.type.RowType;
import harpel.theory.Pitch;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;

/** Any rows, each of its own length, run against each other. */
@AutoService(EffectKind.class)
public final class Polymeter extends EffectKind {
    private static final int MOST_ROWS = 12;
    private static final int MOST_VALUES = 64;
    private static final int LOWEST_ROOT = 60;
    private static final int PLAIN_LENGTH = 50;

    /** What a row gives, and how rows of one kind work together. */
    public enum Of {
        DEGREE(IntType.of(-28, 28, "degrees"), 0),
        OCTAVE(IntType.of(-4, 4, "octaves"), 0),
        SEMITONE(IntType.of(-24, 24, "semitones"), 0),
        VELOCITY(IntType.percent(1, 200), 100),
        LENGTH(IntType.percent(0, 400), 50),
        CHANCE(IntType.percent(0, 100), 100),
        REPEATS(IntType.of(1, 8, ""), 1),
        LATE(IntType.percent(0, 90), 0);

        private final IntType type;
        private final int fresh;

        Of(IntType type, int fresh) {
            this.type = type;
            this.fresh = fresh;
        }

        /** The range of its values. */
        public IntType type() {
            return type;
        }

        /** What a new value is. */
        public int fresh() {
            return fresh;
        }
    }

    /** In which order a row is gone through. */
    public enum Runs {
        FORWARD,
        BACKWARD,
        THERE_AND_BACK,
        SHUFFLE
    }

    /** What makes it play. */
    public enum Start {
        TRANSPORT,
        KEY
    }

    /** When a played key becomes the root and does not sound itself. */
    public enum FollowKeys {
        WHEN_KEYS_START,
        ALWAYS,
        NEVER
    }

    /** When all rows go back to their first step. */
    public enum StartOver {
        NEVER,
        EACH_KEY,
        EVERY_BARS
    }

    public static final Param<Of> OF = Param.of(
            "of",
            ChoiceType.of(Of.class),
            Of.DEGREE,
            "What the row gives: degrees, octaves and semitones above the root, and how late, add up; velocity, length and chance"
                    + " multiply; of repeats the largest counts.");
    public static final Param<List<Integer>> VALUES = Param.of(
            "values",
            new ListType<>(IntType.of(-28, 400, ""), MOST_VALUES),
            List.of(0),
            "Step by step: degree −28–28 of the scale, octave −4–4, semitone −24–24, velocity 1–200 % of the stage's, length 0–400 %"
                    + " of the step, chance 0–100 %, repeats 1–8 strikes in the step, late 0–90 % of the step.");
    public static final Param<RowPace> ROW_PACE = Param.of(
            "pace",
            RowPace.Type.PACE,
            RowPace.SAME,
            "How fast the row goes: against the stage's pace, or a note value.");
    public static final Param<Runs> RUNS = Param.of(
            "runs",
            ChoiceType.of(Runs.class),
            Runs.FORWARD,
            "forward, backward, there-and-back (its ends once), or shuffle: a new order each time round.");
    public static final Param<Integer> TURNED =
            Param.of("turned", IntType.of(0, MOST_VALUES - 1, "steps"), 0, "So many steps further on it begins.");
    public static final ParamSpec ROW = ParamSpec.of(OF, VALUES, ROW_PACE, RUNS, TURNED);
    private static final RowType ROW_TYPE = new RowType(
            ROW,
            Polymeter::check,
            (row, param) -> param.id().startsWith(VALUES.id()) && param != VALUES
                    ? row.get(OF).type()
                    : param.type());

    public static final Param<TimeValue> PACE =
            Param.of("pace", TimeType.TIME, TimeValue.ofNote("1/16"), "The length of a step.");
    public static final Param<List<ParamSet>> ROWS = Param.of(
            "rows",
            new ListType<>(ROW_TYPE, MOST_ROWS),
            List.of(row(Of.DEGREE, 0, 2, 4), row(Of.VELOCITY, 100, 70)),
            "Rows of steps, each of a length of its own.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.of(1, 127, ""), 100, "That of a step without a velocity row, or at 100 %.");
    public static final Param<Integer> ROOT = Root.param(LOWEST_ROOT);
    public static final Param<Double> SWING = Param.of(
            "swing",
            new NumberType(50, 75, 1, "%"),
            50.0,
            "Where the second step of each pair starts: 50 straight, 66.67 triplet feel.");
    public static final Param<Start> START = Param.of(
            "start",
            ChoiceType.of(Start.class),
            Start.TRANSPORT,
            "transport: it plays whenever the transport runs; key: while a key is held, counted from the first.");
    public static final Param<FollowKeys> FOLLOW_KEYS = Param.of(
            "follow-keys",
            ChoiceType.of(FollowKeys.class),
            FollowKeys.WHEN_KEYS_START,
            "A played key becomes the root: when keys make it play (start key, or the transport stands), always, or never; else it passes on.");
    public static final Param<StartOver> START_OVER = Param.of(
            "start-over",
            ChoiceType.of(StartOver.class),
            StartOver.NEVER,
            "All rows go back to their first step: never, at the next step after each key, or every so many bars.");
    public static final Param<Integer> START_OVER_EVERY =
            Param.of("start-over-every", IntType.of(1, 64, "bars"), 1, "With start over every bars: after how many.");

    private static final EffectWords WORDS = EffectWords.of(
                    "Polymeter", Family.HELD, "runs rows of unlike lengths against each other")
            .withFoundBy("cycles sequence steps rows")
            .withAction("Re-align")
            .withSetting(Polymeter::describe)
            .withNotes(
                    "At step n a row gives entry (n + `turned`) mod its length in the order it runs; a row of another pace has come to its own"
                            + " step ⌊n × pace⌋. Degree, octave, semitone and late rows add up (late to at most 90 %); velocity, length and chance"
                            + " rows multiply; the largest of several repeats counts. A length or chance of 0 is a rest; without a length row a note"
                            + " lasts half its step. Repeats share what a step has left after `late`, evenly. A degree row of 3 and an octave row of 4"
                            + " come together after 12 steps. With start `transport` steps are counted from the start of the piece. Re-align (a button"
                            + " on the stage) makes the next step step 1 of all rows.");
    private static final EffectNature NATURE = EffectNature.of(Trait.MAKES_A_PATTERN, Trait.PLAYS_BY_ITSELF)
            .withRound((values, time) ->
                    commonPeriod(values, time) * values.get(PACE).ticksAt(0, time));

    public Polymeter() {
        super(
                "polymeter",
                WORDS,
                NATURE,
                ROWS,
                PACE,
                ROOT,
                Root.SCALE,
                VELOCITY,
                SWING,
                START,
                FOLLOW_KEYS,
                START_OVER,
                START_OVER_EVERY,
                Beyond.PARAM,
                SEED);
    }

    private static void check(ParamSet row) {
        if (row.get(VALUES).isEmpty()) {
            throw new ParamException(VALUES.id(), "a row has at least one value");
        }
        for (int value : row.get(VALUES)) {
            try {
                row.get(OF).type().read(value);
            } catch (ParamException e) {
                throw e.under(OF.show(row)).under(VALUES.id());
            }
        }
    }

    public static ParamSet row(Of of, Integer... values) {
        return ROW.defaults().with(OF, of).with(VALUES, List.of(values));
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        StringBuilder lengths = new StringBuilder();
        for (ParamSet row : values.get(ROWS)) {
            lengths.append(lengths.isEmpty() ? "" : " against ")
                    .append(OF.show(row))
                    .append(' ')
                    .append(row.get(VALUES).size());
        }
        return (lengths.isEmpty() ? "the root" : lengths) + " · " + PACE.show(values);
    }

    private static List<PolymeterRow> rows(ParamSet values, TimeMap time) {
        List<PolymeterRow> rows = new ArrayList<>();
        for (ParamSet row : values.get(ROWS)) {
            rows.add(new PolymeterRow(rows.size(), row, values.get(PACE), time));
        }
        return rows;
    }

    /** After how many steps the whole repeats, chance and shuffles aside; at least 1. */
    public static long commonPeriod(ParamSet values, TimeMap time) {
        long common = 1;
        for (PolymeterRow row : rows(values, time)) {
            common = Ticks.together(common, row.period());
        }
        return common;
    }

    private static final class Running extends Generator {
        private final StepClock clock = new StepClock();
        private List<PolymeterRow> rows = List.of();
        private long keyTick;
        private long firstStep;
        private boolean realign;

        @Override
        protected boolean waitsForKey() {
            return values().get(START) == Start.KEY;
        }

        @Override
        protected boolean takesKeys() {
            return switch (values().get(FOLLOW_KEYS)) {
                case WHEN_KEYS_START -> waitsForKey() || !context().running();
                case ALWAYS -> true;
                case NEVER -> false;
            };
        }

        @Override
        protected void firstKey(long tick) {
            keyTick = tick;
            if (waitsForKey()) {
                firstStep = 0;
                layClocks(tick);
            }
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            super.start(note, out);
            realign |= values().get(START_OVER) == StartOver.EACH_KEY;
        }

        @Override
        protected void layClocks(long tick) {
            TimeValue pace = values().get(PACE);
            double swing = values().get(SWING);
            rows = rows(values(), context().time());
            clock.lay(
                    waitsForKey()
                            ? StepGrid.from(keyTick, context().time(), pace, swing)
                            : StepGrid.ofPiece(context().time(), pace, swing),
                    tick);
        }

        @Override
        protected long nextTick() {
            return clock.tick();
        }

        @Override
        public void step(Emitter out) {
            if (realign) {
                firstStep = clock.index();
                realign = false;
            }
            long n = stepNumber(out.tick());
            long ticks = out.tick() - clock.grid().tickOf(firstStep);
            int degree = 0;
            int semitones = 0;
            double velocity = values().get(VELOCITY);
            double length = 1;
            boolean ownLength = false;
            double chance = 1;
            int repeats = 1;
            int late = 0;
            for (int i = 0; i < rows.size(); i++) {
                PolymeterRow row = rows.get(i);
                int entry = row.entryAt(n, ticks, out.chance());
                int value = row.valueOf(entry);
                context().step(i, entry);
                switch (row.of()) {
                    case DEGREE -> degree += value;
                    case OCTAVE -> semitones += 12 * value;
                    case SEMITONE -> semitones += value;
                    case VELOCITY -> velocity = velocity * value / 100;
                    case LENGTH -> {
                        length = length * value / 100;
                        ownLength = true;
                    }
                    case CHANCE -> chance = chance * value / 100;
                    case REPEATS -> repeats = Math.max(repeats, value);
                    case LATE -> late = Math.min(90, late + value);
                }
            }
            boolean sounds = out.chance().percent(chance * 100);
            int root = root(ROOT, LOWEST_ROOT, takesKeys());
            int pitch = Root.key(values(), root, context().key()).shift(root, degree) + semitones;
            double percent = ownLength ? length * 100 : PLAIN_LENGTH;
            int fitted = sounds && percent > 0 ? values().get(Beyond.PARAM).fit(pitch, out) : -1;
            if (Pitch.inRange(fitted)) {
                strike(fitted, velocity, percent, repeats, late, out);
            }
            clock.advance();
        }

        private void strike(int pitch, double velocity, double percent, int repeats, int late, Emitter out) {
            double step = clock.stepTicks();
            double first = step * late / 100;
            long lasts = Math.max(1, Ticks.round(step * percent / 100 / repeats));
            for (int k = 0; k < repeats; k++) {
                long tick = out.tick() + Ticks.round(first + k * (step - first) / repeats);
                NoteStart note = make(tick, pitch, velocity);
                out.start(note);
                out.end(note, tick + lasts, NoteEnd.PLAIN_RELEASE);
            }
        }

        /** How many steps lie between the last common step 1 and this one. */
        private long stepNumber(long tick) {
            if (values().get(START_OVER) == StartOver.EVERY_BARS) {
                int bars = values().get(START_OVER_EVERY);
                long bar = context().time().meter().barAt(tick) / bars * bars;
                long barTick = context().time().meter().tickOfBar(bar);
                long from = waitsForKey() ? keyTick : 0;
                firstStep =
                        Math.max(firstStep, barTick <= from ? 0 : clock.grid().indexAtOrAfter(barTick));
            }
            return Math.max(0, clock.index() - firstStep);
        }

        @Override
        public void act(Emitter out) {
            realign = true;
        }
    }
}
