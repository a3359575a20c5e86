package harpel.engine;

import harpel.clock.ClockIn;
import harpel.clock.ClockOut;
import harpel.engine.LiveStatus.Mode;
import harpel.port.InputPort;
import harpel.port.LiveOutput;
import harpel.run.Renderer;
import harpel.time.Ticks;
import java.util.List;

/** Play, stop and where to, by hand or as another machine's clock says; and Silence. Owned by the engine thread. */
final class LiveTransport {
    private final LiveCycle cycle;
    private final LiveTime time;
    private final LiveOutput output;
    private final ClockIn clockIn;
    private final Click click;
    private final ClockOut clockOut;

    LiveTransport(LiveCycle cycle, LiveTime time, LiveOutput output, ClockIn clockIn) {
        this.cycle = cycle;
        this.time = time;
        this.output = output;
        this.clockIn = clockIn;
        this.click = new Click(output);
        this.clockOut = new ClockOut(output);
    }

    void play(long now) {
        if (time.isPlaying()) {
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
        cycle.edits().doAll(now);
        click.stop(now);
        cycle.catchUp(now);
        cycle.renderer().silence();
        cycle.keys().tellEnd();
        startTime(Mode.PLAYING, time.place(), now);
        cycle.renderer().start(time.place());
        cycle.players().locate(time.place());
        // Keys that are down go on in the time of the transport.
        cycle.keys().strikeAgain(time.place());
        clockOut.start(cycle.program().plan().bracket(), time.place(), now);
    }

    /** Plays after so many bars of clicks; at once without any. */
    void playAfter(int bars, long now) {
        if (time.isPlaying()) {
            return;
        }
        if (bars == 0) {
            play(now);
            return;
        }
        cycle.renderer().silence();
        quieten(now);
        click.countIn(cycle.program().plan().time(), time.place(), bars, now);
    }

    /** Stops; repeats of stages that ring out go on in the chain's own time. */
    void stop(long now) {
        click.stop(now);
        cycle.catchUp(now);
        if (!time.isPlaying()) {
            clockIn.letGo();
            return;
        }
        time.standAt(song(now));
        clockOut.stop(now);
        clockIn.letGo();
        Renderer renderer = cycle.renderer();
        renderer.stop(false);
        time.set(renderer.isQuiet() ? Mode.STOPPED : Mode.KEYS, renderer.position(), now);
        cycle.keys().forget();
    }

    /** The place in the piece at a moment, where ticks are counted on and on. */
    private long song(long now) {
        long at = Math.max(cycle.renderer().position(), time.tickAt(now));
        return cycle.program().plan().bracket().song(at);
    }

    /** Goes to a tick of the piece, playing or not. */
    void locate(long tick, long now) {
        boolean playing = time.isPlaying();
        stop(now);
        cycle.keys().forget();
        goTo(tick, now);
        if (playing) {
            play(now);
        }
    }

    /** All that sounds ends, and time stands elsewhere; keys that are down are struck again when it plays. */
    private void goTo(long tick, long now) {
        cycle.catchUp(now);
        cycle.renderer().silence();
        cycle.edits().goTo(tick, now);
        time.standAt(tick);
        startTime(Mode.STOPPED, tick, now);
    }

    /** A key starts the chain's own time. */
    void startByKey(long now) {
        startTime(Mode.KEYS, 0, now);
    }

    private void startTime(Mode mode, long tick, long now) {
        cycle.renderer().locate(tick);
        time.start(mode, tick, now);
        cycle.tellRestart(tick);
    }

    /** Ends everything at once, and stops: nothing sounds after Silence until someone plays. */
    void silence(long now) {
        if (time.isPlaying()) {
            time.standAt(song(now));
        }
        cycle.renderer().silence();
        quieten(now);
    }

    private void quieten(long now) {
        click.stop(now);
        clockOut.stop(now);
        clockIn.letGo();
        cycle.keys().forget();
        cycle.keys().inputs().clear();
        cycle.waysOut().forget();
        output.silence();
        time.set(Mode.STOPPED, cycle.renderer().position(), now);
    }

    /** The same where the work was given up in its middle: the renderer is another by now. */
    void beginAnew(Runnable anew, long now) {
        if (time.isPlaying()) {
            long position = cycle.renderer().position();
            long at = Math.max(position, Math.min(time.tickAt(now), position + Ticks.PER_QUARTER));
            time.standAt(cycle.program().plan().bracket().song(at));
        }
        anew.run();
        quieten(now);
    }

    /** Whether beats are clicked while it plays, and how loud, 1–127. */
    void click(boolean on, int velocity) {
        click.set(on, velocity);
    }

    /** Time goes on a little later, or earlier where that is below 0. */
    void nudge(long nanos) {
        if (!time.isStanding()) {
            time.anchor().nudge(nanos);
        }
    }

    /** Another tempo holds from now on. */
    void otherTempo(long tick, long now) {
        if (!time.isStanding() && !clockIn.drives()) {
            time.anchor().set(tick, now);
        }
    }

    // Clocks

    /** Time is sent to these outputs. */
    void clockTo(List<String> ports, long now) {
        clockOut.to(ports, now);
    }

    /** The clock of a way in is followed; of none where that is empty. */
    void followClock(String port, long now) {
        if (time.isPlaying() && clockIn.drives()) {
            long tick = time.tickAt(now);
            clockIn.follow(port);
            time.anchor().set(tick, now);
        }
        clockIn.follow(port);
    }

    /** A system message (MIDI 1.0), which counts where its way in is that of the clock that is followed. */
    void realTime(String port, InputPort.Played played) {
        if (!clockIn.hears(port)) {
            return;
        }
        long nanos = played.nanos();
        switch (played.status()) {
            case ClockOut.CLOCK -> clock(nanos);
            case ClockOut.START -> {
                stop(nanos);
                goTo(0, nanos);
                clockIn.awaitsNext();
            }
            case ClockOut.CONTINUE -> {
                if (!time.isPlaying()) {
                    clockIn.awaitsNext();
                }
            }
            case ClockOut.STOP -> {
                stop(nanos);
                clockIn.letGo();
            }
            case ClockOut.POSITION -> {
                boolean playing = time.isPlaying();
                stop(nanos);
                goTo((played.data1() | (long) played.data2() << 7) * ClockOut.SIXTEENTH, nanos);
                if (playing) {
                    clockIn.awaitsNext();
                }
            }
            default -> {}
        }
    }

    private void clock(long nanos) {
        clockIn.clock(nanos, cycle.program().plan().time().tempo().bpmAt(time.place()));
        if (clockIn.isAwaited()) {
            clockIn.starts(time.place());
            playNow(nanos);
        }
        if (clockIn.drives() && time.isPlaying()) {
            clockIn.steer(time.anchor(), nanos);
        }
        String said = clockIn.takeTrouble();
        if (!said.isEmpty()) {
            cycle.trouble(said);
        }
    }

    // With each turn

    /** Stops where a clock is lost, and begins where a count-in has ended. */
    void look(long now) {
        if (time.isPlaying() && clockIn.isLost(now)) {
            String from = clockIn.name();
            stop(now);
            cycle.trouble("The clock of “" + from + "” has not come for a second, and play was stopped.");
        }
        long begins = click.act(now);
        if (begins >= 0) {
            play(begins);
        }
    }

    /** Sends the clicks and clocks up to a tick. */
    void sendTo(long to) {
        click.beats(cycle.program().plan().time(), cycle.renderer().position(), to, time::nanosAt);
        clockOut.run(cycle.program().plan().bracket(), to, time::nanosAt);
    }

    /** When it has something to send, while it plays. */
    long nextTick() {
        return Math.min(
                click.nextBeat(cycle.program().plan().time(), cycle.renderer().position()), clockOut.nextTick());
    }

    /** When it has something to do at a moment of its own, or {@link Long#MAX_VALUE}. */
    long nextNanos() {
        return Math.min(click.nextNanos(), time.isPlaying() ? clockIn.lostNanos() : Long.MAX_VALUE);
    }
}
