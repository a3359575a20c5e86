package harpel.run;

import harpel.chain.Chain;
import harpel.effect.Draws;
import harpel.event.Event;
import harpel.event.NoteStart;
import harpel.param.music.RouteType;
import harpel.piece.Bracket;
import harpel.piece.perform.Lever;
import harpel.plan.Plan;
import harpel.theory.Key;
import harpel.time.Ticks;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;

/**
 * Runs a plan. It has no clock and no thread: it is given input and a span of ticks and sends events. How time is cut into spans makes
 * no difference. Not thread-safe; owned by one thread at a time.
 */
public final class Renderer {
    /** A power of two. */
    private static final int LOOK_EVERY = 1024;

    /** Takes what is sent, part by part, each part's events in order. */
    public interface Sink {
        void send(String part, Event event);
    }

    private final Sink sink;
    private final Tap tap;
    private Map<String, PartRun> parts = new LinkedHashMap<>();
    /** The outputs that stages send to past any part. */
    private final Map<String, PartRun> outputs = new LinkedHashMap<>();

    private final Map<String, LeverRun> levers = new HashMap<>();
    /** The parts of which somebody asks what is held there. */
    private final Set<String> listenedTo = new HashSet<>();

    private Plan plan;
    /** The place in the plan's course of what holds; -1 where the same holds all along. */
    private int stretch = -1;
    /** Where something else may hold. */
    private long nextStretch = Ticks.NEVER;

    private List<PartRun> order = List.of();
    private long done;
    private boolean running;
    private boolean hurried;
    private BooleanSupplier interrupted = () -> false;
    private int work;

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
    public void update(Plan newPlan) {
        update(newPlan, 0);
    }

    /** The same where levers that stand elsewhere come there evenly, over so many ticks. */
    public void update(Plan newPlan, long glideTicks) {
        Key keyBefore = plan == null ? null : key();
        boolean around = plan == null || !plan.isAround(newPlan);
        boolean otherLevers = plan == null || plan.levers() != newPlan.levers();
        plan = newPlan;
        stretch = plan.stretchAt(done);
        nextStretch = plan.nextStretch(done);
        around |= !key().equals(keyBefore);
        if (otherLevers) {
            levers.keySet()
                    .removeIf(name -> plan.levers().stream()
                            .noneMatch(lever -> lever.name().equals(name)));
            for (Lever lever : plan.levers()) {
                LeverRun run = levers.computeIfAbsent(lever.name(), name -> new LeverRun(lever));
                if (run.update(lever, done, glideTicks) && followsPoints()) {
                    run.hold(songAt(done), tap);
                }
            }
        }
        Map<String, PartRun> next = new LinkedHashMap<>();
        for (Plan.PartPlan part : plan.parts()) {
            PartRun run = parts.remove(part.id());
            next.put(part.id(), run == null ? new PartRun(part, listenedTo.contains(part.id())) : run);
        }
        List<PartRun> gone = List.copyOf(parts.values());
        parts = next;
        order = List.copyOf(parts.values());
        updateParts(around, false);
        gone.forEach(part -> part.stop(done, Ending.SILENCE));
    }

    private void updateParts(boolean all, boolean onTheWay) {
        for (Plan.PartPlan part : partPlans()) {
            PartRun run = parts.get(part.id());
            if (all || !run.runs(part)) {
                if (onTheWay) {
                    run.goOn(part, context(part, run.load()), done);
                } else {
                    run.update(part, context(part, run.load()), done);
                }
            }
        }
    }

    private Key key() {
        return stretch < 0 ? plan.key() : plan.course().get(stretch).key();
    }

    private List<Plan.PartPlan> partPlans() {
        return stretch < 0 ? plan.parts() : plan.course().get(stretch).parts();
    }

    /** Goes to what holds at another place of the course. */
    private void go(long tick, boolean onTheWay) {
        int newStretch = plan.stretchAt(tick);
        nextStretch = plan.nextStretch(tick);
        if (newStretch != stretch) {
            Key before = key();
            stretch = newStretch;
            updateParts(!before.equals(key()), onTheWay);
        }
    }

    /** Where something else holds next, while the transport runs. */
    private long nextStretch() {
        return running ? nextStretch : Ticks.NEVER;
    }

    private RunContext context(Plan.PartPlan part, Load load) {
        return new RunContext(
                key(),
                plan.time(),
                part.draws() == null ? Draws.of(plan.variation()) : part.draws(),
                this,
                part.id(),
                part.id(),
                part.channel(),
                tap,
                load,
                null,
                part.present(),
                part.blend());
    }

    /** Whether others wait for what is rendered; see {@link harpel.effect.EffectContext#hurried}. */
    public Renderer hurried(boolean newHurried) {
        hurried = newHurried;
        return this;
    }

    boolean isHurried() {
        return hurried;
    }

    /** Looked at now and then within long work, which ends with {@link Interrupted} when it says so. */
    public Renderer interruptedWhen(BooleanSupplier newInterrupted) {
        interrupted = newInterrupted;
        return this;
    }

    /** Work was given up in its middle; the renderer is of no more use. */
    public static final class Interrupted extends RuntimeException {
        private static final long serialVersionUID = 1L;

        public Interrupted() {
            super("rendering was interrupted", null, false, false);
        }
    }

    /** A piece of work is begun. */
    void work() {
        if ((++work & LOOK_EVERY - 1) == 0 && interrupted.getAsBoolean()) {
            throw new Interrupted();
        }
    }

    /** A part is heard without its chain, in time, or as the plan says again. */
    public void hearDry(String part, boolean dry) {
        PartRun run = parts.get(part);
        if (run != null) {
            run.hearDry(dry, done);
        }
    }

    /** How many notes have been left out since too many sounded or waited. */
    public long refused() {
        long refused = 0;
        for (PartRun part : order) {
            refused += part.load().refused();
        }
        return refused;
    }

    /** Hands over what one part sends to another, or to an output. Whether it is there; a part that is not takes nothing. */
    boolean deliver(String to, Event event, boolean sent) {
        PartRun run = parts.get(to);
        if (run != null) {
            run.takeFromOther(event, sent);
        } else if (to.startsWith(RouteType.OUTPUT)) {
            outputs.computeIfAbsent(to, this::output).take(event);
        } else {
            return false;
        }
        return true;
    }

    private PartRun output(String id) {
        Plan.PartPlan output = Plan.PartPlan.of(id, Chain.EMPTY);
        PartRun run = new PartRun(output, false);
        run.update(output, context(output, run.load()), done);
        return run;
    }

    void strikeAgain(String part, long tick) {
        PartRun run = parts.get(part);
        if (run != null) {
            run.strikeAgain(tick);
        }
    }

    /** The place in the piece at a tick, where a stretch of it comes round. */
    long songAt(long tick) {
        return running ? plan.bracket().song(tick) : tick;
    }

    /** The tick at which that stretch comes round next, or never. */
    long nextRound(long tick) {
        Bracket loop = plan.bracket();
        if (!running || !loop.on()) {
            return Ticks.NEVER;
        }
        return tick < loop.to() ? loop.to() : loop.to() + ((tick - loop.to()) / loop.length() + 1) * loop.length();
    }

    /** Whether the transport runs. */
    public boolean isRunning() {
        return running;
    }

    /** The transport starts at a tick: everything that sounded has ended, and what plays by itself begins. */
    public void start(long tick) {
        silence();
        done = tick;
        go(tick, false);
        running = true;
        all(part -> part.restart(tick));
    }

    private void all(Consumer<PartRun> action) {
        order.forEach(action);
        outputs.values().forEach(action);
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
            run.take(event);
            if (!levers.isEmpty()) {
                long song = songAt(event.tick());
                boolean follows = followsPoints();
                levers.values()
                        .forEach(lever -> lever.hear(event, follows ? lever.written(song) : Double.NaN, song, tap));
            }
        }
    }

    /** Adds an event of a ready phrase, which is heard past the chain of the part. As {@link #play} otherwise. */
    public void playReady(String part, Event event) {
        PartRun run = parts.get(part);
        if (run != null) {
            run.takeReady(event);
        }
    }

    /** What a lever gives to all it moves at a tick, 0–1, or NaN when there is none of that name. */
    double lever(String name, long tick) {
        LeverRun lever = levers.get(name);
        if (lever == null) {
            return Double.NaN;
        }
        double written = followsPoints() ? lever.written(songAt(tick)) : Double.NaN;
        return lever.bent(Double.isNaN(written) ? lever.at(tick) : written);
    }

    /** The tick of a lever's next change after {@code tick} in this span, or never. */
    long leverNext(String name, long tick) {
        LeverRun lever = levers.get(name);
        if (lever == null) {
            return Ticks.NEVER;
        }
        return followsPoints() && lever.hasPoints()
                ? Math.min(lever.nextAfter(tick), (tick / MoveRun.LOOK_TICKS + 1) * MoveRun.LOOK_TICKS)
                : lever.nextAfter(tick);
    }

    /** Levers stand where they are set from here on, until the next of their points on the timeline. */
    public void holdLevers(List<String> names) {
        for (String name : names) {
            LeverRun lever = levers.get(name);
            if (lever != null && followsPoints()) {
                lever.hold(songAt(done), tap);
            }
        }
    }

    /** Whether levers stand where their points on the timeline say. */
    private boolean followsPoints() {
        return running && !plan.course().isEmpty();
    }

    /** Renders up to, not including, {@code to}. All input added lies before it. */
    public void render(long to) {
        // Where no time passes what lies at this tick is rendered, too: what holds from here on holds for it.
        long end = Math.max(to, done + 1);
        for (long next = nextStretch(); next < end; next = nextStretch()) {
            if (next > done) {
                renderStretch(next);
            }
            go(next, true);
        }
        renderStretch(to);
    }

    private void renderStretch(long to) {
        for (int i = 0; i < order.size(); i++) {
            // What others send to a part is there only when they have been rendered.
            if (!order.get(i).isFed()) {
                order.get(i).listen(done, to);
            }
        }
        for (int i = 0; i < order.size(); i++) {
            order.get(i).render(done, to);
        }
        if (!outputs.isEmpty()) {
            outputs.values().forEach(output -> output.render(done, to));
        }
        if (!levers.isEmpty()) {
            levers.values().forEach(LeverRun::spanOver);
        }
        done = Math.max(done, to);
    }

    /** The earliest tick at which anything happens without input, or {@link Ticks#NEVER}. */
    public long nextTick() {
        long next = nextStretch();
        for (int i = 0; i < order.size(); i++) {
            next = Math.min(next, order.get(i).nextTick());
        }
        if (!outputs.isEmpty()) {
            for (PartRun output : outputs.values()) {
                next = Math.min(next, output.nextTick());
            }
        }
        return next;
    }

    /**
     * The transport stops: everything ends at {@link #position}, except that repeats of stages set to ring out, or of all if
     * {@code ringOut}, finish; render on until {@link #isQuiet}.
     */
    public void stop(boolean ringOut) {
        running = false;
        parts.values().forEach(part -> part.stop(done, ringOut ? Ending.RING : Ending.STOP));
    }

    /** Ends every sounding and waiting note at once; what plays by itself plays no more until the transport starts. */
    public void silence() {
        running = false;
        all(part -> part.stop(done, Ending.SILENCE));
    }

    /** Ends everything, forgets everything and continues from another tick. */
    public void locate(long tick) {
        silence();
        done = tick;
        go(tick, false);
        all(part -> part.restart(tick));
    }

    /** Lets go of what a stage holds without keys. */
    public void act(String part, String stageAddress) {
        PartRun run = parts.get(part);
        if (run != null) {
            run.act(stageAddress, done);
        }
    }

    /** The notes held at a part's input. */
    public List<NoteStart> openInputs(String part) {
        PartRun run = parts.get(part);
        return run == null ? List.of() : run.openInputs();
    }

    public boolean isQuiet() {
        for (int i = 0; i < order.size(); i++) {
            if (!order.get(i).isQuiet()) {
                return false;
            }
        }
        for (PartRun output : outputs.values()) {
            if (!output.isQuiet()) {
                return false;
            }
        }
        return true;
    }

    /** From now on what is held at a part's input is kept, for those who ask. */
    void listenTo(String part) {
        if (listenedTo.add(part) && parts.containsKey(part)) {
            parts.get(part).beListenedTo();
        }
    }

    int lowestHeld(String part, long tick) {
        PartRun run = parts.get(part);
        return run == null ? -1 : run.lowestHeld(tick);
    }
}
