package harpel.effect.held;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectKind;
import harpel.effect.Emitter;
import harpel.effect.Generator;
import harpel.effect.StepClock;
import harpel.effect.Trait;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ChoiceType;
import harpel.param.IntType;
import harpel.param.ListType;
import harpel.param.NumberType;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ScaleType;
import harpel.param.TimeType;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Scale;
import harpel.time.StepGrid;
import harpel.time.TimeValue;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Five cycles of unlike lengths run against each other on one root. */
@AutoService(EffectKind.class)
public final class Polymeter extends EffectKind {
    private static final int MOST_STEPS = 32;

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

    /** How fast a cycle goes against the pace. */
    public enum Speed {
        QUARTER(1, 4),
        HALF(1, 2),
        SAME(1, 1),
        TRIPLET(3, 2),
        DOUBLE(2, 1),
        QUADRUPLE(4, 1);

        private final int times;
        private final int per;

        Speed(int times, int per) {
            this.times = times;
            this.per = per;
        }

        /** The cycle's own step at step n of the pace. */
        public long at(long n) {
            return Math.floorDiv(n * times, per);
        }

        /** After how many steps of the pace a cycle of that length begins again. */
        public long period(int length) {
            long all = (long) length * per;
            return all / gcd(all, times);
        }
    }

    public static final Param<Integer> ROOT =
            Param.of("root", IntType.ofPitch(), 60, "The note that degree 0 plays until a key is played.");
    public static final Param<Optional<Scale>> SCALE =
            Param.of("scale", ScaleType.SCALE, Optional.empty(), "The scale whose degrees are counted from the root.");
    public static final Param<TimeValue> PACE =
            Param.of("pace", TimeType.TIME, TimeValue.ofNote("1/16"), "The length of a step.");
    public static final Param<List<Integer>> OCTAVE =
            cycle("octave", IntType.of(-4, 4, ""), 0, "Octaves above the root, step by step.");
    public static final Param<List<Integer>> DEGREE = cycle(
            "degree", IntType.of(-28, 28, ""), 0, "Degrees of the scale above the root; 0 is the root, 2 the third.");
    public static final Param<List<Integer>> LENGTH =
            cycle("length", IntType.percent(0, 400), 50, "How much of its step each note lasts; 0 is a rest.");
    public static final Param<List<Integer>> VELOCITY =
            cycle("velocity", IntType.of(1, 127, ""), 100, "Velocities, step by step.");
    public static final Param<List<Integer>> CHANCE =
            cycle("chance", IntType.percent(0, 100), 100, "How often each step sounds.");
    /** The five cycles, in the order in which they are drawn. */
    public static final List<Param<List<Integer>>> CYCLES = List.of(DEGREE, OCTAVE, VELOCITY, LENGTH, CHANCE);

    public static final Param<Speed> OCTAVE_SPEED = speed(OCTAVE);
    public static final Param<Speed> DEGREE_SPEED = speed(DEGREE);
    public static final Param<Speed> LENGTH_SPEED = speed(LENGTH);
    public static final Param<Speed> VELOCITY_SPEED = speed(VELOCITY);
    public static final Param<Speed> CHANCE_SPEED = speed(CHANCE);
    public static final Param<Double> SWING = Param.of(
            "swing",
            new NumberType(50, 75, 1, "%"),
            50.0,
            "Where the second step of each pair starts: 50 straight, 66.67 triplet feel.");
    public static final Param<Start> START = Param.of(
            "start",
            ChoiceType.of(Start.class),
            Start.TRANSPORT,
            "transport: it plays whenever the transport runs; key: while a key is held, from step 1 at the first key.");
    public static final Param<FollowKeys> FOLLOW_KEYS = Param.of(
            "follow-keys",
            ChoiceType.of(FollowKeys.class),
            FollowKeys.WHEN_KEYS_START,
            "A played key becomes the root: when keys make it play (start key, or the transport stands), always, or never; else it passes on.");
    public static final Param<Integer> REALIGN_EVERY = Param.of(
            "re-align-every",
            IntType.of(1, 64, "bars").orWord("never"),
            0,
            "All cycles go back to step 1 at every so many bars.");

    public Polymeter() {
        super(
                "polymeter",
                "Polymeter",
                Family.HELD,
                "runs cycles of unlike lengths against each other",
                ROOT,
                SCALE,
                PACE,
                DEGREE,
                DEGREE_SPEED,
                OCTAVE,
                OCTAVE_SPEED,
                VELOCITY,
                VELOCITY_SPEED,
                LENGTH,
                LENGTH_SPEED,
                CHANCE,
                CHANCE_SPEED,
                SWING,
                START,
                FOLLOW_KEYS,
                REALIGN_EVERY,
                Beyond.PARAM,
                SEED);
    }

    private static Param<List<Integer>> cycle(String id, IntType type, int first, String help) {
        return Param.of(id, new ListType<>(type, MOST_STEPS), List.of(first), help);
    }

    private static Param<Speed> speed(Param<?> cycle) {
        return Param.of(
                cycle.id() + "-speed",
                ChoiceType.of(Speed.class),
                Speed.SAME,
                "How fast the " + cycle.id()
                        + " cycle goes against the pace; triplet is three steps in the time of two.");
    }

    @Override
    protected Set<Trait> traits() {
        return Set.of(Trait.MAKES_A_PATTERN, Trait.PLAYS_BY_ITSELF);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    @Override
    public String action() {
        return "Re-align";
    }

    /** After how many steps the whole repeats, chance aside. */
    public static long commonPeriod(ParamSet values) {
        long common = 1;
        common = lcm(common, period(values, OCTAVE, OCTAVE_SPEED));
        common = lcm(common, period(values, DEGREE, DEGREE_SPEED));
        common = lcm(common, period(values, LENGTH, LENGTH_SPEED));
        common = lcm(common, period(values, VELOCITY, VELOCITY_SPEED));
        return lcm(common, period(values, CHANCE, CHANCE_SPEED));
    }

    private static long period(ParamSet values, Param<List<Integer>> cycle, Param<Speed> speed) {
        return values.get(speed).period(Math.max(1, values.get(cycle).size()));
    }

    private static long lcm(long a, long b) {
        return a / gcd(a, b) * b;
    }

    private static long gcd(long a, long b) {
        return b == 0 ? a : gcd(b, a % b);
    }

    @Override
    public String alsoFoundBy() {
        return "cycles sequence steps";
    }

    @Override
    public String describe(ParamSet values) {
        return "octave " + values.get(OCTAVE).size() + " against degree "
                + values.get(DEGREE).size() + " · " + PACE.show(values) + " · repeats after " + commonPeriod(values)
                + " steps";
    }

    @Override
    public String notes() {
        return "At step n each cycle gives its value n mod its own length: an octave cycle of 4 against a degree cycle of 3 repeats"
                + " after 12 steps. A cycle at another speed has come to its own step ⌊n × speed⌋. An empty cycle counts as its"
                + " default. With start `transport` steps are counted from the start of the piece, on the root that is set."
                + " Re-align (a button on the stage) makes the next step step 1 of all cycles.";
    }

    private static final class Running extends Generator {
        private final StepClock clock = new StepClock();
        private Key key;
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
        protected void layClocks(long tick) {
            TimeValue pace = values().get(PACE);
            double swing = values().get(SWING);
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
            boolean sounds = out.chance().percent(value(CHANCE, CHANCE_SPEED, n));
            int root = lastKey() == null || !takesKeys()
                    ? values().get(ROOT)
                    : lastKey().pitch();
            key = values().get(SCALE)
                    .map(scale -> new Key(Math.floorMod(root, 12), scale))
                    .orElse(context().key());
            int pitch = key.shift(root, value(DEGREE, DEGREE_SPEED, n)) + 12 * value(OCTAVE, OCTAVE_SPEED, n);
            int fitted = values().get(Beyond.PARAM) == Beyond.FOLD ? Pitch.fold(pitch) : pitch;
            int length = value(LENGTH, LENGTH_SPEED, n);
            if (sounds && length > 0 && Pitch.inRange(fitted)) {
                NoteStart note = make(out.tick(), fitted, value(VELOCITY, VELOCITY_SPEED, n));
                out.start(note);
                out.end(note, out.tick() + clock.gateTicks(length), NoteEnd.PLAIN_RELEASE);
            }
            clock.advance();
        }

        /** How many steps lie between the last common step 1 and this one. */
        private long stepNumber(long tick) {
            int bars = values().get(REALIGN_EVERY);
            if (bars > 0) {
                long bar = context().time().meter().barAt(tick) / bars * bars;
                long barTick = context().time().meter().tickOfBar(bar);
                firstStep = Math.max(
                        firstStep, barTick <= keyTickOrZero() ? 0 : clock.grid().indexAtOrAfter(barTick));
            }
            return Math.max(0, clock.index() - firstStep);
        }

        private long keyTickOrZero() {
            return waitsForKey() ? keyTick : 0;
        }

        private int value(Param<List<Integer>> cycle, Param<Speed> speed, long n) {
            List<Integer> values = values().get(cycle);
            List<Integer> used = values.isEmpty() ? cycle.defaultValue() : values;
            int step = (int) Math.floorMod(values().get(speed).at(n), (long) used.size());
            context().step(CYCLES.indexOf(cycle), step);
            return used.get(step);
        }

        @Override
        public void act(Emitter out) {
            realign = true;
        }
    }
}
