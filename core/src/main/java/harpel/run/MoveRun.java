package harpel.run;

import harpel.effect.Chance;
import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.move.Mover;
import harpel.move.Moves;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.plan.Blend;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/**
 * What moves one stage's parameters, as it plays: knows what has come to the stage and says what every value is at a tick. Sources
 * that flow are looked at with every event and step and at every 64th note between them. Owned by the renderer.
 */
final class MoveRun {
    /** How often a value that flows is looked at. */
    static final long LOOK_TICKS = Ticks.PER_QUARTER / 16;

    private final String address;
    private final MoveInput input = new MoveInput();
    private Moves moves = Moves.NONE;
    private RunContext context;
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
    private record Moved(Param<?> param, List<Mover> movers, List<SourceRun> sources) {}

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
                && context.renderer() == newContext.renderer()
                && context.present() == newContext.present()
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
        for (Map.Entry<String, List<Mover>> entry : moves.byParam().entrySet()) {
            String id = entry.getKey();
            List<SourceRun> sources = new ArrayList<>();
            for (int i = 0; i < entry.getValue().size(); i++) {
                // Each draws for itself: its place in the list is part of the address.
                Chance chance = Chance.of(context.draws(), 0, address + "#" + id + i);
                SourceRun source = SourceRun.of(entry.getValue().get(i), input, chance, context);
                goOn(source, before, id, i);
                sources.add(source);
            }
            spec.anywhere(id).ifPresent(param -> moved.add(new Moved(param, entry.getValue(), sources)));
        }
        any = !moved.isEmpty() || other != null;
    }

    /** A source goes on from the one that stood in its place, else from the keys that are held. */
    private void goOn(SourceRun source, List<Moved> before, String id, int place) {
        if (pressedTick >= 0) {
            source.pressed(pressedTick);
        }
        if (releasedTick >= 0) {
            source.released(releasedTick);
        }
        for (Moved one : before) {
            if (one.param.id().equals(id) && place < one.sources.size()) {
                source.goOnFrom(one.sources.get(place));
            }
        }
    }

    boolean isEmpty() {
        return !any;
    }

    /** Takes note of an event that comes to the stage; so many notes are held there with it. */
    void hear(Event event, int held) {
        input.hear(event);
        if (event instanceof NoteStart && held == 1) {
            all(source -> source.pressed(event.tick()));
            pressedTick = event.tick();
            releasedTick = -1;
        } else if (event instanceof NoteEnd && held == 0) {
            all(source -> source.released(event.tick()));
            releasedTick = event.tick();
        }
    }

    /** Everything was let go, as by a stop. */
    void forget() {
        pressedTick = -1;
        releasedTick = -1;
        all(SourceRun::forget);
    }

    private void all(Consumer<SourceRun> action) {
        for (int i = 0; i < moved.size(); i++) {
            moved.get(i).sources.forEach(action);
        }
    }

    /** The values at a tick, while so many notes are held. */
    ParamSet at(ParamSet base, int held, long tick) {
        input.hold(held);
        ParamSet values = other == null ? base : between(base, tick);
        for (int i = 0; i < moved.size(); i++) {
            Moved one = moved.get(i);
            values = moved(values, one.param, one.movers, one.sources, tick);
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

    private static <T> ParamSet moved(
            ParamSet values, Param<T> param, List<Mover> movers, List<SourceRun> sources, long tick) {
        double offset = 0;
        for (int i = 0; i < sources.size(); i++) {
            SourceRun source = sources.get(i);
            double place = source.place(tick);
            offset += Double.isNaN(place) ? 0 : source.mover.offset(place);
        }
        T written = null;
        for (int i = 0; i < sources.size(); i++) {
            T own = sources.get(i).value(offset, tick);
            written = own == null ? written : own;
        }
        T moved = written == null
                ? Mover.moved(values.typeOf(param), values.get(param), offset, movers)
                : Mover.allowed(written, offset, movers);
        return moved.equals(values.get(param)) ? values : values.with(param, moved);
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
            List<SourceRun> sources = moved.get(i).sources;
            for (int k = 0; k < sources.size(); k++) {
                SourceRun source = sources.get(k);
                next = Math.min(next, busy ? source.next(tick) : source.nextIdle(tick));
            }
        }
        return next;
    }
}
