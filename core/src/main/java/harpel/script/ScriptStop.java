package harpel.script;

/** Stops a script that went over its budget; an error, so that the script itself cannot catch it. */
final class ScriptStop extends Error {
    private static final long serialVersionUID = 1L;
    private final int line;

    ScriptStop(int line, String message) {
        super(message, null, false, false);
        this.line = line;
    }

    int line() {
        return line;
    }
}
