package harpel.effect.notes;

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
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.NumberType;
import harpel.param.type.RowType;
import harpel.param.type.SharedOrOwnType;
import harpel.param.type.WaysType;
import harpel.theory.EvenSpread;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Ways;
import harpel.time.StepGrid;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;

/** Makes rhythm by itself, or around a played root. */
@AutoService(EffectKind.class)
public final class Pulse extends EffectKind {
    private static final int LOWEST_ROOT = 60;

    public static final Param<Integer> STEPS =
            Param.of("steps", IntType.of(1, 64, "steps"), 16, "The length of the cycle.");
    public static final Param<TimeValue> PACE =
            Param.of("pace", TimeType.TIME, TimeValue.ofNote("1/16"), "The length of a step.");
    public static final Param<Integer> EVERY = Param.of(
            "every",
            IntType.of(1, 64, "steps").orWord("off"),
            0,
            "Sounds every so many steps: every 4 of 16 sixteenths is four on the floor.");
    public static final Param<Integer> FROM = Param.of(
            "from", IntType.of(0, 63, "steps"), 0, "With every: its first step; every 8 from 4 is the backbeat.");
    public static final Param<Integer> SPREAD = Param.of(
            "spread",
            IntType.of(1, 64, "").orWord("off"),
            0,
            "Or so many steps sound, spread over the cycle as evenly as possible.");
    public static final Param<Integer> TURNED =
            Param.of("turned", IntType.of(0, 63, "steps"), 0, "With spread: so many steps later.");
    public static final Param<Integer> ACCENT = Param.of(
            "accent", IntType.of(-126, 126, ""), 0, "Added to the velocity; where layers meet their accents add up.");
    public static final Param<Integer> NOTE = Param.of(
            "note",
            IntType.ofPitch().orWord("drawn"),
            -1,
            "The note it plays: drawn around the root, or one of its own, as for drums.");
    public static final ParamSpec LAYER = ParamSpec.of(EVERY, FROM, SPREAD, TURNED, ACCENT, NOTE);
    /** So many layers at most. */
    public static final int MOST_LAYERS = 8;

    public static final Param<List<ParamSet>> LAYERS = Param.of(
            "layers",
            new ListType<>(new RowType(LAYER, Pulse::check), MOST_LAYERS),
            List.of(LAYER.defaults().with(EVERY, 4)),
            "Rhythms over each other: a step of any of them always sounds.");
    public static final Param<List<Integer>> FILL = Param.of(
            "fill",
            new SharedOrOwnType<>(IntType.percent(0, 100), 64),
            List.of(0),
            "The chance of every other step: one for all, or a row of them.");
    public static final Param<Integer> ROOT = Root.param(LOWEST_ROOT);
    public static final Param<Boolean> FOLLOW_KEYS = Param.of(
            "follow-keys",
            FlagType.FLAG,
            false,
            "A played key becomes the root and does not sound itself; off, keys pass by.");
    public static final Param<Ways> AMONG = Param.of(
            "among",
            WaysType.WAYS,
            Ways.evenly(0),
            "Which degrees of the scale from the root it plays, and how often; 0 is the root itself.");
    public static final Param<Integer> VOICES =
            Param.of("voices", IntType.of(1, 8, ""), 1, "How many different notes sound at once.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.of(1, 127, ""), 90, "The velocity of a step.");
    public static final Param<Integer> LENGTH =
            Param.of("length", IntType.percent(0, 200), 50, "How much of its step a note lasts; 0 is a rest.");
    public static final Param<Double> SWING = Param.of(
            "swing",
            new NumberType(50, 75, 1, "%"),
            50.0,
            "Where the second step of each pair starts: 50 straight, 66.67 triplet feel.");

    private static final EffectWords WORDS = EffectWords.of(
                    "Pulse", Family.NOTES, "makes rhythm by itself, or around a played root")
            .withFoundBy("rhythm drums beat evenly spread euclid euclidean")
            .withSetting(Pulse::describe)
            .withNotes(
                    "A layer of every k from o sounds steps o, o + k, … below `steps`, counted anew each cycle; a spread is E(n, steps)"
                            + " (Bjorklund; Toussaint 2005), `turned` to the right. Layers without a note of their own share the notes drawn around"
                            + " the root; their accents add up where they meet, as do those of layers with the same note. `voices` draws so many"
                            + " different ways. Steps are counted from the start of the piece. It plays while the transport runs; while that stands,"
                            + " as long as a key is held.");
    private static final EffectNature NATURE = EffectNature.of(Trait.MAKES_A_PATTERN, Trait.PLAYS_BY_ITSELF)
            .withRound((values, time) -> values.get(STEPS) * values.get(PACE).ticksAt(0, time));

    public Pulse() {
        super(
                "pulse",
                WORDS,
                NATURE,
                LAYERS,
                STEPS,
                PACE,
                FILL,
                ROOT,
                Root.SCALE,
                AMONG,
                VOICES,
                VELOCITY,
                LENGTH,
                SWING,
                FOLLOW_KEYS,
                Beyond.PARAM,
                SEED);
    }

    private static void check(ParamSet layer) {
        if (layer.get(EVERY) > 0 == layer.get(SPREAD) > 0) {
            throw new ParamException(
                    "a layer has either every or spread, such as {\"every\": 4} or {\"spread\": 5}, but was "
                            + layer.write());
        }
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        boolean fills = values.get(FILL).stream().anyMatch(chance -> chance > 0);
        StringBuilder steps = new StringBuilder();
        for (boolean always : always(values)) {
            steps.append(always ? 'x' : fills ? '?' : '.');
        }
        int layers = values.get(LAYERS).size();
        return (steps.length() > 24 ? values.get(STEPS) + " steps" : steps) + " · " + PACE.show(values)
                + (layers == 1 ? "" : " · " + layers + " layers")
                + (fills && values.get(FILL).size() == 1 ? " · fill " + FILL.show(values) : "");
    }

    /** Which steps of the cycle a layer sounds. */
    public static boolean[] steps(ParamSet layer, int steps) {
        boolean[] sounds = new boolean[steps];
        if (layer.get(SPREAD) > 0) {
            boolean[] spread = EvenSpread.of(Math.min(steps, layer.get(SPREAD)), steps);
            for (int i = 0; i < steps; i++) {
                sounds[(i + layer.get(TURNED)) % steps] = spread[i];
            }
        } else if (layer.get(EVERY) > 0) {
            // Moved, a layer may have neither.
            for (int i = layer.get(FROM); i < steps; i += layer.get(EVERY)) {
                sounds[i] = true;
            }
        }
        return sounds;
    }

    private static List<boolean[]> layers(ParamSet values) {
        return values.get(LAYERS).stream()
                .map(layer -> steps(layer, values.get(STEPS)))
                .toList();
    }

    /** The root that is set, until a key is followed. */
    public static int root(ParamSet values, Key pieceKey) {
        return Root.of(values, ROOT, LOWEST_ROOT, pieceKey);
    }

    /** Which steps of the cycle always sound. */
    public static boolean[] always(ParamSet values) {
        boolean[] any = new boolean[values.get(STEPS)];
        for (boolean[] layer : layers(values)) {
            for (int i = 0; i < any.length; i++) {
                any[i] |= layer[i];
            }
        }
        return any;
    }

    private static final class Running extends Generator {
        private final StepClock clock = new StepClock();
        /** What a step always sounds: a note of a layer's own, or {@link #DRAWN}, with the accents that meet there. */
        private record Strike(int note, int accent) {}

        private static final int DRAWN = NOTE.defaultValue();
        private static final Strike[] FILLED = {new Strike(DRAWN, 0)};

        private Strike[][] strikes = {};

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
            strikes = strikes(values());
            clock.lay(StepGrid.ofPiece(context().time(), values().get(PACE), values().get(SWING)), tick);
        }

        @Override
        protected long nextTick() {
            return clock.tick();
        }

        @Override
        public void step(Emitter out) {
            int step = (int) (clock.index() % strikes.length);
            context().step(0, step);
            boolean fills = out.chance().percent(SharedOrOwnType.at(values().get(FILL), step));
            List<Integer> drawn = draw(out);
            int velocity = values().get(VELOCITY);
            Strike[] here = strikes[step];
            for (Strike strike : here) {
                if (strike.note != DRAWN) {
                    sound(strike.note, velocity + strike.accent, out);
                }
            }
            for (Strike strike : here.length == 0 && fills ? FILLED : here) {
                for (int i = 0; strike.note == DRAWN && i < drawn.size(); i++) {
                    if (!hasOwn(here, drawn.get(i))) {
                        sound(drawn.get(i), velocity + strike.accent, out);
                    }
                }
            }
            clock.advance();
        }

        /** Worked out when the layers are set and not at each step. */
        private static Strike[][] strikes(ParamSet values) {
            List<boolean[]> layers = layers(values);
            Strike[][] strikes = new Strike[values.get(STEPS)][];
            for (int step = 0; step < strikes.length; step++) {
                TreeMap<Integer, Integer> accents = new TreeMap<>();
                for (int i = 0; i < layers.size(); i++) {
                    if (layers.get(i)[step]) {
                        ParamSet layer = values.get(LAYERS).get(i);
                        accents.merge(layer.get(NOTE), layer.get(ACCENT), Integer::sum);
                    }
                }
                strikes[step] = accents.entrySet().stream()
                        .map(one -> new Strike(one.getKey(), one.getValue()))
                        .toArray(Strike[]::new);
            }
            return strikes;
        }

        private static boolean hasOwn(Strike[] here, int pitch) {
            for (Strike strike : here) {
                if (strike.note == pitch) {
                    return true;
                }
            }
            return false;
        }

        private void sound(int pitch, double velocity, Emitter out) {
            int fitted = values().get(LENGTH) > 0 ? values().get(Beyond.PARAM).fit(pitch, out) : -1;
            if (Pitch.inRange(fitted)) {
                NoteStart note = make(out.tick(), fitted, velocity);
                out.start(note);
                out.end(note, out.tick() + clock.gateTicks(values().get(LENGTH)), NoteEnd.PLAIN_RELEASE);
            }
        }

        /** So many different ways as there are voices, by their weights. */
        private List<Integer> draw(Emitter out) {
            int root = root(ROOT, LOWEST_ROOT, takesKeys());
            Key key = Root.key(values(), root, context().key());
            Ways among = values().get(AMONG);
            if (among.isEmpty()) {
                return List.of(root);
            }
            boolean[] taken = new boolean[among.size()];
            List<Integer> drawn = new ArrayList<>();
            for (int i = 0; i < Math.min(values().get(VOICES), among.size()); i++) {
                int place = among.draw(out.chance().unit(), taken);
                taken[place] = true;
                drawn.add(key.shift(root, among.steps().get(place)));
            }
            return drawn;
        }
    }
}
