package harpel;

import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Packages are floors: each uses only floors below it. */
class FloorsTest {
    private static final List<String> FLOORS = List.of(
            "theory", "time", "event", "param", "phrase", "effect", "script", "move", "chain", "make", "piece",
            "advice", "port", "plan", "run", "offline", "clock", "engine", "player", "capture", "control", "format",
            "print", "vary", "device", "sound");
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
    void everyPackageIsAFloorAndOnTheMap() throws IOException {
        Set<String> packages = CLASSES.stream()
                .map(one -> one.getPackageName().split("\\.")[1])
                .collect(Collectors.toCollection(TreeSet::new));
        assertThat(packages).isEqualTo(new TreeSet<>(FLOORS));
        Matcher line = Pattern.compile("(?m)^ +(\\d+) +harpel\\.(\\w+) ")
                .matcher(Files.readString(Path.of("../docs/architecture.md")));
        assertThat(line.results()
                        .map(one -> one.group(1) + " " + one.group(2))
                        .sorted(Comparator.comparing(words -> Integer.valueOf(words.split(" ")[0]))))
                .containsExactlyElementsOf(IntStream.range(0, FLOORS.size())
                        .mapToObj(i -> i + " " + FLOORS.get(i))
                        .toList());
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
                .resideOutsideOfPackages("harpel.port..", "harpel.device..")
                .and()
                // waits for a script that may have come to a stand; is a port that a sound device drives
                .haveNameNotMatching("harpel\\.(script\\.ScriptThread|sound\\.SoundEngine).*")
                .should()
                .callMethod(System.class, "nanoTime")
                .orShould()
                .callMethod(System.class, "currentTimeMillis")
                .orShould()
                .callMethod(Instant.class, "now")
                .check(CLASSES);
    }

    /** More than a newcomer can look through is parted by what one looks for. */
    @Test
    void noRoomHasMoreThanTwentyFiles() throws IOException {
        Map<String, Long> rooms = new TreeMap<>();
        for (String module : List.of("core", "testkit", "cli", "app", "bench")) {
            try (var all = Files.walk(Path.of("..", module, "src/main/java"))) {
                all.filter(file -> file.toString().endsWith(".java"))
                        .forEach(file -> rooms.merge(file.getParent().toString(), 1L, Long::sum));
            }
        }
        assertThat(rooms)
                .hasSizeGreaterThan(30)
                .allSatisfy((room, files) -> assertThat(files).as(room).isLessThanOrEqualTo(20));
    }
}
