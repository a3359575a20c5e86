package harpel.testkit;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The examples of the scripting guide, as they are printed there. */
public final class Guide {
    private static final Pattern EXAMPLE = Pattern.compile("```js\n(.*?)```", Pattern.DOTALL);

    private Guide() {}

    public static List<String> scripts() {
        try {
            Matcher matcher = EXAMPLE.matcher(Files.readString(Path.of("../docs/scripting.md")));
            List<String> scripts = new ArrayList<>();
            while (matcher.find()) {
                scripts.add(matcher.group(1));
            }
            return scripts;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The example of that title. */
    public static String script(String title) {
        return scripts().stream()
                .filter(code -> code.startsWith("// " + title))
                .findFirst()
                .orElseThrow(() -> new AssertionError("the guide has no example \"" + title + "\""));
    }
}
