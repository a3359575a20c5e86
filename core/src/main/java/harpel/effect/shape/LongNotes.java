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
import harpel.param.music.TimeType;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.HashMap;
import java.util.Map;

/** Lets notes through that last long enough. */
@AutoService(EffectKind.class)
public final class LongNotes extends EffectKind {
    public static final Param<TimeValue> AT_LEAST =
            Param.of("at-least", TimeType.TIME, TimeValue.ofNote("1/16"), "Notes that are shorter are left out.");

    private static final EffectWords WORDS = EffectWords.of(
                    "Long Notes", Family.SHAPE, "leaves out notes that are too short")
            .withFoundBy("length short drop filter brush accidental clean")
            .withSetting(values -> "at least " + AT_LEAST.show(values))
            .withNotes(
                    "A note from a phrase or a step knows how long it will last: it goes through at once, or not at all. A key has to be waited"
                            + " for: its note starts once it has been held for `at-least`, and ends as much later as it started, so that it keeps its"
                            + " length.");

    private static final EffectNature NATURE = EffectNature.of(Trait.SWALLOWS);

    public LongNotes() {
        super("long-notes", WORDS, NATURE, AT_LEAST);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    /** The note that waits for a key to be held long enough, and by how much it is late. */
    private record Late(NoteStart note, long by) {}

    private static final class Running implements Effect {
        private final Map<NoteStart, Late> held = new HashMap<>();
        private ParamSet values;
        private TimeMap time;

        @Override
        public void configure(ParamSet newValues, EffectContext context, long tick) {
            values = newValues;
            time = context.time();
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            long atLeast = time.after(note.tick(), values.get(AT_LEAST), 1) - note.tick();
            if (note.lasts() >= atLeast) {
                out.follow(note, note);
            } else if (note.lasts() == 0) {
                Late late = new Late(note.derive(note.tick() + atLeast, note.pitch(), note.velocity()), atLeast);
                held.put(note, late);
                out.start(late.note);
            }
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            Late late = held.remove(end.start());
            if (late != null && end.tick() < late.note.tick()) {
                out.withdraw(late.note);
            } else if (late != null) {
                out.end(late.note, end.tick() + late.by, end.releaseVelocity());
            }
        }
    }
}
