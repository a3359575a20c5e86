package harpel.effect;

import harpel.event.NoteStart;
import harpel.param.ChoiceType;
import harpel.param.Param;
import harpel.theory.Pitch;

/** What becomes of a pitch outside 0–127. */
public enum Beyond {
    DROP,
    FOLD;

    public static final Param<Beyond> PARAM = Param.of(
            "beyond",
            ChoiceType.of(Beyond.class),
            DROP,
            "What becomes of a pitch outside 0–127: dropped, or brought back by octaves.");

    /** The pitch as it is to be, which may still lie outside 0–127 and is to be dropped then. */
    public int fit(int pitch) {
        return this == FOLD ? Pitch.fold(pitch) : pitch;
    }

    /** A note made from {@code from}, or null when its pitch is to be dropped; {@code from} itself when nothing changes. */
    public NoteStart derive(NoteStart from, long tick, int pitch, double velocity) {
        int fitted = fit(pitch);
        if (!Pitch.inRange(fitted)) {
            return null;
        }
        boolean same = tick == from.tick() && fitted == from.pitch() && velocity == from.velocity();
        return same ? from : from.derive(tick, fitted, velocity);
    }
}
