package harpel.run;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteMap;
import harpel.event.NoteStart;
import harpel.event.OpenNotes;
import harpel.plan.Plan;
import java.util.List;

/** A running part: its input, its chain, and its sound, which hears the chain or, dry, the input. Owned by the renderer. */
final class PartRun {
    private final Inbox inbox = new Inbox();
    /** What is heard past the chain. */
    private final Inbox ready = new Inbox();

    /** The notes of it that have not ended. */
    private final OpenNotes readyOpen = new OpenNotes();

    private final String id;
    private final ChainRun chain;
    private final SoundRun sound = new SoundRun();
    private final EventBuffer fromChain = new EventBuffer();
    private final EventBuffer toSound = new EventBuffer();
    private final EventBuffer sent = new EventBuffer();
    /** What a change on the way brought, to be heard in order with what else its tick brings. */
    private final EventBuffer changed = new EventBuffer();

    /** For every note that the sound was given struck again, when the way to it changed: what it was given. */
    private final NoteMap<NoteStart> again = new NoteMap<>();

    private final HeldHistory held = new HeldHistory();
    /** For every note that came from another part and has not ended: the note it is here, and whether a stage sent it. */
    private final NoteMap<Foreign> fromOthers = new NoteMap<>();

    private final Load load = new Load();

    private RunContext context;
    private Plan.PartPlan plan;
    /** Whether it is heard without its chain, and whether a hand holds it so. */
    private boolean dry;

    private boolean heldDry;
    /** Whether anyone asks what is held here. */
    private boolean listenedTo;

    /** Whether the held notes of this span have been taken note of. */
    private boolean listened;

    private boolean onTheWay;
    /** Where it falls silent with the coming events; -1 where it does not. */
    private long fallsSilent = -1;
    /** The notes that began, or were ended, in silence, and go on without being heard. */
    private final NoteMap<Boolean> unheard = new NoteMap<>();

    private record Foreign(NoteStart here, boolean sent) {}

    PartRun(Plan.PartPlan plan, boolean listenedTo) {
        this.listenedTo = listenedTo;
        this.id = plan.id();
        this.plan = plan;
        this.chain = new ChainRun(id);
    }

    /** Takes another plan on the way: what ends by it is heard with the next span, which begins at that tick. */
    void goOn(Plan.PartPlan newPlan, RunContext newContext, long tick) {
        onTheWay = true;
        update(newPlan, newContext, tick);
        onTheWay = false;
    }

    void update(Plan.PartPlan newPlan, RunContext newContext, long tick) {
        if (!plan.hears().equals(newPlan.hears())) {
            endHeard(tick);
        }
        if (plan.present()
                && !newPlan.present()
                && context != null
                && newContext.renderer().isRunning()) {
            rest(tick);
        }
        if (newPlan.silent() && !plan.silent()) {
            fallsSilent = tick;
        }
        plan = newPlan;
        context = newContext;
        load.shareAmong(plan.chain());
        fromChain.clear();
        chain.update(plan.chain(), context, tick, fromChain);
        toSound.clear();
        if (!dry) {
            hear(fromChain);
        }
        changeWay(tick);
        play();
    }

    Load load() {
        return load;
    }

    boolean runs(Plan.PartPlan one) {
        return context != null && plan == one;
    }

    /** Is heard without its chain for now, or as the plan says again. */
    void hearDry(boolean newHeldDry, long tick) {
        heldDry = newHeldDry;
        toSound.clear();
        changeWay(tick);
        play();
    }

    private void changeWay(long tick) {
        boolean wanted = heldDry || plan.dry();
        if (wanted != dry) {
            dry = wanted;
            change(tick, dry ? chain.openInputs() : chain.open());
        }
    }

    /** Takes an event of its own input. */
    void take(Event event) {
        inbox.add(event);
    }

    /** Takes an event of a ready phrase, which is heard past the chain. */
    void takeReady(Event event) {
        ready.add(event);
    }

    /**
     * Takes an event of another part, on this part's channel.
     *
     * @param sent whether a stage sent it here; else this part hears the other
     */
    void takeFromOther(Event event, boolean sent) {
        if (!plan.present() && context.renderer().isRunning() && !(event instanceof NoteEnd)) {
            return;
        }
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
        fromOthers.forEach((note, foreign) -> {
            if (!foreign.sent) {
                inbox.add(NoteEnd.plain(tick, foreign.here));
            }
        });
        fromOthers.removeIf((note, foreign) -> !foreign.sent);
    }

    /** Strikes what sounds again, at a tick of the coming span. */
    void strikeAgain(long tick) {
        sound.strikeAgain(tick);
    }

    /** Ends what is heard and strikes what the other way holds at this moment. */
    private void change(long tick, List<NoteStart> struckAgain) {
        for (NoteStart note : sound.given()) {
            if (!readyOpen.isOpen(note)) {
                toSound.add(NoteEnd.plain(tick, note));
            }
        }
        again.clear();
        for (NoteStart note : struckAgain) {
            NoteStart struck = note.derive(tick, note.pitch(), note.velocity());
            again.put(note, struck);
            toSound.add(struck);
        }
        toSound.sortAll();
    }

    private void hear(List<Event> events) {
        for (int i = 0; i < events.size(); i++) {
            Event event = events.get(i);
            NoteStart struck = event instanceof NoteEnd end && !again.isEmpty() ? again.remove(end.start()) : null;
            toSound.add(
                    struck == null
                            ? event
                            : NoteEnd.atOrAfter(event.tick(), struck, ((NoteEnd) event).releaseVelocity()));
        }
    }

    private void hearReady(long done, long to) {
        if (ready.isEmpty()) {
            return;
        }
        List<Event> events = ready.take(done, to);
        for (int i = 0; i < events.size(); i++) {
            Event event = events.get(i);
            if (event instanceof NoteStart note) {
                readyOpen.started(note);
            } else if (event instanceof NoteEnd end) {
                readyOpen.ended(end.start());
            }
            toSound.add(event);
        }
        toSound.sortAll();
    }

    /** Takes note of what is held in the coming span, before any part that may ask is rendered. */
    void listen(long done, long to) {
        if (listenedTo && !listened) {
            held.take(inbox.waiting(), Math.max(to, done + 1));
            listened = true;
        }
    }

    void beListenedTo() {
        listenedTo = true;
        held.begin(chain.openInputs());
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
        boolean merge = !changed.isEmpty();
        toSound.addAll(changed);
        changed.clear();
        List<Event> taken = chain.taken();
        for (int i = 0; i < taken.size(); i++) {
            context.tap().left(id, Tap.INPUT, taken.get(i));
            deliver(plan.inputTo(), taken.get(i));
        }
        hear(dry ? chain.taken() : fromChain);
        hearReady(done, to);
        if (merge) {
            toSound.sortAll();
        }
        play(Math.max(to, done + 1));
    }

    void stop(long tick, Ending how) {
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
        chain.stop(tick, how, fromChain);
        if (dry) {
            change(tick, List.of());
        } else {
            hear(fromChain);
        }
        ready.clear();
        readyOpen.inOrder().forEach(note -> toSound.add(NoteEnd.plain(tick, note)));
        readyOpen.clear();
        play();
    }

    /** Is not there any more: what it hears ends, what plays by itself rests, repeats may ring. */
    private void rest(long tick) {
        fromChain.clear();
        toSound.clear();
        fromOthers.clear();
        for (NoteStart note : chain.openInputs()) {
            context.tap().left(id, Tap.INPUT, NoteEnd.plain(tick, note));
            deliver(plan.inputTo(), NoteEnd.plain(tick, note));
        }
        chain.stop(tick, Ending.REST, fromChain);
        if (!dry) {
            hear(fromChain);
        } else {
            change(tick, List.of());
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
        if (onTheWay) {
            changed.addAll(toSound);
        } else {
            play(Long.MIN_VALUE);
        }
    }

    private void play(long to) {
        sent.clear();
        if (fallsSilent >= 0) {
            fallSilent();
        }
        sound.process(toSound, to, sent);
        for (int i = 0; i < sent.size(); i++) {
            deliver(plan.outputTo(), sent.get(i));
            if (isHeard(sent.get(i))) {
                send(sent.get(i));
            }
        }
    }

    private void send(Event event) {
        context.tap().left(id, Tap.SOUND, event);
        context.renderer().sink().send(id, event);
    }

    /** What sounds ends, for those who listen; other parts hear it go on. */
    private void fallSilent() {
        if (context.renderer().isRunning()) {
            for (NoteEnd end : sound.ends(fallsSilent)) {
                if (unheard.put(end.start(), true) == null) {
                    send(end);
                }
            }
        }
        fallsSilent = -1;
    }

    /** Whether an event goes out; messages do always, so that instruments stand where they were put. */
    private boolean isHeard(Event event) {
        if (event instanceof NoteStart note
                && plan.silent()
                && context.renderer().isRunning()) {
            unheard.put(note, true);
            return false;
        }
        return unheard.isEmpty() || !(event instanceof NoteEnd end) || unheard.remove(end.start()) == null;
    }

    long nextTick() {
        return Math.min(Math.min(chain.nextTick(), inbox.nextTick()), ready.nextTick());
    }

    List<NoteStart> openInputs() {
        return chain.openInputs();
    }

    boolean isFed() {
        return plan.fed();
    }

    boolean isQuiet() {
        return inbox.isEmpty() && ready.isEmpty() && chain.isQuiet() && sound.isQuiet();
    }
}
