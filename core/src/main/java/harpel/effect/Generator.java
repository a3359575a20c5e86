package harpel.effect;

import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamSet;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Set;

/**
 * An effect that plays by itself: while the transport runs or, where that stands or it waits for keys, while any key is held. Keys
 * that it takes do not sound; the others pass.
 */
public abstract class Generator implements Effect {
    private final List<NoteStart> held = new ArrayList<>();
    private final Set<NoteStart> passed = Collections.newSetFromMap(new HashMap<>());
    private ParamSet values;
    private EffectContext context;
    private NoteStart lastKey;
    private int toldRoot = -1;

    @Override
    public void configure(ParamSet newValues, EffectContext newContext, long tick) {
        values = newValues;
        context = newContext;
        layClocks(tick);
    }

    protected final ParamSet values() {
        return values;
    }

    protected final EffectContext context() {
        return context;
    }

    /** Whether it waits for a key also while the transport runs. */
    protected abstract boolean waitsForKey();

    /** Whether keys steer it and do not sound themselves. */
    protected abstract boolean takesKeys();

    /** Lays the grids anew, with their first steps at or after {@code tick}. */
    protected abstract void layClocks(long tick);

    /** The first key after none was held, at {@code tick}. */
    protected void firstKey(long tick) {}

    /** The tick of the next step, if it plays. */
    protected abstract long nextTick();

    /** Whether it plays now. */
    protected final boolean plays() {
        return context.running() && !waitsForKey() || !held.isEmpty();
    }

    /** The key that was pressed last, held or not; null when there was none. */
    protected final NoteStart lastKey() {
        return lastKey;
    }

    /** The notes that are held. */
    protected final List<NoteStart> held() {
        return held;
    }

    /** The root in force: the last key where keys are taken as roots, else the one that is set; told when it changes. */
    protected final int root(Param<Integer> param, int lowest, boolean followsKeys) {
        int root = followsKeys && lastKey != null ? lastKey.pitch() : Root.of(values, param, lowest, context.key());
        if (root != toldRoot) {
            toldRoot = root;
            context.inForce(param, root);
        }
        return root;
    }

    /** A note of the last key's making, or of its own where no key was pressed. */
    protected final NoteStart make(long tick, int pitch, double velocity) {
        if (lastKey != null && takesKeys()) {
            return lastKey.derive(tick, pitch, velocity);
        }
        int only = values.get(EffectKind.CHANNEL);
        return NoteStart.generated(tick, only > 0 ? only - 1 : context.channel(), pitch, velocity);
    }

    @Override
    public void start(NoteStart note, Emitter out) {
        boolean first = held.isEmpty();
        boolean stood = !plays();
        held.add(note);
        if (takesKeys()) {
            lastKey = note;
        } else {
            passed.add(note);
            out.start(note);
        }
        if (first) {
            // Time may begin anew with it, and what was told before be forgotten.
            toldRoot = -1;
            firstKey(out.tick());
        }
        if (stood) {
            layClocks(out.tick());
        }
    }

    @Override
    public void end(NoteEnd end, Emitter out) {
        held.removeIf(note -> note == end.start());
        if (passed.remove(end.start())) {
            out.end(end.start(), end.tick(), end.releaseVelocity());
        }
    }

    @Override
    public final long nextStep() {
        return plays() ? nextTick() : harpel.time.Ticks.NEVER;
    }

    @Override
    public void stopGenerating(Emitter out) {
        held.clear();
        toldRoot = -1;
    }
}
