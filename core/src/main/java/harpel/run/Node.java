package harpel.run;

import harpel.chain.Stage;
import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.NoteStart;
import java.util.List;

/** A running stage. Owned by the renderer. What it sends is appended to {@code out} in the order of events. */
interface Node {
    /**
     * Works through {@code input}, which lies at or after everything before, and through its own steps and waiting events that lie
     * before {@code to}. With {@code to} at the tick of the input only the input is taken.
     */
    void process(long to, List<Event> input, EventBuffer out);

    /** The earliest tick at which it will do something of its own, or never. */
    long nextTick();

    /** Takes the stage's new values at {@code tick}. */
    void update(Stage stage, RunContext context, long tick, EventBuffer out);

    /** The notes it has sent and not ended. */
    List<NoteStart> open();

    /** Begins anew at a tick, with nothing held and nothing sounding. */
    void restart(long tick);

    /** Comes to know notes that sound already where it is put in: it takes them over, or lets them pass. */
    void join(List<NoteStart> sounding, long tick, EventBuffer out);

    /** Is switched off or taken out: ends what it made; notes that go through it untouched go on. */
    void leave(long tick, EventBuffer out);

    /** Is gone for good, after {@link #leave}: tells the tap that what goes on does so elsewhere. */
    void depart(long tick);

    /**
     * Stops: ends everything it opened and forgets everything it knows; or, where it rings out, stops what generates and lets the
     * rest finish.
     *
     * @param how as it is for this stage: it rings out, too, where one before it does
     */
    void stop(long tick, Ending how, EventBuffer out);

    /** Lets go of what is held without a key, if it is the stage of that address or holds it. */
    void act(String address, long tick, EventBuffer out);

    /** Whether it is set to let its repeats finish after a stop. */
    boolean ringsOut();

    /** Whether nothing sounds and nothing waits. */
    boolean isQuiet();
}
