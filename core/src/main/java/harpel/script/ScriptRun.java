package harpel.script;

import harpel.effect.Effect;
import harpel.effect.EffectContext;
import harpel.effect.EffectKind;
import harpel.effect.Emitter;
import harpel.effect.StepClock;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** A running script. What a call wants done is done when it has come back within its budget. Owned by whoever renders. */
final class ScriptRun implements Effect {
    private static final ScriptThread.Budget CALL = new ScriptThread.Budget(500_000, 20_000_000, 16L << 20);

    /** A note that ends with a key, so much later. */
    private record Bound(NoteStart note, long laterTicks) {}

    private final List<NoteStart> held = new ArrayList<>();
    private final Map<NoteStart, List<Bound>> bound = new IdentityHashMap<>();
    private final StepClock clock = new StepClock();
    private ScriptInstance instance;
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
        if (instance != null) {
            instance.set(values);
            layClock(tick);
        }
    }

    /** Takes the new script; one with an error leaves the last good one in its place. */
    private void load() {
        ScriptSource source = ScriptSource.of(code);
        if (source.error() != null) {
            complain(source.error().shown());
            // The values have the controls of the last good script as long as there is one.
            ScriptSource lastGood = ScriptSource.withControls(values.spec());
            if (instance == null && lastGood != null) {
                instance = lastGood.newInstance(this::complain);
            }
            return;
        }
        ScriptInstance loaded = source.newInstance(this::complain);
        if (loaded != null) {
            instance = loaded;
            off = false;
            lastError = "";
        }
    }

    private void complain(String text) {
        if (!text.equals(lastError)) {
            lastError = text;
            context.say(text);
        }
    }

    private void layClock(long tick) {
        pace = instance.has(ScriptInstance.ON_STEP) ? instance.pace() : null;
        if (pace != null) {
            clock.lay(StepGrid.ofPiece(context.time(), pace, 50), tick);
        }
    }

    private boolean plays() {
        return !off && instance != null && pace != null && (context.running() || !held.isEmpty());
    }

    /** Calls a handler; false when the script has none or it failed. */
    private boolean call(String handler, Emitter out, Object... args) {
        return call(handler, out, new boolean[1], args);
    }

    private boolean call(String handler, Emitter out, boolean[] refused, Object... args) {
        if (off || instance == null || !instance.has(handler)) {
            return false;
        }
        int only = values.get(EffectKind.CHANNEL);
        int channel = only > 0 ? only - 1 : context.channel();
        ScriptCall call = new ScriptCall(out.tick(), context, List.copyOf(held), out.chance(), channel);
        Throwable thrown = ScriptThread.run(
                CALL, script -> refused[0] = Boolean.FALSE.equals(instance.call(script, handler, call, args)));
        if (thrown == null) {
            call.lines().forEach(context::say);
            perform(call, out);
            return true;
        }
        ScriptError error = ScriptError.of(thrown);
        complain(error.shown());
        if (error.fatal()) {
            off = true;
            bound.clear();
            out.endAll();
        }
        return false;
    }

    private void perform(ScriptCall call, Emitter out) {
        call.messages().forEach(out::pass);
        for (ScriptCall.Played played : call.played()) {
            NoteStart note = played.note();
            out.start(note);
            if (played.key() == null) {
                out.end(note, played.endTick(), NoteEnd.PLAIN_RELEASE);
            } else {
                bound.computeIfAbsent(played.key(), key -> new ArrayList<>())
                        .add(new Bound(note, note.tick() - out.tick()));
            }
        }
        for (NoteStart note : call.stopped()) {
            out.end(note, out.tick(), NoteEnd.PLAIN_RELEASE);
        }
    }

    @Override
    public void start(NoteStart note, Emitter out) {
        boolean stood = !plays();
        held.add(note);
        if (stood && pace != null) {
            clock.aim(out.tick());
        }
        Object[] args = instance == null ? new Object[0] : new Object[] {instance.noteObject(note)};
        boolean done = call(ScriptInstance.ON_NOTE, out, args);
        if (!done) {
            bound.computeIfAbsent(note, key -> new ArrayList<>()).add(new Bound(note, 0));
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
        if (instance != null) {
            call(ScriptInstance.ON_RELEASE, out, instance.noteObject(end.start()));
        }
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
        call(ScriptInstance.ON_STEP, out, index);
        TimeValue newPace = instance == null ? null : instance.pace();
        if (newPace != null && !newPace.equals(pace)) {
            layClock(out.tick() + 1);
        }
    }

    @Override
    public void stopGenerating(Emitter out) {
        held.clear();
        call(ScriptInstance.ON_STOP, out);
    }

    /** Tells the script that it stops; what it would play then is not played. */
    @Override
    public void leave(Emitter out) {
        held.clear();
        if (!off && instance != null && instance.has(ScriptInstance.ON_STOP)) {
            ScriptCall call = new ScriptCall(out.tick(), context, List.of(), out.chance(), context.channel());
            ScriptThread.run(CALL, script -> instance.call(script, ScriptInstance.ON_STOP, call));
            call.lines().forEach(context::say);
        }
    }
}
