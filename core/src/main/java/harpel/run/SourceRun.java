package harpel.run;

import harpel.effect.Chance;
import harpel.event.NoteStart;
import harpel.move.Mover;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.type.CurveType;
import harpel.param.type.PathType;
import harpel.param.type.SpanType.Span;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.List;

/**
 * One source that moves a parameter, as it plays: where it stands at a tick and when that changes. Here is all that the engine knows of a
 * kind of source; a new one has its class and its line in {@link #of}. Owned by the renderer.
 */
abstract class SourceRun {
    final Mover mover;
    final ParamSet settings;

    private SourceRun(Mover mover) {
        this.mover = mover;
        this.settings = mover.settings();
    }

    /** @param chance each mover draws for itself */
    static SourceRun of(Mover mover, MoveInput input, Chance chance, RunContext context) {
        return switch (mover.source()) {
            case AUTOMATION -> new Automation(mover, context);
            case VELOCITY -> new OfNote(mover, input, note -> (note.velocity() - 1) / 126.0);
            case KEY -> new OfNote(mover, input, note -> among(mover.settings().get(Source.KEYS), note.pitch()));
            case RANDOM ->
                new OfNote(mover, input, note -> chance.at(note.tick()).unitOf(note.tick(), input.before()));
            case KEYS_HELD ->
                new OfInput(mover, settings -> Math.min(1, input.held() / (double) settings.get(Source.MOST)));
            case CONTROLLER -> new OfInput(mover, settings -> input.controller(settings.get(Source.NUMBER)) / 127.0);
            case PRESSURE -> new OfInput(mover, settings -> input.pressure() / 127.0);
            case KEY_PRESSURE -> new OfInput(mover, settings -> input.keyPressure() / 127.0);
            case LEVER -> new OfLever(mover, context);
            case CURVE -> new Curve(mover, context.time());
            case LFO -> new Wave(mover, chance, context.time());
            case STEPS -> new Steps(mover, context.time());
            case ENVELOPE -> new Envelope(mover, context.time());
        };
    }

    /** The place of a pitch in a range of keys, 0–1. */
    private static double among(Span keys, int pitch) {
        return keys.high() == keys.low()
                ? (pitch < keys.low() ? 0 : 1)
                : Math.max(0, Math.min(1, (pitch - keys.low()) / (double) (keys.high() - keys.low())));
    }

    /** Where it stands, 0–1, or NaN when it has nothing to say yet. */
    double place(long tick) {
        return Double.NaN;
    }

    /** The value in place of the control's own, with what others add, as a share of the range; null where it leaves that to the control. */
    <T> T value(double offset, long tick) {
        return null;
    }

    /** When it stands elsewhere next after a tick, or never, while the stage has something that could change. */
    long next(long tick) {
        return Ticks.NEVER;
    }

    /** The same where the stage has nothing. */
    long nextIdle(long tick) {
        return Ticks.NEVER;
    }

    /** The first key was pressed. */
    void pressed(long tick) {
        // most do not care
    }

    /** The last key was let go of. */
    void released(long tick) {
        // most do not care
    }

    /** Everything was let go of, as by a stop. */
    void forget() {
        // most keep nothing
    }

    /** Goes on from where another stood that it takes the place of. */
    void goOnFrom(SourceRun before) {
        // most have no past
    }

    /** When to look again at what flows. */
    private static long look(long tick) {
        return (tick / MoveRun.LOOK_TICKS + 1) * MoveRun.LOOK_TICKS;
    }

    /** By the last note. */
    private static final class OfNote extends SourceRun {
        interface Reading {
            double of(NoteStart note);
        }

        private final MoveInput input;
        private final Reading reading;

        OfNote(Mover mover, MoveInput input, Reading reading) {
            super(mover);
            this.input = input;
            this.reading = reading;
        }

        @Override
        double place(long tick) {
            return input.last() == null ? Double.NaN : reading.of(input.last());
        }
    }

    /** By what has come otherwise. */
    private static final class OfInput extends SourceRun {
        interface Reading {
            double of(ParamSet settings);
        }

        private final Reading reading;

        OfInput(Mover mover, Reading reading) {
            super(mover);
            this.reading = reading;
        }

        @Override
        double place(long tick) {
            return reading.of(settings);
        }
    }

    private static final class OfLever extends SourceRun {
        private final RunContext context;

        OfLever(Mover mover, RunContext context) {
            super(mover);
            this.context = context;
        }

        @Override
        double place(long tick) {
            return context.renderer().lever(settings.get(Source.NAME), tick);
        }

        @Override
        long next(long tick) {
            return context.renderer().leverNext(settings.get(Source.NAME), tick);
        }
    }

    /** Points along the piece. */
    private static final class Automation extends SourceRun {
        private final RunContext context;

        Automation(Mover mover, RunContext context) {
            super(mover);
            this.context = context;
        }

        private boolean isLine() {
            return settings.get(Source.BETWEEN) == Source.Between.LINE;
        }

        /** The first of an automation's settings is its path. */
        private Param<?> points() {
            return settings.spec().params().get(0);
        }

        @Override
        @SuppressWarnings("unchecked") // Source.spec makes the path of the moved parameter's own type
        <T> T value(double offset, long tick) {
            Param<List<PathType.Point<T>>> points = (Param<List<PathType.Point<T>>>) points();
            PathType<T> path = (PathType<T>) points.type();
            boolean applies = context.running() && !settings.get(points).isEmpty();
            return applies ? path.at(settings.get(points), context.renderer().songAt(tick), isLine(), offset) : null;
        }

        @Override
        @SuppressWarnings("unchecked")
        long nextIdle(long tick) {
            if (!context.running()) {
                return Ticks.NEVER;
            }
            long song = context.renderer().songAt(tick);
            List<PathType.Point<Object>> points = (List<PathType.Point<Object>>) settings.get(points());
            long point = PathType.after(points, song);
            return Math.min(
                    point == Ticks.NEVER ? point : tick + point - song,
                    context.renderer().nextRound(tick));
        }

        @Override
        long next(long tick) {
            long next = nextIdle(tick);
            return isLine() && next != Ticks.NEVER ? Math.min(next, look(tick)) : next;
        }
    }

    private static final class Curve extends SourceRun {
        private final TimeMap time;

        Curve(Mover mover, TimeMap time) {
            super(mover);
            this.time = time;
        }

        @Override
        double place(long tick) {
            double loop = settings.get(Source.LOOP).ticksAt(0, time);
            double beats = tick % loop / time.meter().at(0).beatTicks();
            return CurveType.at(settings.get(Source.SHAPE_POINTS), beats) / 100;
        }

        @Override
        long next(long tick) {
            return look(tick);
        }
    }

    /** On a grid of its own. */
    private abstract static class OnGrid extends SourceRun {
        private final TimeMap time;
        private StepGrid grid;

        OnGrid(Mover mover, TimeMap time) {
            super(mover);
            this.time = time;
        }

        StepGrid grid() {
            if (grid == null) {
                grid = StepGrid.from(0, time, settings.get(Source.PACE), 50);
            }
            return grid;
        }

        /** The step in which a tick lies. */
        long stepAt(long tick) {
            long index = grid().indexAtOrAfter(tick);
            return grid().tickOf(index) == tick ? index : index - 1;
        }

        @Override
        long next(long tick) {
            return look(tick);
        }
    }

    private static final class Steps extends OnGrid {
        Steps(Mover mover, TimeMap time) {
            super(mover, time);
        }

        @Override
        double place(long tick) {
            List<Integer> heights = settings.get(Source.VALUES);
            return heights.isEmpty() ? Double.NaN : heights.get((int) (stepAt(tick) % heights.size())) / 100.0;
        }
    }

    private static final class Wave extends OnGrid {
        private final Chance chance;

        Wave(Mover mover, Chance chance, TimeMap time) {
            super(mover, time);
            this.chance = chance;
        }

        @Override
        double place(long tick) {
            long cycle = stepAt(tick);
            double begin = grid().tickOf(cycle);
            double turned =
                    cycle + (tick - begin) / (grid().tickOf(cycle + 1) - begin) + settings.get(Source.PHASE) / 100.0;
            double p = turned - Math.floor(turned);
            return switch (settings.get(Source.SHAPE)) {
                case SINE -> 0.5 + 0.5 * Math.sin(2 * Math.PI * p);
                case TRIANGLE -> p < 0.5 ? 2 * p : 2 - 2 * p;
                case RISE -> p;
                case FALL -> 1 - p;
                case SQUARE -> p < 0.5 ? 1 : 0;
                case RANDOM -> chance.at(tick).unitOf((long) Math.floor(turned), 0);
            };
        }
    }

    /** Rises with the first key and falls after the last. */
    private static final class Envelope extends SourceRun {
        private final TimeMap time;
        /** When the first of the keys that are held was pressed and the last one let go; -1 for never. */
        private long pressedTick = -1;

        private long releasedTick = -1;
        /** Where it stood when the last key was pressed or let go. */
        private double level;

        Envelope(Mover mover, TimeMap time) {
            super(mover);
            this.time = time;
        }

        @Override
        void pressed(long tick) {
            level = place(tick);
            pressedTick = tick;
            releasedTick = -1;
        }

        @Override
        void released(long tick) {
            level = place(tick);
            releasedTick = tick;
        }

        @Override
        void forget() {
            pressedTick = -1;
            releasedTick = -1;
            level = 0;
        }

        @Override
        void goOnFrom(SourceRun before) {
            if (before instanceof Envelope envelope) {
                pressedTick = envelope.pressedTick;
                releasedTick = envelope.releasedTick;
                level = envelope.level;
            }
        }

        @Override
        double place(long tick) {
            if (pressedTick < 0) {
                return 0;
            }
            if (releasedTick >= 0) {
                return level * Math.max(0, 1 - gone(releasedTick, settings.get(Source.RELEASE), tick));
            }
            double attack = gone(pressedTick, settings.get(Source.ATTACK), tick);
            if (attack < 1) {
                return level + (1 - level) * attack;
            }
            long top = time.after(pressedTick, settings.get(Source.ATTACK), 1);
            double stays = settings.get(Source.SUSTAIN) / 100.0;
            return 1 - (1 - stays) * Math.min(1, gone(top, settings.get(Source.DECAY), tick));
        }

        /** How much of a time has gone since it began; above 1 when it is over. */
        private double gone(long fromTick, TimeValue length, long tick) {
            long end = time.after(fromTick, length, 1);
            return end == fromTick ? 1 : (tick - fromTick) / (double) (end - fromTick);
        }

        @Override
        long next(long tick) {
            return look(tick);
        }
    }
}
