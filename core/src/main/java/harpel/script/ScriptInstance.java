package harpel.script;

import harpel.event.NoteStart;
import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.ParamType;
import harpel.param.music.TimeType;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.NumberType;
import harpel.param.type.WordType;
import harpel.theory.Chord;
import harpel.theory.EvenSpread;
import harpel.theory.Pitch;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mozilla.javascript.Context;
import org.mozilla.javascript.Function;
import org.mozilla.javascript.LambdaFunction;
import org.mozilla.javascript.NativeArray;
import org.mozilla.javascript.NativeObject;
import org.mozilla.javascript.ScriptRuntime;
import org.mozilla.javascript.Scriptable;
import org.mozilla.javascript.ScriptableObject;
import org.mozilla.javascript.Undefined;

/**
 * One run of a script, with a context, a world and a state of its own. Its world is touched on the script's thread alone; the engine's
 * thread sets the controls and asks what was found out when it started.
 */
final class ScriptInstance {
    static final String ON_NOTE = "onNote";
    static final String ON_RELEASE = "onRelease";
    static final String ON_STEP = "onStep";
    static final String ON_STOP = "onStop";
    static final String ON_CONTROLLER = "onController";

    private static final String NOTE = "note";
    private static final int MOST_CONTROLS = 32;
    /** A script may keep so much from one call to the next. */
    private static final long MOST_KEPT_BYTES = 8L << 20;
    /** What it keeps is measured after so many steps: those are the same each time, so a print repeats. */
    private static final long LOOK_EVERY_STEPS = 100_000;

    /** What {@code control} can be given. */
    private static final List<String> CONTROL_OPTIONS =
            List.of("low", "high", "value", "step", "unit", "help", "choices", NOTE);

    /** A note as a script sees it. */
    private static final class NoteObject extends NativeObject {
        private static final long serialVersionUID = 1L;
        private boolean whole;

        @Override
        public void put(String name, Scriptable start, Object value) {
            if (whole) {
                throw ScriptRuntime.rangeError(
                        "a note is not changed in place; play(note, {" + name + ": …}) plays another made from it");
            }
            super.put(name, start, value);
        }
    }

    private interface Body {
        Object call(Object[] args);
    }

    private static final List<String> HANDLERS = List.of(ON_NOTE, ON_RELEASE, ON_STEP, ON_STOP, ON_CONTROLLER);

    /** A control as a script sees it: it reads what the stage is set to, and nothing can be done to it. */
    private static final class Control extends ScriptableObject {
        private static final long serialVersionUID = 1L;
        private static final String VALUE = "value";
        private transient volatile Object value;

        @Override
        public String getClassName() {
            return "Control";
        }

        @Override
        public boolean has(String name, Scriptable start) {
            return name.equals(VALUE) || super.has(name, start);
        }

        @Override
        public Object get(String name, Scriptable start) {
            return name.equals(VALUE) ? value : super.get(name, start);
        }
    }

    private final Context context = Sandbox.INSTANCE.newContext();
    private final Map<String, Function> handlers = new HashMap<>();
    private final Map<String, Param<?>> declared = new LinkedHashMap<>();
    private final Map<String, Control> controls = new LinkedHashMap<>();
    private ScriptableObject world;
    private ParamSpec spec;
    /** What {@code every} was given: a time, or a control. */
    private Object pace;

    private boolean loaded;
    /** What its world takes with nothing of the script in it. */
    private long alone;
    /** How many steps it has done since it was measured. */
    private long steps;

    private ScriptCall call;

    ScriptInstance(ParamSpec spec) {
        this.spec = spec;
    }

    /** The context of this run alone. */
    Context context() {
        return context;
    }

    List<Param<?>> declared() {
        return List.copyOf(declared.values());
    }

    void belongTo(ParamSpec newSpec) {
        spec = newSpec;
    }

    boolean has(String handler) {
        return handlers.containsKey(handler);
    }

    /** Runs the top level. On the script's thread. */
    void start(Context context, org.mozilla.javascript.Script compiled) {
        world = Limits.newWorld(context);
        define("control", this::control);
        define("every", args -> {
            if (loaded) {
                throw new IllegalArgumentException("every() asks for steps at the top of a script, once and for all");
            }
            pace = arg(args, 0) instanceof Control given ? given : step(time(arg(args, 0)));
            return Undefined.instance;
        });
        define("play", args -> now("play").play(arg(args, 0), arg(args, 1), this));
        define("stop", args -> now("stop").stop(note(arg(args, 0), "stop")));
        define("controller", args -> now("controller").controller(whole(args, 0), whole(args, 1)));
        define(
                "held",
                args -> array(now("held").held().stream().map(this::noteObject).toArray()));
        define("log", args -> now("log").log(args));
        define("random", args -> now("random").random());
        define("now", args -> place(now("now")));
        define("inKey", args -> now("inKey").key().contains(whole(args, 0)));
        define("shift", args -> now("shift").key().shift(whole(args, 0), whole(args, 1)));
        define("keyRoot", args -> now("keyRoot").key().root());
        define("pitch", args -> pitchOf(arg(args, 0)));
        define("noteName", args -> Pitch.name(pitchOf(arg(args, 0))));
        define("chord", this::chord);
        define(
                "numeral",
                args -> Chord.parse(ScriptRuntime.toString(arg(args, 0)))
                        .romanIn(now("numeral").key()));
        define("frequency", args -> Pitch.frequency(pitchOf(arg(args, 0))));
        define("spread", this::spread);
        drawByTheEngine();
        alone = Kept.bytes(world, Long.MAX_VALUE);
        compiled.exec(context, world, world);
        // Read once, here: what a script does to its names later changes nothing.
        for (String name : HANDLERS) {
            if (ScriptableObject.getProperty(world, name) instanceof Function function) {
                handlers.put(name, function);
            }
        }
        loaded = true;
        lookAtKept();
    }

    /** {@code Math.random} draws as {@code random} does, so that prints repeat. */
    private void drawByTheEngine() {
        ScriptableObject math = (ScriptableObject) ScriptableObject.getProperty(world, "Math");
        ScriptableObject own = object();
        for (Object id : math.getAllIds()) {
            ScriptableObject.putProperty(
                    own, String.valueOf(id), ScriptableObject.getProperty(math, String.valueOf(id)));
        }
        ScriptableObject.putProperty(own, "random", ScriptableObject.getProperty(world, "random"));
        own.sealObject();
        ScriptableObject.putProperty(world, "Math", own);
    }

    private void define(String name, Body body) {
        LambdaFunction function = new LambdaFunction(world, name, 1, (context, scope, self, args) -> {
            try {
                Object result = body.call(args);
                return result instanceof Integer whole ? whole.doubleValue() : result;
            } catch (ParamException e) {
                throw ScriptRuntime.rangeError(e.getMessage());
            } catch (IllegalArgumentException e) {
                throw ScriptRuntime.rangeError(String.valueOf(e.getMessage()));
            }
        });
        ScriptableObject.defineProperty(world, name, function, ScriptableObject.READONLY | ScriptableObject.PERMANENT);
    }

    private static Object arg(Object[] args, int place) {
        return place < args.length ? args[place] : Undefined.instance;
    }

    /** Of a number, of a name such as C4, or of a note. */
    private static int pitchOf(Object given) {
        NoteStart note = noteOf(given);
        if (note != null) {
            return note.pitch();
        }
        if (given instanceof CharSequence name) {
            return Pitch.parse(name.toString());
        }
        double number = ScriptRuntime.toNumber(given);
        if (!(number >= Pitch.LOWEST && number <= Pitch.HIGHEST)) {
            throw new IllegalArgumentException(
                    "a pitch is 0–127 or a name such as C4 but was " + ScriptRuntime.toString(given));
        }
        return (int) Math.floor(number + 0.5);
    }

    /** Refuses an option that nobody asks for. */
    static void refuseOthers(Scriptable options, String function, List<String> known) {
        for (Object id : options.getIds()) {
            if (!known.contains(String.valueOf(id))) {
                throw new IllegalArgumentException(
                        function + " has no \"" + id + "\"; it takes " + String.join(", ", known));
            }
        }
    }

    /** A function that will never be called as its name promises; null for none. */
    ScriptError misspelt(String code) {
        for (Object id : world.getIds()) {
            String name = String.valueOf(id);
            boolean handler = HANDLERS.contains(name);
            boolean meant =
                    name.matches("on[A-Z]\\w*") || HANDLERS.stream().anyMatch(one -> one.equalsIgnoreCase(name));
            if (!handler && meant && ScriptableObject.getProperty(world, name) instanceof Function) {
                return new ScriptError(
                        lineOf(code, name),
                        0,
                        "nothing calls " + name + "; a script can define " + String.join(", ", HANDLERS),
                        false);
            }
        }
        if (has(ON_STEP) && pace == null) {
            return new ScriptError(
                    lineOf(code, ON_STEP), 0, "onStep needs steps: every(\"1/16\") at the top asks for them", false);
        }
        return null;
    }

    private static int lineOf(String code, String name) {
        List<String> lines = code.lines().toList();
        for (int i = 0; i < lines.size(); i++) {
            if (lines.get(i).matches(".*\\b" + name + "\\b.*")) {
                return i + 1;
            }
        }
        return 0;
    }

    private static int whole(Object[] args, int place) {
        return ScriptRuntime.toInt32(arg(args, place));
    }

    private ScriptCall now(String function) {
        if (call == null) {
            throw new IllegalArgumentException(
                    function + "() works within onNote, onStep and the like, not at the top");
        }
        return call;
    }

    private Scriptable array(Object[] items) {
        NativeArray array = new NativeArray(items);
        ScriptRuntime.setBuiltinProtoAndParent(array, world, org.mozilla.javascript.TopLevel.Builtins.Array);
        return array;
    }

    private NativeObject object() {
        NativeObject object = new NativeObject();
        ScriptRuntime.setBuiltinProtoAndParent(object, world, org.mozilla.javascript.TopLevel.Builtins.Object);
        return object;
    }

    // Controls

    private Object control(Object[] args) {
        if (loaded) {
            throw new IllegalArgumentException("control() declares at the top of a script, once and for all");
        }
        String id = ScriptRuntime.toString(arg(args, 0));
        if (arg(args, 1) instanceof Scriptable given) {
            refuseOthers(given, "control()", CONTROL_OPTIONS);
        }
        Param<?> param = declare(id, arg(args, 1) instanceof Scriptable options ? options : object());
        Control control = new Control();
        ScriptRuntime.setBuiltinProtoAndParent(control, world, org.mozilla.javascript.TopLevel.Builtins.Object);
        control.sealObject();
        controls.put(id, control);
        show(control, param, param.defaultValue());
        return control;
    }

    private Param<?> declare(String id, Scriptable options) {
        if (!id.matches("[a-z][a-z0-9-]{0,39}") || Script.BASE.byId(id).isPresent() || declared.containsKey(id)) {
            throw new IllegalArgumentException(
                    "a control's id is lower-case letters, digits and hyphens, used once and not " + Script.BASE.ids()
                            + ", but was \"" + id + "\"");
        }
        if (declared.size() == MOST_CONTROLS) {
            throw new IllegalArgumentException("a script has at most " + MOST_CONTROLS + " controls");
        }
        Param<?> known = spec == null ? null : spec.byId(id).orElse(null);
        Param<?> param = known == null ? param(id, options) : known;
        declared.put(id, param);
        return param;
    }

    private static Object option(Scriptable options, String name) {
        Object value = ScriptableObject.getProperty(options, name);
        return value == Scriptable.NOT_FOUND || value == Undefined.instance ? null : value;
    }

    private static String text(Scriptable options, String name) {
        Object value = option(options, name);
        return value == null ? "" : ScriptRuntime.toString(value);
    }

    private static Param<?> param(String id, Scriptable options) {
        Object value = option(options, "value");
        String help = text(options, "help").isEmpty() ? "A control of the script." : text(options, "help");
        if (option(options, "choices") instanceof NativeArray choices) {
            List<String> words = new ArrayList<>();
            for (Object choice : choices.toArray()) {
                words.add(ScriptRuntime.toString(choice));
            }
            return typed(id, new WordType(words), value == null ? words.get(0) : String.valueOf(value), help);
        }
        if (value instanceof Boolean) {
            return typed(id, FlagType.FLAG, value, help);
        }
        if (option(options, "note") != null) {
            return typed(id, IntType.ofPitch(), value == null ? 60 : number(value), help);
        }
        if (value instanceof CharSequence) {
            return typed(id, TimeType.TIME, value.toString(), help);
        }
        double low = option(options, "low") == null ? 0 : ScriptRuntime.toNumber(option(options, "low"));
        double high = option(options, "high") == null ? 100 : ScriptRuntime.toNumber(option(options, "high"));
        double step = option(options, "step") == null ? 1 : ScriptRuntime.toNumber(option(options, "step"));
        if (!(low < high) || !(step > 0) || Math.abs(low) > 1e9 || Math.abs(high) > 1e9) {
            throw new IllegalArgumentException("control \"" + id + "\" goes from low to a higher high");
        }
        String unit = text(options, "unit");
        boolean whole = low == Math.rint(low) && high == Math.rint(high) && step == Math.rint(step);
        Object first = value == null ? low : number(value);
        return whole
                ? typed(id, IntType.of((int) low, (int) high, unit), first, help)
                : typed(id, new NumberType(low, high, step, unit), first, help);
    }

    private static Object number(Object value) {
        return ScriptRuntime.toNumber(value);
    }

    private static <T> Param<T> typed(String id, ParamType<T> type, Object plain, String help) {
        try {
            return Param.of(id, type, type.read(plain), help);
        } catch (ParamException e) {
            throw e.under("control \"" + id + "\"");
        }
    }

    private static void show(Control control, Param<?> param, Object value) {
        control.value = plain(param, value);
    }

    @SuppressWarnings("unchecked") // a value of that parameter
    private static <T> Object plain(Param<T> param, Object value) {
        Object plain = param.type().write((T) value);
        return plain instanceof Number number ? number.doubleValue() : plain;
    }

    /** Gives the controls their values. Between calls. */
    void set(ParamSet values) {
        controls.forEach(
                (id, control) -> values.spec().byId(id).ifPresent(param -> show(control, param, values.get(param))));
    }

    /**
     * The length of a step, or null when it has asked for none.
     *
     * @throws IllegalArgumentException when the control that says it stands at no length that a step can have
     */
    TimeValue pace() {
        if (pace instanceof Control control) {
            Object value = control.value;
            return value instanceof CharSequence || value instanceof Number ? step(time(value)) : null;
        }
        return (TimeValue) pace;
    }

    private static TimeValue step(TimeValue time) {
        if (time.ticksAt(0, TimeMap.DEFAULT) < StepGrid.SHORTEST_QUARTERS * Ticks.PER_QUARTER) {
            throw new IllegalArgumentException(
                    "a step is at least " + StepGrid.SHORTEST_QUARTERS + " beat long but was " + time);
        }
        return time;
    }

    /** A number of beats, or a time in words. */
    static TimeValue time(Object given) {
        if (given instanceof Number beats) {
            if (!(beats.doubleValue() > 0 && beats.doubleValue() <= 64)) {
                throw new IllegalArgumentException("a time is above 0 and up to 64 beats but was " + beats);
            }
            return new TimeValue.Beats(beats.doubleValue());
        }
        return TimeType.TIME.read(ScriptRuntime.toString(given));
    }

    // Notes

    Scriptable noteObject(NoteStart note) {
        NoteObject object = new NoteObject();
        ScriptRuntime.setBuiltinProtoAndParent(object, world, org.mozilla.javascript.TopLevel.Builtins.Object);
        object.put("pitch", object, (double) note.pitch());
        object.put("velocity", object, (double) note.velocity());
        object.put("channel", object, (double) note.channel() + 1);
        object.associateValue(NOTE, note);
        object.whole = true;
        return object;
    }

    static NoteStart noteOf(Object given) {
        return given instanceof ScriptableObject object ? (NoteStart) object.getAssociatedValue(NOTE) : null;
    }

    private static NoteStart note(Object given, String function) {
        NoteStart note = noteOf(given);
        if (note == null) {
            throw new IllegalArgumentException(function + "() takes a note that play() gave");
        }
        return note;
    }

    private Scriptable place(ScriptCall now) {
        NativeObject object = object();
        object.put("bar", object, (double) now.place().bar());
        object.put("beat", object, (double) now.place().beat());
        object.put("running", object, now.running());
        return object;
    }

    private Object chord(Object[] args) {
        int low = arg(args, 1) == Undefined.instance ? 60 : whole(args, 1);
        List<Integer> pitches =
                Chord.parse(ScriptRuntime.toString(arg(args, 0))).pitchesNear(low);
        return array(pitches.stream().map(pitch -> (Object) pitch.doubleValue()).toArray());
    }

    private Object spread(Object[] args) {
        int steps = whole(args, 1);
        if (steps > 1024) {
            throw new IllegalArgumentException("spread() takes up to 1024 steps but was given " + steps);
        }
        boolean[] rhythm = EvenSpread.of(whole(args, 0), steps);
        Object[] items = new Object[rhythm.length];
        for (int i = 0; i < items.length; i++) {
            items[i] = rhythm[i];
        }
        return array(items);
    }

    /** Calls a handler. On the script's thread. */
    Object call(Context context, String handler, ScriptCall newCall, Object... args) {
        call = newCall;
        try {
            Object[] given = new Object[args.length];
            for (int i = 0; i < args.length; i++) {
                given[i] = args[i] instanceof NoteStart note ? noteObject(note) : args[i];
            }
            return handlers.get(handler).call(context, world, world, given);
        } finally {
            call = null;
            lookAtKept();
        }
    }

    private void lookAtKept() {
        steps += ScriptThread.task().steps();
        if (steps < LOOK_EVERY_STEPS) {
            return;
        }
        steps = 0;
        if (Kept.bytes(world, alone + MOST_KEPT_BYTES) > alone + MOST_KEPT_BYTES) {
            throw new ScriptStop(0, "the script keeps more than " + (MOST_KEPT_BYTES >> 20) + " MB");
        }
    }
}
