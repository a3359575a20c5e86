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
import harpel.param.music.RouteType;
import harpel.param.music.RouteType.Route;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.theory.Key;
import harpel.theory.Spelling;
import java.util.ArrayList;
import java.util.List;

/** Turns notes into pitch bend, mostly of another part. */
@AutoService(EffectKind.class)
public final class NoteBend extends EffectKind {
    /** What a note beyond the range does. */
    public enum OutOfRange {
        CLIP,
        DROP
    }

    /** Where the bend goes when no note is held. */
    public enum AfterRelease {
        SNAP_BACK,
        STAY
    }

    /** What a new note does to the notes that are bent. */
    public enum OnNewNote {
        BEND_ONLY,
        STRIKE_AGAIN
    }

    public static final Param<Route> TO = Param.of(
            "to", RouteType.ROUTE, Route.ON, "The part that is bent; \"on\" bends what comes after in this chain.");
    public static final Param<Integer> CENTRE =
            Param.of("centre", IntType.ofPitch(), 60, "The note that bends nothing.");
    public static final Param<Integer> BEND_RANGE = Param.of(
            "bend-range",
            IntType.of(1, 48, "semitones"),
            12,
            "How far a full bend goes; sent to the instrument, so that both agree.");
    public static final Param<OutOfRange> OUT_OF_RANGE = Param.of(
            "out-of-range",
            ChoiceType.of(OutOfRange.class),
            OutOfRange.CLIP,
            "A note beyond the range bends as far as it goes, or not at all.");
    public static final Param<AfterRelease> AFTER_RELEASE = Param.of(
            "after-release",
            ChoiceType.of(AfterRelease.class),
            AfterRelease.SNAP_BACK,
            "When the last key is let go the bend goes back to the middle, or stays.");
    public static final Param<OnNewNote> ON_NEW_NOTE = Param.of(
            "on-new-note",
            ChoiceType.of(OnNewNote.class),
            OnNewNote.BEND_ONLY,
            "Whether notes that sound there are struck again with each new bend.");

    private static final EffectWords WORDS = EffectWords.of("Note Bend", Family.PITCH, "turns notes into pitch bend")
            .withFoundBy("pitch bend")
            .withSetting(NoteBend::describe)
            .withNotes(
                    "Bend = 8192 + 8192 × (note − centre) / bend-range, rounded, 0–16383 (MIDI 1.0: 14 bits, 8192 in the middle). The range is"
                            + " sent as registered parameter 0,0 (controllers 101, 100, 6, 38) before the first bend and whenever it changes. The"
                            + " last key pressed counts; when it is let go, the last of those still held. When the stage is switched off or"
                            + " stopped the bend goes back to the middle.");

    private static final EffectNature NATURE = EffectNature.of().withTakesAll(values -> true);

    public NoteBend() {
        super("note-bend", WORDS, NATURE, TO, CENTRE, BEND_RANGE, OUT_OF_RANGE, AFTER_RELEASE, ON_NEW_NOTE);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values, Key key, int lastPitch) {
        String to = values.get(TO).equals(Route.ON) ? "" : TO.show(values) + " · ";
        return to + "around " + CENTRE.show(values, Spelling.of(key)) + " · ±" + BEND_RANGE.show(values);
    }

    /** The bend for a note, 0–16383, or -1 when it is dropped. */
    public static int bend(ParamSet values, int pitch) {
        int range = values.get(BEND_RANGE);
        int away = pitch - values.get(CENTRE);
        if (Math.abs(away) > range && values.get(OUT_OF_RANGE) == OutOfRange.DROP) {
            return -1;
        }
        double exact = Message.BEND_MIDDLE + Message.BEND_MIDDLE * (double) away / range;
        return (int) Math.max(0, Math.min(Message.BEND_MOST, Math.floor(exact + 0.5)));
    }

    private static final int UNSENT = -2;

    private static final class Running implements Effect {
        private final List<NoteStart> held = new ArrayList<>();
        private ParamSet values;
        private EffectContext context;
        private int sentRange;
        private Route sentTo = Route.ON;
        private int bend = UNSENT;
        private long arrival;

        @Override
        public void configure(ParamSet newValues, EffectContext newContext, long tick) {
            values = newValues;
            context = newContext;
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            if (Math.abs(note.pitch() - values.get(CENTRE)) > values.get(BEND_RANGE)) {
                out.lost(note.pitch());
            }
            int wanted = bend(values, note.pitch());
            if (wanted < 0) {
                return;
            }
            held.add(note);
            arrival = note.arrival();
            bendTo(wanted, out);
            if (values.get(ON_NEW_NOTE) == OnNewNote.STRIKE_AGAIN) {
                out.strikeAgain(values.get(TO));
            }
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            boolean wasLast = !held.isEmpty() && held.get(held.size() - 1) == end.start();
            held.removeIf(note -> note == end.start());
            if (!wasLast) {
                return;
            }
            arrival = end.arrival();
            if (!held.isEmpty()) {
                int wanted = bend(values, held.get(held.size() - 1).pitch());
                bendTo(wanted < 0 ? bend : wanted, out);
            } else if (values.get(AFTER_RELEASE) == AfterRelease.SNAP_BACK) {
                bendTo(Message.BEND_MIDDLE, out);
            }
        }

        private void bendTo(int wanted, Emitter out) {
            Route route = values.get(TO);
            if (!route.equals(sentTo)) {
                leave(out);
                sentTo = route;
                sentRange = 0;
            }
            if (sentRange != values.get(BEND_RANGE)) {
                sentRange = values.get(BEND_RANGE);
                for (int[] control :
                        new int[][] {{101, 0}, {100, 0}, {6, sentRange}, {38, 0}, {101, 127}, {100, 127}}) {
                    out.pass(Message.control(out.tick(), arrival, channel(), control[0], control[1]), route);
                }
            }
            if (wanted != bend) {
                bend = wanted;
                out.pass(Message.bend(out.tick(), arrival, channel(), bend), route);
            }
        }

        private int channel() {
            int only = values.get(EffectKind.CHANNEL);
            return only > 0 ? only - 1 : context.channel();
        }

        @Override
        public void leave(Emitter out) {
            if (bend != Message.BEND_MIDDLE && bend != UNSENT) {
                bend = Message.BEND_MIDDLE;
                out.pass(Message.bend(out.tick(), arrival, channel(), bend), sentTo);
            }
        }

        @Override
        public void stopGenerating(Emitter out) {
            held.clear();
            leave(out);
        }
    }
}
