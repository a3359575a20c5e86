package harpel.effect.held;

import com.google.auto.service.AutoService;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.HeldNotes;
import harpel.effect.HeldNotes.Hold;
import harpel.effect.Pedal;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.time.MeterMap;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Keeps notes sounding after their keys are let go. */
@AutoService(EffectKind.class)
public final class Latch extends EffectKind {
    /** Until when a key that was let go is kept. */
    public enum Until {
        NEXT_CHORD,
        TOGGLE,
        ADD,
        BARS,
        PEDAL_UP
    }

    public static final Param<Until> UNTIL = Param.of(
            "until",
            ChoiceType.of(Until.class),
            Until.NEXT_CHORD,
            "next-chord: the first key after all were let go replaces; toggle: the same key again releases; add: notes gather;"
                    + " bars: until a bar line; pedal-up: while the sustain pedal is down.");
    public static final Param<Integer> BARS = Param.of(
            "bars",
            IntType.of(1, 64, "bars"),
            1,
            "With until bars: kept to the next bar line that is a multiple of this.");

    private static final EffectWords WORDS = EffectWords.of(
                    "Latch", Family.HELD, "keeps notes after the keys are let go")
            .withFoundBy("hold sustain")
            .withAction("Release")
            .withSetting(Latch::describe)
            .withNotes(
                    "With `pedal-up`, or with `pedal: hold`, the sustain pedal is used here and does not go on to the instrument."
                            + " Release (a button on the stage, or a controller) ends everything that no key holds.");
    private static final EffectNature NATURE = EffectNature.of().withHoldsNotes(true);

    public Latch() {
        super("latch", WORDS, NATURE, UNTIL, BARS, Pedal.PARAM, Pedal.LET_GO);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        return switch (values.get(UNTIL)) {
            case NEXT_CHORD -> "until the next chord";
            case TOGGLE -> "until the same key again";
            case ADD -> "adding up until released";
            case BARS -> "until the next of every " + BARS.show(values);
            case PEDAL_UP -> "until the pedal is up";
        };
    }

    private static final class Running implements Effect {
        private final HeldNotes held = new HeldNotes();
        /** What went out for each note that is held. */
        private final Map<NoteStart, NoteStart> sounding = new HashMap<>();

        private final List<NoteStart> released = new ArrayList<>();
        private List<NoteStart> releasedByChange = List.of();
        private ParamSet values;
        private MeterMap meter;
        private long next = Ticks.NEVER;

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            values = newValues;
            meter = context.time().meter();
            Hold hold = switch (values.get(UNTIL)) {
                case NEXT_CHORD -> Hold.REPLACE;
                case TOGGLE -> Hold.TOGGLE;
                case ADD, BARS -> Hold.ADD;
                case PEDAL_UP -> Hold.OFF;
            };
            List<NoteStart> gone = held.hold(hold);
            if (!gone.isEmpty()) {
                releasedByChange = gone;
                next = tick;
            } else {
                schedule(tick);
            }
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            released.clear();
            boolean counts = held.press(note, released);
            endAll(released, out);
            if (counts) {
                // How long it will last is not known any more.
                NoteStart made = note.lasts() == 0 ? note : note.copy().lasting(0);
                sounding.put(note, made);
                out.start(made);
            }
            schedule(out.tick());
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            if (held.letKeyGo(end.start())) {
                end(end.start(), end.releaseVelocity(), out);
            }
            schedule(out.tick());
        }

        @Override
        public void message(Message message, Emitter out) {
            boolean usesPedal = values.get(UNTIL) == Until.PEDAL_UP || values.get(Pedal.PARAM) == Pedal.HOLD;
            if (usesPedal && message.isController(Message.SUSTAIN)) {
                endAll(held.pedal(Pedal.isDown(message)), out);
            } else if (message.isController(values.get(Pedal.LET_GO))) {
                if (Pedal.isDown(message)) {
                    act(out);
                }
            } else {
                out.pass(message);
            }
        }

        private void schedule(long tick) {
            if (!releasedByChange.isEmpty()) {
                return;
            }
            if (values.get(UNTIL) != Until.BARS || !held.anyHeldWithoutKey()) {
                next = Ticks.NEVER;
            } else if (next == Ticks.NEVER) {
                long bars = values.get(BARS);
                next = meter.tickOfBar((meter.barAt(tick) / bars + 1) * bars);
            }
        }

        @Override
        public long nextStep() {
            return next;
        }

        @Override
        public void step(Emitter out) {
            next = Ticks.NEVER;
            if (releasedByChange.isEmpty()) {
                act(out);
            } else {
                endAll(releasedByChange, out);
                releasedByChange = List.of();
                schedule(out.tick());
            }
        }

        @Override
        public void act(Emitter out) {
            endAll(held.letGo(), out);
        }

        @Override
        public void stopGenerating(Emitter out) {
            endAll(held.stopHolding(), out);
        }

        private void endAll(List<NoteStart> notes, Emitter out) {
            notes.forEach(note -> end(note, NoteEnd.PLAIN_RELEASE, out));
        }

        private void end(NoteStart note, int releaseVelocity, Emitter out) {
            NoteStart made = sounding.remove(note);
            if (made != null) {
                out.end(made, out.tick(), releaseVelocity);
            }
        }
    }
}
