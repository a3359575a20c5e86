package harpel.effect.shape;

import com.google.auto.service.AutoService;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.type.IntType;
import harpel.param.type.NumberType;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.HashMap;
import java.util.Map;

/** Loosens time, velocity and length a little, as hands do. */
@AutoService(EffectKind.class)
public final class Humanize extends EffectKind {
    public static final Param<Double> LATE = Param.of(
            "late",
            new NumberType(0, 200, 1, "ms"),
            12.0,
            "Each note starts later by a time drawn between 0 and this.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.of(0, 64, ""), 8, "Each note is louder or softer by at most this, drawn.");
    public static final Param<Integer> LENGTH = Param.of(
            "length",
            IntType.percent(0, 100),
            10,
            "Each note is longer or shorter by at most this share, drawn; keys that are still down are not shortened.");

    private static final EffectWords WORDS = EffectWords.of(
                    "Humanize", Family.SHAPE, "loosens time, velocity and length")
            .withFoundBy("loose timing")
            .withSetting(values -> "0–" + LATE.show(values) + " late · velocity ±" + values.get(VELOCITY)
                    + " · length ±" + LENGTH.show(values))
            .withNotes(
                    "A note from a phrase, a step or a duration knows how long it will last and can be drawn shorter. A key that is still down"
                            + " cannot end before it is let go: a drawn shorter length counts as far as the late start leaves room for it.");

    public Humanize() {
        super("humanize", WORDS, LATE, VELOCITY, LENGTH, SEED);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static final class Running implements Effect {
        private record Made(NoteStart note, double lengthFactor) {}

        private final Map<NoteStart, Made> sent = new HashMap<>();
        private ParamSet values;
        private TimeMap time;

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            values = newValues;
            time = context.time();
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            double late = out.chance().unit();
            int louder = out.chance().around(values.get(VELOCITY));
            double longer = (2 * out.chance().unit() - 1) * values.get(LENGTH) / 100.0;
            long tick = time.after(note.tick(), new TimeValue.Millis(values.get(LATE)), late);
            NoteStart made = note.derive(tick, note.pitch(), note.velocity() + louder);
            sent.put(note, new Made(made, 1 + longer));
            long known = note.lasts();
            out.start(made.lasting(0));
            if (known > 0) {
                out.end(made, tick + Ticks.round(known * (1 + longer)), NoteEnd.PLAIN_RELEASE);
            }
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            Made made = sent.remove(end.start());
            long length = Ticks.round((end.tick() - end.start().tick()) * made.lengthFactor());
            out.end(made.note(), made.note().tick() + length, end.releaseVelocity());
        }
    }
}
