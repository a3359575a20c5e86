package harpel.effect.route;

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
import harpel.param.ParamSpec;
import harpel.param.type.ChoiceType;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import harpel.param.type.SpanType;
import harpel.param.type.SpanType.Span;
import harpel.theory.GeneralMidi;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Rewrites controllers. */
@AutoService(EffectKind.class)
public final class Controls extends EffectKind {
    /** What a rule listens to. */
    public enum From {
        CONTROLLER,
        VELOCITY,
        PRESSURE
    }

    /** What a rule makes of it. */
    public enum To {
        CONTROLLER,
        VELOCITY,
        PRESSURE,
        DROP
    }

    public static final Param<From> FROM =
            Param.of("from", ChoiceType.of(From.class), From.CONTROLLER, "What is rewritten.");
    public static final Param<Integer> FROM_NUMBER =
            Param.of("from-number", IntType.of(0, 127, ""), 1, "With from controller: which one; 1 is the mod wheel.");
    public static final Param<To> TO = Param.of("to", ChoiceType.of(To.class), To.CONTROLLER, "What it becomes.");
    public static final Param<Integer> TO_NUMBER = Param.of(
            "to-number", IntType.of(0, 127, ""), 74, "With to controller: which one; 74 is brightness, 11 expression.");
    public static final Param<Span> RANGE =
            Param.of("range", SpanType.of(0, 127), new Span(0, 127), "0–127 is laid evenly over this range.");
    public static final Param<Boolean> REVERSE =
            Param.of("reverse", FlagType.FLAG, false, "The highest becomes the lowest.");
    public static final Param<Integer> CURVE = Param.of(
            "curve", IntType.of(-100, 100, ""), 0, "Above 0 it rises fast first, below 0 slowly first; 0 is straight.");
    public static final Param<Boolean> KEEP =
            Param.of("keep", FlagType.FLAG, false, "What was rewritten goes on as well.");

    public static final ParamSpec RULE = ParamSpec.of(FROM, FROM_NUMBER, TO, TO_NUMBER, RANGE, REVERSE, CURVE, KEEP);

    public static final Param<List<ParamSet>> RULES = Param.of(
            "rules",
            new ListType<>(new RowType(RULE), 16),
            List.of(RULE.defaults()),
            "Each rule rewrites one thing; all that fit are applied.");

    private static final EffectWords WORDS = EffectWords.of("Controls", Family.ROUTE, "rewrites controllers")
            .withFoundBy("cc mod wheel controllers pressure")
            .withSetting(Controls::describe)
            .withNotes(
                    "The curve is x^(2^(−curve/100)) over 0–127 taken as 0–1, then the range, rounded once. Velocity to controller sends the"
                            + " controller before each note; controller or pressure to velocity gives the last value that came to the notes after"
                            + " it (a velocity is at least 1). Pressure is channel pressure; pressure of single keys passes. A velocity cannot be"
                            + " dropped: `from: velocity, to: drop` does nothing.");
    private static final EffectNature NATURE =
            EffectNature.of().withMessages(values -> !values.get(RULES).isEmpty());

    public Controls() {
        super("controls", WORDS, NATURE, RULES);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        List<String> rules = new ArrayList<>();
        for (ParamSet rule : values.get(RULES)) {
            String from =
                    rule.get(FROM) == From.CONTROLLER ? GeneralMidi.controller(rule.get(FROM_NUMBER)) : FROM.show(rule);
            String to = rule.get(TO) == To.CONTROLLER ? GeneralMidi.controller(rule.get(TO_NUMBER)) : TO.show(rule);
            rules.add(rule.get(TO) == To.DROP ? from + " dropped" : from + " → " + to);
        }
        return rules.isEmpty() ? "nothing rewritten" : String.join(" · ", rules);
    }

    /** What a rule makes of 0–127. */
    public static int map(ParamSet rule, int value) {
        double place = Math.pow(value / 127.0, Math.pow(2, -rule.get(CURVE) / 100.0));
        Span range = rule.get(RANGE);
        double from = rule.get(REVERSE) ? range.high() : range.low();
        double to = rule.get(REVERSE) ? range.low() : range.high();
        return (int) Math.floor(from + place * (to - from) + 0.5);
    }

    private static final class Running implements Effect {
        private final Map<NoteStart, NoteStart> sent = new HashMap<>();
        private List<ParamSet> rules;
        /** The velocity that a controller has set for the notes to come; 0 for none. */
        private int velocity;

        @Override
        public void configure(ParamSet values, EffectContext context, long tick) {
            rules = values.get(RULES);
            if (rules.stream().noneMatch(rule -> rule.get(TO) == To.VELOCITY)) {
                velocity = 0;
            }
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            int newVelocity = velocity > 0 ? velocity : note.velocity();
            for (ParamSet rule : rules) {
                if (rule.get(FROM) == From.VELOCITY) {
                    int value = map(rule, note.velocity());
                    if (rule.get(TO) == To.VELOCITY) {
                        newVelocity = Math.max(1, value);
                    } else if (rule.get(TO) != To.DROP) {
                        out.pass(made(rule, out.tick(), note.arrival(), note.channel(), value));
                    }
                }
            }
            NoteStart made =
                    newVelocity == note.velocity() ? note : note.derive(note.tick(), note.pitch(), newVelocity);
            sent.put(note, made);
            out.start(made);
        }

        private static Message made(ParamSet rule, long tick, long arrival, int channel, int value) {
            return rule.get(TO) == To.PRESSURE
                    ? new Message(tick, arrival, (byte) (Message.CHANNEL_PRESSURE | channel), (byte) value)
                    : Message.control(tick, arrival, channel, rule.get(TO_NUMBER), value);
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            out.end(sent.remove(end.start()), end.tick(), end.releaseVelocity());
        }

        @Override
        public void message(Message message, Emitter out) {
            boolean goesOn = true;
            for (ParamSet rule : rules) {
                boolean controller = rule.get(FROM) == From.CONTROLLER && message.isController(rule.get(FROM_NUMBER));
                boolean pressure =
                        rule.get(FROM) == From.PRESSURE && (message.status() & 0xF0) == Message.CHANNEL_PRESSURE;
                if (controller || pressure) {
                    goesOn &= rule.get(KEEP);
                    int value = map(rule, message.data(controller ? 2 : 1));
                    if (rule.get(TO) == To.VELOCITY) {
                        velocity = Math.max(1, value);
                    } else if (rule.get(TO) != To.DROP) {
                        out.pass(made(rule, out.tick(), message.arrival(), message.channel(), value));
                    }
                }
            }
            if (goesOn) {
                out.pass(message);
            }
        }
    }
}
