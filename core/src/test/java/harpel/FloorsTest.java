package harpel;

import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Packages are floors: each uses only floors below it. */
class FloorsTest {
    private static final List<String> FLOORS = List.of(
            "theory", "time", "event", "param", "phrase", "effect", "script", "move", "chain", "make", "piece",
            "advice", "engine", "capture", "format", "print", "vary", "device", "sound");
    private static final JavaClasses CLASSES = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("harpel");

    @Test
    void eachFloorUsesOnlyThoseBelow() {
        var layers = layeredArchitecture().consideringOnlyDependenciesInLayers();
        for (String floor : FLOORS) {
            layers = layers.layer(floor).definedBy("harpel." + floor + "..");
        }
        for (int i = 0; i < FLOORS.size(); i++) {
            String[] above = FLOORS.subList(i + 1, FLOORS.size()).toArray(String[]::new);
            layers = above.length == 0
                    ? layers.whereLayer(FLOORS.get(i)).mayNotBeAccessedByAnyLayer()
                    : layers.whereLayer(FLOORS.get(i)).mayOnlyBeAccessedByLayers(above);
        }
        layers.check(CLASSES);
    }

    @Test
    void noFloorGoesRoundInACircle() {
        slices().matching("harpel.(*)..").should().beFreeOfCycles().check(CLASSES);
    }

    @Test
    void theCoreKnowsNoInterfaceAndOnlyThePortsReadAClock() {
        ArchRuleDefinition.noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("javafx..", "java.awt..")
                .check(CLASSES);
        ArchRuleDefinition.noClasses()
                .that()
                .resideInAnyPackage(
                        "harpel.theory..",
                        "harpel.time..",
                        "harpel.event..",
                        "harpel.param..",
                        "harpel.effect..",
                        "harpel.chain..",
                        "harpel.piece..",
                        "harpel.format..")
                .should()
                .callMethod(System.class, "nanoTime")
                .orShould()
                .callMethod(System.class, "currentTimeMillis")
                .check(CLASSES);
    }
}
