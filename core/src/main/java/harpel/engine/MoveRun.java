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
import harpel.param.PathType;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What moves one stage's parameters, as it plays: knows what has come to the stage and says what every value is at a tick. Sources
 * that flow are looked at with every event and step and at every 64th note between them. Owned by the renderer.
 */
final class MoveRun {
    /** How often a value that flows is looked at. */
    private static final long LOOK_TICKS = Ticks.PER_QUARTER / 16;

    private final String address;
    private final byte[] controllers = new byte[128];
    private Moves moves = Moves.NONE;
    private RunContext context;
    private int held;
    private double velocity = Double.NaN;
    private double key = Double.NaN;
    private int pressure;
    private long notes;
    private long lastNoteTick;
    /** When the first of the keys that are held was pressed and the last one let go; -1 for never. */
    private long pressedTick = -1;

    private long releasedTick = -1;
    private final Map<Mover, StepGrid> grids = new HashMap<>();
    private final Map<Mover, Double> levels = new HashMap<>();

    MoveRun(String address) {
        this.address = address;
    }

    void update(Moves newMoves, RunContext newContext) {
        moves = newMoves;
        context = newContext;
        grids.clear();
    }

    boolean isEmpty() {
        return moves.isEmpty();
    }

    /** Takes note of an event that comes to the stage; so many notes are held there with it. */
    void hear(Event event, int held) {
        if (event instanceof NoteStart note) {
            velocity = (note.velocity() - 1) / 126.0;
            key = note.pitch() / 127.0;
            notes = note.tick() == lastNoteTick ? notes + 1 : 0;
            lastNoteTick = note.tick();
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
            }
        }
    }

    /** Everything was let go, as by a stop. */
    void forget() {
        pressedTick = -1;
        releasedTick = -1;
        levels.clear();
    }

    /** The values at a tick, while so many notes are held. */
    ParamSet at(ParamSet base, int held, long tick) {
        this.held = held;
        ParamSet values = base;
        for (Map.Entry<String, List<Mover>> entry : moves.byParam().entrySet()) {
            Param<?> param = base.spec().byId(entry.getKey()).orElse(null);
            if (param != null) {
                values = moved(values, param, entry.getValue(), tick);
            }
        }
        return values;
    }

    private <T> ParamSet moved(ParamSet values, Param<T> param, List<Mover> movers, long tick) {
        T value = values.get(param);
        double offset = 0;
        for (Mover mover : movers) {
            if (mover.source() == Source.AUTOMATION) {
                value = automated(value, param, mover, tick);
            } else {
                double place = place(mover, tick);
                offset += Double.isNaN(place) ? 0 : mover.offset(place);
            }
        }
        T moved = param.type().moved(value, offset);
        return moved.equals(values.get(param)) ? values : values.with(param, moved);
    }

    @SuppressWarnings("unchecked") // Source.spec makes the path of the moved parameter's own type
    private <T> T automated(T value, Param<T> param, Mover mover, long tick) {
        ParamSet settings = mover.settings();
        Param<List<PathType.Point<T>>> points =
                (Param<List<PathType.Point<T>>>) settings.spec().params().get(0);
        PathType<T> path = (PathType<T>) points.type();
        boolean line = settings.get(Source.BETWEEN) == Source.Between.LINE;
        boolean applies = context.running() && !settings.get(points).isEmpty();
        return applies ? path.at(settings.get(points), tick, line) : value;
    }

    /** Where a source stands, 0–1, or NaN when it has nothing to say yet. */
    private double place(Mover mover, long tick) {
        ParamSet settings = mover.settings();
        return switch (mover.source()) {
            case AUTOMATION -> Double.NaN;
            case VELOCITY -> velocity;
            case KEY -> key;
            case KEYS_HELD -> Math.min(1, held / (double) settings.get(Source.MOST));
            case CONTROLLER -> controllers[settings.get(Source.NUMBER)] / 127.0;
            case PRESSURE -> pressure / 127.0;
            case LEVER -> context.renderer().lever(settings.get(Source.NAME), tick);
            case RANDOM -> Double.isNaN(key) ? Double.NaN : draw(mover).unitOf(lastNoteTick, notes);
            case CURVE -> curve(settings, tick);
            case LFO -> wave(mover, tick);
            case ENVELOPE -> envelope(mover, tick);
            case STEPS -> {
                List<Integer> heights = settings.get(Source.VALUES);
                long step = stepAt(mover, tick);
                yield heights.isEmpty() ? Double.NaN : heights.get((int) (step % heights.size())) / 100.0;
            }
        };
    }

    /** Each mover draws for itself: its place in the list is part of the address. */
    private Chance draw(Mover mover) {
        StringBuilder place = new StringBuilder(address);
        moves.byParam().forEach((id, movers) -> {
            for (int i = 0; i < movers.size(); i++) {
                if (movers.get(i) == mover) {
                    place.append('#').append(id).append(i);
                }
            }
        });
        return Chance.of(context.variation(), 0, place.toString());
    }

    private double curve(ParamSet settings, long tick) {
        TimeMap time = context.time();
        double loop = settings.get(Source.LOOP).ticksAt(0, time);
        double beats = tick % loop / time.meter().at(0).beatTicks();
        return CurveType.at(settings.get(Source.SHAPE_POINTS), beats) / 100;
    }

    /** The step of a mover's own grid in which a tick lies. */
    private long stepAt(Mover mover, long tick) {
        StepGrid grid = grids.computeIfAbsent(
                mover, one -> StepGrid.from(0, context.time(), one.settings().get(Source.PACE), 50));
        long index = grid.indexAtOrAfter(tick);
        return grid.tickOf(index) == tick ? index : index - 1;
    }

    private double wave(Mover mover, long tick) {
        ParamSet settings = mover.settings();
        long cycle = stepAt(mover, tick);
        StepGrid grid = grids.get(mover);
        double begin = grid.tickOf(cycle);
        double turned = cycle + (tick - begin) / (grid.tickOf(cycle + 1) - begin) + settings.get(Source.PHASE) / 100.0;
        double p = turned - Math.floor(turned);
        return switch (settings.get(Source.SHAPE)) {
            case SINE -> 0.5 - 0.5 * Math.cos(2 * Math.PI * p);
            case TRIANGLE -> p < 0.5 ? 2 * p : 2 - 2 * p;
            case RISE -> p;
            case FALL -> 1 - p;
            case SQUARE -> p < 0.5 ? 1 : 0;
            case RANDOM -> draw(mover).unitOf((long) Math.floor(turned), 0);
        };
    }

    private void rememberLevels(long tick) {
        Map<Mover, Double> now = new HashMap<>();
        for (List<Mover> movers : moves.byParam().values()) {
            for (Mover mover : movers) {
                if (mover.source() == Source.ENVELOPE) {
                    now.put(mover, envelope(mover, tick));
                }
            }
        }
        levels.clear();
        levels.putAll(now);
    }

    private double envelope(Mover mover, long tick) {
        if (pressedTick < 0) {
            return 0;
        }
        ParamSet settings = mover.settings();
        double from = levels.getOrDefault(mover, 0.0);
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
        long next = Ticks.NEVER;
        for (List<Mover> movers : moves.byParam().values()) {
            for (Mover mover : movers) {
                next = Math.min(next, nextLook(mover, tick, busy));
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
            next = PathType.after(points(mover), tick);
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
