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
import java.util.function.Consumer;
import org.mozilla.javascript.Script;

/** A text compiled once: its controls, or what is wrong with it. Equal texts are one source. */
final class ScriptSource {
    private static final int KEPT = 300;
    /** Time starts anew with the first key and with the transport, each time with a fresh run. */
    private static final int KEPT_READY = 3;

    private static final Executor PREPARING = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "harpel-script-prepare");
        thread.setDaemon(true);
        return thread;
    });
    /** Running a script's top level for the first time loads the language, which takes its time. */
    private static final ScriptThread.Budget LOADING = new ScriptThread.Budget(2_000_000, 3_000_000_000L, 64L << 20);

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
        Throwable thrown = ScriptThread.run(LOADING, context -> {
            Sandbox.check(code);
            compiled = context.compileString(code, "script", 1, null);
        });
        ScriptInstance first = new ScriptInstance(null);
        if (thrown == null) {
            thrown = start(first);
        }
        if (thrown != null) {
            error = ScriptError.of(thrown);
            return;
        }
        List<Param<?>> declared = new ArrayList<>(first.declared());
        spec = ParamSpec.of(declared.toArray(Param<?>[]::new)).and(harpel.script.Script.BASE);
        GOOD.put(spec, new WeakReference<>(this));
        hearsControllers = first.has(ScriptInstance.ON_CONTROLLER);
        first.belongTo(spec);
        ready.add(first);
    }

    private Throwable start(ScriptInstance instance) {
        return ScriptThread.run(LOADING, context -> instance.start(context, compiled));
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

    /**
     * A run of its own, with a fresh state. One is made ready ahead, so that the engine does not wait.
     *
     * @param complain takes what is wrong when the script does not start
     * @return null when it does not start
     */
    ScriptInstance newInstance(Consumer<String> complain) {
        ScriptInstance instance = ready.poll();
        PREPARING.execute(this::prepare);
        if (instance == null) {
            instance = new ScriptInstance(spec);
            Throwable thrown = start(instance);
            if (thrown != null) {
                complain.accept(ScriptError.of(thrown).shown());
                return null;
            }
        }
        return instance;
    }

    /** Makes runs ready for the next who ask; not on the engine's thread. */
    void prepare() {
        while (error == null && ready.size() < KEPT_READY) {
            ScriptInstance instance = new ScriptInstance(spec);
            if (start(instance) != null) {
                return;
            }
            ready.add(instance);
        }
    }
}
