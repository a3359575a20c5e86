package harpel.script;

import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.Emitter;
import harpel.effect.StepClock;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteMap;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.List;

/**
 * A running script. What a call wants done is done when it has come back. Where others wait, as live, a script that is not ready or comes
 * late lets its notes pass instead of holding everyone. Owned by whoever renders.
 */
final class ScriptRun implements Effect {
    /** So long others wait for a call where they are in a hurry. */
    private static final long PATIENCE_NANOS = 15_000_000;

    /** A note that ends with a key, so much later. */
    private record Bound(NoteStart note, long laterTicks) {}

    private final List<NoteStart> held = new ArrayList<>();
    private final NoteMap<List<Bound>> bound = new NoteMap<>();
    private final StepClock clock = new StepClock();
    private ScriptInstance instance;
    /** The source whose run is being made; null for none. */
    private ScriptSource coming;

    /** A call that has not come back; null for none. */
    private ScriptThread.Task late;

    private String code = "";
    private EffectContext context;
    private ParamSet values;
    private TimeValue pace;
    private boolean off;
    private String lastError = "";

    @Override
    public void configure(ParamSet newValues, EffectContext newContext, long tick) {
        values = newValues;
        context = newContext;
        if (!values.get(Script.CODE).equals(code)) {
            code = values.get(Script.CODE);
            load();
        }
        take();
        if (instance != null) {
            instance.set(values);
            layClock(tick);
        }
    }

    /** Asks for the new script; one with an error leaves the last good one in its place. */
    private void load() {
        ScriptSource source = ScriptSource.of(code);
        if (source.error() != null) {
            complain(source.error());
            // The values have the controls of the last good script as long as there is one.
            coming = instance == null ? ScriptSource.withControls(values.spec()) : null;
        } else {
            coming = source;
        }
    }

    /** Takes the run that was asked for, if it is there; where nobody is in a hurry it is made now. */
    private void take() {
        if (coming == null) {
            return;
        }
        ScriptInstance made = context.hurried() ? coming.takeReady() : coming.takeOrMake();
        if (made != null) {
            instance = made;
            late = null;
            if (coming.error() == null && ScriptSource.of(code) == coming) {
                off = false;
                fine();
            }
            coming = null;
        }
    }

    /** Before anything comes to the script: it may have become ready, or a late call may have come back. */
    private void look(long tick) {
        if (coming != null) {
            take();
            if (instance != null && coming == null) {
                instance.set(values);
                layClock(tick);
            }
        }
        if (late != null && late.isDone()) {
            ScriptError error = late.error();
            late = null;
            if (error == null) {
                fine();
            } else {
                complain(error);
                off |= error.fatal();
                instance = off ? null : instance;
            }
        }
    }

    private void complain(ScriptError error) {
        complain(error.shown(), error.fatal());
    }

    private void complain(String text, boolean fatal) {
        if (!text.equals(lastError)) {
            lastError = text;
            context.complain(text, fatal);
        }
    }

    private void fine() {
        if (!off) {
            lastError = "";
            context.fine();
        }
    }

    private void layClock(long tick) {
        pace = null;
        if (instance.has(ScriptInstance.ON_STEP)) {
            try {
                pace = instance.pace();
            } catch (IllegalArgumentException e) {
                complain(e.getMessage(), false);
            }
        }
        if (pace != null) {
            clock.lay(StepGrid.ofPiece(context.time(), pace, 50), tick);
        }
    }

    private boolean plays() {
        return !off && instance != null && pace != null && (context.running() || !held.isEmpty());
    }

    /** Calls a handler; false when the script has none, failed, or is late. */
    private boolean call(String handler, Emitter out, boolean[] refused, Object... args) {
        look(out.tick());
        if (off || late != null || instance == null || !instance.has(handler)) {
            return false;
        }
        int only = values.get(EffectKind.CHANNEL);
        int channel = only > 0 ? only - 1 : context.channel();
        ScriptCall call = new ScriptCall(out.tick(), context, List.copyOf(held), out.chance(), channel);
        ScriptInstance called = instance;
        ScriptThread.Task task = ScriptThread.begin(
                called.context(),
                Script.CALL_STEPS,
                script -> call.refused(Boolean.FALSE.equals(called.call(script, handler, call, args))));
        if (!task.await(context.hurried() ? PATIENCE_NANOS : Long.MAX_VALUE)) {
            late = task;
            call.giveUp();
            complain("the script came late; notes pass until it is back", false);
            return false;
        }
        if (!context.hurried()) {
            context.worked(task.steps(), task.tookNanos());
        }
        if (task.error() == null) {
            refused[0] = call.isRefused();
            call.lines().forEach(context::say);
            perform(call, out);
            return true;
        }
        complain(task.error());
        if (task.error().fatal()) {
            off = true;
            // What it keeps goes with it.
            instance = null;
            bound.clear();
            out.endAll();
        }
        return false;
    }

    private void perform(ScriptCall call, Emitter out) {
        call.messages().forEach(out::pass);
        call.lost().forEach(out::lost);
        for (ScriptCall.Played played : call.played()) {
            NoteStart note = played.note();
            out.start(note);
            if (played.key() == null) {
                out.end(note, played.endTick(), NoteEnd.PLAIN_RELEASE);
            } else {
                bind(played.key(), new Bound(note, note.tick() - out.tick()));
            }
        }
        for (NoteStart note : call.stopped()) {
            out.end(note, out.tick(), NoteEnd.PLAIN_RELEASE);
        }
    }

    private void bind(NoteStart key, Bound one) {
        List<Bound> notes = bound.get(key);
        if (notes == null) {
            notes = new ArrayList<>(2);
            bound.put(key, notes);
        }
        notes.add(one);
    }

    @Override
    public void start(NoteStart note, Emitter out) {
        look(out.tick());
        boolean stood = !plays();
        held.add(note);
        if (stood && pace != null) {
            clock.aim(out.tick());
        }
        if (!call(ScriptInstance.ON_NOTE, out, new boolean[1], note)) {
            bind(note, new Bound(note, 0));
            out.start(note);
        }
    }

    @Override
    public void end(NoteEnd end, Emitter out) {
        held.removeIf(note -> note == end.start());
        List<Bound> ending = bound.remove(end.start());
        if (ending != null) {
            ending.forEach(one -> out.end(one.note, end.tick() + one.laterTicks, end.releaseVelocity()));
        }
        call(ScriptInstance.ON_RELEASE, out, new boolean[1], end.start());
    }

    @Override
    public void message(Message message, Emitter out) {
        boolean[] refused = new boolean[1];
        if ((message.status() & 0xF0) == Message.CONTROL_CHANGE) {
            call(ScriptInstance.ON_CONTROLLER, out, refused, (double) message.data(1), (double) message.data(2));
        }
        if (!refused[0]) {
            out.pass(message);
        }
    }

    @Override
    public long nextStep() {
        return plays() ? clock.tick() : Ticks.NEVER;
    }

    @Override
    public void step(Emitter out) {
        double index = clock.index();
        clock.advance();
        call(ScriptInstance.ON_STEP, out, new boolean[1], index);
    }

    @Override
    public void stopGenerating(Emitter out) {
        held.clear();
        call(ScriptInstance.ON_STOP, out, new boolean[1]);
    }

    /** Tells the script that it stops; what it would play then is not played. */
    @Override
    public void leave(Emitter out) {
        held.clear();
        if (!off && late == null && instance != null && instance.has(ScriptInstance.ON_STOP)) {
            ScriptInstance called = instance;
            ScriptCall call = new ScriptCall(out.tick(), context, List.of(), out.chance(), context.channel());
            ScriptThread.Task task = ScriptThread.begin(
                    called.context(), Script.CALL_STEPS, script -> called.call(script, ScriptInstance.ON_STOP, call));
            if (task.await(context.hurried() ? PATIENCE_NANOS : Long.MAX_VALUE)) {
                call.lines().forEach(context::say);
            } else {
                call.giveUp();
                late = task;
            }
        }
    }
}
