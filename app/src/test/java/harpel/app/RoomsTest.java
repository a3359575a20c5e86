package harpel.app;

import static com.tngtech.archunit.library.Architectures.layeredArchitecture;

import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.properties.HasOwner;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import org.junit.jupiter.api.Test;
import org.slf4j.Logger;

/** The window's packages build on one another in one direction. */
class RoomsTest {
    private static final JavaClasses ALL = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("harpel");

    @Test
    void controlsKnowNoSessionEditorsNoViewAndTheWindowIsMadeOfAll() {
        layeredArchitecture()
                .consideringOnlyDependenciesInLayers()
                .layer("ui")
                .definedBy("harpel.app.ui")
                .layer("session")
                .definedBy(
                        "harpel.app.session",
                        "harpel.app.desk",
                        "harpel.app.document",
                        "harpel.app.transport",
                        "harpel.app.perform")
                .layer("draw")
                .definedBy("harpel.app.draw")
                .layer("editor")
                .definedBy("harpel.app.editor")
                .layer("chain")
                .definedBy("harpel.app.chain")
                .layer("inspector")
                .definedBy("harpel.app.inspector")
                .layer("parts")
                .definedBy("harpel.app.parts")
                .layer("window")
                .definedBy("harpel.app")
                .whereLayer("window")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("parts")
                .mayOnlyBeAccessedByLayers("window")
                .whereLayer("inspector")
                .mayOnlyBeAccessedByLayers("window")
                .whereLayer("chain")
                .mayOnlyBeAccessedByLayers("window", "inspector")
                .whereLayer("editor")
                .mayOnlyBeAccessedByLayers("window", "inspector")
                .whereLayer("draw")
                .mayOnlyBeAccessedByLayers("window", "inspector", "chain", "editor", "parts")
                .whereLayer("ui")
                .mayNotAccessAnyLayer()
                .check(classes("harpel.app"));
    }

    @Test
    void whatIsWorkedWithBuildsUpToTheSession() {
        List<String> floors = List.of("look", "document", "transport", "desk", "perform", "session");
        var layers = layeredArchitecture().consideringOnlyDependenciesInLayers();
        for (String floor : floors) {
            layers = layers.layer(floor).definedBy("harpel.app." + floor);
        }
        for (int i = 0; i < floors.size() - 1; i++) {
            layers = layers.whereLayer(floors.get(i))
                    .mayOnlyBeAccessedByLayers(
                            floors.subList(i + 1, floors.size()).toArray(String[]::new));
        }
        layers.whereLayer("session").mayNotBeAccessedByAnyLayer().check(classes("harpel.app"));
    }

    /** Who puts parts together may know all there is; all others get what they use. */
    @Test
    void onlyTheShellAndWholeViewsKnowTheSession() {
        ArchRuleDefinition.noClasses()
                .that()
                .resideOutsideOfPackages("harpel.app", "harpel.app.session")
                .and()
                .haveNameNotMatching(".*\\.(ChainView|PhraseView|TimelineView|PlayView|PartPanel|Inspector)([$].*)?")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("harpel.app.session")
                .check(classes("harpel.app"));
    }

    /** To make the log ready takes longer than to read a piece: it is asked for where something is said, which a start has no reason to. */
    @Test
    void nobodyKeepsALogger() {
        ArchRuleDefinition.noFields().should().haveRawType(Logger.class).check(classes("harpel"));
    }

    /** They look and are handled alike, and say what they are for, because they are all made in one place. */
    @Test
    void controlsAreMadeInUiAlone() {
        JavaClasses all = classes("harpel.app");
        for (Class<?> control : List.of(
                Button.class,
                ToggleButton.class,
                CheckBox.class,
                Hyperlink.class,
                MenuButton.class,
                TextField.class,
                ComboBox.class,
                Slider.class,
                Tooltip.class)) {
            ArchRuleDefinition.noClasses()
                    .that()
                    .resideOutsideOfPackage("harpel.app.ui")
                    .should()
                    .callConstructorWhere(JavaCall.Predicates.target(
                            HasOwner.Predicates.With.owner(JavaClass.Predicates.equivalentTo(control))))
                    .check(all);
        }
    }

    private static JavaClasses classes(String of) {
        return ALL.that(JavaClass.Predicates.resideInAPackage(of + ".."));
    }
}
