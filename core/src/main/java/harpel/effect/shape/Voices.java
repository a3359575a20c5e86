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
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Lets only so many notes sound at once. */
@AutoService(EffectKind.class)
public final class Voices extends EffectKind {
    /** Which note makes room. */
    public enum Steal {
        OLDEST,
        LOWEST,
        HIGHEST,
        REFUSE
    }

    /** Which of the held keys sounds when only one may. */
    public enum OneVoice {
        OFF,
        LAST,
        LOW,
        HIGH
    }

    public static final Param<Integer> MOST =
            Param.of("most", IntType.of(1, 64, "notes"), 4, "How many notes may sound at once.");
    public static final Param<Steal> STEAL = Param.of(
            "steal",
            ChoiceType.of(Steal.class),
            Steal.OLDEST,
            "Which sounding note ends to make room, or the new one is refused.");
    public static final Param<OneVoice> ONE_VOICE = Param.of(
            "one-voice",
            ChoiceType.of(OneVoice.class),
            OneVoice.OFF,
            "Only one note sounds: the last, the lowest or the highest key held; when it is let go the next in line comes back.");

    private static final EffectWords WORDS = EffectWords.of(
                    "Voices", Family.SHAPE, "lets only so many notes sound at once")
            .withFoundBy("mono one voice polyphony")
            .withSetting(Voices::describe)
            .withNotes("With one voice, a key that comes back is struck again with the velocity it was played with.");

    public Voices() {
        super("voices", WORDS, MOST, STEAL, ONE_VOICE);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        return values.get(ONE_VOICE) == OneVoice.OFF
                ? "at most " + MOST.show(values) + " · "
                        + (values.get(STEAL) == Steal.REFUSE
                                ? "more are refused"
                                : "the " + STEAL.show(values) + " makes room")
                : "one voice · " + ONE_VOICE.show(values) + " key first";
    }

    private static final class Running implements Effect {
        /** Keys that are down, in the order they were pressed. */
        private final List<NoteStart> held = new ArrayList<>();
        /** What sounds for a key, in the order of its start. */
        private final Map<NoteStart, NoteStart> sounding = new HashMap<>();

        /** When all that happens at one tick is known, the key that sounds is chosen. */
        private long chooseAt = Ticks.NEVER;

        private ParamSet values;

        @Override
        public long nextStep() {
            return chooseAt;
        }

        @Override
        public void step(Emitter out) {
            chooseAt = Ticks.NEVER;
            choose(out);
        }

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            values = newValues;
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            held.add(note);
            if (values.get(ONE_VOICE) != OneVoice.OFF) {
                chooseAt = out.tick();
                return;
            }
            List<NoteStart> keys = soundingKeys();
            while (keys.size() >= values.get(MOST)) {
                if (values.get(STEAL) == Steal.REFUSE) {
                    return;
                }
                NoteStart victim = victim(keys);
                keys.remove(victim);
                release(victim, out, NoteEnd.PLAIN_RELEASE);
            }
            sounding.put(note, note);
            out.start(note);
        }

        private List<NoteStart> soundingKeys() {
            List<NoteStart> keys = new ArrayList<>(held);
            keys.removeIf(key -> !sounding.containsKey(key));
            return keys;
        }

        private NoteStart victim(List<NoteStart> keys) {
            Comparator<NoteStart> byPitch = Comparator.comparingInt(NoteStart::pitch);
            return switch (values.get(STEAL)) {
                case LOWEST -> keys.stream().min(byPitch).orElseThrow();
                case HIGHEST -> keys.stream().max(byPitch).orElseThrow();
                case OLDEST, REFUSE -> keys.get(0);
            };
        }

        private void release(NoteStart key, Emitter out, int releaseVelocity) {
            NoteStart note = sounding.remove(key);
            if (note != null) {
                out.end(note, out.tick(), releaseVelocity);
            }
        }

        /** Lets the key that comes first sound, and no other. */
        private void choose(Emitter out) {
            Comparator<NoteStart> byPitch = Comparator.comparingInt(NoteStart::pitch);
            NoteStart first = held.isEmpty()
                    ? null
                    : switch (values.get(ONE_VOICE)) {
                        case LOW -> held.stream().min(byPitch).orElseThrow();
                        case HIGH -> held.stream().max(byPitch).orElseThrow();
                        default -> held.get(held.size() - 1);
                    };
            for (NoteStart key : soundingKeys()) {
                if (key != first) {
                    release(key, out, NoteEnd.PLAIN_RELEASE);
                }
            }
            if (first != null && !sounding.containsKey(first)) {
                NoteStart note =
                        first.tick() == out.tick() ? first : first.derive(out.tick(), first.pitch(), first.velocity());
                sounding.put(first, note);
                long left = first.lasts() - (out.tick() - first.tick());
                out.start(note.lasting(first.lasts() == 0 ? 0 : Math.max(1, left)));
            }
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            held.remove(end.start());
            release(end.start(), out, end.releaseVelocity());
            if (values.get(ONE_VOICE) != OneVoice.OFF) {
                chooseAt = out.tick();
            }
        }
    }
}
