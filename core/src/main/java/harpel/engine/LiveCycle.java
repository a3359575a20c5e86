package harpel.engine;

import harpel.clock.ClockIn;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Piece;
import harpel.plan.Program;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.run.Renderer;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.LongSupplier;

/**
 * What the live engine does each time it wakes, without a thread of its own: time comes in as nanoseconds, so that tests run it
 * against a clock of theirs. Here is how a turn goes; time, transport, keys, edits and status are objects of their own. Owned by the
 * engine thread.
 */
public final class LiveCycle {
    private final Tap tap;
    private final Players players = new Players();
    private final Players.Ear<Event> fed = this::feed;
    private final ClockIn clockIn = new ClockIn();
    private final LiveTime time = new LiveTime(this::tempo, () -> renderer().position());
    private final WaysOut waysOut;
    private final LiveOutput output;
    private final LiveEdits edits;
    private final LiveKeys keys;
    private final LiveTransport transport;
    private final LiveBoard board;
    private boolean hurried;
    private BooleanSupplier interrupted = () -> false;
    private Renderer renderer;
    private String dryPart = "";
    private long fedNotes;

    public LiveCycle(Program program, LongSupplier clock, LiveOutput output, Tap tap) {
        this.tap = tap;
        this.output = output;
        waysOut = new WaysOut(output, clock, tick -> time.isStanding() ? clock.getAsLong() : time.nanosAt(tick));
        edits = new LiveEdits(this, program);
        keys = new LiveKeys(this, program.piece(), tap);
        transport = new LiveTransport(this, time, output, clockIn);
        board = new LiveBoard(this, output);
        renderer = newRenderer();
        waysOut.take(program.patch().ways(), renderer.position());
        takeScores(program);
    }

    /** Lets others not wait for what is late, and long work be interrupted. */
    LiveCycle hurried(BooleanSupplier newInterrupted) {
        hurried = true;
        interrupted = newInterrupted;
        renderer.hurried(true).interruptedWhen(interrupted);
        return this;
    }

    private Renderer newRenderer() {
        return new Renderer(program().plan(), waysOut::send, tap)
                .hurried(hurried)
                .interruptedWhen(interrupted);
    }

    // Its objects, for one another

    LiveTime time() {
        return time;
    }

    LiveKeys keys() {
        return keys;
    }

    LiveEdits edits() {
        return edits;
    }

    Renderer renderer() {
        return renderer;
    }

    Players players() {
        return players;
    }

    WaysOut waysOut() {
        return waysOut;
    }

    Program program() {
        return edits.program();
    }

    Piece piece() {
        return program().piece();
    }

    /** The notes held at a part's input. */
    public List<NoteStart> openInputs(String part) {
        return renderer.openInputs(part);
    }

    /** What time goes by: the piece, or a clock that is followed. */
    private TempoMap tempo() {
        return clockIn.drives() ? clockIn.tempo() : program().plan().time().tempo();
    }

    /** The way in whose clock drives time; empty for its own. */
    String clockDriver() {
        return clockIn.driver();
    }

    long notesIn() {
        return keys.pressed() + fedNotes;
    }

    // Edits

    void update(Program newProgram, long now) {
        edits.update(newProgram, now);
    }

    void updateAtBar(Program newProgram, long now) {
        edits.updateAtBar(newProgram, now);
    }

    void updateAt(long tick, Program newProgram, long glideTicks) {
        edits.updateAt(tick, newProgram, glideTicks);
    }

    void actAt(long tick, String part, String address) {
        edits.actAt(tick, part, address);
    }

    void strikeAt(long tick, String port, List<Integer> pitches, int velocity) {
        edits.strikeAt(tick, port, pitches, velocity);
    }

    /** One program is played in place of another. */
    void take(Program before, Program next, long glideTicks) {
        if (next.plan() != before.plan()) {
            renderer.update(next.plan(), glideTicks);
        }
        takeScores(next);
        waysOut.take(next.patch().ways(), renderer.position());
    }

    void otherTempo(long tick, long now) {
        transport.otherTempo(tick, now);
    }

    private void takeScores(Program next) {
        keys.take(next.piece());
        players.take(next.lines(), renderer.position(), this::playEnd);
    }

    private void playEnd(String part, boolean ready, NoteEnd end) {
        if (time.isPlaying() && ready) {
            renderer.playReady(part, end);
        } else if (time.isPlaying()) {
            renderer.play(part, end);
        }
    }

    void hearDry(String part, boolean dry) {
        if (!dryPart.isEmpty()) {
            renderer.hearDry(dryPart, false);
        }
        dryPart = dry ? part : "";
        renderer.hearDry(part, dry);
    }

    void act(String part, String address) {
        renderer.act(part, address);
    }

    // The transport

    public void play(long now) {
        transport.play(now);
    }

    void playAfter(int bars, long now) {
        transport.playAfter(bars, now);
    }

    public void stop(long now) {
        transport.stop(now);
    }

    public void locate(long tick, long now) {
        transport.locate(tick, now);
    }

    void silence(long now) {
        transport.silence(now);
    }

    void click(boolean on, int velocity) {
        transport.click(on, velocity);
    }

    void nudge(long nanos) {
        transport.nudge(nanos);
    }

    public void clockTo(List<String> ports, long now) {
        transport.clockTo(ports, now);
    }

    public void followClock(String port, long now) {
        transport.followClock(port, now);
    }

    void startByKey(long now) {
        transport.startByKey(now);
    }

    void tellRestart(long tick) {
        tap.tell(new Told.Restarted(
                tick, program().plan().time().meter().at(tick).barTicks()));
    }

    /**
     * Begins anew after the work was given up in its middle: every note ends where it sounds, and nothing else is kept.
     *
     * @param newTrouble what went wrong; empty when Silence was asked for
     */
    void recover(String newTrouble, long now) {
        if (!newTrouble.isEmpty()) {
            trouble(newTrouble);
        }
        transport.beginAnew(
                () -> {
                    waysOut.endAll(now);
                    long position = renderer.position();
                    renderer = newRenderer();
                    renderer.locate(position);
                    players.locate(position);
                },
                now);
        tellRestart(renderer.position());
    }

    // The ways in and out

    /**
     * Takes what came in.
     *
     * @param port the name of the way in
     */
    public void take(String port, InputPort.Played played) {
        if (played.status() >= Message.SYSTEM_EXCLUSIVE) {
            transport.realTime(port, played);
        } else {
            keys.take(port, played);
        }
    }

    void keysTo(String part) {
        keys.playTo(part);
    }

    void inputGone(String port, long now) {
        keys.inputGone(port, now);
    }

    /** Tells the instruments of ports that were opened what to sound like. */
    void tellOpened() {
        waysOut.tellOpened();
    }

    void testNote(String port, int pitch, boolean on, long now) {
        waysOut.testNote(port, pitch, on, now);
    }

    void sendPlain(String port, byte[] message, long now) {
        output.sendPlain(port, message, now);
    }

    // A turn

    /** Renders up to now and sends. */
    public void render(long now) {
        transport.look(now);
        if (!time.isPlaying()) {
            edits.doAll(now);
        }
        playTo(time.tickAt(now) + 1, now);
        // While time stands only what was played is taken, at the tick where it stands.
        advance(time.isStanding() ? renderer.position() : time.tickAt(now) + 1, true);
        boolean quiet = keys.isNoneDown() && renderer.isQuiet() && renderer.nextTick() == Ticks.NEVER;
        if (time.mode() == LiveStatus.Mode.KEYS && quiet) {
            time.set(LiveStatus.Mode.STOPPED, time.place(), now);
        }
    }

    /** Does what came before a moment at which time stops or goes elsewhere: what came first is done first. */
    void catchUp(long now) {
        playTo(Math.max(renderer.position(), time.tickAt(now)), now);
        // What was done may have gone elsewhere.
        long to = Math.max(renderer.position(), time.tickAt(now));
        if (time.isPlaying() && to > renderer.position()) {
            advance(to, false);
        }
        PartInputs inputs = keys.inputs();
        if (!inputs.isEmpty()) {
            long last = inputs.lastTick();
            inputs.playBefore(Long.MAX_VALUE, renderer);
            renderer.render(time.isStanding() ? renderer.position() : Math.max(renderer.position(), last + 1));
        }
    }

    /** Plays up to each tick before another at which something is done, and does it. */
    private void playTo(long to, long now) {
        while (time.isPlaying() && edits.nextTick() < to) {
            if (edits.nextTick() > renderer.position()) {
                advance(edits.nextTick(), false);
            }
            edits.doNext(now);
        }
    }

    /**
     * Renders up to a tick.
     *
     * @param all whether all that came in is played, later than that, too; else what lies before the tick
     */
    private void advance(long end, boolean all) {
        PartInputs inputs = keys.inputs();
        long to = all && !time.isStanding() ? Math.max(end, inputs.lastTick() + 1) : end;
        if (time.isPlaying()) {
            players.playBefore(to, fed);
            transport.sendTo(to);
        }
        inputs.playBefore(all ? Long.MAX_VALUE : end, renderer);
        renderer.render(to);
    }

    private void feed(String part, boolean ready, Event event) {
        fedNotes += event instanceof NoteStart ? 1 : 0;
        if (ready) {
            renderer.playReady(part, event);
        } else {
            keys.inputs().add(part, event);
        }
    }

    /** When it has something to do of its own, or {@link Long#MAX_VALUE}. */
    public long nextNanos() {
        long own = transport.nextNanos();
        if (time.isStanding()) {
            return own;
        }
        long next = renderer.nextTick();
        if (time.isPlaying()) {
            next = Math.min(next, Math.min(transport.nextTick(), Math.min(edits.nextTick(), players.nextTick())));
        }
        return Math.min(own, next == Ticks.NEVER ? Long.MAX_VALUE : time.nanosAt(next));
    }

    /** What the interface may know; the same object as before while nothing has changed. */
    public LiveStatus status(long now) {
        return board.status(now);
    }

    /** Says that something went wrong that did not stop the work. */
    void trouble(String text) {
        board.trouble(text);
    }
}
