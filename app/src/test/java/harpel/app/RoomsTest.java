package harpel.app;

import static com.tngtech.archunit.library.Architectures.layeredArchitecture;

import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** The window's packages build on one another in one direction. */
class RoomsTest {
    @Test
    void controlsKnowNoSessionEditorsNoViewAndTheWindowIsMadeOfAll() {
        layeredArchitecture()
                .consideringOnlyDependenciesInLayers()
                .layer("ui")
                .definedBy("harpel.app.ui")
                .layer("session")
                .definedBy("harpel.app.session")
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
                .check(new ClassFileImporter()
                        .withImportOption(new ImportOption.DoNotIncludeTests())
                        .importPackages("harpel.app"));
    }
}
