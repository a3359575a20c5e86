package harpel.effect;

import harpel.param.Param;
import harpel.theory.Key;
import harpel.time.TimeMap;

/** What an effect may know of the piece it runs in. */
public interface EffectContext {
    TimeMap time();

    /** The key of the piece or chain. */
    Key key();

    /** Whether the transport runs; while it stands only keys make the chain's time go. */
    boolean running();

    /** Whether others wait for what the effect does, as live, so that it must not hold them up; a print takes its time. */
    boolean hurried();

    /** The channel 0–15 of the part, for notes that come from no played one. */
    int channel();

    /** Says something to the user at this stage, such as what a script logs. */
    void say(String text);

    /**
     * Says that something at this stage does not work as the user wants, such as what is wrong with a script.
     *
     * @param off whether it does nothing any more for that
     */
    void complain(String text, boolean off);

    /** Says that what was complained of is over. */
    void fine();

    /** Tells what a call of a script took, where nobody is in a hurry. */
    default void worked(long steps, long nanos) {}

    /**
     * Shows which step is played now, where a row of steps is drawn.
     *
     * @param row which of the effect's rows, counted from 0
     * @param step its step within the row, counted from 0
     */
    void step(int row, int step);

    /** Shows which held note a row works on, 0–127; −1 for none. */
    void drives(int row, int pitch);

    /** Shows which value of a parameter is in force where that is another than is set, as the root while a key is played. */
    <T> void inForce(Param<T> param, T value);

    /** Says that {@link #lowestHeld} will be asked of a part, before it is. */
    void listen(String partId);

    /** The lowest note held at the input of a part after the events of {@code tick}, or -1 when none is or there is no such part. */
    int lowestHeld(String partId, long tick);
}
