package harpel.engine;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** A running part: its input, its chain, and its sound, which hears the chain or, dry, the input. Owned by the renderer. */
final class PartRun {
    private final Inbox inbox = new Inbox();
    private final String id;
    private final ChainRun chain;
    private final SoundRun sound = new SoundRun();
    private final EventBuffer fromChain = new EventBuffer();
    private final EventBuffer toSound = new EventBuffer();
    private final EventBuffer sent = new EventBuffer();
    /** For every note that the sound was given and that has not ended: what it was given. */
    private final Map<NoteStart, NoteStart> heard = new IdentityHashMap<>();

    private final HeldHistory held = new HeldHistory();
    /** For every note that came from another part and has not ended: the note it is here, and whether a stage sent it. */
    private final Map<NoteStart, Foreign> fromOthers = new IdentityHashMap<>();

    private RunContext context;
    private Plan.PartPlan plan;
    private boolean dry;
    /** Whether the held notes of this span have been taken note of. */
    private boolean listened;

    private record Foreign(NoteStart here, boolean sent) {}

    PartRun(Plan.PartPlan plan) {
        this.id = plan.id();
        this.plan = plan;
        this.chain = new ChainRun(id);
    }

    void update(Plan.PartPlan newPlan, RunContext newContext, long tick) {
        if (!plan.hears().equals(newPlan.hears())) {
            endHeard(tick);
        }
        plan = newPlan;
        context = newContext;
        fromChain.clear();
        chain.update(plan.chain(), context, tick, fromChain);
        toSound.clear();
        if (!dry) {
            hear(fromChain);
        }
        if (plan.dry() != dry) {
            dry = plan.dry();
            change(tick, dry ? chain.openInputs() : chain.open());
        }
        play();
    }

    /** Takes an event of its own input. */
    void take(Event event) {
        inbox.add(event);
    }

    /**
     * Takes an event of another part, on this part's channel.
     *
     * @param sent whether a stage sent it here; else this part hears the other
     */
    void takeFromOther(Event event, boolean sent) {
        if (event instanceof NoteStart note) {
            NoteStart here = note.onChannel(plan.channel());
            fromOthers.put(note, new Foreign(here, sent));
            inbox.add(here);
        } else if (event instanceof NoteEnd end) {
            Foreign foreign = fromOthers.remove(end.start());
            if (foreign != null) {
                inbox.add(new NoteEnd(end.tick(), foreign.here, end.releaseVelocity()));
            }
        } else {
            inbox.add(((Message) event).onChannel(plan.channel()));
        }
    }

    /** Ends the notes of a part that is not heard any more. */
    private void endHeard(long tick) {
        fromOthers.values().removeIf(foreign -> {
            if (!foreign.sent) {
                inbox.add(NoteEnd.plain(tick, foreign.here));
            }
            return !foreign.sent;
        });
    }

    /** Strikes what sounds again, at a tick of the coming span. */
    void strikeAgain(long tick) {
        sound.strikeAgain(tick);
    }

    /** Ends what is heard and strikes what the other way holds at this moment. */
    private void change(long tick, List<NoteStart> struckAgain) {
        heard.values().forEach(note -> toSound.add(NoteEnd.plain(tick, note)));
        heard.clear();
        for (NoteStart note : struckAgain) {
            NoteStart again = note.derive(tick, note.pitch(), note.velocity());
            heard.put(note, again);
            toSound.add(again);
        }
        toSound.sortAll();
    }

    private void hear(List<Event> events) {
        for (int i = 0; i < events.size(); i++) {
            Event event = events.get(i);
            if (event instanceof NoteStart note) {
                heard.put(note, note);
                toSound.add(note);
            } else if (event instanceof NoteEnd end) {
                NoteStart given = heard.remove(end.start());
                if (given == end.start()) {
                    toSound.add(end);
                } else if (given != null) {
                    toSound.add(NoteEnd.atOrAfter(end.tick(), given, end.releaseVelocity()));
                }
            } else {
                toSound.add(event);
            }
        }
    }

    /** Takes note of what is held in the coming span, before any part that may ask is rendered. */
    void listen(long done, long to) {
        if (!listened) {
            held.take(inbox.waiting(), Math.max(to, done + 1));
            listened = true;
        }
    }

    int lowestHeld(long tick) {
        return held.lowestAt(tick);
    }

    void render(long done, long to) {
        fromChain.clear();
        toSound.clear();
        listen(done, to);
        listened = false;
        List<Event> input = inbox.take(done, to);
        chain.process(to, input, fromChain);
        for (Event event : chain.taken()) {
            context.tap().left(id, Tap.INPUT, event);
            deliver(plan.inputTo(), event);
        }
        hear(dry ? chain.taken() : fromChain);
        play(Math.max(to, done + 1));
    }

    void stop(long tick, boolean ringOut, boolean mayRing) {
        fromChain.clear();
        toSound.clear();
        held.clear();
        sound.strikeNothing();
        inbox.clear();
        fromOthers.clear();
        List<NoteStart> inputs = chain.openInputs();
        for (NoteStart note : inputs) {
            context.tap().left(id, Tap.INPUT, NoteEnd.plain(tick, note));
            deliver(plan.inputTo(), NoteEnd.plain(tick, note));
        }
        chain.stop(tick, ringOut, mayRing, fromChain);
        if (dry) {
            change(tick, List.of());
        } else {
            hear(fromChain);
        }
        play();
    }

    /** Begins anew at a tick, after a stop. */
    void restart(long tick) {
        chain.restart(tick);
    }

    void act(String address, long tick) {
        fromChain.clear();
        toSound.clear();
        chain.act(address, tick, fromChain);
        if (!dry) {
            hear(fromChain);
        }
        play();
    }

    private void deliver(List<String> others, Event event) {
        for (int i = 0; i < others.size(); i++) {
            context.renderer().deliver(others.get(i), event, false);
        }
    }

    private void play() {
        play(Long.MIN_VALUE);
    }

    private void play(long to) {
        sent.clear();
        sound.process(toSound, to, sent);
        for (int i = 0; i < sent.size(); i++) {
            context.tap().left(id, Tap.SOUND, sent.get(i));
            context.renderer().sink().send(id, sent.get(i));
            deliver(plan.outputTo(), sent.get(i));
        }
    }

    long nextTick() {
        return Math.min(chain.nextTick(), inbox.nextTick());
    }

    List<NoteStart> openInputs() {
        return chain.openInputs();
    }

    boolean isFed() {
        return plan.fed();
    }

    boolean isQuiet() {
        return inbox.isEmpty() && chain.isQuiet() && sound.isQuiet();
    }
}
