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
import harpel.param.music.RouteType;
import harpel.param.music.RouteType.Route;
import harpel.param.type.ChoiceType;
import harpel.param.type.FlagType;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Sends notes to a channel, another part or another output. */
@AutoService(EffectKind.class)
public final class Send extends EffectKind {
    /** Whether the way on stays. */
    public enum Way {
        AS_WELL,
        INSTEAD
    }

    public static final Param<Route> TO = Param.of(
            "to", RouteType.ROUTE, Route.ON, "A channel, the id of another part, or \"output:\" and an output's name.");
    public static final Param<Way> WAY =
            Param.of("way", ChoiceType.of(Way.class), Way.AS_WELL, "Whether the notes also go on, or only there.");
    public static final Param<Boolean> MESSAGES = Param.of(
            "messages", FlagType.FLAG, false, "Whether controllers, bends and other messages are sent as well.");

    private static final EffectWords WORDS = EffectWords.of("Send", Family.ROUTE, "sends notes to another place")
            .withFoundBy("route channel part output")
            .withSetting(values -> values.get(TO).equals(Route.ON)
                    ? "nowhere yet"
                    : "to " + TO.show(values) + (values.get(WAY) == Way.AS_WELL ? " as well" : " instead"))
            .withNotes(
                    "A part takes what is sent to it as if it were played there, on its own channel, and works it out in the same tick."
                            + " A way to nobody is named, as are two ways that bring the same notes; a circle is refused.");
    private static final EffectNature NATURE = EffectNature.of()
            .withMessages(values -> values.get(MESSAGES))
            .withTakesAll(
                    values -> values.get(WAY) == Way.INSTEAD && values.get(TO).leaves());

    public Send() {
        super("send", WORDS, NATURE, TO, WAY, MESSAGES);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static final class Running implements Effect {
        private final Map<NoteStart, List<NoteStart>> sent = new HashMap<>();
        private ParamSet values;

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            values = newValues;
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            Route route = values.get(TO);
            List<NoteStart> made = new ArrayList<>();
            if (values.get(WAY) == Way.AS_WELL || route.equals(Route.ON)) {
                made.add(note);
                out.start(note);
            }
            if (!route.equals(Route.ON)) {
                NoteStart copy = route.leaves() ? note.copy() : route.on(note);
                made.add(copy);
                out.start(copy, route);
            }
            sent.put(note, made);
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            sent.remove(end.start()).forEach(note -> out.end(note, end.tick(), end.releaseVelocity()));
        }

        @Override
        public void message(Message message, Emitter out) {
            Route route = values.get(TO);
            boolean sends = values.get(MESSAGES) && !route.equals(Route.ON);
            if (!sends || values.get(WAY) == Way.AS_WELL) {
                out.pass(message);
            }
            if (sends) {
                out.pass(message, route);
            }
        }
    }
}
