package harpel.script;

import java.util.List;
import org.mozilla.javascript.CompilerEnvirons;
import org.mozilla.javascript.Context;
import org.mozilla.javascript.ContextFactory;
import org.mozilla.javascript.EvaluatorException;
import org.mozilla.javascript.Parser;
import org.mozilla.javascript.ScriptableObject;
import org.mozilla.javascript.ast.BigIntLiteral;

/**
 * JavaScript with nothing of the outside: no Java classes, files, network, threads or clock. Every call has a budget of steps and of
 * memory, looked at while it runs; built-in functions that work in one go have limits of their own.
 */
final class Sandbox extends ContextFactory {
    static final Sandbox INSTANCE = new Sandbox();
    /** The longest array or text that built-in functions work on. */
    private static final int LONGEST = 100_000;

    /** The name that the limits have among a script's sources. */
    static final String LIMITS_NAME = "limits";

    static final int LOOK_EVERY_STEPS = 1_000;
    private static final int DEEPEST_CALLS = 1_000;

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
            "escape",
            "unescape");

    /** Wraps what could work on for ever in one go, and takes away the way to make functions of text. */
    private static final String LIMITS = """
            (function (most) {
              function long(thing) { return thing !== null && thing !== undefined && thing.length > most; }
              function refuse() { throw new RangeError("longer than " + most); }
              function guard(holder, name) {
                var inner = holder[name];
                if (typeof inner !== "function") return;
                holder[name] = function () {
                  if (long(this)) refuse();
                  for (var i = 0; i < arguments.length; i++) if (long(arguments[i])) refuse();
                  return inner.apply(this, arguments);
                };
              }
              var apply = Function.prototype.apply;
              Object.getOwnPropertyNames(Array.prototype).forEach(function (name) {
                if (name !== "constructor" && name !== "length") guard(Array.prototype, name);
              });
              guard(Array.prototype, Symbol.iterator);
              guard(Array, "from");
              ["repeat", "padStart", "padEnd"].forEach(function (name) {
                var inner = String.prototype[name];
                String.prototype[name] = function (count, filler) {
                  var length = name === "repeat" ? String(this).length * count : count;
                  if (!(length <= most)) refuse();
                  return inner.call(this, count, filler);
                };
              });
              var NativeArray = Array;
              var LimitedArray = function Array(length) {
                if (arguments.length === 1 && typeof length === "number" && length > most) refuse();
                return NativeArray.apply(null, arguments);
              };
              Object.getOwnPropertyNames(NativeArray).forEach(function (name) {
                if (name !== "prototype" && name !== "length" && name !== "name" && name !== "arguments" && name !== "caller")
                  LimitedArray[name] = NativeArray[name];
              });
              LimitedArray.prototype = NativeArray.prototype;
              NativeArray.prototype.constructor = LimitedArray;
              Function.prototype.apply = function (self, list) {
                if (long(list)) refuse();
                return apply.call(this, self, list);
              };
              Function.prototype.constructor = undefined;
              var generator = Object.getPrototypeOf(function* () {});
              if (generator && generator.constructor) { try { generator.constructor = undefined; } catch (e) {} }
              return LimitedArray;
            })
            """;

    /** Compiled once; any thread's compiling is as good. */
    private volatile org.mozilla.javascript.Script limitsCompiled;

    private Sandbox() {}

    @Override
    protected Context makeContext() {
        Context context = new Context(this) {};
        context.setLanguageVersion(Context.VERSION_ES6);
        context.setInterpretedMode(true);
        context.setMaximumInterpreterStackDepth(DEEPEST_CALLS);
        context.setInstructionObserverThreshold(LOOK_EVERY_STEPS);
        context.setClassShutter(name -> false);
        context.setGeneratingDebug(true);
        return context;
    }

    @Override
    protected void observeInstructionCount(Context context, int steps) {
        Object task = context.getThreadLocal(ScriptThread.TASK);
        if (task instanceof ScriptThread.Task running) {
            String over = running.over(steps);
            if (over != null) {
                throw new ScriptStop(lineNow(), over);
            }
        }
    }

    private static int lineNow() {
        return ScriptError.line(Context.reportRuntimeError("here"));
    }

    /** A world for one script, with the language and none of what it could harm with. Called in a context. */
    ScriptableObject newWorld(Context context) {
        ScriptableObject world = context.initSafeStandardObjects();
        if (limitsCompiled == null) {
            limitsCompiled = context.compileString(LIMITS, LIMITS_NAME, 1, null);
        }
        Object limits = limitsCompiled.exec(context, world, world);
        Object array = ((org.mozilla.javascript.Function) limits).call(context, world, world, new Object[] {LONGEST});
        ScriptableObject.putProperty(world, "Array", array);
        LEFT_OUT.forEach(world::delete);
        return world;
    }

    /** Refuses what the limits cannot hold: whole numbers without end. Throws an {@link EvaluatorException} with its place. */
    static void check(String code) {
        CompilerEnvirons environment = new CompilerEnvirons();
        environment.setLanguageVersion(Context.VERSION_ES6);
        environment.setRecordingComments(false);
        Parser parser = new Parser(environment);
        parser.parse(code, "script", 1).visit(node -> {
            if (node instanceof BigIntLiteral) {
                throw new EvaluatorException(
                        "numbers that end in n are not part of scripts", "script", node.getLineno(), null, 0);
            }
            return true;
        });
    }
}
