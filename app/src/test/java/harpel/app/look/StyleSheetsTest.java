package harpel.app.look;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.io.IOException;
import java.io.InputStream;
import java.lang.module.ModuleReader;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import javafx.css.Stylesheet;
import org.junit.jupiter.api.Test;

/** The style sheets as the build makes them. */
class StyleSheetsTest {
    private static final String CONTROLS = "javafx.scene.control";

    @Test
    void nothingInTheWindowUsesAControlWhoseStylesAreLeftOut() {
        Set<String> used = new ClassFileImporter()
                        .withImportOption(new ImportOption.DoNotIncludeTests())
                        .importPackages("harpel.app", "org.fxmisc")
                        .stream()
                        .flatMap(one -> one.getDirectDependenciesFromSelf().stream())
                        .map(dependency -> dependency.getTargetClass())
                        .filter(target -> target.getPackageName().equals(CONTROLS))
                        .map(JavaClass::getSimpleName)
                        .collect(Collectors.toCollection(TreeSet::new));
        assertThat(used).contains("Button", "ComboBox", "Slider");
        assertThat(used).doesNotContainAnyElementsOf(ToolkitStyles.LEFT_OUT.keySet());
    }

    /** A name that no control bears would guard nothing. */
    @Test
    void whatIsLeftOutAreControlsOfTheToolkit() throws ClassNotFoundException {
        for (String name : ToolkitStyles.LEFT_OUT.keySet()) {
            assertThat(Class.forName(CONTROLS + "." + name, false, getClass().getClassLoader()))
                    .isNotNull();
        }
    }

    @Test
    void aRuleForSeveralIsKeptForThoseThatAreUsed() {
        assertThat(
                        ToolkitStyles.without(
                                "/* .note {} */ .button, .tab-pane > .tab-header,\n.list-view { -fx-padding: 0; }\n.date-picker, DatePicker { -fx-padding: 1; }\n"
                                        + ".spinner .text-field { -fx-padding: 2; }\n.text-field { -fx-graphic: url(\"arrow.png\"); -fx-padding: 3; }"))
                .isEqualTo(".button, .list-view{ -fx-padding: 0; }\n.text-field{  -fx-padding: 3; }");
    }

    /** What is used of the toolkit looks as it does with all of its styles. */
    @Test
    void everyRuleOfAUsedControlIsThere() throws IOException {
        List<String> whole = selectors(sheet());
        assertThat(sheet()).contains("-fx-effect");
        assertThat(ToolkitStyles.without(sheet())).doesNotContain("-fx-effect");
        List<String> made = selectors(ToolkitStyles.without(sheet()));
        for (String control : List.of(
                "button",
                "check-box",
                "combo-box",
                "context-menu",
                "dialog-pane",
                "hyperlink",
                "label",
                "list-cell",
                "menu-button",
                "menu-item",
                "root",
                "scroll-bar",
                "scroll-pane",
                "separator",
                "slider",
                "text-input",
                "toggle-button",
                "tooltip")) {
            List<String> of = beginning(control, whole);
            assertThat(of).as(control).isNotEmpty();
            assertThat(beginning(control, made)).as(control).isEqualTo(of);
        }
        assertThat(made).hasSizeLessThan(whole.size() / 2);
    }

    @Test
    void bothSheetsAreThereInTheFormThatNeedsNoParsing() throws IOException {
        for (String sheet : List.of("/harpel/app/harpel.bss", "/harpel/app/look/toolkit.bss")) {
            assertThat(Stylesheet.loadBinary(ToolkitStyles.class.getResource(sheet))
                            .getRules())
                    .hasSizeGreaterThan(100);
        }
    }

    @Test
    void aSheetsSizesAreWrittenInWhereItNamesThemAndColoursStay() {
        assertThat(
                        StyleSheets.filled(
                                "a { -fx-padding: 0 -hp-edge; -fx-text-fill: -hp-brass-text; -fx-background-color: -hp-bar; -fx-font-size: -hp-small; }"))
                .isEqualTo(
                        "a { -fx-padding: 0 12px; -fx-text-fill: -hp-brass-text; -fx-background-color: -hp-bar; -fx-font-size: 12px; }");
    }

    private static List<String> beginning(String control, List<String> selectors) {
        return selectors.stream()
                .filter(selector -> selector.matches("\\." + control + "(?![a-z-]).*"))
                .toList();
    }

    private static List<String> selectors(String sheet) {
        return new javafx.css.CssParser()
                .parse(sheet).getRules().stream()
                        .flatMap(rule -> rule.getSelectors().stream())
                        .map(Object::toString)
                        .map(selector -> selector.replace("*", ""))
                        .toList();
    }

    private static String sheet() throws IOException {
        try (ModuleReader controls = ModuleLayer.boot()
                        .configuration()
                        .findModule("javafx.controls")
                        .orElseThrow()
                        .reference()
                        .open();
                InputStream all = controls.open("com/sun/javafx/scene/control/skin/modena/modena.css")
                        .orElseThrow()) {
            return new String(all.readAllBytes(), StandardCharsets.UTF_8);
        }
    }
}
