package harpel.app.look;

import harpel.app.ui.Space;
import harpel.app.ui.Type;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.application.Application;
import javafx.css.Stylesheet;

/**
 * Makes the style sheets when the application is built, in the form that a start need not parse: the window's own, with what its names
 * of spaces and type sizes mean written in, since sheets themselves can only name colours, and what is used of the toolkit's.
 */
final class StyleSheets {
    private static final Pattern NAME = Pattern.compile("-hp-([a-z]+)(?![a-z-])");

    private StyleSheets() {}

    /** Takes the window's own sheet and the folder of the compiled classes. */
    public static void main(String[] places) throws IOException {
        Path folder = Path.of(places[1], "harpel", "app");
        write(filled(Files.readString(Path.of(places[0]))), folder.resolve("harpel.bss"));
        try (InputStream all =
                Application.class.getResourceAsStream("/com/sun/javafx/scene/control/skin/modena/modena.css")) {
            String sheet = new String(all.readAllBytes(), StandardCharsets.UTF_8);
            // A menu or tip whose window is just changing its sheets has colours all the same.
            write(
                    ToolkitStyles.without(sheet) + "\n" + Theme.DAY.tokenRule(),
                    folder.resolve("look").resolve(ToolkitStyles.MADE));
        }
    }

    private static void write(String sheet, Path to) throws IOException {
        Path text = Files.createTempFile("harpel", ".css");
        try {
            Files.writeString(text, sheet);
            Stylesheet.convertToBinary(text.toFile(), to.toFile());
        } finally {
            Files.delete(text);
        }
    }

    /** A sheet with the sizes that its names of {@link Space} and {@link Type} stand for; names of colours stay. */
    static String filled(String sheet) {
        Matcher names = NAME.matcher(sheet);
        return names.replaceAll(name -> {
            Double size = size(Space.class, name.group(1));
            size = size == null ? size(Type.class, name.group(1)) : size;
            return size == null ? name.group() : size.longValue() + "px";
        });
    }

    private static Double size(Class<?> names, String name) {
        try {
            return names.getField(name.toUpperCase(Locale.ROOT)).getDouble(null);
        } catch (NoSuchFieldException e) {
            return null;
        } catch (IllegalAccessException e) {
            throw new IllegalStateException(e);
        }
    }
}
