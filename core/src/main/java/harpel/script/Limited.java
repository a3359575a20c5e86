package harpel.script;

import java.util.Locale;
import org.mozilla.javascript.BaseFunction;
import org.mozilla.javascript.Callable;
import org.mozilla.javascript.Context;
import org.mozilla.javascript.NativeArray;
import org.mozilla.javascript.ScriptRuntime;
import org.mozilla.javascript.Scriptable;
import org.mozilla.javascript.ScriptableObject;
import org.mozilla.javascript.TopLevel;
import org.mozilla.javascript.Undefined;

/**
 * A built-in function within limits. What it works on in one go counts as steps; it works on nothing longer than
 * {@link Limits#LONGEST}, and takes numbers once, so that they cannot answer differently the second time.
 */
final class Limited extends BaseFunction {
    private static final long serialVersionUID = 1L;
    private static final String ITERATOR = "Symbol";
    /** So many letters, or items of a list, are made for the price of one step. */
    private static final long MADE_A_STEP = 8;

    private final transient BaseFunction inner;
    private final String name;

    Limited(BaseFunction inner, String name) {
        this.inner = inner;
        this.name = name;
        if (inner.getPrototypeProperty() instanceof Scriptable prototype) {
            setPrototypeProperty(prototype);
        }
    }

    @Override
    public String getFunctionName() {
        return inner.getFunctionName();
    }

    @Override
    public int getArity() {
        return inner.getArity();
    }

    @Override
    public int getLength() {
        return inner.getLength();
    }

    @Override
    public boolean hasInstance(Scriptable instance) {
        return inner.hasInstance(instance);
    }

    /** The same object that instances have as their prototype. */
    @Override
    public Object getPrototypeProperty() {
        return inner.getPrototypeProperty();
    }

    @Override
    public Object call(Context context, Scriptable scope, Scriptable self, Object[] args) {
        charge(self, args);
        return chargeMade(bounded(inner.call(context, scope, self, taken(context, scope, self, args))));
    }

    @Override
    public Scriptable construct(Context context, Scriptable scope, Object[] args) {
        charge(null, args);
        String made = inner.getFunctionName();
        if (made.equals("Map") || made.equals("Set") || made.startsWith("Weak")) {
            boolean nothing = args.length == 0 || args[0] == null || args[0] == Undefined.instance;
            if (!nothing && !(args[0] instanceof NativeArray)) {
                throw refuse(made + " is made of an array or of nothing");
            }
        }
        return (Scriptable) chargeMade(inner.construct(context, scope, args));
    }

    private static RuntimeException refuse(String what) {
        return ScriptRuntime.rangeError(what);
    }

    private static void checkLength(double length, boolean text) {
        if (!(length <= Limits.LONGEST)) {
            throw refuse(String.format(
                    Locale.ROOT,
                    "%s of %,.0f %s is longer than the %,d that scripts work on",
                    text ? "a text" : "a list",
                    length,
                    text ? "letters" : "entries",
                    Limits.LONGEST));
        }
    }

    /** Counts what it works on and refuses what is too long. */
    private void charge(Scriptable self, Object[] args) {
        long steps = 1 + sizeOf(self);
        for (Object arg : args) {
            steps += sizeOf(arg);
        }
        ScriptThread.Task task = ScriptThread.task();
        if (task != null) {
            task.count(steps);
        }
    }

    /** What is made takes room, and counts, too. */
    private static Object chargeMade(Object result) {
        ScriptThread.Task task = ScriptThread.task();
        if (task != null && (result instanceof CharSequence || result instanceof NativeArray)) {
            task.count(sizeOf(result) / MADE_A_STEP);
        }
        return result;
    }

    private static long sizeOf(Object value) {
        long length = value instanceof NativeArray array
                ? array.getLength()
                : value instanceof CharSequence text ? text.length() : wrappedLength(value);
        checkLength(length, !(value instanceof NativeArray));
        return length;
    }

    private static long wrappedLength(Object value) {
        return value instanceof org.mozilla.javascript.Wrapper wrapper && wrapper.unwrap() instanceof CharSequence text
                ? text.length()
                : 0;
    }

    /** What a call made must not be too long either. */
    private static Object bounded(Object result) {
        if (result instanceof CharSequence text) {
            checkLength(text.length(), true);
        }
        return result;
    }

    /** The arguments, each taken once. */
    private Object[] taken(Context context, Scriptable scope, Scriptable self, Object[] args) {
        switch (name) {
            case "String.repeat" -> {
                double count = args.length == 0 ? 0 : ScriptRuntime.toNumber(args[0]);
                checkLength(
                        Math.max(0, count)
                                * Math.max(1, ScriptRuntime.toString(self).length()),
                        true);
                return new Object[] {count};
            }
            case "String.padStart", "String.padEnd" -> {
                double length = args.length == 0 ? 0 : ScriptRuntime.toNumber(args[0]);
                checkLength(Math.max(0, length), true);
                return args.length < 2 ? new Object[] {length} : new Object[] {length, ScriptRuntime.toString(args[1])};
            }
            case "String.replace", "String.replaceAll" -> {
                return replacing(self, args);
            }
            case "Array.join" -> checkJoined(self, args);
            case "Function.apply" -> {
                boolean array = args.length < 2
                        || args[1] == null
                        || args[1] == Undefined.instance
                        || args[1] instanceof NativeArray
                        || args[1] instanceof Scriptable list
                                && list.getClassName().equals("Arguments");
                if (!array) {
                    throw refuse("apply() takes an array");
                }
            }
            default -> {
                if (name.equals(".from") && inner.getFunctionName().equals("from")) {
                    return fromArray(context, scope, args);
                }
            }
        }
        if (name.startsWith("Array.") && !(self instanceof NativeArray) && !name.contains(ITERATOR)) {
            throw ScriptRuntime.typeError(inner.getFunctionName() + "() works on arrays");
        }
        return args;
    }

    /** A text and what comes for a part of it, however often that is found. */
    private static Object[] replacing(Scriptable self, Object[] args) {
        long[] length = {ScriptRuntime.toString(self).length()};
        if (args.length > 1 && args[1] instanceof Callable by) {
            Object[] changed = args.clone();
            changed[1] = new BaseFunction() {
                private static final long serialVersionUID = 1L;

                @Override
                public Object call(Context context, Scriptable scope, Scriptable own, Object[] found) {
                    String text = ScriptRuntime.toString(by.call(context, scope, own, found));
                    length[0] += text.length();
                    checkLength(length[0], true);
                    return text;
                }
            };
            return changed;
        }
        if (args.length > 1) {
            String by = ScriptRuntime.toString(args[1]);
            // A part can be put in more than once by $& and the like.
            checkLength(
                    length[0] + (length[0] + 1.0) * by.length() + (by.indexOf('$') < 0 ? 0 : length[0] * length[0]),
                    true);
            Object[] changed = args.clone();
            changed[1] = by;
            return changed;
        }
        return args;
    }

    private static void checkJoined(Scriptable self, Object[] args) {
        if (self instanceof NativeArray array) {
            double length = array.getLength()
                    * (double)
                            (args.length == 0 || args[0] == Undefined.instance
                                    ? 1
                                    : ScriptRuntime.toString(args[0]).length());
            for (Object item : array.toArray()) {
                length += item instanceof CharSequence text ? text.length() : 1;
            }
            checkLength(length, true);
        }
    }

    /** {@code Array.from} of an object with a length takes that length once. */
    private static Object[] fromArray(Context context, Scriptable scope, Object[] args) {
        boolean plain = args.length > 0
                && args[0] instanceof ScriptableObject object
                && !(object instanceof NativeArray)
                && ScriptableObject.getProperty(object, org.mozilla.javascript.SymbolKey.ITERATOR)
                        == Scriptable.NOT_FOUND;
        if (!plain) {
            return args;
        }
        ScriptableObject object = (ScriptableObject) args[0];
        double length = ScriptRuntime.toNumber(ScriptableObject.getProperty(object, "length"));
        checkLength(Math.max(0, length), false);
        NativeArray array = new NativeArray((long) Math.max(0, Double.isNaN(length) ? 0 : length));
        ScriptRuntime.setBuiltinProtoAndParent(array, scope, TopLevel.Builtins.Array);
        for (int i = 0; i < array.getLength(); i++) {
            Object item = ScriptableObject.getProperty(object, i);
            array.put(i, array, item == Scriptable.NOT_FOUND ? Undefined.instance : item);
        }
        Object[] changed = args.clone();
        changed[0] = array;
        return changed;
    }
}
