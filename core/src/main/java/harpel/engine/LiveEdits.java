package harpel.engine;

import harpel.piece.Bracket;
import harpel.plan.Program;
import harpel.port.InputPort;
import java.util.List;

/** The program that is played, and what is done at ticks to come: other programs, actions, notes. Owned by the engine thread. */
final class LiveEdits {
    private final LiveCycle cycle;
    private final Deeds deeds = new Deeds();
    /** As it was handed over. */
    private Program given;
    /** As it is played: behind a loop it goes straight on. */
    private Program program;

    private boolean behindLoop;

    LiveEdits(LiveCycle cycle, Program program) {
        this.cycle = cycle;
        this.given = program;
        this.program = program;
    }

    Program program() {
        return program;
    }

    /** Takes a program; what was to be taken at ticks to come is not. */
    void update(Program newProgram, long now) {
        deeds.forgetEdits();
        swap(newProgram, now, 0);
    }

    /** Takes a program at the next bar line, so that what changes comes in time; at once while time stands. */
    void updateAtBar(Program newProgram, long now) {
        if (!cycle.time().isPlaying()) {
            update(newProgram, now);
            return;
        }
        deeds.forgetEdits();
        long bar =
                program.plan().time().meter().barLineAtOrAfter(cycle.renderer().position());
        updateAt(bar, newProgram, 0);
    }

    /** Takes a program at a tick, and lets levers come to where they stand there; at once while time stands. */
    void updateAt(long tick, Program newProgram, long glideTicks) {
        deeds.add(tick, true, now -> swap(newProgram, now, glideTicks));
    }

    /** Does a stage's own action at a tick. */
    void actAt(long tick, String part, String address) {
        deeds.add(tick, false, now -> cycle.renderer().act(part, address));
    }

    /** Strikes notes that come in at a way in, or ends them with velocity 0, at a tick. */
    void strikeAt(long tick, String port, List<Integer> pitches, int velocity) {
        deeds.add(tick, false, now -> {
            LiveTime time = cycle.time();
            long at = time.isStanding()
                    ? now
                    : Math.max(now, time.nanosAt(Math.max(tick, cycle.renderer().position())));
            pitches.forEach(pitch -> cycle.take(port, new InputPort.Played(0x90, pitch, velocity, at)));
        });
    }

    /** Goes behind the loop, where play goes on, or before its end. */
    void goTo(long tick, long now) {
        Bracket loop = given.plan().bracket();
        boolean behind = loop.on() && tick >= loop.to();
        if (behind != behindLoop) {
            behindLoop = behind;
            take(behind ? given.straight() : given, now, 0);
        }
    }

    private void swap(Program newProgram, long now, long glideTicks) {
        // Another loop holds wherever play is.
        behindLoop &= newProgram.plan().bracket().equals(given.plan().bracket());
        given = newProgram;
        Bracket before = program.plan().bracket();
        long at = Math.max(cycle.renderer().position(), cycle.time().tickAt(now));
        take(behindLoop ? newProgram.straight() : newProgram, now, glideTicks);
        Bracket after = program.plan().bracket();
        if (cycle.time().isPlaying() && !before.equals(after)) {
            boolean sameSoFar = at < before.to() || !before.on();
            if (!sameSoFar || after.on() && at >= after.to()) {
                // Time was counted otherwise until now: it is gone to where the piece is, or to where it comes round.
                long song = before.song(at);
                cycle.locate(after.on() && song >= after.to() ? after.from() : song, now);
            }
        }
    }

    private void take(Program next, long now, long glideTicks) {
        long tick = cycle.time().tickAt(now);
        Program before = program;
        program = next;
        if (!next.plan().time().tempo().equals(before.plan().time().tempo())) {
            // Ticks are counted by the new tempo from here on.
            cycle.otherTempo(tick, now);
        }
        cycle.take(before, next, glideTicks);
    }

    // What is to come

    long nextTick() {
        return deeds.nextTick();
    }

    void doNext(long now) {
        deeds.doNext(now);
    }

    void doAll(long now) {
        deeds.doAll(now);
    }
}
