package harpel.app.look;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javafx.application.Application;

/**
 * The toolkit's own styles less the rules of controls this window has none of: two thirds of them, which every start would read.
 * {@link StyleSheets} makes them when the application is built. Whoever uses one of those controls takes it off the list here.
 */
public final class ToolkitStyles {
    /** Controls that are not used, by the beginnings of their style classes. */
    static final Map<String, List<String>> LEFT_OUT = Map.ofEntries(
            Map.entry("Accordion", List.of("accordion")),
            Map.entry("ChoiceBox", List.of("choice-box")),
            Map.entry("ColorPicker", List.of("color-p", "color-r", "custom-color")),
            Map.entry("DatePicker", List.of("date-")),
            Map.entry("MenuBar", List.of("menu-bar")),
            Map.entry("Pagination", List.of("pagination")),
            Map.entry("PasswordField", List.of("password-field")),
            Map.entry("ProgressIndicator", List.of("progress-")),
            Map.entry("RadioButton", List.of("radio-button")),
            Map.entry("Spinner", List.of("spinner")),
            Map.entry("SplitMenuButton", List.of("split-menu-button")),
            Map.entry("SplitPane", List.of("split-pane")),
            Map.entry("TabPane", List.of("tab-")),
            Map.entry("TableView", List.of("table-", "column-", "check-box-table")),
            Map.entry("TitledPane", List.of("titled-pane")),
            Map.entry("ToolBar", List.of("tool-bar")),
            Map.entry("TreeView", List.of("tree-", "check-box-tree")));
    /** Style classes of charts and of the editor of web pages, which are not among the controls. */
    private static final List<String> OF_OTHERS = List.of(
            "chart",
            "bar-",
            "area-legend",
            "bubble-legend",
            "pie-legend",
            "stacked-bar",
            "default-color",
            "html-editor",
            "web-view");

    static final String MADE = "toolkit.bss";

    private ToolkitStyles() {}

    /** Sets them for the whole application, in place of all that the toolkit has. */
    public static void use() {
        Application.setUserAgentStylesheet(ToolkitStyles.class.getResource(MADE).toExternalForm());
    }

    /**
     * A style sheet's rules without the selectors of what is left out, without pictures, which are found beside the whole one only, and
     * without shadows, which this window has none of: drawn in software they took the process down once.
     */
    static String without(String sheet) {
        String plain = sheet.replaceAll("(?s)/\\*.*?\\*/", "")
                .replaceAll("-fx-[a-z-]+:\\s*url\\([^)]*\\);", "")
                .replaceAll("-fx-effect:[^;]*;", "");
        return Pattern.compile("([^{}]+)(\\{[^{}]*\\})")
                .matcher(plain)
                .results()
                .map(rule -> kept(rule.group(1)) + rule.group(2))
                .filter(rule -> !rule.startsWith("{"))
                .collect(Collectors.joining("\n"));
    }

    private static String kept(String selectors) {
        return Arrays.stream(selectors.split(","))
                .map(String::strip)
                .filter(selector -> !isLeftOut(selector))
                .collect(Collectors.joining(", "));
    }

    private static boolean isLeftOut(String selector) {
        return LEFT_OUT.entrySet().stream()
                        .anyMatch(control -> selector.startsWith(control.getKey())
                                || control.getValue().stream().anyMatch(style -> selector.contains("." + style)))
                || OF_OTHERS.stream().anyMatch(style -> selector.contains("." + style));
    }
}
