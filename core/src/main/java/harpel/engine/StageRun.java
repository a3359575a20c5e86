package harpel.engine;

import harpel.chain.Stage;
import harpel.effect.Chance;
import harpel.effect.Effect;
import harpel.effect.EffectKind;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.time.Ticks;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * Runs one effect and keeps its promises for it: what it opens is ended once, what waits is dropped when it is switched off, what
 * it must not touch passes by. Owned by the renderer.
 */
final class StageRun implements Node {
    /** Stands for a note that passed by the effect. */
    private static final NoteStart PASSED = NoteStart.played(0, 0, 0, 0, 1);

    private final String address;
    /** Every note that came in and has not ended: what the effect was given for it, or {@link #PASSED}. */
    private final Map<NoteStart, NoteStart> inputs = new IdentityHashMap<>();

    private final Outgoing out;
    private EffectKind kind;
    private Effect effect;
    /** The values as they are set, and as they are moved at this moment. */
    private ParamSet base;

    private ParamSet values;
    private final MoveRun moves;
    /** The tick at which the values were looked at last. */
    private long lookTick = -1;

    private boolean on;
    /** Whether the effect works: it is on and has not been left. */
    private boolean acting;

    private int onlyChannel;
    private RunContext context;
    private long seed;

    StageRun(String address) {
        this.address = address;
        this.moves = new MoveRun(address);
        this.out = new Outgoing(address, note -> inputs.get(note) == PASSED);
    }

    @Override
    public void update(Stage stage, RunContext newContext, long tick, EventBuffer sink) {
        boolean known = stage.isKnown();
        long newSeed = known && stage.params().spec().has(EffectKind.SEED)
                ? stage.params().get(EffectKind.SEED)
                : 0;
        if (effect == null || newSeed != seed || newContext.variation() != context.variation()) {
            seed = newSeed;
            out.chance(Chance.of(newContext.variation(), seed, address));
        }
        boolean otherContext = context == null
                || !newContext.time().equals(context.time())
                || !newContext.key().equals(context.key())
                || newContext.channel() != context.channel();
        context = newContext.at(address);
        out.context(context);
        kind = stage.kind();
        base = stage.params();
        moves.update(stage.moves(), context);
        lookTick = tick;
        if (!known) {
            values = base;
            return;
        }
        ParamSet now = moves.at(base, inputs.size(), tick);
        if (effect == null) {
            values = now;
            on = values.get(EffectKind.ON);
            acting = on;
            onlyChannel = values.get(EffectKind.CHANNEL);
            renew(tick);
        } else {
            out.begin(tick, sink);
            take(now, otherContext);
            out.finish(tick - 1);
        }
    }

    /** Takes values that hold from now on. */
    private void take(ParamSet newValues, boolean changed) {
        boolean wasOn = on;
        boolean differ = changed || !newValues.equals(values);
        values = newValues;
        on = values.get(EffectKind.ON);
        onlyChannel = values.get(EffectKind.CHANNEL);
        if (wasOn && !on) {
            switchOff();
        } else if (!wasOn && on) {
            acting = true;
            renew(out.tick());
            if (kind.holdsNotes()) {
                takeOver(out.inChain());
            }
        } else if (differ) {
            effect.configure(values, context, out.tick());
        }
    }

    /** Takes the values that what moves them gives for this tick. */
    private void move() {
        if (!moves.isEmpty() && kind != null) {
            ParamSet moved = moves.at(base, inputs.size(), out.tick());
            if (!moved.equals(values)) {
                context.tap().moved(context.part(), address, moved);
                take(moved, false);
            }
        }
    }

    private void renew(long tick) {
        effect = kind.create();
        effect.configure(values, context, tick);
    }

    @Override
    public void restart(long tick) {
        lookTick = tick;
        if (kind != null) {
            values = moves.at(base, inputs.size(), tick);
            on = values.get(EffectKind.ON);
            onlyChannel = values.get(EffectKind.CHANNEL);
            acting = on;
            renew(tick);
        }
    }

    @Override
    public void join(List<NoteStart> sounding, long tick, EventBuffer sink) {
        for (NoteStart note : sounding) {
            inputs.put(note, PASSED);
            out.know(note);
        }
        if (on && kind.holdsNotes()) {
            out.begin(tick, sink);
            takeOver(sounding);
            out.finish(tick);
        }
    }

    /** Notes that passed by end here and are given to the effect as if they were struck now. */
    private void takeOver(List<NoteStart> sounding) {
        for (NoteStart note : sounding) {
            if (inputs.get(note) == PASSED && concerns(note)) {
                out.end(note, out.tick(), NoteEnd.PLAIN_RELEASE);
                NoteStart struckAgain = note.derive(out.tick(), note.pitch(), note.velocity());
                inputs.put(note, struckAgain);
                effect.start(struckAgain, out);
            }
        }
    }

    private boolean concerns(Event event) {
        return onlyChannel == 0 || event.channel() < 0 || event.channel() == onlyChannel - 1;
    }

    @Override
    public void process(long to, List<Event> input, EventBuffer sink) {
        int next = 0;
        int size = input.size();
        while (true) {
            long inputTick = next < size ? input.get(next).tick() : Ticks.NEVER;
            long ownTick = nextTick();
            long tick = Math.min(inputTick, ownTick < to ? ownTick : Ticks.NEVER);
            if (tick == Ticks.NEVER) {
                return;
            }
            out.begin(tick, sink);
            move();
            while (next < size && input.get(next).tick() == tick) {
                take(input.get(next++));
            }
            if (tick < to && on && effect.nextStep() <= tick) {
                effect.step(out);
            }
            out.finish(tick < to ? tick : tick - 1);
            lookTick = tick;
        }
    }

    private void take(Event event) {
        if (event instanceof NoteStart note) {
            inputs.put(note, PASSED);
            moves.hear(event, inputs.size());
            move();
            if (on && concerns(note)) {
                inputs.put(note, note);
                effect.start(note, out);
            } else {
                out.send(note);
            }
        } else if (event instanceof NoteEnd end) {
            NoteStart given = inputs.remove(end.start());
            moves.hear(event, inputs.size());
            move();
            if (given == PASSED) {
                out.send(end);
            } else if (given != null && on) {
                // A note that was taken over may be let go at the very tick at which it was struck again.
                effect.end(
                        given == end.start() ? end : NoteEnd.atOrAfter(end.tick(), given, end.releaseVelocity()), out);
            }
        } else {
            moves.hear(event, inputs.size());
            move();
            if (on && concerns(event)) {
                effect.message((Message) event, out);
            } else {
                out.send(event);
            }
        }
    }

    @Override
    public long nextTick() {
        long next = on ? effect.nextStep() : Ticks.NEVER;
        next = Math.min(next, out.nextTick());
        if (moves.isEmpty()) {
            return next;
        }
        boolean busy = next != Ticks.NEVER || !isQuiet() || !inputs.isEmpty();
        return Math.min(next, moves.nextLook(lookTick, busy));
    }

    @Override
    public List<NoteStart> open() {
        return out.inChain();
    }

    @Override
    public void leave(long tick, EventBuffer sink) {
        out.begin(tick, sink);
        switchOff();
        // Even what was struck at this very tick.
        out.sendWaiting();
        out.finish(tick);
    }

    /** Ends what the effect made; notes that go through it untouched go on. */
    private void switchOff() {
        if (acting) {
            effect.leave(out);
        }
        acting = false;
        out.dropWaiting();
        for (NoteStart note : out.all()) {
            if (inputs.containsKey(note)) {
                inputs.put(note, PASSED);
                if (out.isElsewhere(note)) {
                    // A played note that was sent away untouched ends there; it is not struck here.
                    out.send(NoteEnd.plain(out.tick(), note));
                }
            } else {
                out.end(note, out.tick(), NoteEnd.PLAIN_RELEASE);
            }
        }
        inputs.values().removeIf(given -> given != PASSED);
    }

    @Override
    public void depart(long tick) {
        for (NoteStart note : out.inChain()) {
            context.tap().left(context.part(), address, NoteEnd.plain(tick, note));
        }
    }

    @Override
    public void stop(long tick, boolean ringing, boolean mayRing, EventBuffer sink) {
        if (ringing || mayRing && ringsOut()) {
            withEffect(tick, sink, () -> effect.stopGenerating(out));
            return;
        }
        inputs.clear();
        leave(tick, sink);
        moves.forget();
        restart(tick);
    }

    @Override
    public void act(String wanted, long tick, EventBuffer sink) {
        if (address.equals(wanted)) {
            withEffect(tick, sink, () -> effect.act(out));
        }
    }

    private void withEffect(long tick, EventBuffer sink, Runnable action) {
        if (on) {
            out.begin(tick, sink);
            action.run();
            out.finish(tick - 1);
        }
    }

    @Override
    public boolean ringsOut() {
        return on && kind.ringsOut(values);
    }

    @Override
    public boolean isQuiet() {
        return out.isQuiet();
    }
}
