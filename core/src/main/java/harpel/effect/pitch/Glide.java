package harpel.effect.pitch;

import com.google.auto.service.AutoService;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.music.TimeType;
import harpel.param.type.IntType;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;

/** Makes the way from one bend to the next a slide. */
@AutoService(EffectKind.class)
public final class Glide extends EffectKind {
    private static final TimeValue BETWEEN = new TimeValue.Millis(1);

    public static final Param<TimeValue> TIME = Param.of(
            "time", TimeType.TIME, new TimeValue.Millis(80), "How long the way from one bend to the next takes.");
    public static final Param<Integer> CURVE = Param.of(
            "curve",
            IntType.of(-100, 100, ""),
            0,
            "Above 0 it leaves fast and arrives slowly, below 0 the reverse; 0 is straight.");

    private static final EffectWords WORDS = EffectWords.of("Glide", Family.PITCH, "slides from one bend to the next")
            .withFoundBy("slide portamento")
            .withSetting(Glide::describe)
            .withNotes(
                    "At most one bend a millisecond, each only if it differs from the one before; the last is exactly the bend that came"
                            + " in. Place on the way: (time gone)^(2^(−curve/100)). A bend that comes on the way starts a new way from where it is.");
    private static final EffectNature NATURE = EffectNature.of().withMessages(values -> true);

    public Glide() {
        super("glide", WORDS, NATURE, TIME, CURVE);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        int curve = values.get(CURVE);
        return "over " + TIME.show(values) + (curve == 0 ? "" : curve > 0 ? " · arriving slowly" : " · leaving slowly");
    }

    /** One channel's way. */
    private static final class Way {
        int now = Message.BEND_MIDDLE;
        int from;
        int goal = Message.BEND_MIDDLE;
        long startTick;
        long endTick;
        long count;
        long nextTick = Ticks.NEVER;
        long arrival;
    }

    private static final class Running implements Effect {
        private final Way[] ways = new Way[16];
        private TimeMap time;
        private TimeValue length;
        private double power;

        @Override
        public void configure(ParamSet values, EffectContext context, long tick) {
            time = context.time();
            length = values.get(TIME);
            power = Math.pow(2, -values.get(CURVE) / 100.0);
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            out.start(note);
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            out.end(end.start(), end.tick(), end.releaseVelocity());
        }

        @Override
        public void message(Message message, Emitter out) {
            if (!message.isBend()) {
                out.pass(message);
                return;
            }
            int channel = message.channel();
            Way way = ways[channel] == null ? new Way() : ways[channel];
            ways[channel] = way;
            way.from = way.now;
            way.goal = message.bend();
            way.startTick = message.tick();
            way.endTick = time.after(message.tick(), length, 1);
            way.count = 0;
            way.arrival = message.arrival();
            aim(way);
        }

        private void aim(Way way) {
            way.count++;
            way.nextTick =
                    Math.min(way.endTick, Math.max(way.startTick + 1, time.after(way.startTick, BETWEEN, way.count)));
        }

        @Override
        public long nextStep() {
            long next = Ticks.NEVER;
            for (Way way : ways) {
                next = way == null ? next : Math.min(next, way.nextTick);
            }
            return next;
        }

        @Override
        public void step(Emitter out) {
            for (int channel = 0; channel < ways.length; channel++) {
                Way way = ways[channel];
                if (way != null && way.nextTick == out.tick()) {
                    double gone = (out.tick() - way.startTick) / (double) (way.endTick - way.startTick);
                    int value = out.tick() >= way.endTick
                            ? way.goal
                            : (int) Math.floor(way.from + (way.goal - way.from) * Math.pow(gone, power) + 0.5);
                    if (value != way.now) {
                        way.now = value;
                        out.pass(Message.bend(out.tick(), way.arrival, channel, value));
                    }
                    if (out.tick() >= way.endTick) {
                        way.nextTick = Ticks.NEVER;
                    } else {
                        aim(way);
                    }
                }
            }
        }

        /** What is on its way arrives at once. */
        @Override
        public void leave(Emitter out) {
            for (int channel = 0; channel < ways.length; channel++) {
                Way way = ways[channel];
                if (way != null && way.now != way.goal) {
                    way.now = way.goal;
                    way.nextTick = Ticks.NEVER;
                    out.pass(Message.bend(out.tick(), way.arrival, channel, way.goal));
                }
            }
        }
    }
}
