package harpel.script;

import org.mozilla.javascript.RhinoException;

/**
 * What went wrong in a script, and where.
 *
 * @param line from 1, or 0 where it is not known
 * @param column from 1, or 0 where it is not known
 * @param fatal whether the script is switched off for it
 */
public record ScriptError(int line, int column, String what, boolean fatal) {
    private static final String TOO_DEEP = "functions called each other too deeply";

    static ScriptError of(Throwable thrown) {
        if (thrown instanceof ScriptStop stop) {
            return new ScriptError(stop.line(), 0, stop.getMessage(), true);
        }
        if (thrown instanceof RhinoException error) {
            boolean tooDeep = error.details().startsWith("Exceeded maximum stack depth");
            String what = tooDeep ? TOO_DEEP : error.details().replaceFirst("^RangeError: ", "");
            return new ScriptError(line(error), Math.max(0, error.columnNumber()), what, tooDeep);
        }
        if (thrown instanceof StackOverflowError) {
            return new ScriptError(0, 0, TOO_DEEP, true);
        }
        if (thrown instanceof OutOfMemoryError) {
            return new ScriptError(0, 0, "the script wanted more memory than there is", true);
        }
        return new ScriptError(0, 0, String.valueOf(thrown.getMessage()), false);
    }

    private static int line(RhinoException error) {
        return Math.max(0, error.lineNumber());
    }

    /** "line 3, column 7: pich is not defined". */
    public String shown() {
        String place = line == 0 ? "" : "line " + line + (column == 0 ? "" : ", column " + column) + ": ";
        return place + what + (fatal ? "; the script was switched off" : "");
    }
}
