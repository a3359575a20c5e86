package harpel.engine;

import harpel.effect.Chance;
import harpel.effect.Emitter;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.event.OpenNotes;
import harpel.param.RouteType.Route;
import harpel.time.Ticks;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.function.Consumer;
import java.util.function.Predicate;

/**
 * What leaves one stage: the ledger of what is open, what waits for its tick, and where notes went that were sent out of the chain. An
 * effect emits here. Owned by the renderer.
 */
final class Outgoing implements Emitter {
    private final String address;
    /** Whether a note passed by the effect, which then may not end it. */
    private final Predicate<NoteStart> passedBy;

    private final OpenNotes open = new OpenNotes();
    private final PriorityQueue<Event> waiting = new PriorityQueue<>(EventOrder.INSTANCE);
    /** For every note that was sent out of the chain and has not ended: where to. */
    private final Map<NoteStart, Consumer<Event>> elsewhere = new IdentityHashMap<>();

    private RunContext context;
    private Chance chance;
    private EventBuffer out;
    private int groupStart;
    private long now;

    Outgoing(String address, Predicate<NoteStart> passedBy) {
        this.address = address;
        this.passedBy = passedBy;
    }

    void context(RunContext newContext) {
        context = newContext;
    }

    void chance(Chance newChance) {
        chance = newChance;
    }

    /** Goes to a tick; what is sent from now on is appended there. */
    void begin(long tick, EventBuffer sink) {
        now = tick;
        out = sink;
        groupStart = sink.size();
        chance.at(tick);
    }

    /** Sends what waits up to {@code tick}, puts this tick's events into order and shows them to the tap. */
    void finish(long tick) {
        while (!waiting.isEmpty() && waiting.peek().tick() <= tick) {
            send(waiting.poll());
        }
        out.sortTick(groupStart);
        for (int i = groupStart; i < out.size() && context.tap() != Tap.NONE; i++) {
            context.tap().left(context.part(), address, out.get(i));
        }
    }

    /** Sends an event now; an end of what is not open is not sent. */
    void send(Event event) {
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

    /** Comes to know a note that sounds already and passes by. */
    void know(NoteStart note) {
        open.started(note);
        context.tap().left(context.part(), address, note);
    }

    /** Everything that is open, wherever it was sent, in order. */
    List<NoteStart> all() {
        return open.inOrder();
    }

    /** What is open in this chain, in order. */
    List<NoteStart> inChain() {
        List<NoteStart> notes = open.inOrder();
        notes.removeIf(elsewhere::containsKey);
        return notes;
    }

    boolean isElsewhere(NoteStart note) {
        return elsewhere.containsKey(note);
    }

    /** Forgets what waits. */
    void dropWaiting() {
        waiting.clear();
        elsewhere.keySet().removeIf(note -> !open.isOpen(note));
    }

    /** Sends all that waits, whenever it was due: for a stage that is gone and has no later. */
    void sendWaiting() {
        while (!waiting.isEmpty()) {
            send(waiting.poll());
        }
    }

    /** The tick of the first event that waits, or never. */
    long nextTick() {
        return waiting.isEmpty() ? Ticks.NEVER : waiting.peek().tick();
    }

    boolean isQuiet() {
        return open.isEmpty() && waiting.isEmpty();
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

    private Consumer<Event> wayTo(Route route) {
        return event -> context.renderer().deliver(route.to(), event, true);
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
    public void endAll() {
        dropWaiting();
        for (NoteStart note : open.inOrder()) {
            if (!passedBy.test(note)) {
                end(note, now, NoteEnd.PLAIN_RELEASE);
            }
        }
    }

    @Override
    public void pass(Message message) {
        send(message);
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
    public Chance chance() {
        return chance;
    }
}
