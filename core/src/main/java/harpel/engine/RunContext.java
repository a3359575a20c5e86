package harpel.engine;

import harpel.effect.EffectContext;
import harpel.theory.Key;
import harpel.time.TimeMap;

/**
 * The piece around a running chain.
 *
 * @param place the address of the stage; that of the part where none is meant
 * @param channel the part's, 0–15
 * @param aside where notes go that a stage sends to the next branch; null where there is none
 */
record RunContext(
        Key key,
        TimeMap time,
        long variation,
        Renderer renderer,
        String part,
        String place,
        int channel,
        Tap tap,
        Inbox aside)
        implements EffectContext {
    @Override
    public int lowestHeld(String partId, long tick) {
        return renderer.lowestHeld(partId, tick);
    }

    @Override
    public boolean running() {
        return renderer.isRunning();
    }

    @Override
    public void say(String text) {
        tap.said(part, place, text);
    }

    @Override
    public void step(int row, int step) {
        tap.stepped(part, place, row, step);
    }

    RunContext withAside(Inbox newAside) {
        return new RunContext(key, time, variation, renderer, part, place, channel, tap, newAside);
    }

    RunContext at(String newPlace) {
        return new RunContext(key, time, variation, renderer, part, newPlace, channel, tap, aside);
    }
}
