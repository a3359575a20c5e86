package harpel.effect;

import harpel.event.Message;
import harpel.event.NoteStart;

/**
 * Where an effect sends what it makes. Whatever is started here is ended exactly once: at the tick the effect gives, or earlier when
 * the stage is switched off, removed or stopped.
 */
public interface Emitter {
    /** The tick that is being worked on. */
    long tick();

    /** Sends a start at its own tick, now or later. One that lies before now is an effect's mistake. */
    void start(NoteStart note);

    /** Ends a note at {@code tick}, but not before now and not before it has lasted a tick. A note that has ended stays so. */
    void end(NoteStart note, long tick, int releaseVelocity);

    void pass(Message message);

    /** Draws for this tick, repeatable. */
    Chance chance();
}
