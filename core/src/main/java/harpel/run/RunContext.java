package harpel.run;

import harpel.effect.Draws;
import harpel.effect.EffectContext;
import harpel.param.Param;
import harpel.plan.Blend;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.Objects;

/**
 * The piece around a running chain.
 *
 * @param place the address of the stage; that of the part where none is meant
 * @param channel the part's, 0–15
 * @param load how many notes the part's stages carry
 * @param present whether the part is there at this place of the timeline
 * @param blend what stands between the part's two chains; null for nothing
 * @param aside where notes go that a stage sends to the next branch; null where there is none
 */
record RunContext(
        Key key,
        TimeMap time,
        Draws draws,
        Renderer renderer,
        String part,
        String place,
        int channel,
        Tap tap,
        Load load,
        Inbox aside,
        boolean present,
        Blend blend)
        implements EffectContext {
    /** Whether a chain runs here as it does in another, apart from where its stages stand. */
    boolean sameAs(RunContext other) {
        return other != null
                && key.equals(other.key)
                && time.equals(other.time)
                && draws.equals(other.draws)
                && renderer == other.renderer
                && channel == other.channel
                && aside == other.aside
                && present == other.present
                && Objects.equals(blend, other.blend);
    }

    @Override
    public boolean hurried() {
        return renderer.isHurried();
    }

    @Override
    public void listen(String partId) {
        renderer.listenTo(partId);
    }

    @Override
    public int lowestHeld(String partId, long tick) {
        return renderer.lowestHeld(partId, tick);
    }

    @Override
    public boolean running() {
        return renderer.isRunning() && present;
    }

    @Override
    public void say(String text) {
        tap.tell(new Told.Said(part, place, text, Told.Said.Weight.REMARK));
    }

    @Override
    public void complain(String text, boolean off) {
        Told.Said.Weight weight = off ? Told.Said.Weight.OFF : Told.Said.Weight.COMPLAINT;
        tap.tell(new Told.Said(part, place, text, weight));
    }

    @Override
    public void fine() {
        tap.tell(new Told.Fine(part, place));
    }

    @Override
    public void worked(long steps, long nanos) {
        tap.tell(new Told.Worked(part, place, steps, nanos));
    }

    @Override
    public void step(int row, int step) {
        tap.tell(new Told.Stepped(part, place, row, step));
    }

    @Override
    public void drives(int row, int pitch) {
        tap.tell(new Told.Drives(part, place, row, pitch));
    }

    @Override
    public <T> void inForce(Param<T> param, T value) {
        tap.tell(new Told.InForce(part, place, param.id(), value));
    }

    RunContext withAside(Inbox newAside) {
        return new RunContext(key, time, draws, renderer, part, place, channel, tap, load, newAside, present, blend);
    }

    RunContext at(String newPlace) {
        return new RunContext(key, time, draws, renderer, part, newPlace, channel, tap, load, aside, present, blend);
    }
}
