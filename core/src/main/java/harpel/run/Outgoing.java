package harpel.run;

import harpel.effect.Chance;
import harpel.effect.Emitter;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteMap;
import harpel.event.NoteStart;
import harpel.param.music.RouteType.Route;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;
import java.util.PriorityQueue;
import java.util.function.Consumer;

/**
 * What leaves one stage: the ledger of what came in and what for it went out, what waits for its tick, and where notes went that were
 * sent out of the chain. An effect emits here. Owned by the renderer.
 */
final class Outgoing implements Emitter {
    /** In the ledger of what came in: the effect was given the note itself and ends what it makes of it. */
    private static final Object GIVEN = new Object();

    /** In the ledger of what came in: the effect was given this note for it. */
    private record Instead(NoteStart note) {}

    /** A note that the effect made, and where it goes; null for on. One that waits has not started yet. */
    private static final class Made {
        final Consumer<Event> to;
        boolean open;

        Made(Consumer<Event> to) {
            this.to = to;
        }
    }

    private final String address;
    /**
     * Every note that came in and has not ended: the one note that went out for it and ends with it, {@link #GIVEN}, or
     * {@link Instead}.
     */
    private final NoteMap<Object> came = new NoteMap<>();
    /** So many of those have a note that went out for them. */
    private int following;

    private final NoteMap<Made> made = new NoteMap<>();
    private final PriorityQueue<Event> waiting = new PriorityQueue<>(EventOrder.INSTANCE);

    private RunContext context;
    private Chance chance;
    private EventBuffer out;
    private int groupStart;
    private long now;

    Outgoing(String address) {
        this.address = address;
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
        Tap tap = context.tap();
        if (tap != Tap.NONE) {
            for (int i = groupStart; i < out.size(); i++) {
                tap.left(context.part(), address, out.get(i));
            }
        }
    }

    // What came in

    /** A note came in; nothing has become of it yet. */
    void takeIn(NoteStart note) {
        came.put(note, GIVEN);
    }

    /** A note came in and became one other, itself, or, with null, nothing. */
    void takeIn(NoteStart note, NoteStart follower) {
        if (follower == null || full()) {
            came.put(note, GIVEN);
        } else {
            came.put(note, follower);
            following++;
            out.add(follower);
        }
    }

    int cameIn() {
        return came.size();
    }

    /** A note goes past the effect. */
    void passBy(NoteStart note) {
        came.put(note, note);
        following++;
        out.add(note);
    }

    /** Whether a note that came in went past the effect, or through it unchanged as the only one. */
    boolean wentThrough(NoteStart note) {
        return came.get(note) == note;
    }

    /** The effect is given another note for one that came in. */
    void giveInstead(NoteStart note, NoteStart instead) {
        came.put(note, new Instead(instead));
    }

    /** A note ends that came in: what went out for it alone ends, too; else gives the end that the effect shall hear, or null. */
    NoteEnd takeOut(NoteEnd end) {
        Object given = came.remove(end.start());
        if (given == null) {
            return null;
        }
        if (given == GIVEN) {
            return end;
        }
        if (given instanceof Instead instead) {
            // A note that was taken over may be let go at the very tick at which it was struck again.
            return NoteEnd.atOrAfter(end.tick(), instead.note, end.releaseVelocity());
        }
        NoteStart followed = (NoteStart) given;
        following--;
        if (followed == end.start()) {
            out.add(end);
        } else {
            emitEnd(NoteEnd.atOrAfter(end.tick(), followed, end.releaseVelocity()));
        }
        return null;
    }

    /** The end of a note that is in no ledger any more, now or when it has lasted a tick. */
    private void emitEnd(NoteEnd end) {
        if (end.tick() == now) {
            out.add(end);
        } else {
            made.put(end.start(), opened(new Made(null)));
            waiting.add(end);
        }
    }

    private Made opened(Made one) {
        one.open = true;
        return one;
    }

    @Override
    public void follow(NoteStart note, NoteStart follower) {
        if (full()) {
            return;
        }
        came.put(note, follower);
        following++;
        out.add(follower);
    }

    /** What came in is forgotten; what went out for it is in the ledger of what was made, and nobody ends it but {@link #endMade}. */
    void forgetInputs() {
        came.forEach((note, given) -> {
            if (given instanceof NoteStart followed) {
                made.put(followed, opened(new Made(null)));
            }
        });
        came.clear();
        following = 0;
    }

    /** Comes to know a note that sounds already and passes by. */
    void know(NoteStart note) {
        came.put(note, note);
        following++;
        context.tap().left(context.part(), address, note);
    }

    /** Ends a note that went past, so that the effect may be given it. */
    void takeBack(NoteStart note) {
        came.put(note, GIVEN);
        following--;
        emitEnd(NoteEnd.plain(now, note));
    }

    /**
     * Ends what the effect made; notes that go through it untouched go on past it, and what else came in is forgotten.
     */
    void endMade() {
        dropWaiting();
        List<NoteStart> through = new ArrayList<>();
        came.removeIf((note, given) -> {
            Made same = given == GIVEN ? made.get(note) : null;
            if (given == note || same != null && same.open && same.to == null) {
                through.add(note);
                made.remove(note);
            } else if (given instanceof NoteStart followed && made.get(followed) == null) {
                made.put(followed, opened(new Made(null)));
            }
            return true;
        });
        through.forEach(note -> came.put(note, note));
        following = through.size();
        for (NoteStart note : inOrder(made)) {
            end(note, now, NoteEnd.PLAIN_RELEASE);
        }
    }

    /** Ends the notes that the effect made by itself, of nothing that came in. */
    void endOwn() {
        for (NoteStart note : inOrder(made)) {
            if (note.cause() == null && !withdraw(note)) {
                end(note, now, NoteEnd.PLAIN_RELEASE);
            }
        }
    }

    // What went out

    /** Sends an event of the effect now; an end of what is not open is not sent. */
    private void send(Event event) {
        Made one = null;
        if (event instanceof NoteStart note) {
            one = made.get(note);
            one.open = true;
        } else if (event instanceof NoteEnd end) {
            one = made.get(end.start());
            if (one == null || !one.open) {
                return;
            }
            made.remove(end.start());
        }
        if (one != null && one.to != null) {
            if (context.tap() != Tap.NONE) {
                context.tap().tell(new Told.Away(context.part(), address, event));
            }
            one.to.accept(event);
        } else {
            out.add(event);
        }
    }

    private static List<NoteStart> inOrder(NoteMap<?> notes) {
        List<NoteStart> list = new ArrayList<>(notes.size());
        notes.forEach((note, value) -> list.add(note));
        list.sort(EventOrder.INSTANCE);
        return list;
    }

    /** What is open in this chain, in order. */
    List<NoteStart> inChain() {
        List<NoteStart> notes = new ArrayList<>();
        came.forEach((note, given) -> {
            if (given instanceof NoteStart followed) {
                notes.add(followed);
            }
        });
        made.forEach((note, one) -> {
            if (one.open && one.to == null) {
                notes.add(note);
            }
        });
        notes.sort(EventOrder.INSTANCE);
        return notes;
    }

    /** Forgets what waits. */
    private void dropWaiting() {
        waiting.clear();
        made.removeIf((note, one) -> !one.open);
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
        return made.isEmpty() && following == 0 && waiting.isEmpty();
    }

    /** How many notes are open or wait. */
    int load() {
        return made.size() + following;
    }

    private boolean full() {
        return !context.load().takes(load(), context, now);
    }

    @Override
    public long tick() {
        return now;
    }

    @Override
    public void start(NoteStart note) {
        start(note, (Consumer<Event>) null);
    }

    @Override
    public void start(NoteStart note, Route route) {
        start(note, route.leaves() ? wayTo(route) : null);
    }

    @Override
    public void lost(int pitch) {
        context.tap().tell(new Told.Lost(context.part(), address, now, pitch));
    }

    @Override
    public void startAside(NoteStart note) {
        if (context.aside() != null) {
            start(note, context.aside()::add);
        }
    }

    private void start(NoteStart note, Consumer<Event> to) {
        if (note.tick() < now) {
            throw new IllegalStateException(address + " started a note in the past, at " + now + ": " + note);
        }
        if (full()) {
            return;
        }
        if (made.put(note, new Made(to)) != null) {
            throw new IllegalStateException("one note was started twice: " + note);
        }
        if (note.tick() == now) {
            send(note);
        } else {
            waiting.add(note);
        }
    }

    private Consumer<Event> wayTo(Route route) {
        return event -> {
            boolean arrives = context.renderer().deliver(route.to(), event, true);
            if (!arrives && event instanceof NoteStart) {
                context.tap().tell(new Told.Astray(context.part(), address, event.tick(), route.to()));
            }
        };
    }

    @Override
    public void end(NoteStart note, long tick, int releaseVelocity) {
        if (!made.containsKey(note)) {
            return;
        }
        long due = Math.max(Math.max(tick, now), note.tick() + 1);
        NoteEnd end = new NoteEnd(due, note, releaseVelocity);
        if (note.tick() >= now && !came.containsKey(note)) {
            // It is ended as it starts: those after this stage may know how long it will last. What came in is not the
            // stage's own.
            note.lasting(due - note.tick());
        }
        if (due == now) {
            send(end);
        } else {
            waiting.add(end);
        }
    }

    @Override
    public boolean withdraw(NoteStart note) {
        Made one = made.get(note);
        if (one == null || one.open) {
            return false;
        }
        made.remove(note);
        waiting.removeIf(event -> event == note || event instanceof NoteEnd end && end.start() == note);
        return true;
    }

    @Override
    public void endAll() {
        dropWaiting();
        for (NoteStart note : inOrder(made)) {
            end(note, now, NoteEnd.PLAIN_RELEASE);
        }
    }

    /** Sends an event past the effect. */
    void passBy(Event event) {
        out.add(event);
    }

    @Override
    public void pass(Message message) {
        out.add(message);
    }

    @Override
    public void pass(Message message, Route route) {
        Message sent = route.channel() > 0 ? message.onChannel(route.channel() - 1) : message;
        if (route.leaves()) {
            context.tap().tell(new Told.Away(context.part(), address, sent));
            wayTo(route).accept(sent);
        } else {
            out.add(sent);
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
