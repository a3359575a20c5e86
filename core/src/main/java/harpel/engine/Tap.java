package harpel.engine;

import harpel.event.Event;
import harpel.param.ParamSet;

/** Sees every event that leaves a stage; it must not wait. */
public interface Tap {
    /** The place of a part's input and of its sound, besides the addresses of its stages. */
    String INPUT = "input";

    String SOUND = "sound";

    Tap NONE = (part, place, event) -> {};

    /**
     * @param part the part's id
     * @param place a stage's address, {@link #INPUT} or {@link #SOUND}
     */
    void left(String part, String place, Event event);

    /** A stage says something to the user, such as what a script logs. */
    default void said(String part, String place, String text) {}

    /** A stage says that something does not work as the user wants. */
    default void complained(String part, String place, String text) {
        said(part, place, text);
    }

    /** A stage has left a note out since too many sound or wait there, or in its part. */
    default void full(String part, String place, long tick) {}

    /** What moves a stage's parameters has given them these values. */
    default void moved(String part, String place, ParamSet values) {}

    /** A stage has come to a step of one of its rows, both counted from 0. */
    default void stepped(String part, String place, int row, int step) {}

    /** A note has left a stage for another part or output, or ends there; it does not go on in the chain. */
    default void away(String part, String place, Event event) {}

    /** A stage could not do with a pitch what it was to do: what it made of it was clipped, or it was dropped. */
    default void lost(String part, String place, long tick, int pitch) {}

    /** A parameter of a stage has this value in force, whatever is set. */
    default void inForce(String part, String place, String param, Object value) {}

    /** A controller has brought a lever to this value, 0–1. */
    default void lever(String name, double value) {}

    /** Time starts anew at a tick, in a bar of so many: what comes does not follow what was. */
    default void restarted(long tick, long barTicks) {}
}
