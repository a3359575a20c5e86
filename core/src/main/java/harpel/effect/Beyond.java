package harpel.effect;

import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.type.ChoiceType;
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

    /** The pitch as it is to be; one that still lies outside 0–127 is to be dropped, which is said. */
    public int fit(int pitch, Emitter out) {
        int fitted = this == FOLD ? Pitch.fold(pitch) : pitch;
        if (!Pitch.inRange(fitted)) {
            out.lost(fitted);
        }
        return fitted;
    }

    /** A note made from {@code from}, or null when its pitch is to be dropped; {@code from} itself when nothing changes. */
    public NoteStart derive(NoteStart from, long tick, int pitch, double velocity, Emitter out) {
        int fitted = fit(pitch, out);
        if (!Pitch.inRange(fitted)) {
            return null;
        }
        boolean same = tick == from.tick() && fitted == from.pitch() && velocity == from.velocity();
        return same ? from : from.derive(tick, fitted, velocity);
    }
}
