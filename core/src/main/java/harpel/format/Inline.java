package harpel.format;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Puts the innermost lists and objects of indented JSON on one line where they fit, so that a note or a stage is one line to compare. */
final class Inline {
    private static final int WIDTH = 110;
    private static final Pattern INNERMOST = Pattern.compile("[\\[{]\\n([^\\[\\]{}]*?)\\n *[\\]}]");

    private Inline() {}

    static String shortened(String json) {
        Matcher matcher = INNERMOST.matcher(json);
        StringBuilder result = new StringBuilder();
        while (matcher.find()) {
            String whole = matcher.group();
            String inside = matcher.group(1).strip().replaceAll("\\n *", " ");
            boolean fits = inside.length() <= WIDTH;
            String line = whole.charAt(0) + " " + inside + " " + whole.charAt(whole.length() - 1);
            matcher.appendReplacement(result, Matcher.quoteReplacement(fits ? line : whole));
        }
        return matcher.appendTail(result).toString();
    }
}
