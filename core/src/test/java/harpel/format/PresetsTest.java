package harpel.format;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Chain;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.event.Event;
import harpel.event.NoteStart;
import harpel.format.Presets.Preset;
import harpel.param.Param;
import harpel.script.Script;
import harpel.testkit.Guide;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The presets that ship, and a folder of one's own. */
class PresetsTest {
    private static final Presets SHIPPED = Presets.shipped();

    /** Those that change nothing until something is set or added, or that only a second part hears. */
    private static final Set<String> PLAIN =
            Set.of("As it comes", "With a dry branch", "Low and high", "To another part as well");

    static List<EffectKind> kinds() {
        return EffectCatalog.kinds();
    }

    static Stream<Preset> presets() {
        return SHIPPED.all().stream();
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void everyEffectHasFourToTenSimpleFirst(EffectKind kind) {
        List<Preset> presets = SHIPPED.of(kind);
        assertThat(presets).hasSizeBetween(4, 10);
        assertThat(presets.stream().map(Preset::name).distinct()).hasSameSizeAs(presets);
        long set = kind.spec().params().stream()
                .filter(param -> !isDefault(presets.get(0), param))
                .count();
        assertThat(set).as("the first is simple").isLessThanOrEqualTo(1);
    }

    private static boolean isDefault(Preset preset, Param<?> param) {
        return preset.stage().params().isDefault(param);
    }

    @Test
    void thereAreTwentyChains() {
        assertThat(SHIPPED.chains()).hasSize(20);
        assertThat(SHIPPED.chains().stream().map(Preset::name).distinct()).hasSize(20);
    }

    /** Chords and single keys, on and off the grid, in and out of the key, with the wheel, a bend and the pedal. */
    private static List<Event> played(Chain chain) {
        return Played.through(chain)
                .key("A minor")
                .chord("A3 C4 E4", 0, 3.9)
                .control(1, 90, 3)
                .control(64, 127, 3.5)
                .control(64, 0, 4.5)
                .note("C4", 4.1, 0.5, 40)
                .note("C#4", 5.3, 0.5, 127)
                .bend(16000, 6)
                .chord("F3 A3 C4 E4 G4", 8, 3.9)
                .note("G4", 12, 2, 100)
                .events(4);
    }

    @ParameterizedTest
    @MethodSource("presets")
    void eachSaysWhatItDoesAndDoesSomething(Preset preset) {
        assertThat(preset.does()).endsWith(".").hasSizeBetween(10, 90);
        List<Event> events = played(preset.chain());
        Heard.of(events);
        if (!PLAIN.contains(preset.name())) {
            assertThat(texts(events)).as(preset.name()).isNotEqualTo(texts(played(Chain.EMPTY)));
        }
        if (preset.wholeChain()) {
            assertThat(events.stream().filter(NoteStart.class::isInstance).count())
                    .isGreaterThan(8);
        }
    }

    private static List<String> texts(List<Event> events) {
        return events.stream().map(Event::toString).toList();
    }

    @Test
    void theScriptsAreTheGuides() {
        Set<String> guide = new HashSet<>(Guide.scripts());
        assertThat(SHIPPED.of(EffectCatalog.of("script")))
                .allSatisfy(preset ->
                        assertThat(guide).contains(preset.stage().params().get(Script.CODE)));
    }

    @Test
    void aFolderOfOnesOwnIsReadAndItsFaultsAreNamed(@TempDir Path folder) throws IOException {
        Files.writeString(
                folder.resolve("mine.json"),
                Presets.write(List.of(SHIPPED.all().get(3), SHIPPED.chains().get(0))));
        Files.writeString(
                folder.resolve("bad.json"),
                "{\"harpel\":1,\"presets\":[{\"name\":\"x\",\"stage\":{\"effect\":\"echo\",\"fade\":400}}]}");
        Files.writeString(folder.resolve("readme.txt"), "not a preset");
        Presets all = Presets.with(folder);
        assertThat(all.all()).hasSize(SHIPPED.all().size() + 2);
        assertThat(all.all().get(all.all().size() - 1))
                .isEqualTo(SHIPPED.chains().get(0));
        assertThat(all.problems()).containsExactly("bad.json: presets[0].stage[0].fade: must be 0–100 % but was 400");
        assertThat(Presets.with(folder.resolve("nowhere")).all()).isEqualTo(SHIPPED.all());
    }
}
