package harpel.effect;

import harpel.theory.Key;
import harpel.time.TimeMap;

/** What an effect may know of the piece it runs in. */
public interface EffectContext {
    TimeMap time();

    /** The key of the piece or chain. */
    Key key();

    /** The lowest note held at the input of a part after the events of {@code tick}, or -1 when none is or there is no such part. */
    int lowestHeld(String partId, long tick);

    /** The key and tempo of an effect that stands alone. */
    static EffectContext of(TimeMap time, Key key) {
        return new EffectContext() {
            @Override
            public TimeMap time() {
                return time;
            }

            @Override
            public Key key() {
                return key;
            }

            @Override
            public int lowestHeld(String partId, long tick) {
                return -1;
            }
        };
    }
}
