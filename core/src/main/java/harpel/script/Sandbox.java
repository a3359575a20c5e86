package harpel.script;

import org.mozilla.javascript.CompilerEnvirons;
import org.mozilla.javascript.Context;
import org.mozilla.javascript.ContextFactory;
import org.mozilla.javascript.EvaluatorException;
import org.mozilla.javascript.Parser;
import org.mozilla.javascript.ast.BigIntLiteral;

/**
 * JavaScript with nothing of the outside: no Java classes, files, network, threads or clock. Every script has a context of its own, so
 * that none sees what another left behind. Steps are counted while it runs; what built-in functions do in one go counts, too
 * ({@link Limits}).
 */
final class Sandbox extends ContextFactory {
    static final Sandbox INSTANCE = new Sandbox();

    /** How often the steps are looked at. */
    static final int LOOK_EVERY_STEPS = 200;

    private static final int DEEPEST_CALLS = 1_000;

    private Sandbox() {}

    /** A context for one script; it is entered by whichever thread runs it at the time. */
    Context newContext() {
        return makeContext();
    }

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
        ScriptThread.Task task = ScriptThread.task();
        if (task != null) {
            task.count(steps);
        }
    }

    /** The line of the script that runs now. */
    static int lineNow() {
        return Math.max(0, Context.reportRuntimeError("here").lineNumber());
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
