package harpel.format;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectKind;
import harpel.param.ParamException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/**
 * Named settings of effects and whole chains: those that ship, and those in a folder of the user's, files of
 * {@code {"harpel": 1, "presets": [{"name": …, "does": …, "stage": {…}}, {"name": …, "does": …, "chain": […]}]}}.
 *
 * @param all in the order of their files, those that ship first
 * @param problems what could not be read, file by file
 */
public record Presets(List<Preset> all, List<String> problems) {
    private static final List<String> SHIPPED = List.of("stages.json", "chains.json");
    private static final String ENDING = ".json";

    /**
     * A preset of one stage, or of a whole chain.
     *
     * @param does one sentence
     */
    public record Preset(String name, String does, Chain chain, boolean wholeChain) {
        /** The stage of a preset of one. */
        public Stage stage() {
            return chain.stages().get(0);
        }
    }

    public Presets {
        all = List.copyOf(all);
        problems = List.copyOf(problems);
    }

    /** The folder of the user's own: {@code presets} in {@code .harpel} at home, or in what {@code harpel.home} names. */
    public static Path userFolder() {
        Path home = Path.of(System.getProperty("user.home"), ".harpel");
        return Path.of(System.getProperty("harpel.home", home.toString())).resolve("presets");
    }

    /** Those that ship. */
    public static Presets shipped() {
        List<Preset> all = new ArrayList<>();
        for (String name : SHIPPED) {
            try (InputStream stream = Presets.class.getResourceAsStream("/harpel/presets/" + name)) {
                all.addAll(read(new String(stream.readAllBytes(), StandardCharsets.UTF_8)));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return new Presets(all, List.of());
    }

    /** Those that ship and those in a folder, which need not be there; a file that cannot be read is named. */
    public static Presets with(Path folder) {
        List<Preset> all = new ArrayList<>(shipped().all);
        List<String> problems = new ArrayList<>();
        if (Files.isDirectory(folder)) {
            try (Stream<Path> files = Files.list(folder)) {
                files.filter(file -> file.toString().endsWith(ENDING))
                        .sorted()
                        .forEach(file -> add(file, all, problems));
            } catch (IOException e) {
                problems.add(folder + ": " + e.getMessage());
            }
        }
        return new Presets(all, problems);
    }

    private static void add(Path file, List<Preset> all, List<String> problems) {
        try {
            all.addAll(read(Files.readAllBytes(file)));
        } catch (IOException | IllegalArgumentException e) {
            problems.add(file.getFileName() + ": " + e.getMessage());
        }
    }

    /** Reads the bytes of a file. Throws as {@link #read(String)}, and when they are no text. */
    public static List<Preset> read(byte[] bytes) throws FileException {
        return read(Json.text(bytes));
    }

    /**
     * Reads a file of presets.
     *
     * @throws FileException when it is not JSON
     * @throws ParamException with path, value, range and way out when a value does not fit
     */
    public static List<Preset> read(String text) throws FileException {
        Map<String, Object> plain = Json.parseObject(text);
        boolean newer = ChainFile.isNewer(plain);
        PlainMap file = new PlainMap(plain, "", newer);
        ChainFile.takeVersion(file);
        if (!file.has("presets")) {
            throw new ParamException("presets", "a file of presets has \"presets\", a list");
        }
        List<Preset> presets = file.list("presets", (one, path) -> readPreset(new PlainMap(one, path, newer)));
        file.end("harpel, presets");
        return presets;
    }

    private static Preset readPreset(PlainMap fields) {
        String name = fields.text("name", "");
        String does = fields.text("does", "");
        boolean whole = fields.has("chain");
        if (name.isBlank() || whole == fields.has("stage")) {
            throw new ParamException(
                    fields.path("name"), "a preset has a \"name\" and either a \"stage\" or a \"chain\"");
        }
        Object plain = whole ? fields.take("chain") : Collections.singletonList(fields.take("stage"));
        Chain chain = ChainFile.readChain(plain, fields.path(whole ? "chain" : "stage"), fields.newer());
        fields.end("name, does, stage, chain");
        return new Preset(name, does, chain, whole);
    }

    /** Whether a newer version wrote a file, so that some of it would be lost were it written again. */
    public static boolean isNewer(byte[] bytes) throws FileException {
        return ChainFile.isNewer(Json.parseObject(Json.text(bytes)));
    }

    /** A file with these presets. */
    public static String write(List<Preset> presets) {
        List<Object> list = new ArrayList<>();
        for (Preset preset : presets) {
            var plain = new java.util.LinkedHashMap<String, Object>();
            plain.put("name", preset.name());
            plain.put("does", preset.does());
            List<Object> stages = ChainFile.writeChain(preset.chain());
            plain.put(preset.wholeChain() ? "chain" : "stage", preset.wholeChain() ? stages : stages.get(0));
            list.add(plain);
        }
        var file = new java.util.LinkedHashMap<String, Object>();
        file.put(ChainFile.VERSION_KEY, ChainFile.VERSION);
        file.put("presets", list);
        return Json.write(file);
    }

    /** The presets of one effect. */
    public List<Preset> of(EffectKind kind) {
        return all.stream()
                .filter(preset -> !preset.wholeChain() && preset.stage().kind() == kind)
                .toList();
    }

    /** The presets of whole chains. */
    public List<Preset> chains() {
        return all.stream().filter(Preset::wholeChain).toList();
    }
}
