package harpel.script;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mozilla.javascript.BaseFunction;
import org.mozilla.javascript.Callable;
import org.mozilla.javascript.Context;
import org.mozilla.javascript.RhinoException;
import org.mozilla.javascript.ScriptRuntime;
import org.mozilla.javascript.Scriptable;
import org.mozilla.javascript.ScriptableObject;
import org.mozilla.javascript.Symbol;
import org.mozilla.javascript.SymbolKey;
import org.mozilla.javascript.Undefined;

/**
 * Makes a world for one script: the language, without what it could harm with, every built-in function within limits
 * ({@link Limited}), and all of it sealed, so that a script changes nothing but its own things.
 */
final class Limits {
    /** The longest array or text that built-in functions work on. */
    static final int LONGEST = 100_000;

    /** What the language has and scripts do not. */
    private static final List<String> LEFT_OUT = List.of(
            "Date",
            "eval",
            "Function",
            "Reflect",
            "Proxy",
            "BigInt",
            "ArrayBuffer",
            "DataView",
            "Int8Array",
            "Uint8Array",
            "Uint8ClampedArray",
            "Int16Array",
            "Uint16Array",
            "Int32Array",
            "Uint32Array",
            "Float32Array",
            "Float64Array",
            "BigInt64Array",
            "BigUint64Array",
            "Promise",
            "WeakRef",
            "FinalizationRegistry",
            "JSON",
            "XML",
            "XMLList",
            "Namespace",
            "QName",
            "escape",
            "unescape");

    /** Functions that would grow without end from little, by the name of what holds them. */
    private static final Map<String, List<String>> FUNCTIONS_LEFT_OUT = Map.of(
            "Array", List.of("flat", "flatMap"),
            "Function", List.of("constructor"),
            "GeneratorFunction", List.of("constructor"));

    /** One of each kind of object whose prototype no name leads to. */
    private static final String SAMPLES =
            "[[].values(), new Map().entries(), new Set().values(), ''[Symbol.iterator](), (function* () {})(), ''.matchAll(/x/g),"
                    + " function* () {}]";

    /** What every function has, and is not copied from one to the other. */
    private static final Set<Object> OF_EVERY_FUNCTION = Set.of("length", "name", "arity", "arguments", "caller");

    /** What {@code Array} itself keeps; the rest are copies of what arrays do, for anything with a length. */
    private static final Set<Object> OF_ARRAY = Set.of("of", "from", "isArray", "prototype");

    private static final Set<String> FUNCTION_MAKERS = Set.of("Function", "GeneratorFunction", "AsyncFunction");
    private static final List<Symbol> SYMBOLS =
            List.of(SymbolKey.ITERATOR, SymbolKey.HAS_INSTANCE, SymbolKey.TO_PRIMITIVE);

    /** {@link #SAMPLES}, compiled when the first world is made. */
    private static volatile org.mozilla.javascript.Script samples;

    private final Context context;
    private final ScriptableObject world;
    private final Map<Object, Limited> limited = new IdentityHashMap<>();
    private final Set<Object> seen = Collections.newSetFromMap(new IdentityHashMap<>());
    private final Deque<ScriptableObject> waiting = new ArrayDeque<>();

    private Limits(Context context, ScriptableObject world) {
        this.context = context;
        this.world = world;
    }

    /** A world for one script. Called in its context. */
    static ScriptableObject newWorld(Context context) {
        ScriptableObject world = context.initSafeStandardObjects();
        new Limits(context, world).apply();
        return world;
    }

    private void apply() {
        if (samples == null) {
            samples = context.compileString(SAMPLES, "samples", 1, null);
        }
        Object[] some = ((List<?>) samples.exec(context, world, world)).toArray();
        LEFT_OUT.forEach(world::delete);
        reach(world);
        for (Object sample : some) {
            for (Scriptable proto = ((Scriptable) sample).getPrototype(); proto != null; proto = proto.getPrototype()) {
                reach(proto);
            }
        }
        while (!waiting.isEmpty()) {
            limit(waiting.poll());
        }
        for (Object one : seen) {
            if (one != world) {
                ((ScriptableObject) one).sealObject();
            }
        }
    }

    private void reach(Object object) {
        if (object instanceof ScriptableObject one && seen.add(one)) {
            waiting.add(one);
        }
    }

    private void limit(ScriptableObject holder) {
        String name = name(holder);
        for (Object id : holder.getAllIds()) {
            limit(holder, name, id);
        }
        for (Object id : symbols(holder)) {
            limit(holder, name, id);
        }
        reach(holder.getPrototype());
    }

    /** The symbols that an object has properties under. */
    private static List<Object> symbols(ScriptableObject holder) {
        List<Object> found = new ArrayList<>();
        for (Symbol symbol : SYMBOLS) {
            if (holder.has(symbol, holder)) {
                found.add(symbol);
            }
        }
        return found;
    }

    /** What an object is called in {@link #FUNCTIONS_LEFT_OUT} and where a function is refused: its class. */
    private static String name(ScriptableObject holder) {
        boolean prototype = !(holder instanceof BaseFunction);
        Object constructor = prototype ? ScriptableObject.getProperty(holder, "constructor") : null;
        return constructor instanceof BaseFunction function ? function.getFunctionName() : "";
    }

    private void limit(ScriptableObject holder, String name, Object id) {
        Object value = plainValue(holder, id);
        if (!(value instanceof ScriptableObject object)) {
            return;
        }
        boolean leftOut = FUNCTIONS_LEFT_OUT.getOrDefault(name, List.of()).contains(id)
                || "constructor".equals(id) && isFunctionMaker(object);
        if (leftOut) {
            replace(holder, id, Undefined.instance);
            return;
        }
        if (object instanceof BaseFunction function && !(object instanceof Limited)) {
            replace(holder, id, limited(function, name + "." + id));
        } else {
            reach(object);
        }
    }

    /** Whether it is the way to make functions of text. */
    private static boolean isFunctionMaker(ScriptableObject object) {
        return object instanceof BaseFunction function && FUNCTION_MAKERS.contains(function.getFunctionName());
    }

    private static Object plainValue(ScriptableObject holder, Object id) {
        Object value;
        try {
            // What is made only when it is first asked for is there after this.
            value = id instanceof String name
                    ? holder.get(name, holder)
                    : id instanceof Symbol symbol ? holder.get(symbol, holder) : null;
        } catch (RhinoException e) {
            // A property that is worked out and does not work here has no function to limit.
            return null;
        }
        boolean workedOut =
                id instanceof String name && holder.getGetterOrSetter(name, 0, holder, false) instanceof Callable;
        return workedOut ? null : value;
    }

    private void replace(ScriptableObject holder, Object id, Object value) {
        if (id instanceof String name) {
            int attributes = holder.getAttributes(name);
            boolean fixed = (attributes & ScriptableObject.READONLY) != 0;
            if (fixed) {
                holder.setAttributes(name, ScriptableObject.EMPTY);
            }
            holder.put(name, holder, value);
            if (fixed) {
                holder.setAttributes(name, attributes);
            }
        } else {
            Symbol symbol = (Symbol) id;
            int attributes = holder.getAttributes(symbol);
            holder.setAttributes(symbol, ScriptableObject.EMPTY);
            holder.put(symbol, holder, value);
            holder.setAttributes(symbol, attributes);
        }
    }

    private Limited limited(BaseFunction inner, String name) {
        Limited known = limited.get(inner);
        if (known != null) {
            return known;
        }
        Limited made = new Limited(inner, name);
        limited.put(inner, made);
        ScriptRuntime.setFunctionProtoAndParent(made, context, world, false);
        // Functions have nothing that calls them in another way, or with a list of any length.
        made.setPrototype(null);
        if (!(inner.getPrototypeProperty() instanceof Scriptable)) {
            // It makes no objects, so it holds nothing but what every function has: there is nothing more to limit.
            seen.add(made);
            return made;
        }
        boolean array = inner.getFunctionName().equals("Array");
        for (Object id : inner.getAllIds()) {
            boolean own = OF_EVERY_FUNCTION.contains(id) || array && !OF_ARRAY.contains(id);
            if (id instanceof String property && !own) {
                Object value = plainValue(inner, property);
                if (value != null && value != Scriptable.NOT_FOUND) {
                    ScriptableObject.defineProperty(made, property, value, inner.getAttributes(property));
                }
            }
        }
        reach(made);
        reach(inner.getPrototypeProperty());
        return made;
    }
}
