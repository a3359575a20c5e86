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
import harpel.effect.Trait;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import harpel.theory.Interval;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** Adds voices at fixed distances to each note. */
@AutoService(EffectKind.class)
public final class Harmony extends EffectKind {
    public static final Param<Integer> SEMITONES =
            Param.of("semitones", IntType.of(-48, 48, "semitones"), 0, "Distance in semitones; 7 is a fifth.");
    public static final Param<Integer> DEGREES = Param.of(
            "degrees", IntType.of(-28, 28, "degrees"), 0, "Distance in degrees of the key, added to the semitones.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.percent(1, 200), 100, "Velocity of the voice, as a share of the played one.");
    public static final Param<Integer> CHANCE =
            Param.of("chance", IntType.percent(0, 100), 100, "How often the voice sounds.");
    private static final ParamSpec VOICE = ParamSpec.of(SEMITONES, DEGREES, VELOCITY, CHANCE);

    private static final List<ParamSet> USEFUL = List.of(
            VOICE.defaults().with(SEMITONES, 7),
            VOICE.defaults().with(SEMITONES, 12),
            VOICE.defaults().with(DEGREES, 2),
            VOICE.defaults().with(DEGREES, 4),
            VOICE.defaults().with(SEMITONES, -12),
            VOICE.defaults().with(DEGREES, 6),
            VOICE.defaults().with(DEGREES, 8),
            VOICE.defaults().with(DEGREES, -3));

    public static final Param<List<ParamSet>> VOICES = Param.of(
            "voices",
            new ListType<>(new RowType(VOICE), 8, Harmony::following),
            List.of(VOICE.defaults().with(SEMITONES, 7)),
            "The added voices, up to 8.");
    public static final Param<Boolean> KEEP =
            Param.of("keep", FlagType.FLAG, true, "Whether the played note itself sounds too.");

    private static final EffectWords WORDS = EffectWords.of("Harmony", Family.NOTES, "adds voices to each note")
            .withFoundBy("chord thirds fifths octaves")
            .withSetting(Harmony::describe);
    private static final EffectNature NATURE = EffectNature.of(Trait.LEAVES_THE_KEY);

    public Harmony() {
        super("harmony", WORDS, NATURE, VOICES, KEEP, Beyond.PARAM, SEED);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    /** The next voice that is useful beside those that are there, as loud as the last: an octave, a third, a fifth of the key and on. */
    private static ParamSet following(List<ParamSet> voices) {
        ParamSet last = voices.get(voices.size() - 1);
        return USEFUL.stream()
                .map(one -> last.with(SEMITONES, one.get(SEMITONES)).with(DEGREES, one.get(DEGREES)))
                .filter(one -> voices.stream().noneMatch(voice -> shown(voice).equals(shown(one))))
                .findFirst()
                .orElse(last);
    }

    private static String describe(ParamSet values) {
        String voices = values.get(VOICES).stream().map(Harmony::shown).collect(Collectors.joining(" · "));
        String played = values.get(KEEP) ? "" : " · without the played note";
        return (voices.isEmpty() ? "no added voices" : voices) + played;
    }

    private static String shown(ParamSet voice) {
        String degrees = Interval.ofDegrees(voice.get(DEGREES)).shown();
        String semitones = Interval.ofSemitones(voice.get(SEMITONES)).shown();
        if (voice.get(DEGREES) == 0) {
            return semitones;
        }
        return voice.get(SEMITONES) == 0 ? degrees : degrees + " " + semitones;
    }

    private static final class Running implements Effect {
        private final Map<NoteStart, List<NoteStart>> sent = new HashMap<>();
        private ParamSet values;
        private Key key;

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            values = newValues;
            key = context.key();
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            List<NoteStart> made = new ArrayList<>();
            if (values.get(KEEP)) {
                made.add(note);
            }
            for (ParamSet voice : values.get(VOICES)) {
                boolean sounds = out.chance().percent(voice.get(CHANCE));
                int pitch = key.shift(note.pitch(), voice.get(DEGREES)) + voice.get(SEMITONES);
                double velocity = note.velocity() * voice.get(VELOCITY) / 100.0;
                NoteStart added =
                        sounds ? values.get(Beyond.PARAM).derive(note, note.tick(), pitch, velocity, out) : null;
                if (added != null) {
                    made.add(added == note ? note.copy() : added);
                }
            }
            made.forEach(out::start);
            sent.put(note, made);
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            for (NoteStart note : sent.remove(end.start())) {
                out.end(note, end.tick(), end.releaseVelocity());
            }
        }
    }
}
