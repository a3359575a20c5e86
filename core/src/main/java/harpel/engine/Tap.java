package harpel.engine;

import harpel.event.Event;
import harpel.param.ParamSet;

/** Sees every event that leaves a stage; it must not wait. */
public interface Tap {
    /** The place of a part's input and of its sound, besides the addresses of its stages. */
    String INPUT = "input";

    String SOUND = "sound";

    /** What is played live, before it joins the phrase at a part's input. */
    String KEYS = "keys";

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

    /** A stage has sent a note to a part that is not there. */
    default void astray(String part, String place, long tick, String to) {}

    /** A parameter of a stage has this value in force, whatever is set. */
    default void inForce(String part, String place, String param, Object value) {}

    /** A controller has brought a lever to this value, 0–1. */
    default void lever(String name, double value) {}

    /** The controller of a lever stands at this value, 0–1, and has not come to where the lever stands. */
    default void knob(String name, double value) {}

    /** Time starts anew at a tick, in a bar of so many: what comes does not follow what was. */
    default void restarted(long tick, long barTicks) {}

    /** Tells two of everything. */
    static Tap both(Tap one, Tap other) {
        return new Tap() {
            @Override
            public void left(String part, String place, Event event) {
                one.left(part, place, event);
                other.left(part, place, event);
            }

            @Override
            public void said(String part, String place, String text) {
                one.said(part, place, text);
                other.said(part, place, text);
            }

            @Override
            public void complained(String part, String place, String text) {
                one.complained(part, place, text);
                other.complained(part, place, text);
            }

            @Override
            public void full(String part, String place, long tick) {
                one.full(part, place, tick);
                other.full(part, place, tick);
            }

            @Override
            public void moved(String part, String place, ParamSet values) {
                one.moved(part, place, values);
                other.moved(part, place, values);
            }

            @Override
            public void stepped(String part, String place, int row, int step) {
                one.stepped(part, place, row, step);
                other.stepped(part, place, row, step);
            }

            @Override
            public void away(String part, String place, Event event) {
                one.away(part, place, event);
                other.away(part, place, event);
            }

            @Override
            public void lost(String part, String place, long tick, int pitch) {
                one.lost(part, place, tick, pitch);
                other.lost(part, place, tick, pitch);
            }

            @Override
            public void astray(String part, String place, long tick, String to) {
                one.astray(part, place, tick, to);
                other.astray(part, place, tick, to);
            }

            @Override
            public void inForce(String part, String place, String param, Object value) {
                one.inForce(part, place, param, value);
                other.inForce(part, place, param, value);
            }

            @Override
            public void lever(String name, double value) {
                one.lever(name, value);
                other.lever(name, value);
            }

            @Override
            public void knob(String name, double value) {
                one.knob(name, value);
                other.knob(name, value);
            }

            @Override
            public void restarted(long tick, long barTicks) {
                one.restarted(tick, barTicks);
                other.restarted(tick, barTicks);
            }
        };
    }
}
