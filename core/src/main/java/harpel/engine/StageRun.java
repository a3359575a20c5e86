package harpel.engine;

import harpel.chain.Stage;
import harpel.effect.Chance;
import harpel.effect.Effect;
import harpel.effect.EffectKind;
import harpel.effect.Emitter;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.event.OpenNotes;
import harpel.param.ParamSet;
import harpel.param.RouteType.Route;
import harpel.time.Ticks;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.function.Consumer;

/**
 * Runs one effect and keeps its promises for it: what it opens is ended once, what waits is dropped when it is switched off, what
 * it must not touch passes by. Owned by the renderer.
 */
final class StageRun implements Node, Emitter {
    /** Stands for a note that passed by the effect. */
    private static final NoteStart PASSED = NoteStart.played(0, 0, 0, 0, 1);

    private final String address;
    private final OpenNotes open = new OpenNotes();
    /** Every note that came in and has not ended: what the effect was given for it, or {@link #PASSED}. */
    private final Map<NoteStart, NoteStart> inputs = new IdentityHashMap<>();

    /** For every open note that was sent out of the chain: where to. */
    private final Map<NoteStart, Consumer<Event>> elsewhere = new IdentityHashMap<>();

    private final PriorityQueue<Event> waiting = new PriorityQueue<>(EventOrder.INSTANCE);

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
    private Chance chance;
    private long seed;
    private EventBuffer out;
    private int groupStart;
    private long now;

    StageRun(String address) {
        this.address = address;
        this.moves = new MoveRun(address);
    }

    @Override
    public void update(Stage stage, RunContext newContext, long tick, EventBuffer sink) {
        boolean known = stage.isKnown();
        long newSeed = known && stage.params().spec().has(EffectKind.SEED)
                ? stage.params().get(EffectKind.SEED)
                : 0;
        if (effect == null || newSeed != seed || newContext.variation() != context.variation()) {
            seed = newSeed;
            chance = Chance.of(newContext.variation(), seed, address);
        }
        boolean otherContext = context == null
                || !newContext.time().equals(context.time())
                || !newContext.key().equals(context.key())
                || newContext.channel() != context.channel();
        context = newContext.at(address);
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
            begin(tick, sink);
            take(now, otherContext);
            finish(tick - 1);
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
            renew(now);
            if (kind.holdsNotes()) {
                takeOver(open());
            }
        } else if (differ) {
            effect.configure(values, context, now);
        }
    }

    /** Takes the values that what moves them gives for this tick. */
    private void move() {
        if (!moves.isEmpty() && kind != null) {
            ParamSet moved = moves.at(base, inputs.size(), now);
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
            open.started(note);
            context.tap().left(context.part(), address, note);
        }
        if (on && kind.holdsNotes()) {
            begin(tick, sink);
            takeOver(sounding);
            finish(tick);
        }
    }

    /** Notes that passed by end here and are given to the effect as if they were struck now. */
    private void takeOver(List<NoteStart> sounding) {
        for (NoteStart note : sounding) {
            if (inputs.get(note) == PASSED && concerns(note)) {
                end(note, now, NoteEnd.PLAIN_RELEASE);
                NoteStart struckAgain = note.derive(now, note.pitch(), note.velocity());
                inputs.put(note, struckAgain);
                effect.start(struckAgain, this);
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
            begin(tick, sink);
            move();
            while (next < size && input.get(next).tick() == tick) {
                take(input.get(next++));
            }
            if (tick < to && on && effect.nextStep() <= tick) {
                effect.step(this);
            }
            finish(tick < to ? tick : tick - 1);
            lookTick = tick;
        }
    }

    private void begin(long tick, EventBuffer sink) {
        now = tick;
        out = sink;
        groupStart = sink.size();
        if (chance != null) {
            chance.at(tick);
        }
    }

    /** Sends what waits up to {@code tick}, puts this tick's events into order and shows them to the tap. */
    private void finish(long tick) {
        while (!waiting.isEmpty() && waiting.peek().tick() <= tick) {
            send(waiting.poll());
        }
        out.sortTick(groupStart);
        for (int i = groupStart; i < out.size() && context.tap() != Tap.NONE; i++) {
            context.tap().left(context.part(), address, out.get(i));
        }
    }

    private void take(Event event) {
        if (event instanceof NoteStart note) {
            inputs.put(note, PASSED);
            moves.hear(event, inputs.size());
            move();
            if (on && concerns(note)) {
                inputs.put(note, note);
                effect.start(note, this);
            } else {
                send(note);
            }
        } else if (event instanceof NoteEnd end) {
            NoteStart given = inputs.remove(end.start());
            moves.hear(event, inputs.size());
            move();
            if (given == PASSED) {
                send(end);
            } else if (given != null && on) {
                // A note that was taken over may be let go at the very tick at which it was struck again.
                effect.end(
                        given == end.start() ? end : NoteEnd.atOrAfter(end.tick(), given, end.releaseVelocity()), this);
            }
        } else {
            moves.hear(event, inputs.size());
            move();
            if (on && concerns(event)) {
                effect.message((Message) event, this);
            } else {
                send(event);
            }
        }
    }

    private void send(Event event) {
        Consumer<Event> to = null;
        if (event instanceof NoteStart note) {
            open.started(note);
            to = elsewhere.get(note);
        } else if (event instanceof NoteEnd end) {
            if (!open.ended(end.start())) {
                return;
            }
            to = elsewhere.remove(end.start());
        }
        if (to != null) {
            to.accept(event);
        } else {
            out.add(event);
        }
    }

    private Consumer<Event> wayTo(Route route) {
        return event -> context.renderer().deliver(route.to(), event, true);
    }

    @Override
    public void start(NoteStart note, Route route) {
        if (route.leaves()) {
            elsewhere.put(note, wayTo(route));
        }
        start(note);
    }

    @Override
    public void startAside(NoteStart note) {
        if (context.aside() != null) {
            elsewhere.put(note, context.aside()::add);
            start(note);
        }
    }

    @Override
    public void pass(Message message, Route route) {
        Message sent = route.channel() > 0 ? message.onChannel(route.channel() - 1) : message;
        if (route.leaves()) {
            wayTo(route).accept(sent);
        } else {
            send(sent);
        }
    }

    @Override
    public void strikeAgain(Route route) {
        context.renderer().strikeAgain(route.leaves() ? route.to() : context.part(), now);
    }

    @Override
    public void endAll() {
        waiting.clear();
        for (NoteStart note : open.inOrder()) {
            if (inputs.get(note) != PASSED) {
                end(note, now, NoteEnd.PLAIN_RELEASE);
            }
        }
    }

    @Override
    public long tick() {
        return now;
    }

    @Override
    public void start(NoteStart note) {
        if (note.tick() < now) {
            throw new IllegalStateException(address + " started a note in the past, at " + now + ": " + note);
        }
        if (note.tick() == now) {
            send(note);
        } else {
            waiting.add(note);
        }
    }

    @Override
    public void end(NoteStart note, long tick, int releaseVelocity) {
        long due = Math.max(Math.max(tick, now), note.tick() + 1);
        NoteEnd end = new NoteEnd(due, note, releaseVelocity);
        if (due == now) {
            send(end);
        } else {
            waiting.add(end);
        }
    }

    @Override
    public void pass(Message message) {
        send(message);
    }

    @Override
    public Chance chance() {
        return chance;
    }

    @Override
    public long nextTick() {
        long next = on ? effect.nextStep() : Ticks.NEVER;
        next = waiting.isEmpty() ? next : Math.min(next, waiting.peek().tick());
        if (moves.isEmpty()) {
            return next;
        }
        boolean busy = next != Ticks.NEVER || !isQuiet() || !inputs.isEmpty();
        return Math.min(next, moves.nextLook(lookTick, busy));
    }

    @Override
    public List<NoteStart> open() {
        List<NoteStart> notes = open.inOrder();
        notes.removeIf(elsewhere::containsKey);
        return notes;
    }

    @Override
    public void leave(long tick, EventBuffer sink) {
        begin(tick, sink);
        switchOff();
        // Sent at once, even what was struck at this very tick: a stage that is gone has no later.
        while (!waiting.isEmpty()) {
            send(waiting.poll());
        }
        finish(tick);
    }

    /** Ends what the effect made; notes that go through it untouched go on. */
    private void switchOff() {
        if (acting) {
            effect.leave(this);
        }
        acting = false;
        waiting.clear();
        for (NoteStart note : open.inOrder()) {
            if (inputs.containsKey(note)) {
                inputs.put(note, PASSED);
                sendOn(note, now);
            } else {
                end(note, now, NoteEnd.PLAIN_RELEASE);
            }
        }
        inputs.values().removeIf(given -> given != PASSED);
    }

    /** A played note that was sent elsewhere untouched ends there; where the effect is no more it is not struck here. */
    private void sendOn(NoteStart note, long tick) {
        if (elsewhere.containsKey(note)) {
            send(NoteEnd.plain(tick, note));
        }
    }

    @Override
    public void depart(long tick) {
        for (NoteStart note : open()) {
            context.tap().left(context.part(), address, NoteEnd.plain(tick, note));
        }
    }

    @Override
    public void stop(long tick, boolean ringing, boolean mayRing, EventBuffer sink) {
        if (ringing || mayRing && ringsOut()) {
            withEffect(tick, sink, () -> effect.stopGenerating(this));
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
            withEffect(tick, sink, () -> effect.act(this));
        }
    }

    private void withEffect(long tick, EventBuffer sink, Runnable action) {
        if (on) {
            begin(tick, sink);
            action.run();
            finish(tick - 1);
        }
    }

    @Override
    public boolean ringsOut() {
        return on && kind.ringsOut(values);
    }

    @Override
    public boolean isQuiet() {
        return open.isEmpty() && waiting.isEmpty();
    }
}
