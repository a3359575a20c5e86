package harpel.engine;

import harpel.engine.KeysDown.Held;
import harpel.engine.KeysDown.Key;
import harpel.engine.LiveStatus.Mode;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Bracket;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.LongSupplier;

/**
 * What the live engine does each time it wakes, without a thread of its own: time comes in as nanoseconds, so that tests run it
 * against a clock of theirs. Owned by the engine thread.
 */
final class LiveCycle {
    private final LongSupplier clock;
    private final LiveOutput output;
    private final Tap tap;
    private final Players players = new Players();
    private final Players.Ear<Event> fed = this::feed;
    private final Deeds deeds = new Deeds();
    private final Anchor anchor = new Anchor();
    private final KeysDown keysDown = new KeysDown();
    private final PartInputs inputs = new PartInputs();
    private final Takers takers;
    private final WaysOut waysOut;
    private final Click click;
    private final ClockOut clockOut;
    private final ClockIn clockIn = new ClockIn();
    private boolean hurried;
    private BooleanSupplier interrupted = () -> false;
    private Renderer renderer;
    private Program program;
    private String dryPart = "";
    private Mode mode = Mode.STOPPED;
    private long run;
    private long transportTick;
    private long arrival;
    private long notesIn;
    private int lastController = -1;
    private long controllersIn;
    private long troubles;
    private String trouble = "";
    private LiveStatus status;

    LiveCycle(Program program, LongSupplier clock, LiveOutput output, Tap tap) {
        this.program = program;
        this.clock = clock;
        this.output = output;
        this.tap = tap;
        this.waysOut = new WaysOut(output, clock, tick -> mode == Mode.STOPPED ? clock.getAsLong() : nanosAt(tick));
        this.click = new Click(output);
        this.clockOut = new ClockOut(output);
        this.takers = new Takers(program.piece());
        this.renderer = newRenderer();
        waysOut.take(program.patch().ways(), renderer.position());
        takeScores();
    }

    /** Lets others not wait for what is late, and long work be interrupted. */
    LiveCycle hurried(BooleanSupplier newInterrupted) {
        hurried = true;
        interrupted = newInterrupted;
        renderer.hurried(true).interruptedWhen(interrupted);
        return this;
    }

    private Renderer newRenderer() {
        return new Renderer(program.plan(), waysOut::send, tap).hurried(hurried).interruptedWhen(interrupted);
    }

    /** The notes held at a part's input. */
    List<NoteStart> openInputs(String part) {
        return renderer.openInputs(part);
    }

    Piece piece() {
        return program.piece();
    }

    /** Tells the instruments of ports that were opened what to sound like. */
    void tellOpened() {
        waysOut.tellOpened();
    }

    void testNote(String port, boolean on, long now) {
        waysOut.testNote(port, on, now);
    }

    // Time

    private long nanosAt(long tick) {
        return anchor.nanosAt(tick, tempo());
    }

    /** What time goes by: the piece, or a clock that is followed. */
    private TempoMap tempo() {
        return clockIn.drives() ? clockIn.tempo() : program.piece().time().tempo();
    }

    private long tickAt(long nanos) {
        return mode == Mode.STOPPED ? renderer.position() : anchor.tickAt(nanos, tempo());
    }

    // Edits

    /** Takes a program at the next bar line, so that what changes comes in time; at once while time stands. */
    void updateAtBar(Program newProgram, long now) {
        if (mode != Mode.PLAYING) {
            update(newProgram, now);
            return;
        }
        deeds.forgetEdits();
        updateAt(program.plan().time().meter().barLineAtOrAfter(renderer.position()), newProgram, 0);
    }

    /** Takes a program at a tick, and lets levers come to where they stand there; at once while time stands. */
    void updateAt(long tick, Program newProgram, long glideTicks) {
        deeds.add(tick, true, now -> swap(newProgram, now, glideTicks));
    }

    /** Does a stage's own action at a tick. */
    void actAt(long tick, String part, String address) {
        deeds.add(tick, false, now -> renderer.act(part, address));
    }

    /** Strikes notes that come in at a way in, or ends them with velocity 0, at a tick. */
    void strikeAt(long tick, String port, List<Integer> pitches, int velocity) {
        deeds.add(tick, false, now -> {
            long at = mode == Mode.STOPPED ? now : Math.max(now, nanosAt(Math.max(tick, renderer.position())));
            pitches.forEach(pitch -> take(port, new InputPort.Played(0x90, pitch, velocity, at)));
        });
    }

    /** Time goes on a little later, or earlier where that is below 0. */
    void nudge(long nanos) {
        if (mode != Mode.STOPPED) {
            anchor.nudge(nanos);
        }
    }

    void update(Program newProgram, long now) {
        deeds.forgetEdits();
        swap(newProgram, now, 0);
    }

    private void swap(Program newProgram, long now, long glideTicks) {
        Bracket before = program.plan().bracket();
        Bracket after = newProgram.plan().bracket();
        if (mode == Mode.PLAYING && !before.equals(after)) {
            long at = Math.max(renderer.position(), tickAt(now));
            boolean sameSoFar = at < before.to() || !before.on();
            if (!sameSoFar || after.on() && at >= after.to()) {
                // Time was counted otherwise until now: it is gone to where the piece is, or to where it comes round.
                long song = before.song(at);
                take(newProgram, now, glideTicks);
                locate(after.on() && song >= after.to() ? after.from() : song, now);
                return;
            }
        }
        take(newProgram, now, glideTicks);
    }

    private void take(Program newProgram, long now, long glideTicks) {
        var tempo = newProgram.piece().time().tempo();
        if (mode != Mode.STOPPED
                && !clockIn.drives()
                && !tempo.equals(program.piece().time().tempo())) {
            anchor.set(tickAt(now), now);
        }
        boolean otherPlan = newProgram.plan() != program.plan();
        program = newProgram;
        if (otherPlan) {
            renderer.update(program.plan(), glideTicks);
        }
        takeScores();
        waysOut.take(program.patch().ways(), renderer.position());
    }

    private void takeScores() {
        takers.take(program.piece());
        players.take(program.lines(), renderer.position(), this::playEnd);
    }

    private void playEnd(String part, boolean ready, NoteEnd end) {
        if (mode == Mode.PLAYING && ready) {
            renderer.playReady(part, end);
        } else if (mode == Mode.PLAYING) {
            renderer.play(part, end);
        }
    }

    void keysTo(String part) {
        takers.keysTo(part);
    }

    void hearDry(String part, boolean dry) {
        if (!dryPart.isEmpty()) {
            renderer.hearDry(dryPart, false);
        }
        dryPart = dry ? part : "";
        renderer.hearDry(part, dry);
    }

    // The transport

    void play(long now) {
        if (mode == Mode.PLAYING) {
            return;
        }
        if (clockIn.isRunning(now)) {
            // In step with the clock that is followed: its next one starts time.
            clockIn.awaitsNext();
            return;
        }
        playNow(now);
    }

    private void playNow(long now) {
        deeds.doAll(now);
        click.stop(now);
        catchUp(now);
        renderer.silence();
        tellKeysEnd();
        mode = Mode.PLAYING;
        startTime(transportTick, now);
        renderer.start(transportTick);
        players.locate(transportTick);
        // Keys that are down go on in the time of the transport.
        keysDown.replaceAll(this::strikeAgain);
        clockOut.start(program.plan().bracket(), transportTick, now);
    }

    // Clocks

    /** Time is sent to these outputs. */
    void clockTo(List<String> ports, long now) {
        clockOut.to(ports, now);
    }

    /** The clock of a way in is followed; of none where that is empty. */
    void followClock(String port, long now) {
        if (mode == Mode.PLAYING && clockIn.drives()) {
            long tick = tickAt(now);
            clockIn.follow(port);
            anchor.set(tick, now);
        }
        clockIn.follow(port);
    }

    /** A system message of the clock that is followed (MIDI 1.0). */
    private void realTime(InputPort.Played played) {
        long nanos = played.nanos();
        switch (played.status()) {
            case ClockOut.CLOCK -> {
                clockIn.clock(nanos, program.piece().time().tempo().bpmAt(transportTick));
                if (clockIn.isAwaited()) {
                    clockIn.starts(transportTick);
                    playNow(nanos);
                }
                if (clockIn.drives() && mode == Mode.PLAYING) {
                    clockIn.steer(anchor, nanos);
                }
                String said = clockIn.takeTrouble();
                if (!said.isEmpty()) {
                    trouble(said);
                }
            }
            case ClockOut.START -> {
                stop(nanos);
                goTo(0, nanos);
                clockIn.awaitsNext();
            }
            case ClockOut.CONTINUE -> {
                if (mode != Mode.PLAYING) {
                    clockIn.awaitsNext();
                }
            }
            case ClockOut.STOP -> {
                stop(nanos);
                clockIn.letGo();
            }
            case ClockOut.POSITION -> {
                boolean playing = mode == Mode.PLAYING;
                stop(nanos);
                goTo((played.data1() | (long) played.data2() << 7) * ClockOut.SIXTEENTH, nanos);
                if (playing) {
                    clockIn.awaitsNext();
                }
            }
            default -> {}
        }
    }

    private void goTo(long tick, long now) {
        catchUp(now);
        renderer.silence();
        mode = Mode.STOPPED;
        transportTick = tick;
        startTime(tick, now);
    }

    private Held strikeAgain(Held held) {
        NoteStart again = held.note()
                .derive(transportTick, held.note().pitch(), held.note().velocity());
        tap.left(held.part(), Tap.KEYS, again);
        renderer.play(held.part(), again);
        return new Held(held.part(), again);
    }

    /** Keys that are down are let go of, as far as is told. */
    private void tellKeysEnd() {
        keysDown.forEach(held -> tap.left(held.part(), Tap.KEYS, NoteEnd.plain(renderer.position(), held.note())));
    }

    private void forgetKeys() {
        tellKeysEnd();
        keysDown.clear();
    }

    private void startTime(long tick, long now) {
        renderer.locate(tick);
        anchor.set(tick, now);
        run++;
        tellRestart(tick);
    }

    private void tellRestart(long tick) {
        tap.restarted(tick, program.plan().time().meter().at(tick).barTicks());
    }

    /** Plays after so many bars of clicks; at once without any. */
    void playAfter(int bars, long now) {
        if (mode == Mode.PLAYING) {
            return;
        }
        if (bars == 0) {
            play(now);
            return;
        }
        renderer.silence();
        quieten(now);
        click.countIn(program.piece().time(), transportTick, bars, now);
    }

    /** Whether beats are clicked while the transport runs, and how loud, 1–127. */
    void click(boolean on, int velocity) {
        click.set(on, velocity);
    }

    /** Stops the transport; repeats of stages that ring out go on in the chain's own time. */
    void stop(long now) {
        click.stop(now);
        catchUp(now);
        if (mode != Mode.PLAYING) {
            clockIn.letGo();
            return;
        }
        transportTick = song(Math.max(renderer.position(), tickAt(now)));
        clockOut.stop(now);
        clockIn.letGo();
        renderer.stop(false);
        mode = renderer.isQuiet() ? Mode.STOPPED : Mode.KEYS;
        anchor.set(renderer.position(), now);
        forgetKeys();
    }

    /** The place in the piece of a tick that is counted on and on. */
    private long song(long tick) {
        return program.plan().bracket().song(tick);
    }

    /** Goes to a tick of the piece, playing or not. */
    void locate(long tick, long now) {
        boolean playing = mode == Mode.PLAYING;
        stop(now);
        renderer.silence();
        forgetKeys();
        mode = Mode.STOPPED;
        transportTick = tick;
        startTime(tick, now);
        if (playing) {
            play(now);
        }
    }

    /** Ends everything at once. The transport stops, too: nothing sounds after Silence until someone plays. */
    void silence(long now) {
        if (mode == Mode.PLAYING) {
            transportTick = song(Math.max(renderer.position(), tickAt(now)));
        }
        renderer.silence();
        quieten(now);
    }

    private void quieten(long now) {
        click.stop(now);
        clockOut.stop(now);
        clockIn.letGo();
        forgetKeys();
        inputs.clear();
        waysOut.forget();
        output.silence();
        mode = Mode.STOPPED;
        anchor.set(renderer.position(), now);
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
        if (mode == Mode.PLAYING) {
            transportTick =
                    song(Math.max(renderer.position(), Math.min(tickAt(now), renderer.position() + Ticks.PER_QUARTER)));
        }
        waysOut.endAll(now);
        long position = renderer.position();
        renderer = newRenderer();
        renderer.locate(position);
        players.locate(position);
        quieten(now);
        tellRestart(position);
    }

    void act(String part, String address) {
        renderer.act(part, address);
    }

    // What comes in

    /**
     * Takes a played message.
     *
     * @param port the name of the way it came in; {@link InputPort#KEYS} always goes to the chosen part
     */
    void take(String port, InputPort.Played played) {
        if (played.status() >= Message.SYSTEM_EXCLUSIVE) {
            if (clockIn.hears(port)) {
                realTime(played);
            }
            return;
        }
        int kind = played.status() & 0xF0;
        boolean press = kind == 0x90 && played.data2() > 0;
        boolean release = kind == 0x80 || kind == 0x90 && !press;
        if (release) {
            release(Key.of(port, played), played);
            return;
        }
        if (kind == Message.CONTROL_CHANGE) {
            lastController = played.data1();
            controllersIn++;
        }
        for (Part part : takers.of(port, played.status() & 0x0F)) {
            if (press) {
                press(part, port, played);
            } else {
                addPlayed(part.id(), message(part, played));
            }
        }
    }

    private void release(Key key, InputPort.Played played) {
        for (Held held : keysDown.release(key)) {
            addPlayed(held.part(), NoteEnd.atOrAfter(playedTick(played), held.note(), played.data2()));
        }
    }

    private void press(Part part, String port, InputPort.Played played) {
        if (mode == Mode.STOPPED) {
            if (part.run() == Part.Run.TRANSPORT) {
                return;
            }
            mode = Mode.KEYS;
            startTime(0, played.nanos());
        }
        long tick = playedTick(played);
        notesIn++;
        NoteStart note = NoteStart.played(tick, arrival++, part.channel(), played.data1(), played.data2());
        keysDown.press(
                Key.of(port, played),
                new Held(part.id(), note),
                before -> addPlayed(before.part(), NoteEnd.plain(tick, before.note())));
        addPlayed(part.id(), note);
    }

    /** Every key that a way in holds is let go of. */
    void inputGone(String port, long now) {
        for (Key key : keysDown.of(port)) {
            release(key, new InputPort.Played(0x80 | key.channel(), key.pitch(), NoteEnd.PLAIN_RELEASE, now));
        }
    }

    void sendPlain(String port, byte[] message, long now) {
        output.sendPlain(port, message, now);
    }

    private Message message(Part part, InputPort.Played played) {
        int kind = played.status() & 0xF0;
        byte status = (byte) (kind | part.channel());
        boolean two = kind == Message.PROGRAM_CHANGE || kind == Message.CHANNEL_PRESSURE;
        long tick = playedTick(played);
        return two
                ? new Message(tick, arrival++, status, (byte) played.data1())
                : new Message(tick, arrival++, status, (byte) played.data1(), (byte) played.data2());
    }

    private long playedTick(InputPort.Played played) {
        return Math.max(renderer.position(), tickAt(played.nanos()));
    }

    /** Something was played live. */
    private void addPlayed(String part, Event event) {
        tap.left(part, Tap.KEYS, event);
        inputs.add(part, event);
    }

    /** Renders up to now and sends. */
    void render(long now) {
        if (mode == Mode.PLAYING && clockIn.isLost(now)) {
            String from = clockIn.name();
            stop(now);
            trouble("The clock of “" + from + "” has not come for a second, and play was stopped.");
        }
        long begins = click.act(now);
        if (begins >= 0) {
            play(begins);
        }
        if (mode != Mode.PLAYING) {
            deeds.doAll(now);
        }
        playTo(tickAt(now) + 1, now);
        // While time stands only what was played is taken, at the tick where it stands.
        advance(mode == Mode.STOPPED ? renderer.position() : tickAt(now) + 1, true);
        if (mode == Mode.KEYS && keysDown.isEmpty() && renderer.isQuiet() && renderer.nextTick() == Ticks.NEVER) {
            mode = Mode.STOPPED;
            anchor.set(transportTick, now);
        }
    }

    /** Does what came before a moment at which time stops or goes elsewhere: what came first is done first. */
    private void catchUp(long now) {
        playTo(Math.max(renderer.position(), tickAt(now)), now);
        // What was done may have gone elsewhere.
        long to = Math.max(renderer.position(), tickAt(now));
        if (mode == Mode.PLAYING && to > renderer.position()) {
            advance(to, false);
        }
        if (!inputs.isEmpty()) {
            long last = inputs.lastTick();
            inputs.playBefore(Long.MAX_VALUE, renderer);
            renderer.render(mode == Mode.STOPPED ? renderer.position() : Math.max(renderer.position(), last + 1));
        }
    }

    /** Plays up to each tick before another at which something is done, and does it. */
    private void playTo(long to, long now) {
        while (mode == Mode.PLAYING && deeds.nextTick() < to) {
            if (deeds.nextTick() > renderer.position()) {
                advance(deeds.nextTick(), false);
            }
            deeds.doNext(now);
        }
    }

    /**
     * Renders up to a tick.
     *
     * @param all whether all that came in is played, later than that, too; else what lies before the tick
     */
    private void advance(long end, boolean all) {
        long to = all && mode != Mode.STOPPED ? Math.max(end, inputs.lastTick() + 1) : end;
        if (mode == Mode.PLAYING) {
            players.playBefore(to, fed);
            click.beats(program.piece().time(), renderer.position(), to, this::nanosAt);
            clockOut.run(program.plan().bracket(), to, this::nanosAt);
        }
        inputs.playBefore(all ? Long.MAX_VALUE : end, renderer);
        renderer.render(to);
    }

    private void feed(String part, boolean ready, Event event) {
        notesIn += event instanceof NoteStart ? 1 : 0;
        if (ready) {
            renderer.playReady(part, event);
        } else {
            inputs.add(part, event);
        }
    }

    /** When it has something to do of its own, or {@link Long#MAX_VALUE}. */
    long nextNanos() {
        if (mode == Mode.STOPPED) {
            return click.nextNanos();
        }
        long next = renderer.nextTick();
        if (mode == Mode.PLAYING) {
            next = Math.min(next, click.nextBeat(program.piece().time(), renderer.position()));
            next = Math.min(next, clockOut.nextTick());
            next = Math.min(next, Math.min(deeds.nextTick(), players.nextTick()));
        }
        long clocks = mode == Mode.PLAYING ? clockIn.lostNanos() : Long.MAX_VALUE;
        return Math.min(Math.min(clocks, click.nextNanos()), next == Ticks.NEVER ? Long.MAX_VALUE : nanosAt(next));
    }

    /** What the interface may know; the same object as before while nothing has changed. */
    LiveStatus status(long now) {
        long tick = mode == Mode.STOPPED ? transportTick : anchor.tick();
        long late = output.worstLateNanos(now);
        LiveStatus old = status;
        boolean same = old != null
                && old.mode() == mode
                && old.run() == run
                && old.anchorTick() == tick
                && old.anchorNanos() == anchor.nanos()
                && old.tempo() == tempo()
                && old.clock().equals(clockIn.driver())
                && old.bracket() == program.plan().bracket()
                && old.worstLateNanos() == late
                && old.notesIn() == notesIn
                && old.lastController() == lastController
                && old.controllersIn() == controllersIn
                && old.troubles() == troubles;
        if (!same) {
            status = new LiveStatus(
                    mode,
                    run,
                    tick,
                    anchor.nanos(),
                    tempo(),
                    clockIn.driver(),
                    program.plan().bracket(),
                    late,
                    notesIn,
                    lastController,
                    controllersIn,
                    troubles,
                    trouble);
        }
        return status;
    }

    /** Says that something went wrong that did not stop the work. */
    void trouble(String text) {
        troubles++;
        trouble = text;
    }
}
