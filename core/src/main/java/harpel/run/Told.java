package harpel.run;

import harpel.event.Event;
import harpel.param.ParamSet;

/** What an engine tells of its work, each as it happens. A place is a stage's address, or one of those that {@link Tap} names. */
public sealed interface Told {
    /** An event has left a place, and goes on from there. */
    record Left(String part, String place, Event event) implements Told {}

    /** A note has left a stage for another part or output, or ends there; it does not go on in the chain. */
    record Away(String part, String place, Event event) implements Told {}

    /**
     * A stage says something.
     *
     * @param place the stage's address
     */
    record Said(String part, String place, String text, Weight weight) implements Told {
        /** How much it matters. */
        public enum Weight {
            REMARK,
            /** Something does not work as the user wants. */
            COMPLAINT,
            /** And for it the stage does nothing any more. */
            OFF
        }

        public boolean complaint() {
            return weight != Weight.REMARK;
        }
    }

    /** What a stage complained of is over. */
    record Fine(String part, String place) implements Told {}

    /** What a call of a script took; told of prints alone. */
    record Worked(String part, String place, long steps, long nanos) implements Told {}

    /** A stage has left a note out since too many sound or wait there, or in its part. */
    record Full(String part, String place, long tick) implements Told {}

    /** A stage could not do with a pitch what it was to do: what it made of it was clipped, or it was dropped. */
    record Lost(String part, String place, long tick, int pitch) implements Told {}

    /** A stage has sent a note to a part that is not there. */
    record Astray(String part, String place, long tick, String to) implements Told {}

    /** What moves a stage's parameters has given them these values. */
    record Moved(String part, String place, ParamSet values) implements Told {}

    /** A stage has come to a step of one of its rows, both counted from 0. */
    record Stepped(String part, String place, int row, int step) implements Told {}

    /** A row of a stage, counted from 0, works on this held note from now on, or with −1 on none. */
    record Drives(String part, String place, int row, int pitch) implements Told {}

    /** A parameter of a stage has this value in force, whatever is set. */
    record InForce(String part, String place, String param, Object value) implements Told {}

    /** A controller has brought a lever to this value, 0–1. */
    record LeverAt(String name, double value) implements Told {}

    /** A hand holds a lever at a place of the piece at this value, 0–1, though it has points there; until its next point. */
    record LeverHeld(String name, double value, long from, long until) implements Told {}

    /** The controller of a lever stands at this value, 0–1, and has not come to where the lever stands. */
    record KnobAt(String name, double value) implements Told {}

    /** Time starts anew at a tick, in a bar of so many: what comes does not follow what was. */
    record Restarted(long tick, long barTicks) implements Told {}
}
