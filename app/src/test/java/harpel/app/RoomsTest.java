package harpel.app;

import static com.tngtech.archunit.library.Architectures.layeredArchitecture;

import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** The window's packages build on one another in one direction. */
class RoomsTest {
    @Test
    void editorsAreDrawnOnTheSessionAndTheWindowIsMadeOfAllThree() {
        layeredArchitecture()
                .consideringOnlyDependenciesInLayers()
                .layer("session")
                .definedBy("harpel.app.session")
                .layer("draw")
                .definedBy("harpel.app.draw")
                .layer("editor")
                .definedBy("harpel.app.editor")
                .layer("window")
                .definedBy("harpel.app")
                .whereLayer("window")
                .mayNotBeAccessedByAnyLayer()
                .whereLayer("editor")
                .mayOnlyBeAccessedByLayers("window")
                .whereLayer("draw")
                .mayOnlyBeAccessedByLayers("window", "editor")
                .check(new ClassFileImporter()
                        .withImportOption(new ImportOption.DoNotIncludeTests())
                        .importPackages("harpel.app"));
    }
}
