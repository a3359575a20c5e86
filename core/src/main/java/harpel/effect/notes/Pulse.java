package harpel.effect.notes;

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
import harpel.param.FlagType;
import harpel.param.IntType;
import harpel.param.NumberType;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ScaleType;
import harpel.param.TimeType;
import harpel.theory.EvenSpread;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Scale;
import harpel.time.StepGrid;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Makes rhythm by itself, or around a played root. */
@AutoService(EffectKind.class)
public final class Pulse extends EffectKind {
    public static final Param<Integer> STEPS =
            Param.of("steps", IntType.of(1, 64, "steps"), 16, "The length of the cycle.");
    public static final Param<TimeValue> PACE =
            Param.of("pace", TimeType.TIME, TimeValue.ofNote("1/16"), "The length of a step.");
    public static final Param<Integer> MUST_EVERY = Param.of(
            "must-every",
            IntType.of(1, 64, "").orWord("off"),
            4,
            "Every so many steps one always sounds: every 4 of 16 is four on the floor.");
    public static final Param<Integer> OFFSET = Param.of(
            "offset",
            IntType.of(0, 63, "steps"),
            0,
            "Where in the cycle the first of them lies: every 8 with offset 4 is the backbeat.");
    public static final Param<Integer> EVEN_SPREAD = Param.of(
            "even-spread",
            IntType.of(1, 64, "").orWord("off"),
            0,
            "So many steps always sound, spread over the cycle as evenly as possible, in place of must-every.");
    public static final Param<Integer> FILL =
            Param.of("fill", IntType.percent(0, 100), 0, "The chance of every other step.");
    public static final Param<Integer> ROOT =
            Param.of("root", IntType.ofPitch(), 60, "The note it plays until a key is played.");
    public static final Param<Boolean> FOLLOW_KEYS = Param.of(
            "follow-keys",
            FlagType.FLAG,
            true,
            "A played key becomes the root and does not sound itself; off for drums: keys pass by.");
    public static final Param<Integer> NOTES = Param.of(
            "notes", IntType.of(0, 16, ""), 0, "How many notes of the scale above the root may sound besides it.");
    public static final Param<Optional<Scale>> SCALE =
            Param.of("scale", ScaleType.SCALE, Optional.empty(), "The scale of the notes above the root.");
    public static final Param<Integer> ROOT_WEIGHT = Param.of(
            "root-weight",
            IntType.percent(0, 100),
            50,
            "How many of the sounding steps play the root; the rest draw evenly among the other notes.");
    public static final Param<Integer> VOICES =
            Param.of("voices", IntType.of(1, 8, ""), 1, "How many different notes sound at once.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.of(1, 127, ""), 90, "The velocity of a step.");
    public static final Param<Integer> ACCENT =
            Param.of("accent", IntType.of(-126, 126, ""), 0, "Added to the velocity of steps that always sound.");
    public static final Param<Integer> LENGTH =
            Param.of("length", IntType.percent(0, 200), 50, "How much of its step a note lasts; 0 is a rest.");
    public static final Param<Double> SWING = Param.of(
            "swing",
            new NumberType(50, 75, 1, "%"),
            50.0,
            "Where the second step of each pair starts: 50 straight, 66.67 triplet feel.");

    public Pulse() {
        super(
                "pulse",
                "Pulse",
                Family.NOTES,
                "makes rhythm by itself, or around a played root",
                STEPS,
                PACE,
                MUST_EVERY,
                OFFSET,
                EVEN_SPREAD,
                FILL,
                ROOT,
                FOLLOW_KEYS,
                NOTES,
                SCALE,
                ROOT_WEIGHT,
                VOICES,
                VELOCITY,
                ACCENT,
                LENGTH,
                SWING,
                Beyond.PARAM,
                SEED);
    }

    @Override
    protected Set<Trait> traits() {
        return Set.of(Trait.MAKES_A_PATTERN, Trait.PLAYS_BY_ITSELF);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    /** Which steps of the cycle always sound. */
    public static boolean[] mustSteps(ParamSet values) {
        int steps = values.get(STEPS);
        boolean[] must = new boolean[steps];
        int offset = values.get(OFFSET);
        if (values.get(EVEN_SPREAD) > 0) {
            boolean[] spread = EvenSpread.of(Math.min(steps, values.get(EVEN_SPREAD)), steps);
            for (int i = 0; i < steps; i++) {
                must[(i + offset) % steps] = spread[i];
            }
        } else if (values.get(MUST_EVERY) > 0) {
            for (int i = offset; i < steps; i += values.get(MUST_EVERY)) {
                must[i] = true;
            }
        }
        return must;
    }

    @Override
    public String alsoFoundBy() {
        return "rhythm drums beat evenly spread euclid euclidean";
    }

    @Override
    public String describe(ParamSet values) {
        StringBuilder steps = new StringBuilder();
        for (boolean must : mustSteps(values)) {
            steps.append(must ? 'x' : values.get(FILL) > 0 ? '?' : '.');
        }
        String fill = values.get(FILL) > 0 ? " · fill " + FILL.show(values) : "";
        return (steps.length() > 24 ? values.get(STEPS) + " steps" : steps) + " · " + PACE.show(values) + fill;
    }

    @Override
    public String notes() {
        return "Steps `offset`, `offset` + `must-every`, … below `steps` always sound, counted anew each cycle. `even-spread` is"
                + " E(n, steps) (Bjorklund; Toussaint 2005), turned to the right by `offset`. Steps are counted from the start of the"
                + " piece. It plays while the transport runs; while that stands, as long as a key is held.";
    }

    private static final class Running extends Generator {
        private final StepClock clock = new StepClock();
        private boolean[] must;

        @Override
        protected boolean waitsForKey() {
            return false;
        }

        @Override
        protected boolean takesKeys() {
            return values().get(FOLLOW_KEYS);
        }

        @Override
        protected void layClocks(long tick) {
            must = mustSteps(values());
            clock.lay(StepGrid.ofPiece(context().time(), values().get(PACE), values().get(SWING)), tick);
        }

        @Override
        protected long nextTick() {
            return clock.tick();
        }

        @Override
        public void step(Emitter out) {
            int step = (int) (clock.index() % must.length);
            context().step(0, step);
            boolean always = must[step];
            boolean fills = out.chance().percent(values().get(FILL));
            if (always || fills) {
                double velocity = values().get(VELOCITY) + (always ? values().get(ACCENT) : 0);
                for (int pitch : draw(out)) {
                    sound(pitch, velocity, out);
                }
            }
            clock.advance();
        }

        private void sound(int pitch, double velocity, Emitter out) {
            int fitted = values().get(Beyond.PARAM) == Beyond.FOLD ? Pitch.fold(pitch) : pitch;
            if (values().get(LENGTH) > 0 && Pitch.inRange(fitted)) {
                NoteStart note = make(out.tick(), fitted, velocity);
                out.start(note);
                out.end(note, out.tick() + clock.gateTicks(values().get(LENGTH)), NoteEnd.PLAIN_RELEASE);
            }
        }

        /** The root or, by its weight, others; no note twice. */
        private List<Integer> draw(Emitter out) {
            int root = lastKey() != null && takesKeys() ? lastKey().pitch() : values().get(ROOT);
            Key key = values().get(SCALE)
                    .map(scale -> new Key(Math.floorMod(root, 12), scale))
                    .orElse(context().key());
            List<Integer> others = new ArrayList<>();
            for (int i = 1; i <= values().get(NOTES); i++) {
                others.add(key.shift(root, i));
            }
            List<Integer> drawn = new ArrayList<>();
            boolean rootLeft = true;
            for (int i = 0; i < values().get(VOICES) && (rootLeft || !others.isEmpty()); i++) {
                boolean takeRoot = out.chance().percent(values().get(ROOT_WEIGHT));
                int place = out.chance().below(Math.max(1, others.size()));
                if (rootLeft && (takeRoot || others.isEmpty())) {
                    drawn.add(root);
                    rootLeft = false;
                } else {
                    drawn.add(others.remove(place));
                }
            }
            return drawn;
        }
    }
}
