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
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.IntType;
import harpel.param.type.NumberType;
import harpel.param.type.OffType;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeValue;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Brings starts onto a grid. */
@AutoService(EffectKind.class)
public final class TimeGrid extends EffectKind {
    /** Which grid point a note goes to. */
    public enum To {
        NEXT,
        NEAREST
    }

    public static final Param<TimeValue> GRID =
            Param.of("grid", TimeType.TIME, TimeValue.ofNote("1/16"), "The distance of the grid's points.");
    public static final Param<To> TO = Param.of(
            "to",
            ChoiceType.of(To.class),
            To.NEXT,
            "next: every start waits for the next point; nearest: one just after a point sounds at once, as it cannot come sooner.");
    public static final Param<Integer> STRENGTH =
            Param.of("strength", IntType.percent(0, 100), 100, "How much of the way to the point a start goes.");
    public static final Param<Double> SWING = Param.of(
            "swing", new NumberType(50, 75, 1, "%"), 50.0, "Where the second point of each pair lies: 50 straight.");
    public static final Param<Optional<TimeValue>> LATE_BY = Param.of(
            "late-by",
            new OffType<>(TimeType.TIME_OR_TICKS),
            Optional.empty(),
            "Everything comes so much later, such as \"8 ms\" or \"120 ticks\".");

    private static final EffectWords WORDS = EffectWords.of("Time Grid", Family.SHAPE, "brings starts onto a grid")
            .withFoundBy("quantize in time swing")
            .withSetting(TimeGrid::describe)
            .withNotes(
                    "A note keeps its length. A note cannot sound before it is played, and a print is exactly what is heard, so with"
                            + " `nearest` a start that came late stays where it is, live and printed; one that came early waits.");

    public TimeGrid() {
        super("time-grid", WORDS, GRID, TO, STRENGTH, SWING, LATE_BY);
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        String late = values.get(LATE_BY).isEmpty() ? "" : " · late by " + LATE_BY.show(values);
        return values.get(TO) == To.NEXT
                ? "next " + GRID.show(values) + " · " + STRENGTH.show(values) + late
                : "nearest " + GRID.show(values) + " · " + STRENGTH.show(values) + late;
    }

    private static final class Running implements Effect {
        private final Map<NoteStart, NoteStart> sent = new HashMap<>();
        private ParamSet values;
        private EffectContext context;
        private StepGrid grid;

        @Override
        public void configure(ParamSet newValues, EffectContext newContext, long tick) {
            values = newValues;
            context = newContext;
            grid = StepGrid.ofPiece(context.time(), values.get(GRID), values.get(SWING));
        }

        @Override
        public void start(NoteStart note, Emitter out) {
            long tick = note.tick() + Ticks.round((goal(note.tick()) - note.tick()) * values.get(STRENGTH) / 100.0);
            if (values.get(LATE_BY).isPresent()) {
                tick = context.time().after(tick, values.get(LATE_BY).get(), 1);
            }
            NoteStart moved = tick == note.tick() ? note : note.derive(tick, note.pitch(), note.velocity());
            sent.put(note, moved);
            out.start(moved);
        }

        private long goal(long tick) {
            long index = grid.indexAtOrAfter(tick);
            long next = grid.tickOf(index);
            boolean late = index > 0 && tick - grid.tickOf(index - 1) < next - tick;
            return values.get(TO) == To.NEAREST && late ? tick : next;
        }

        @Override
        public void end(NoteEnd end, Emitter out) {
            NoteStart moved = sent.remove(end.start());
            out.end(moved, moved.tick() + end.tick() - end.start().tick(), end.releaseVelocity());
        }
    }
}
