package harpel.engine;

import harpel.effect.EffectContext;
import harpel.theory.Key;
import harpel.time.TimeMap;

/** The piece around a running chain. */
record RunContext(Key key, TimeMap time, long variation, Renderer renderer, String part, Tap tap)
        implements EffectContext {
    @Override
    public int lowestHeld(String partId, long tick) {
        return renderer.lowestHeld(partId, tick);
    }
}
