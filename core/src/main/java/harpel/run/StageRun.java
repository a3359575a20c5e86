package harpel.run;

import harpel.chain.Stage;
import harpel.effect.Chance;
import harpel.effect.Effect;
import harpel.effect.EffectKind;
import harpel.effect.NoteByNote;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.time.Ticks;
import java.util.List;

/**
 * Runs one effect and keeps its promises for it: what it opens is ended once, what waits is dropped when it is switched off, what
 * it must not touch passes by. Owned by the renderer.
 */
final class StageRun implements Node {
    /** What waited while it was not rendered is done late, so time may go back a little; not more often than this. */
    private static final int MOST_BACK = 1_000;

    private final String address;
    private final Outgoing out;
    private EffectKind kind;
    private Effect effect;
    /** The effect where it makes one note of each, or null. */
    private NoteByNote direct;

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
        this.out = new Outgoing(address);
    }

    @Override
    public void update(Stage stage, RunContext newContext, long tick, EventBuffer sink) {
        boolean known = stage.isKnown();
        long newSeed = known && stage.params().spec().has(EffectKind.SEED)
                ? stage.params().get(EffectKind.SEED)
                : 0;
        if (effect == null || newSeed != seed || !newContext.draws().equals(context.draws())) {
            seed = newSeed;
            out.chance(Chance.of(newContext.draws(), seed, address));
        }
        boolean otherContext = context == null
                || !newContext.time().equals(context.time())
                || !newContext.key().equals(context.key())
                || newContext.channel() != context.channel()
                || newContext.present() != context.present();
        context = newContext.at(address);
        out.context(context);
        kind = stage.kind();
        base = stage.params();
        moves.update(stage.moves(), base.spec(), context);
        lookTick = tick;
        if (!known) {
            values = base;
            return;
        }
        ParamSet now = moves.at(base, out.cameIn(), tick);
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
            if (kind.nature().holdsNotes()) {
                takeOver(out.inChain());
            }
        } else if (differ) {
            effect.configure(values, context, out.tick());
        }
    }

    /** Takes the values that what moves them gives for this tick. */
    private void move() {
        if (!moves.isEmpty() && kind != null) {
            ParamSet moved = moves.at(base, out.cameIn(), out.tick());
            if (!moved.equals(values)) {
                context.tap().tell(new Told.Moved(context.part(), address, moved));
                take(moved, false);
            }
        }
    }

    private void renew(long tick) {
        effect = kind.create();
        direct = effect instanceof NoteByNote one ? one : null;
        effect.configure(values, context, tick);
    }

    @Override
    public void restart(long tick) {
        lookTick = tick;
        if (kind != null) {
            values = moves.at(base, out.cameIn(), tick);
            on = values.get(EffectKind.ON);
            onlyChannel = values.get(EffectKind.CHANNEL);
            acting = on;
            renew(tick);
        }
    }

    @Override
    public void join(List<NoteStart> sounding, long tick, EventBuffer sink) {
        sounding.forEach(out::know);
        if (on && kind.nature().holdsNotes()) {
            out.begin(tick, sink);
            takeOver(sounding);
            out.finish(tick);
        }
    }

    /** Notes that passed by end here and are given to the effect as if they were struck now. */
    private void takeOver(List<NoteStart> sounding) {
        for (NoteStart note : sounding) {
            if (out.wentThrough(note) && concerns(note)) {
                out.takeBack(note);
                NoteStart struckAgain = note.derive(out.tick(), note.pitch(), note.velocity());
                out.giveInstead(note, struckAgain);
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
        int back = 0;
        while (true) {
            long inputTick = next < size ? input.get(next).tick() : Ticks.NEVER;
            long ownTick = nextTick();
            long tick = Math.min(inputTick, ownTick < to ? ownTick : Ticks.NEVER);
            if (tick == Ticks.NEVER) {
                return;
            }
            if (tick < lookTick && ++back > MOST_BACK) {
                // It would go round for ever; whoever renders ends all notes and says so.
                throw new IllegalStateException(
                        kind + " at " + address + " goes back to tick " + tick + " each time it comes to " + lookTick);
            }
            context.renderer().work();
            out.begin(tick, sink);
            move();
            while (next < size && input.get(next).tick() == tick) {
                take(input.get(next++));
            }
            if (tick < to && nextStep() <= tick) {
                effect.step(out);
            }
            out.finish(tick < to ? tick : tick - 1);
            lookTick = tick;
        }
    }

    private void take(Event event) {
        if (event instanceof NoteStart note) {
            if (direct != null && moves.isEmpty() && on && concerns(note)) {
                moves.hear(event, 0);
                out.takeIn(note, direct.change(note, out));
                return;
            }
            out.takeIn(note);
            hear(event);
            if (on && concerns(note)) {
                effect.start(note, out);
            } else {
                out.passBy(note);
            }
        } else if (event instanceof NoteEnd end) {
            NoteEnd given = out.takeOut(end);
            hear(event);
            if (given != null && on) {
                effect.end(given, out);
            }
        } else {
            hear(event);
            if (on && concerns(event)) {
                effect.message((Message) event, out);
            } else {
                out.passBy(event);
            }
        }
    }

    private void hear(Event event) {
        moves.hear(event, out.cameIn());
        move();
    }

    private long nextStep() {
        return !on || direct != null ? Ticks.NEVER : effect.nextStep();
    }

    @Override
    public long nextTick() {
        long next = Math.min(nextStep(), out.nextTick());
        if (moves.isEmpty()) {
            return next;
        }
        boolean busy = next != Ticks.NEVER || !isQuiet() || out.cameIn() > 0;
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
        out.endMade();
    }

    @Override
    public void depart(long tick) {
        for (NoteStart note : out.inChain()) {
            context.tap().left(context.part(), address, NoteEnd.plain(tick, note));
        }
    }

    @Override
    public void stop(long tick, Ending how, EventBuffer sink) {
        if (how.rings() || how.mayRing() && ringsOut()) {
            withEffect(tick, sink, () -> {
                effect.stopGenerating(out);
                if (how == Ending.REST) {
                    out.endOwn();
                }
            });
            return;
        }
        out.forgetInputs();
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
        return on && kind.nature().ringsOut(values);
    }

    @Override
    public boolean isQuiet() {
        return out.isQuiet();
    }
}
