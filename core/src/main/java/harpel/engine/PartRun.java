package harpel.engine;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** A running part: its input, its chain, and its sound, which hears the chain or, dry, the input. Owned by the renderer. */
final class PartRun {
    final EventBuffer input = new EventBuffer();
    private final String id;
    private final ChainRun chain;
    private final SoundRun sound = new SoundRun();
    private final EventBuffer fromChain = new EventBuffer();
    private final EventBuffer toSound = new EventBuffer();
    private final EventBuffer sent = new EventBuffer();
    /** For every note that the sound was given and that has not ended: what it was given. */
    private final Map<NoteStart, NoteStart> heard = new IdentityHashMap<>();

    private final HeldHistory held = new HeldHistory();
    private RunContext context;
    private boolean dry;

    PartRun(String id) {
        this.id = id;
        this.chain = new ChainRun(id);
    }

    void update(Plan.PartPlan plan, RunContext newContext, long tick) {
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

    /** Notes what is held in the coming span, before any part is rendered. */
    void listen() {
        held.take(input);
    }

    int lowestHeld(long tick) {
        return held.lowestAt(tick);
    }

    void render(long to) {
        fromChain.clear();
        toSound.clear();
        chain.process(to, input, fromChain);
        for (Event event : chain.taken()) {
            context.tap().left(id, Tap.INPUT, event);
        }
        hear(dry ? input : fromChain);
        input.clear();
        play();
    }

    void stop(long tick, boolean ringOut, boolean mayRing) {
        fromChain.clear();
        toSound.clear();
        held.clear();
        List<NoteStart> inputs = chain.openInputs();
        for (NoteStart note : inputs) {
            context.tap().left(id, Tap.INPUT, NoteEnd.plain(tick, note));
        }
        chain.stop(tick, ringOut, mayRing, fromChain);
        if (dry) {
            change(tick, List.of());
        } else {
            hear(fromChain);
        }
        play();
    }

    void letGo(String address, long tick) {
        fromChain.clear();
        toSound.clear();
        chain.letGo(address, tick, fromChain);
        if (!dry) {
            hear(fromChain);
        }
        play();
    }

    private void play() {
        sent.clear();
        sound.process(toSound, sent);
        for (int i = 0; i < sent.size(); i++) {
            context.tap().left(id, Tap.SOUND, sent.get(i));
            context.renderer().sink().send(id, sent.get(i));
        }
    }

    long nextTick() {
        return chain.nextTick();
    }

    List<NoteStart> openInputs() {
        return chain.openInputs();
    }

    boolean isQuiet() {
        return chain.isQuiet() && sound.isQuiet();
    }
}
