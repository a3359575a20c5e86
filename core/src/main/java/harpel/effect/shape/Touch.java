package harpel.effect.shape;

import com.google.auto.service.AutoService;
import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.EffectWords;
import harpel.effect.Emitter;
import harpel.effect.Family;
import harpel.effect.NoteByNote;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.PointsType;
import harpel.param.type.SpanType;
import harpel.param.type.SpanType.Span;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;

/** Shapes velocity. */
@AutoService(EffectKind.class)
public final class Touch extends EffectKind {
    public static final Param<Integer> CURVE = Param.of(
            "curve",
            IntType.of(-100, 100, ""),
            0,
            "Above 0 soft: a light touch already sounds loud; below 0 hard: only a firm touch does; 0 leaves velocity alone.");
    public static final Param<List<PointsType.Point>> POINTS = Param.of(
            "points",
            new PointsType(1, 127),
            List.of(),
            "A drawn curve from velocity in to velocity out; it takes the place of the curve knob.");
    public static final Param<Span> RANGE =
            Param.of("range", SpanType.of(1, 127), new Span(1, 127), "1–127 is laid evenly over this range.");
    public static final Param<Integer> FIXED = Param.of(
            "fixed",
            IntType.of(1, 127, "").orWord("off"),
            0,
            "One velocity for all notes, in place of curve and range.");
    public static final Param<List<Integer>> ACCENTS = Param.of(
            "accents",
            new ListType<>(IntType.of(-126, 126, ""), 32),
            List.of(),
            "Added in turn, one for each moment at which notes start: 20 0 0 0 marks every fourth.");
    public static final Param<Integer> LOOSEN =
            Param.of("loosen", IntType.of(0, 64, ""), 0, "Drawn for each note, at most this much louder or softer.");

    private static final EffectWords WORDS = EffectWords.of("Touch", Family.SHAPE, "shapes velocity")
            .withFoundBy("softer louder velocity dynamics accents")
            .withSetting(Touch::describe)
            .withTelling(Touch::tell)
            .withNotes(
                    "The curve is x^(2^(−curve/100)) over velocities 1–127 taken as 0–1; then the range, laid linearly: 60–100 takes"
                            + " 1, 32, 64, 96, 127 to 60, 70, 80, 90, 100; then accents and loosening; rounded once, kept within 1–127."
                            + " Release velocity is kept.");

    public Touch() {
        super("touch", WORDS, CURVE, POINTS, RANGE, FIXED, ACCENTS, LOOSEN, SEED);
    }

    /** Velocity in to velocity out before accents and loosening, not rounded. */
    public static double shape(ParamSet values, int velocity) {
        if (values.get(FIXED) > 0) {
            return values.get(FIXED);
        }
        double place = values.get(POINTS).isEmpty()
                ? Math.pow((velocity - 1) / 126.0, Math.pow(2, -values.get(CURVE) / 100.0))
                : (PointsType.at(values.get(POINTS), velocity) - 1) / 126.0;
        Span range = values.get(RANGE);
        return range.low() + place * (range.high() - range.low());
    }

    @Override
    public Effect create() {
        return new Running();
    }

    private static String describe(ParamSet values) {
        List<String> parts = new ArrayList<>();
        int curve = values.get(CURVE);
        if (values.get(FIXED) > 0) {
            parts.add("always " + FIXED.show(values));
        } else {
            parts.add(
                    !values.get(POINTS).isEmpty()
                            ? "drawn curve"
                            : curve == 0 ? "straight" : (curve > 0 ? "soft " : "hard ") + Math.abs(curve));
            parts.add(RANGE.show(values));
        }
        if (!values.get(ACCENTS).isEmpty()) {
            parts.add("accents " + ACCENTS.show(values));
        }
        if (values.get(LOOSEN) > 0) {
            parts.add("loosen ±" + values.get(LOOSEN));
        }
        return String.join(" · ", parts);
    }

    private static String tell(NoteStart from, NoteStart made, ParamSet values, Key key, TimeMap time) {
        // The velocities at both ends say it.
        return "";
    }

    private static final class Running extends NoteByNote {
        private final double[] shaped = new double[128];
        private List<Integer> accents;
        private int loosen;
        private long lastTick = -1;
        private int moment = -1;

        @Override
        public void configure(ParamSet values, EffectContext context, long tick) {
            for (int velocity = 1; velocity < shaped.length; velocity++) {
                shaped[velocity] = shape(values, velocity);
            }
            accents = values.get(ACCENTS);
            loosen = values.get(LOOSEN);
        }

        @Override
        public NoteStart change(NoteStart note, Emitter out) {
            if (note.tick() != lastTick) {
                lastTick = note.tick();
                moment++;
            }
            int accent = accents.isEmpty() ? 0 : accents.get(moment % accents.size());
            int drawn = out.chance().around(loosen);
            int velocity = NoteStart.clampVelocity(shaped[note.velocity()] + accent + drawn);
            return velocity == note.velocity() ? note : note.derive(note.tick(), note.pitch(), velocity);
        }
    }
}
