package harpel.effect.pitch;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.NoteByNote;
import harpel.effect.Trait;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.type.IntType;
import harpel.theory.Interval;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.List;

/** Moves every note by the same distance. */
@AutoService(EffectKind.class)
public final class Transpose extends EffectKind {
    public static final Param<Integer> SEMITONES =
            Param.of("semitones", IntType.of(-48, 48, "semitones"), 0, "Semitones up or down; 7 is a fifth.");
    public static final Param<Integer> OCTAVES =
            Param.of("octaves", IntType.of(-8, 8, "octaves"), 0, "Octaves up or down.");
    public static final Param<Integer> DEGREES = Param.of(
            "degrees", IntType.of(-28, 28, "degrees"), 0, "Degrees of the key up or down, moved before the semitones.");

    private static final EffectWords WORDS = EffectWords.of("Transpose", Family.PITCH, "moves every note")
            .withFoundBy("higher lower octave")
            .withSetting(Transpose::describe)
            .withNotes(
                    "The three distances add up. A note outside the key keeps its distance above the degree below it when moved by degrees.");
    private static final EffectNature NATURE = EffectNature.of(Trait.LEAVES_THE_KEY);

    public Transpose() {
        super("transpose", WORDS, NATURE, SEMITONES, OCTAVES, DEGREES, Beyond.PARAM);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        List<String> moves = new ArrayList<>();
        if (values.get(OCTAVES) != 0) {
            moves.add(OCTAVES.show(values));
        }
        if (values.get(DEGREES) != 0) {
            moves.add(DEGREES.show(values));
        }
        if (values.get(SEMITONES) != 0) {
            moves.add(Interval.ofSemitones(values.get(SEMITONES)).shown());
        }
        return moves.isEmpty() ? "not moved" : String.join(" · ", moves);
    }

    private static final class Running extends NoteByNote {
        private Key key;
        private int semitones;
        private int degrees;
        private Beyond beyond;

        @Override
        public void configure(ParamSet values, EffectContext context, long tick) {
            key = context.key();
            semitones = values.get(SEMITONES) + 12 * values.get(OCTAVES);
            degrees = values.get(DEGREES);
            beyond = values.get(Beyond.PARAM);
        }

        @Override
        public NoteStart change(NoteStart note, Emitter out) {
            int moved = degrees == 0 ? note.pitch() : key.shift(note.pitch(), degrees);
            return beyond.derive(note, note.tick(), moved + semitones, note.velocity(), out);
        }
    }
}
