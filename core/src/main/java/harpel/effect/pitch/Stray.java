package harpel.effect.pitch;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.Emitter;
import harpel.effect.NoteByNote;
import harpel.effect.Trait;
import harpel.event.NoteStart;
import harpel.param.ChoiceType;
import harpel.param.IntType;
import harpel.param.IntervalType;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.theory.Interval;
import harpel.theory.Key;
import harpel.theory.Pitch;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Changes some notes to others nearby. */
@AutoService(EffectKind.class)
public final class Stray extends EffectKind {
    /** Where the candidates lie. */
    public enum Side {
        ABOVE,
        BELOW,
        BOTH
    }

    /** How one is chosen. */
    public enum Draw {
        RANDOM,
        IN_TURN
    }

    public static final Param<Integer> AMOUNT =
            Param.of("amount", IntType.percent(0, 100), 50, "How many notes are taken to be changed.");
    public static final Param<Integer> CANDIDATES = Param.of(
            "candidates",
            IntType.of(2, 16, ""),
            3,
            "How many pitches a taken note is drawn among, itself being the first.");
    public static final Param<Interval> SPACING =
            Param.of("spacing", new IntervalType(1, 24), Interval.ofDegrees(1), "From one candidate to the next.");
    public static final Param<Side> SIDE =
            Param.of("side", ChoiceType.of(Side.class), Side.ABOVE, "Where the candidates lie.");
    public static final Param<Draw> DRAW = Param.of(
            "draw", ChoiceType.of(Draw.class), Draw.RANDOM, "Each candidate equally likely, or one after another.");

    public Stray() {
        super(
                "stray",
                "Stray",
                Family.PITCH,
                "changes some notes to others nearby",
                AMOUNT,
                CANDIDATES,
                SPACING,
                SIDE,
                DRAW,
                Beyond.PARAM,
                SEED);
    }

    /** How many pitches a taken note is drawn among. */
    public static int choices(ParamSet values) {
        int n = values.get(CANDIDATES);
        return values.get(SIDE) == Side.BOTH ? 2 * n - 1 : n;
    }

    /** The share of all notes that really change, in percent: the note itself is among the candidates. */
    public static double trueShare(ParamSet values) {
        int choices = choices(values);
        return values.get(AMOUNT) * (choices - 1) / (double) choices;
    }

    /** How many spacings candidate {@code number} lies away; on both sides the near ones come first, above before below. */
    public static int spacings(Side side, int number) {
        return switch (side) {
            case ABOVE -> number;
            case BELOW -> -number;
            case BOTH -> (number + 1) / 2 * (number % 2 == 1 ? 1 : -1);
        };
    }

    @Override
    protected Set<Trait> traits() {
        return Set.of(Trait.LEAVES_THE_KEY);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    @Override
    public String alsoFoundBy() {
        return "random pitch chance";
    }

    @Override
    public String describe(ParamSet values) {
        return AMOUNT.show(values) + " taken, " + Math.round(trueShare(values)) + " % changed · " + choices(values)
                + " candidates " + SPACING.show(values) + " " + SIDE.show(values);
    }

    /** With the candidates by name, for the note at the root of the key. */
    @Override
    public String describe(ParamSet values, Key key) {
        int note = 60 + key.root();
        String names = IntStream.range(0, choices(values))
                .map(number -> values.get(SPACING).from(note, spacings(values.get(SIDE), number), key))
                .filter(Pitch::inRange)
                .mapToObj(Pitch::shown)
                .collect(Collectors.joining(" "));
        return AMOUNT.show(values) + " taken, " + Math.round(trueShare(values)) + " % changed · " + names;
    }

    @Override
    public String notes() {
        return "Since the note itself is among the candidates, the share that really changes is amount × (n − 1)/n with n candidates,"
                + " 2n − 1 of them on both sides. In turn on both sides goes: itself, one above, one below, two above, …";
    }

    private static final class Running extends NoteByNote {
        private int amount;
        private int choices;
        private boolean random;
        private Interval spacing;
        private Side side;
        private Beyond beyond;
        private Key key;
        private int turn;

        @Override
        public void configure(ParamSet values, EffectContext context, long tick) {
            amount = values.get(AMOUNT);
            choices = choices(values);
            random = values.get(DRAW) == Draw.RANDOM;
            spacing = values.get(SPACING);
            side = values.get(SIDE);
            beyond = values.get(Beyond.PARAM);
            key = context.key();
        }

        @Override
        public NoteStart change(NoteStart note, Emitter out) {
            boolean taken = out.chance().percent(amount);
            int drawn = out.chance().below(choices);
            if (!taken) {
                return note;
            }
            int number = random ? drawn : turn++ % choices;
            int pitch = spacing.from(note.pitch(), spacings(side, number), key);
            return beyond.derive(note, note.tick(), pitch, note.velocity());
        }
    }
}
