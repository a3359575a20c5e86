package harpel.engine;

import harpel.event.Event;
import harpel.event.NoteStart;
import harpel.time.Ticks;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Runs a plan. It has no clock and no thread: it is given input and a span of ticks and sends events. How time is cut into spans makes
 * no difference. Not thread-safe; owned by one thread at a time.
 */
public final class Renderer {
    /** Takes what is sent, part by part, each part's events in order. */
    public interface Sink {
        void send(String part, Event event);
    }

    private final Sink sink;
    private final Tap tap;
    private Map<String, PartRun> parts = new LinkedHashMap<>();
    private long done;

    public Renderer(Plan plan, Sink sink, Tap tap) {
        this.sink = sink;
        this.tap = tap;
        update(plan);
    }

    Sink sink() {
        return sink;
    }

    /** The first tick that has not been rendered. */
    public long position() {
        return done;
    }

    /** Takes a whole new plan from now on. Stages that stay keep their state; what is gone ends what it opened. */
    public void update(Plan plan) {
        Map<String, PartRun> next = new LinkedHashMap<>();
        for (Plan.PartPlan part : plan.parts()) {
            PartRun run = parts.remove(part.id());
            next.put(part.id(), run == null ? new PartRun(part.id()) : run);
        }
        parts.values().forEach(gone -> gone.stop(done, false, false));
        parts = next;
        for (Plan.PartPlan part : plan.parts()) {
            parts.get(part.id())
                    .update(
                            part,
                            new RunContext(plan.key(), plan.time(), plan.variation(), this, part.id(), tap),
                            done);
        }
    }

    /**
     * Adds an event to a part's input for the next {@link #render}; events come in order and not before {@link #position}.
     *
     * @throws IllegalArgumentException when it lies in the past
     */
    public void play(String part, Event event) {
        if (event.tick() < done) {
            throw new IllegalArgumentException(
                    "input must not lie before tick " + done + " but was " + event + " (part \"" + part + "\")");
        }
        PartRun run = parts.get(part);
        if (run != null) {
            run.input.add(event);
        }
    }

    /** Renders up to, not including, {@code to}. All input added lies before it. */
    public void render(long to) {
        for (PartRun part : parts.values()) {
            part.listen();
        }
        for (PartRun part : parts.values()) {
            part.render(to);
        }
        done = Math.max(done, to);
    }

    /** The earliest tick at which anything happens without input, or {@link Ticks#NEVER}. */
    public long nextTick() {
        long next = Ticks.NEVER;
        for (PartRun part : parts.values()) {
            next = Math.min(next, part.nextTick());
        }
        return next;
    }

    /**
     * The transport stops: everything ends at {@link #position}, except that repeats of stages set to ring out, or of all if
     * {@code ringOut}, finish; render on until {@link #isQuiet}.
     */
    public void stop(boolean ringOut) {
        parts.values().forEach(part -> part.stop(done, ringOut, true));
    }

    /** Ends every sounding and waiting note at once. */
    public void silence() {
        parts.values().forEach(part -> part.stop(done, false, false));
    }

    /** Ends everything, forgets everything and continues from another tick. */
    public void locate(long tick) {
        silence();
        done = tick;
    }

    /** Lets go of what a stage holds without keys. */
    public void letGo(String part, String stageAddress) {
        PartRun run = parts.get(part);
        if (run != null) {
            run.letGo(stageAddress, done);
        }
    }

    /** The notes held at a part's input. */
    public List<NoteStart> openInputs(String part) {
        PartRun run = parts.get(part);
        return run == null ? List.of() : run.openInputs();
    }

    public boolean isQuiet() {
        return parts.values().stream().allMatch(PartRun::isQuiet);
    }

    int lowestHeld(String part, long tick) {
        PartRun run = parts.get(part);
        return run == null ? -1 : run.lowestHeld(tick);
    }
}
