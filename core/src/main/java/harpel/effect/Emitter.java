package harpel.effect;

import harpel.event.Message;
import harpel.event.NoteStart;
import harpel.param.music.RouteType.Route;

/**
 * Where an effect sends what it makes. Whatever is started here is ended exactly once: at the tick the effect gives, or earlier when
 * the stage is switched off, removed or stopped.
 */
public interface Emitter {
    /** The tick that is being worked on. */
    long tick();

    /** Sends a start at its own tick, now or later. One that lies before now is an effect's mistake. */
    void start(NoteStart note);

    /**
     * Sends a start for one that came in, at its tick, and ends it where that ends, so that the effect need not: for effects that make
     * one note of each.
     *
     * @param follower made from {@code note}, or itself
     */
    void follow(NoteStart note, NoteStart follower);

    /**
     * Sends a start out of the chain, to another part or output; a route that does not leave is the way on. The note is on the
     * route's channel already ({@link Route#on}). Its end follows it, by {@link #end} as ever.
     */
    void start(NoteStart note, Route route);

    /** Sends a start to the next branch of the split around this chain; where there is none it goes nowhere. */
    void startAside(NoteStart note);

    /** Ends a note at {@code tick}, but not before now and not before it has lasted a tick. A note that has ended stays so. */
    void end(NoteStart note, long tick, int releaseVelocity);

    /**
     * Takes back a note that waits for its tick: it does not start after all.
     *
     * @return false when it has started, or is not of this effect
     */
    boolean withdraw(NoteStart note);

    void pass(Message message);

    /** Sends a message to another part or output, or on. */
    void pass(Message message, Route route);

    /** Strikes again, at this tick, what sounds on another part, or on this one. */
    void strikeAgain(Route route);

    /** Ends at this tick all that this effect has started, and forgets what of it waits. */
    void endAll();

    /** Says that what was to be made of a pitch, which may lie outside 0–127, was clipped or dropped at this tick. */
    void lost(int pitch);

    /** Draws for this tick, repeatable. */
    Chance chance();
}
