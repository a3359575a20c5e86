package harpel.script;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/** What the language of scripts does not have, by name, with what to write in its place. */
final class Lacking {
    /** By how it looks in the line that is no syntax. */
    private static final Map<Pattern, String> FORMS = new LinkedHashMap<>();

    /** By names that mean nothing in a script. */
    private static final Map<String, String> NAMES = Map.of(
            "Date", "scripts have no clock; now() gives bar and beat",
            "console", "log(…) writes a line below the script",
            "setTimeout", "play(note, {after: 1}) plays later",
            "setInterval", "every(\"1/8\") at the top and onStep(index) do something again and again",
            "JSON", "log(…) shows a value; there are no files to write it to",
            "eval", "write a function and call it",
            "Promise", "a call does its work at once",
            "require", "all of a script is one text",
            "alert", "log(…) writes a line below the script");

    static {
        FORMS.put(Pattern.compile("\\bclass\\b"), "there are no classes; write a function that gives an object");
        FORMS.put(
                Pattern.compile("\\bfor\\s*\\(\\s*const\\b.*\\bof\\b"),
                "a loop over a list takes let: for (let one of list)");
        FORMS.put(
                Pattern.compile("\\(.*\\.\\.\\..*\\)\\s*=>"),
                "arrow functions take no ...rest; write function (...rest) { } or give a list");
        FORMS.put(
                Pattern.compile("\\w\\s*\\(.*\\.\\.\\."),
                "a call takes no ...list; write Math.max.apply(null, list), or give the list itself");
        FORMS.put(Pattern.compile("\\b(async|await)\\b"), "there is nothing to wait for; a call does its work at once");
        FORMS.put(Pattern.compile("\\b(import|export)\\b"), "all of a script is one text; there are no modules");
        FORMS.put(Pattern.compile("\\{.*\\.\\.\\."), "name what is to be taken out of an object; there is no ...rest");
    }

    private Lacking() {}

    /** The error with what to write in its place, where the language lacks something. */
    static ScriptError explain(String code, ScriptError error) {
        List<String> lines = code.lines().toList();
        String line = error.line() > 0 && error.line() <= lines.size() ? lines.get(error.line() - 1) : "";
        for (Map.Entry<String, String> name : NAMES.entrySet()) {
            if (error.what().contains("\"" + name.getKey() + "\" is not defined")) {
                return with(error, name.getKey() + " is not part of scripts: " + name.getValue());
            }
        }
        if (error.what().startsWith("ReferenceError") || error.what().startsWith("TypeError")) {
            return error;
        }
        return FORMS.entrySet().stream()
                .filter(form -> form.getKey().matcher(line).find())
                .findFirst()
                .map(form -> with(error, form.getValue()))
                .orElse(error);
    }

    private static ScriptError with(ScriptError error, String what) {
        return new ScriptError(error.line(), error.column(), what, error.fatal());
    }
}
