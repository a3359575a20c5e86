package harpel.effect.pitch;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.NoteByNote;
import harpel.effect.Trait;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.WaysType;
import harpel.theory.Interval;
import harpel.theory.Interval.Unit;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import harpel.theory.Ways;
import java.util.stream.Collectors;

/** Moves some notes to other pitches at random. */
@AutoService(EffectKind.class)
public final class Stray extends EffectKind {
    /** How the way of a taken note is found. */
    public enum Draw {
        BY_WEIGHT,
        IN_TURN,
        WALK,
        NO_REPEAT
    }

    /** Whether notes that start together go the same way. */
    public enum Together {
        EACH_BY_ITSELF,
        ALIKE
    }

    public static final Param<Integer> AMOUNT =
            Param.of("amount", IntType.percent(0, 100), 30, "How many notes are taken: none at 0, all at 100.");
    public static final Param<Ways> WAYS = Param.of(
            "ways",
            WaysType.WAYS,
            Ways.evenly(-1, 1),
            "Where a taken note may go, and how often it goes there; 0 is the note itself.");
    public static final Param<Unit> STEPS_IN = Param.of(
            "steps-in",
            ChoiceType.of(Unit.class),
            Unit.DEGREES,
            "What the ways count: semitones or degrees of the key.");
    public static final Param<Draw> DRAW = Param.of(
            "draw",
            ChoiceType.of(Draw.class),
            Draw.BY_WEIGHT,
            "by-weight; in-turn: the ways from the lowest to the highest; walk: each way goes on from where the last taken note"
                    + " had strayed; no-repeat: by weight, never the same way twice running.");
    public static final Param<Integer> REACH = Param.of(
            "reach",
            IntType.of(1, WaysType.FURTHEST, "steps"),
            7,
            "With walk: so far from the played note it turns back.");
    public static final Param<Together> TOGETHER = Param.of(
            "together",
            ChoiceType.of(Together.class),
            Together.EACH_BY_ITSELF,
            "Each note by itself, or notes that start together are taken together and go the same way.");

    private static final EffectWords WORDS = EffectWords.of(
                    "Stray", Family.PITCH, "moves some notes to other pitches at random")
            .withFoundBy("random pitch chance vary")
            .withSetting(Stray::describe)
            .withNotes(
                    "The share that really changes is amount × (1 − weight of 0 ÷ all weights). In turn, the turn moves on only when a note"
                            + " is taken: C4 with ways 0, 2 and 4 is C4 D4 E4 C4 … A walk that would leave its reach goes the other way instead."
                            + " Without ways every note stays as it is.");
    private static final EffectNature NATURE = EffectNature.of(Trait.LEAVES_THE_KEY);

    public Stray() {
        super("stray", WORDS, NATURE, AMOUNT, WAYS, STEPS_IN, DRAW, REACH, TOGETHER, Beyond.PARAM, SEED);
    }

    /** The share of all notes that really change, in percent: a way may be the note itself. */
    public static double trueShare(ParamSet values) {
        Ways ways = values.get(WAYS);
        return ways.isEmpty() ? 0 : values.get(AMOUNT) * (1 - ways.share(0));
    }

    /** Where a way leads from a note. */
    public static int led(ParamSet values, int pitch, int step, Key key) {
        return new Interval(step, values.get(STEPS_IN)).from(pitch, 1, key);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values, Key key, int lastPitch) {
        // A walk may come to any step within its reach; its ways are steps, no places.
        if (lastPitch < 0 || values.get(DRAW) == Draw.WALK) {
            return taken(values) + " · " + WAYS.show(values) + " "
                    + (values.get(STEPS_IN) == Unit.DEGREES ? "deg" : "st")
                    + (values.get(DRAW) == Draw.BY_WEIGHT ? "" : " · " + DRAW.show(values));
        }
        String names = values.get(WAYS).steps().stream()
                .map(step -> led(values, lastPitch, step, key))
                .filter(Pitch::inRange)
                .map(pitch -> Pitch.shown(pitch, Spelling.of(key)))
                .collect(Collectors.joining(" "));
        return taken(values) + " · " + Pitch.shown(lastPitch, Spelling.of(key)) + " to " + names
                + (values.get(DRAW) == Draw.BY_WEIGHT ? "" : " · " + DRAW.show(values));
    }

    private static String taken(ParamSet values) {
        long changed = Math.round(trueShare(values));
        return changed == values.get(AMOUNT)
                ? AMOUNT.show(values) + " changed"
                : AMOUNT.show(values) + " taken, " + changed + " % changed";
    }

    private static final class Running extends NoteByNote {
        private ParamSet values;
        private Key key;
        private int turn;
        private int strayed;
        private int lastWay = -1;
        private long lastTick = -1;
        private boolean lastTaken;
        private int lastStep;

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            if (values == null || !values.get(WAYS).equals(newValues.get(WAYS))) {
                lastWay = -1;
            }
            values = newValues;
            key = context.key();
        }

        @Override
        public NoteStart change(NoteStart note, Emitter out) {
            boolean alike = values.get(TOGETHER) == Together.ALIKE;
            if (!alike || out.tick() != lastTick) {
                // Both are drawn for each note, so that another amount leaves the ways of the others alone.
                lastTaken = out.chance().percent(values.get(AMOUNT));
                double drawn = out.chance().unit();
                if (lastTaken) {
                    lastStep = next(values.get(WAYS), drawn);
                }
                lastTick = out.tick();
            }
            return lastTaken
                    ? values.get(Beyond.PARAM)
                            .derive(note, note.tick(), led(values, note.pitch(), lastStep, key), note.velocity(), out)
                    : note;
        }

        private int next(Ways ways, double drawn) {
            if (ways.isEmpty()) {
                return 0;
            }
            return switch (values.get(DRAW)) {
                case BY_WEIGHT -> ways.steps().get(ways.draw(drawn, null));
                case IN_TURN -> ways.steps().get(turn++ % ways.size());
                case NO_REPEAT -> {
                    boolean[] out = new boolean[ways.size()];
                    if (lastWay >= 0 && ways.size() > 1) {
                        out[lastWay] = true;
                    }
                    lastWay = ways.draw(drawn, out);
                    yield ways.steps().get(lastWay);
                }
                case WALK -> {
                    int reach = values.get(REACH);
                    int step = ways.steps().get(ways.draw(drawn, null));
                    int to = strayed + step;
                    strayed = Math.abs(to) <= reach ? to : strayed - step;
                    // Where the other way leaves it too, or the reach has become smaller.
                    strayed = Math.max(-reach, Math.min(reach, strayed));
                    yield strayed;
                }
            };
        }
    }
}
