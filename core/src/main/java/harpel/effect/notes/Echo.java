package harpel.effect.notes;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.music.IntervalType;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.theory.Interval;
import harpel.theory.Key;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Repeats each note after a time, fading and moving. */
@AutoService(EffectKind.class)
public final class Echo extends EffectKind {
    /** Whether the played note sounds. */
    public enum First {
        KEEP,
        DROP
    }

    public static final Param<Integer> REPEATS =
            Param.of("repeats", IntType.of(0, 16, ""), 3, "How many times a note comes again.");
    public static final Param<TimeValue> TIME = Param.of(
            "time",
            TimeType.TIME,
            TimeValue.ofNote("1/8d"),
            "From one repeat to the next; 0.75 beat is the dotted eighth in 4/4.");
    public static final Param<Integer> FADE = Param.of(
            "fade", IntType.percent(0, 100), 40, "How much velocity each repeat loses against the one before.");
    public static final Param<Interval> SHIFT = Param.of(
            "shift", new IntervalType(-24, 24), Interval.NONE, "How far each repeat moves from the one before.");
    public static final Param<Integer> CHANCE =
            Param.of("chance", IntType.percent(0, 100), 100, "How often each repeat sounds, drawn for every repeat.");
    public static final Param<Integer> LENGTH = Param.of(
            "length",
            IntType.percent(1, 200).orWord("as-played"),
            0,
            "Length of a repeat: as played, or a share of it.");
    public static final Param<First> FIRST =
            Param.of("first", ChoiceType.of(First.class), First.KEEP, "Whether the played note itself sounds.");
    public static final Param<Boolean> RING_OUT =
            Param.of("ring-out", FlagType.FLAG, false, "Whether repeats finish after the transport has stopped.");

    private static final EffectWords WORDS = EffectWords.of("Echo", Family.NOTES, "repeats each note, fading")
            .withFoundBy("delay repeats")
            .withSetting(Echo::describe)
            .withTelling(Echo::tell)
            .withNotes(
                    "Repeat k starts k times later and has velocity × (1 − fade)^k, rounded once, never below 1: fading by 40 % from 100"
                            + " gives 60, 36, 22, 13. A `length` in % of a key that is still down needs its end: a repeat that should have ended"
                            + " before ends with it. Where the length is known, as from a phrase, a repeat is as short as it shall be.");
    private static final EffectNature NATURE = EffectNature.of().withRings(values -> values.get(RING_OUT));

    public Echo() {
        super("echo", WORDS, NATURE, REPEATS, TIME, FADE, SHIFT, CHANCE, LENGTH, FIRST, RING_OUT, Beyond.PARAM, SEED);
    }

    /** The velocity of repeat k, not rounded. */
    public static double velocity(ParamSet values, int played, int k) {
        return played * Math.pow(1 - values.get(FADE) / 100.0, k);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        String shift = values.get(SHIFT).amount() == 0 ? "" : " · " + SHIFT.show(values);
        String chance = values.get(CHANCE) == 100 ? "" : " · chance " + CHANCE.show(values);
        return values.get(REPEATS) + " × " + TIME.show(values) + " · fading " + FADE.show(values) + shift + chance;
    }

    private static String tell(NoteStart from, NoteStart made, ParamSet values, Key key, TimeMap time) {
        for (int k = 1; k <= values.get(REPEATS); k++) {
            if (time.after(from.tick(), values.get(TIME), k) == made.tick()) {
                String away = Interval.told(from.pitch(), made.pitch(), key);
                return "echo " + k + " of " + values.get(REPEATS) + (away.isEmpty() ? "" : " " + away);
            }
        }
        return "echo";
    }

    private static final class Running implements Effect {
        private long scaled(long length) {
            return Math.max(1, Ticks.round(length * values.get(LENGTH) / 100.0));
        }

        private final Map<NoteStart, List<NoteStart>> sent = new HashMap<>();
        private ParamSet values;
        private EffectContext context;

        @Override
        public void configure(ParamSet newValues, EffectContext newContext, long tick) {
            values = newValues;
            context = newContext;
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            List<NoteStart> made = new ArrayList<>();
            if (values.get(FIRST) == First.KEEP) {
                made.add(note);
            }
            for (int k = 1; k <= values.get(REPEATS); k++) {
                boolean sounds = out.chance().percent(values.get(CHANCE));
                long tick = context.time().after(note.tick(), values.get(TIME), k);
                int pitch = values.get(SHIFT).from(note.pitch(), k, context.key());
                double velocity = velocity(values, note.velocity(), k);
                NoteStart repeat = sounds ? values.get(Beyond.PARAM).derive(note, tick, pitch, velocity, out) : null;
                if (repeat != null) {
                    made.add(values.get(LENGTH) > 0 ? repeat.lasting(0) : repeat);
                }
            }
            long known = note.lasts();
            made.forEach(out::start);
            if (known > 0 && values.get(LENGTH) > 0) {
                made.stream()
                        .filter(one -> one != note)
                        .forEach(one -> out.end(one, one.tick() + scaled(known), NoteEnd.PLAIN_RELEASE));
            }
            sent.put(note, made);
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            NoteStart played = end.start();
            long length = end.tick() - played.tick();
            for (NoteStart note : sent.remove(played)) {
                long lasts = note != played && values.get(LENGTH) > 0 ? scaled(length) : length;
                out.end(note, note.tick() + Math.max(1, lasts), end.releaseVelocity());
            }
        }
    }
}
