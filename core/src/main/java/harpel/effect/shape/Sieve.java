package harpel.effect.shape;

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
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.SpanType;
import harpel.param.type.SpanType.Span;
import harpel.theory.Key;
import harpel.theory.Spelling;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Lets some notes through. */
@AutoService(EffectKind.class)
public final class Sieve extends EffectKind {
    /** What becomes of a note that is not let through. */
    public enum Rest {
        DROP,
        OTHER_BRANCH
    }

    public static final Param<Integer> CHANCE =
            Param.of("chance", IntType.percent(0, 100), 100, "How often a note is let through, drawn for each.");
    public static final Param<Span> KEYS =
            Param.of("keys", SpanType.ofPitches(), new Span(0, 127), "Lets through notes of this key range.");
    public static final Param<Span> VELOCITY =
            Param.of("velocity", SpanType.of(1, 127), new Span(1, 127), "Lets through notes of this velocity range.");
    public static final Param<Integer> FROM_CHANNEL =
            Param.of("from-channel", IntType.of(1, 16, "").orWord("all"), 0, "Lets through notes of this channel.");
    public static final Param<Integer> EVERY =
            Param.of("every", IntType.of(1, 64, ""), 1, "Lets through the first and then every so many notes.");
    public static final Param<Integer> BARS_OPEN = Param.of(
            "bars-open", IntType.of(0, 64, "bars"), 1, "So many bars, the first of each group, are let through.");
    public static final Param<Integer> BARS_OF =
            Param.of("bars-of", IntType.of(1, 64, "bars"), 1, "The length of the group of bars.");
    public static final Param<Rest> REST = Param.of(
            "rest",
            ChoiceType.of(Rest.class),
            Rest.DROP,
            "What becomes of the others: dropped, or on to the next branch of the split around this chain.");

    private static final EffectWords WORDS = EffectWords.of("Sieve", Family.SHAPE, "lets some notes through")
            .withFoundBy("filter thin out every other chance")
            .withSetting(Sieve::describe)
            .withNotes(
                    "A note must pass all conditions; `every` counts those that pass the others. Outside a split, and in its last branch,"
                            + " there is no other branch, and the rest is dropped.");

    private static final EffectNature NATURE = EffectNature.of(Trait.SWALLOWS);

    public Sieve() {
        super("sieve", WORDS, NATURE, CHANCE, KEYS, VELOCITY, FROM_CHANNEL, EVERY, BARS_OPEN, BARS_OF, REST, SEED);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values, Key key, int lastPitch) {
        List<String> parts = new ArrayList<>();
        if (values.get(CHANCE) < 100) {
            parts.add(CHANCE.show(values));
        }
        for (Param<?> param : List.of(KEYS, VELOCITY, FROM_CHANNEL)) {
            if (!values.isDefault(param)) {
                parts.add(param.id().replace("from-", "") + " " + param.show(values, Spelling.of(key)));
            }
        }
        if (values.get(EVERY) > 1) {
            parts.add("one of " + values.get(EVERY));
        }
        if (values.get(BARS_OPEN) < values.get(BARS_OF)) {
            parts.add("bars " + values.get(BARS_OPEN) + " of " + values.get(BARS_OF));
        }
        return parts.isEmpty() ? "every note" : String.join(" · ", parts);
    }

    private static final class Running implements Effect {
        private final Map<NoteStart, NoteStart> sent = new HashMap<>();
        private ParamSet values;
        private EffectContext context;
        private long counted;

        @Override
        public void configure(ParamSet newValues, EffectContext newContext, long tick) {
            values = newValues;
            context = newContext;
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            if (passes(note, out)) {
                sent.put(note, note);
                out.start(note);
            } else if (values.get(REST) == Rest.OTHER_BRANCH) {
                NoteStart copy = note.copy();
                sent.put(note, copy);
                out.startAside(copy);
            }
        }

        private boolean passes(NoteStart note, Emitter out) {
            boolean drawn = out.chance().percent(values.get(CHANCE));
            int channel = values.get(FROM_CHANNEL);
            boolean fits = drawn
                    && values.get(KEYS).contains(note.pitch())
                    && values.get(VELOCITY).contains(note.velocity())
                    && (channel == 0 || channel == note.channel() + 1)
                    && context.time().meter().barAt(note.tick()) % values.get(BARS_OF) < values.get(BARS_OPEN);
            return fits && counted++ % values.get(EVERY) == 0;
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            NoteStart note = sent.remove(end.start());
            if (note != null) {
                out.end(note, end.tick(), end.releaseVelocity());
            }
        }
    }
}
