package harpel.effect;

import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.time.Ticks;

/**
 * The running state of one stage. Owned by whoever renders; called in the order of events, one tick after another, never with an
 * end whose start it was not given. All starts, ends and messages of a tick come before its {@link #step}.
 */
public interface Effect {
    /** Takes values; called before anything else and again whenever a value, the key or the tempo has changed at {@code tick}. */
    void configure(ParamSet values, EffectContext context, long tick);

    void start(NoteStart note, Emitter out);

    void end(NoteEnd end, Emitter out);

    /** Passes on what is not a note, unless the effect says otherwise. */
    default void message(Message message, Emitter out) {
        out.pass(message);
    }

    /** The tick of this effect's own next step, or {@link Ticks#NEVER}. */
    default long nextStep() {
        return Ticks.NEVER;
    }

    /** The step that {@link #nextStep} announced; {@link Emitter#tick} is its tick. */
    default void step(Emitter out) {}

    /** Does the kind's own action, {@link EffectWords#action}, such as letting go of what no key holds. */
    default void act(Emitter out) {}

    /** Is about to be switched off, taken out or stopped: sets right what it changed outside, such as a bend. Starts nothing. */
    default void leave(Emitter out) {}

    /** The transport has stopped while repeats may ring out: whatever generates stops generating and ends its notes. */
    default void stopGenerating(Emitter out) {}
}
