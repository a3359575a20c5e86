package harpel.engine;

import harpel.effect.Chance;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.move.Mover;
import harpel.move.Moves;
import harpel.move.Source;
import harpel.param.CurveType;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.PathType;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;

/**
 * What moves one stage's parameters, as it plays: knows what has come to the stage and says what every value is at a tick. Sources
 * that flow are looked at with every event and step and at every 64th note between them. Owned by the renderer.
 */
final class MoveRun {
    /** How often a value that flows is looked at. */
    static final long LOOK_TICKS = Ticks.PER_QUARTER / 16;

    private final String address;
    private final byte[] controllers = new byte[128];
    private Moves moves = Moves.NONE;
    private RunContext context;
    private int held;
    /** The last note that came; null before the first. */
    private NoteStart last;

    private int pressure;
    private int keyPressure;
    private long notes;
    /** When the first of the keys that are held was pressed and the last one let go; -1 for never. */
    private long pressedTick = -1;

    private long releasedTick = -1;
    private List<Moved> moved = List.of();
    private boolean any;
    private ParamSpec known;
    /** The values of the stage in the part's other chain, where a lever stands between; and what was made of them last. */
    private ParamSet other;

    private ParamSet blended;
    private ParamSet blendedOf;
    private double blendedWay;

    /** A parameter that is moved, and what moves it. */
    private record Moved(Param<?> param, List<Running> movers) {}

    /** One mover, with what it needs to say where it stands. */
    private static final class Running {
        final Mover mover;
        /** Each mover draws for itself: its place in the list is part of the address. */
        final Chance chance;

        private StepGrid grid;
        /** Where an envelope stood when the last key was pressed or let go. */
        double level;

        Running(Mover mover, Chance chance) {
            this.mover = mover;
            this.chance = chance;
        }

        /** The mover's own grid. */
        StepGrid grid(TimeMap time) {
            if (grid == null) {
                grid = StepGrid.from(0, time, mover.settings().get(Source.PACE), 50);
            }
            return grid;
        }
    }

    MoveRun(String address) {
        this.address = address;
    }

    void update(Moves newMoves, ParamSpec spec, RunContext newContext) {
        ParamSet newOther =
                newContext.blend() == null ? null : newContext.blend().other().get(address);
        boolean same = newMoves == moves
                && newOther == other
                && spec == known
                && context != null
                && context.time() == newContext.time()
                && context.draws().equals(newContext.draws());
        context = newContext;
        known = spec;
        moves = newMoves;
        other = newOther;
        blended = null;
        if (same) {
            return;
        }
        List<Moved> before = moved;
        moved = new ArrayList<>();
        moves.byParam().forEach((id, movers) -> {
            List<Running> running = new ArrayList<>();
            for (int i = 0; i < movers.size(); i++) {
                Running one = new Running(movers.get(i), Chance.of(context.draws(), 0, address + "#" + id + i));
                one.level = levelBefore(before, id, i);
                running.add(one);
            }
            spec.anywhere(id).ifPresent(param -> moved.add(new Moved(param, running)));
        });
        any = !moved.isEmpty() || other != null;
    }

    private static double levelBefore(List<Moved> before, String id, int place) {
        for (Moved one : before) {
            if (one.param.id().equals(id) && place < one.movers.size()) {
                return one.movers.get(place).level;
            }
        }
        return 0;
    }

    boolean isEmpty() {
        return !any;
    }

    /** Takes note of an event that comes to the stage; so many notes are held there with it. */
    void hear(Event event, int held) {
        if (event instanceof NoteStart note) {
            notes = last != null && note.tick() == last.tick() ? notes + 1 : 0;
            last = note;
            if (held == 1) {
                rememberLevels(note.tick());
                pressedTick = note.tick();
                releasedTick = -1;
            }
        } else if (event instanceof NoteEnd end) {
            if (held == 0) {
                rememberLevels(end.tick());
                releasedTick = end.tick();
            }
        } else if (event instanceof Message message) {
            if ((message.status() & 0xF0) == Message.CONTROL_CHANGE) {
                controllers[message.data(1)] = (byte) message.data(2);
            } else if ((message.status() & 0xF0) == Message.CHANNEL_PRESSURE) {
                pressure = message.data(1);
            } else if ((message.status() & 0xF0) == Message.POLY_PRESSURE) {
                keyPressure = message.data(2);
            }
        }
    }

    /** Everything was let go, as by a stop. */
    void forget() {
        pressedTick = -1;
        releasedTick = -1;
        for (Moved one : moved) {
            for (Running running : one.movers) {
                running.level = 0;
            }
        }
    }

    /** The values at a tick, while so many notes are held. */
    ParamSet at(ParamSet base, int held, long tick) {
        this.held = held;
        ParamSet values = other == null ? base : between(base, tick);
        for (int i = 0; i < moved.size(); i++) {
            values = moved(values, moved.get(i).param, moved.get(i).movers, tick);
        }
        return values;
    }

    /** The values between the part's two chains. */
    private ParamSet between(ParamSet base, long tick) {
        double lever = context.renderer().lever(context.blend().lever(), tick);
        double way = Double.isNaN(lever) ? 0 : context.blend().way(lever);
        if (blended == null || blendedOf != base || blendedWay != way) {
            blended = Blend.between(base, other, way);
            blendedOf = base;
            blendedWay = way;
        }
        return blended;
    }

    private <T> ParamSet moved(ParamSet values, Param<T> param, List<Running> movers, long tick) {
        T value = values.get(param);
        double offset = 0;
        for (int i = 0; i < movers.size(); i++) {
            Running running = movers.get(i);
            if (running.mover.source() == Source.AUTOMATION) {
                value = automated(value, running.mover, tick);
            } else {
                double place = place(running, tick);
                offset += Double.isNaN(place) ? 0 : running.mover.offset(place);
            }
        }
        T moved = values.typeOf(param).moved(value, offset);
        return moved.equals(values.get(param)) ? values : values.with(param, moved);
    }

    @SuppressWarnings("unchecked") // Source.spec makes the path of the moved parameter's own type
    private <T> T automated(T value, Mover mover, long tick) {
        ParamSet settings = mover.settings();
        Param<List<PathType.Point<T>>> points =
                (Param<List<PathType.Point<T>>>) settings.spec().params().get(0);
        PathType<T> path = (PathType<T>) points.type();
        boolean line = settings.get(Source.BETWEEN) == Source.Between.LINE;
        boolean applies = context.running() && !settings.get(points).isEmpty();
        return applies ? path.at(settings.get(points), context.renderer().songAt(tick), line) : value;
    }

    /** Where a source stands, 0–1, or NaN when it has nothing to say yet. */
    private double place(Running running, long tick) {
        ParamSet settings = running.mover.settings();
        return switch (running.mover.source()) {
            case AUTOMATION -> Double.NaN;
            case VELOCITY -> last == null ? Double.NaN : (last.velocity() - 1) / 126.0;
            case KEY -> last == null ? Double.NaN : last.pitch() / 127.0;
            case KEYS_HELD -> Math.min(1, held / (double) settings.get(Source.MOST));
            case CONTROLLER -> controllers[settings.get(Source.NUMBER)] / 127.0;
            case PRESSURE -> pressure / 127.0;
            case KEY_PRESSURE -> keyPressure / 127.0;
            case LEVER -> context.renderer().lever(settings.get(Source.NAME), tick);
            case RANDOM ->
                last == null ? Double.NaN : running.chance.at(last.tick()).unitOf(last.tick(), notes);
            case CURVE -> curve(settings, tick);
            case LFO -> wave(running, tick);
            case ENVELOPE -> envelope(running, tick);
            case STEPS -> {
                List<Integer> heights = settings.get(Source.VALUES);
                long step = stepAt(running, tick);
                yield heights.isEmpty() ? Double.NaN : heights.get((int) (step % heights.size())) / 100.0;
            }
        };
    }

    private double curve(ParamSet settings, long tick) {
        TimeMap time = context.time();
        double loop = settings.get(Source.LOOP).ticksAt(0, time);
        double beats = tick % loop / time.meter().at(0).beatTicks();
        return CurveType.at(settings.get(Source.SHAPE_POINTS), beats) / 100;
    }

    /** The step of a mover's own grid in which a tick lies. */
    private long stepAt(Running running, long tick) {
        StepGrid grid = running.grid(context.time());
        long index = grid.indexAtOrAfter(tick);
        return grid.tickOf(index) == tick ? index : index - 1;
    }

    private double wave(Running running, long tick) {
        ParamSet settings = running.mover.settings();
        long cycle = stepAt(running, tick);
        StepGrid grid = running.grid(context.time());
        double begin = grid.tickOf(cycle);
        double turned = cycle + (tick - begin) / (grid.tickOf(cycle + 1) - begin) + settings.get(Source.PHASE) / 100.0;
        double p = turned - Math.floor(turned);
        return switch (settings.get(Source.SHAPE)) {
            case SINE -> 0.5 + 0.5 * Math.sin(2 * Math.PI * p);
            case TRIANGLE -> p < 0.5 ? 2 * p : 2 - 2 * p;
            case RISE -> p;
            case FALL -> 1 - p;
            case SQUARE -> p < 0.5 ? 1 : 0;
            case RANDOM -> running.chance.at(tick).unitOf((long) Math.floor(turned), 0);
        };
    }

    private void rememberLevels(long tick) {
        for (int i = 0; i < moved.size(); i++) {
            List<Running> movers = moved.get(i).movers;
            for (int k = 0; k < movers.size(); k++) {
                if (movers.get(k).mover.source() == Source.ENVELOPE) {
                    movers.get(k).level = envelope(movers.get(k), tick);
                }
            }
        }
    }

    private double envelope(Running running, long tick) {
        if (pressedTick < 0) {
            return 0;
        }
        ParamSet settings = running.mover.settings();
        double from = running.level;
        if (releasedTick >= 0) {
            return from * Math.max(0, 1 - gone(releasedTick, settings.get(Source.RELEASE), tick));
        }
        double attack = gone(pressedTick, settings.get(Source.ATTACK), tick);
        if (attack < 1) {
            return from + (1 - from) * attack;
        }
        long top = context.time().after(pressedTick, settings.get(Source.ATTACK), 1);
        double stays = settings.get(Source.SUSTAIN) / 100.0;
        return 1 - (1 - stays) * Math.min(1, gone(top, settings.get(Source.DECAY), tick));
    }

    /** How much of a time has gone since it began; above 1 when it is over. */
    private double gone(long fromTick, TimeValue length, long tick) {
        long end = context.time().after(fromTick, length, 1);
        return end == fromTick ? 1 : (tick - fromTick) / (double) (end - fromTick);
    }

    /**
     * When to look again after {@code tick}, or never.
     *
     * @param busy whether the stage has anything a value could change
     */
    long nextLook(long tick, boolean busy) {
        long next = other != null && busy
                ? context.renderer().leverNext(context.blend().lever(), tick)
                : Ticks.NEVER;
        for (int i = 0; i < moved.size(); i++) {
            List<Running> movers = moved.get(i).movers;
            for (int k = 0; k < movers.size(); k++) {
                next = Math.min(next, nextLook(movers.get(k).mover, tick, busy));
            }
        }
        return next;
    }

    private long nextLook(Mover mover, long tick, boolean busy) {
        boolean flows = switch (mover.source()) {
            case CURVE, LFO, STEPS, ENVELOPE -> true;
            case AUTOMATION -> mover.settings().get(Source.BETWEEN) == Source.Between.LINE && context.running();
            default -> false;
        };
        long next = Ticks.NEVER;
        if (mover.source() == Source.AUTOMATION && context.running()) {
            long song = context.renderer().songAt(tick);
            long point = PathType.after(points(mover), song);
            next = Math.min(
                    point == Ticks.NEVER ? point : tick + point - song,
                    context.renderer().nextRound(tick));
            flows &= next != Ticks.NEVER;
        } else if (mover.source() == Source.LEVER && busy) {
            next = context.renderer().leverNext(mover.settings().get(Source.NAME), tick);
        }
        return flows && busy ? Math.min(next, (tick / LOOK_TICKS + 1) * LOOK_TICKS) : next;
    }

    @SuppressWarnings("unchecked") // the first of an automation's settings is its path
    private static List<PathType.Point<Object>> points(Mover mover) {
        Param<?> first = mover.settings().spec().params().get(0);
        return (List<PathType.Point<Object>>) mover.settings().get(first);
    }
}
