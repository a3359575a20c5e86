package harpel.script;

import harpel.param.Param;
import harpel.param.ParamSpec;
import java.lang.ref.WeakReference;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executor;
import java.util.concurrent.Executors;
import org.mozilla.javascript.Context;
import org.mozilla.javascript.Script;

/** A text compiled once: its controls, or what is wrong with it. Equal texts are one source. */
final class ScriptSource {
    private static final int KEPT = 300;
    /** Time starts anew with the first key and with the transport, each time with a fresh run: so many more than there are stages. */
    private static final int SPARE = 2;

    private static final Executor PREPARING = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "harpel-script-prepare");
        thread.setDaemon(true);
        return thread;
    });
    private static final long LOADING_STEPS = 2_000_000;

    private static final Map<String, ScriptSource> SOURCES =
            Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
                private static final long serialVersionUID = 1L;

                @Override
                protected boolean removeEldestEntry(Map.Entry<String, ScriptSource> eldest) {
                    return size() > KEPT;
                }
            });

    private static final Map<ParamSpec, WeakReference<ScriptSource>> GOOD =
            Collections.synchronizedMap(new WeakHashMap<>());

    private final String code;
    private final ConcurrentLinkedQueue<ScriptInstance> ready = new ConcurrentLinkedQueue<>();
    /** So many runs are kept ready. */
    private volatile int wanted = SPARE;

    private Script compiled;
    private ParamSpec spec;
    private ScriptError error;
    private boolean hearsControllers;

    private ScriptSource(String code) {
        this.code = code;
    }

    /** The source of a text, compiled now if it is new; takes milliseconds then. */
    static ScriptSource of(String code) {
        ScriptSource known = SOURCES.get(code);
        if (known == null) {
            ScriptSource made = new ScriptSource(code);
            made.load();
            known = SOURCES.putIfAbsent(code, made);
            known = known == null ? made : known;
        }
        return known;
    }

    /** The good source whose controls these are; null for none. */
    static ScriptSource withControls(ParamSpec spec) {
        WeakReference<ScriptSource> good = GOOD.get(spec);
        return good == null ? null : good.get();
    }

    private void load() {
        Context context = Sandbox.INSTANCE.newContext();
        error = ScriptThread.run(context, LOADING_STEPS, entered -> {
            Sandbox.check(code);
            compiled = entered.compileString(code, "script", 1, null);
        });
        ScriptInstance first = new ScriptInstance(null);
        if (error == null) {
            error = start(first);
        }
        if (error == null) {
            error = first.misspelt(code);
        }
        if (error != null) {
            error = Lacking.explain(code, error);
            return;
        }
        List<Param<?>> declared = new ArrayList<>(first.declared());
        spec = ParamSpec.of(declared.toArray(Param<?>[]::new)).and(harpel.script.Script.BASE);
        GOOD.put(spec, new WeakReference<>(this));
        hearsControllers = first.has(ScriptInstance.ON_CONTROLLER);
        first.belongTo(spec);
        ready.add(first);
    }

    private ScriptError start(ScriptInstance instance) {
        return ScriptThread.run(instance.context(), LOADING_STEPS, context -> instance.start(context, compiled));
    }

    /** What is wrong with it; null when nothing is. */
    ScriptError error() {
        return error;
    }

    /** Its controls and what every script has; null when it has an error. */
    ParamSpec spec() {
        return spec;
    }

    boolean hearsControllers() {
        return hearsControllers;
    }

    /** Keeps runs ready for so many stages, and makes those that are missing, not on the calling thread. */
    void keepReady(int stages) {
        wanted = stages + SPARE;
        PREPARING.execute(this::prepare);
    }

    /** A run of its own that is ready; null when there is none just now, but one is being made. */
    ScriptInstance takeReady() {
        ScriptInstance instance = ready.poll();
        PREPARING.execute(this::prepare);
        return instance;
    }

    /** A run of its own, made now when none is ready; null when it does not start, which {@link #load} would have said. */
    ScriptInstance takeOrMake() {
        ScriptInstance instance = ready.poll();
        return instance == null ? make() : instance;
    }

    private ScriptInstance make() {
        ScriptInstance instance = new ScriptInstance(spec);
        return start(instance) == null ? instance : null;
    }

    /** Makes runs ready for the next who ask; not on the engine's thread. */
    private void prepare() {
        while (error == null && ready.size() < wanted) {
            ScriptInstance instance = make();
            if (instance == null) {
                return;
            }
            ready.add(instance);
        }
    }
}
