package harpel.format;

import harpel.control.ControllerMap;
import harpel.control.ControllerMap.Grid;
import harpel.control.ControllerMap.Knob;
import harpel.control.ControllerMap.Lights;
import harpel.control.Light;
import harpel.param.ParamException;
import harpel.param.type.ChoiceType;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * Maps of controllers, files that end in {@code .map.json}: {@code {"harpel": 1, "map": "8 × 8 pads", "pads": {"columns": 8, "rows": 8,
 * "first": 36, "step": 8}, "knobs": [{"controller": 16}, {"relative": 17}, {"fine": 1}, {"nrpn": 300}], "lights": {"by": "velocity",
 * "off": 0, "there": 1, "on": 5, …}, "learnt": {"36": 0}}}.
 */
public final class MapFile {
    public static final String ENDING = ".map.json";

    private static final List<String> SHIPPED = List.of(
            "pads-8x8-rows-of-8",
            "pads-8x8-rows-16-apart",
            "pads-16-from-36",
            "knobs-16-to-23",
            "knobs-70-to-77",
            "keyboard");
    private static final ChoiceType<Knob.Kind> KINDS = ChoiceType.of(Knob.Kind.class);

    private MapFile() {}

    /**
     * Reads a map.
     *
     * @throws FileException when it is not JSON
     * @throws ParamException with path, value, range and way out when a value does not fit
     */
    public static ControllerMap read(String text) throws FileException {
        Map<String, Object> plain = Json.parseObject(text);
        ControllerMap map = read(plain);
        if (!ChainFile.isNewer(plain)) {
            return map;
        }
        Map<String, Object> unknown = new LinkedHashMap<>(map.unknown());
        unknown.put(ChainFile.VERSION_KEY, NewerFile.of(plain.get(ChainFile.VERSION_KEY), plain, plain(map)));
        return new ControllerMap(map.name(), map.pads(), map.knobs(), map.lights(), map.learnt(), unknown);
    }

    private static ControllerMap read(Map<String, Object> plain) {
        PlainMap file = new PlainMap(plain, "", ChainFile.isNewer(plain));
        ChainFile.takeVersion(file);
        String name = file.text("map", "Controller");
        Grid pads = file.take("pads", null, MapFile::grid);
        List<Knob> knobs = file.list("knobs", (one, path) -> PlainMap.at(path, () -> knob(one)));
        Lights lights = file.take("lights", null, MapFile::lights);
        Map<Integer, Integer> learnt = file.take("learnt", Map.of(), MapFile::learnt);
        return new ControllerMap(
                name, pads, knobs, lights, learnt, file.end("harpel, map, pads, knobs, lights, learnt"));
    }

    private static Grid grid(Object plain) {
        PlainMap fields = new PlainMap(plain, "", false);
        int columns = (int) fields.whole("columns", 8, 1, 16);
        int rows = (int) fields.whole("rows", 8, 1, 16);
        int first = (int) fields.whole("first", 36, 0, 127);
        int step = (int) fields.whole("step", columns, 1, 127);
        fields.end("columns, rows, first, step");
        return new Grid(columns, rows, first, step);
    }

    private static Knob knob(Object plain) {
        PlainMap fields = new PlainMap(plain, "", false);
        Knob found = null;
        for (Knob.Kind kind : Knob.Kind.values()) {
            String word = word(kind);
            if (fields.has(word)) {
                found = new Knob(kind, (int) fields.whole(word, 0, 0, 16_383));
            }
        }
        fields.end("controller, relative, fine, nrpn");
        if (found == null) {
            throw new ParamException(
                    "a knob is one of {\"controller\": n}, {\"relative\": n}, {\"fine\": n}, {\"nrpn\": n}");
        }
        return found;
    }

    private static String word(Knob.Kind kind) {
        return kind == Knob.Kind.ABSOLUTE ? "controller" : String.valueOf(KINDS.write(kind));
    }

    private static Lights lights(Object plain) {
        PlainMap fields = new PlainMap(plain, "", false);
        String by = fields.text("by", "velocity");
        if (!by.equals("velocity") && !by.equals("channel")) {
            throw new ParamException("by", "must be velocity or channel but was " + by);
        }
        List<Integer> colours = new ArrayList<>();
        List<String> names = new ArrayList<>(List.of("by"));
        for (Light light : Light.values()) {
            String name = light.name().toLowerCase(Locale.ROOT);
            names.add(name);
            colours.add((int) fields.whole(name, light.ordinal(), 0, 127));
        }
        fields.end(String.join(", ", names));
        return new Lights(by.equals("channel"), colours);
    }

    private static Map<Integer, Integer> learnt(Object plain) {
        PlainMap fields = new PlainMap(plain, "", false);
        Map<Integer, Integer> learnt = new LinkedHashMap<>();
        for (String note : fields.names()) {
            if (!note.matches("\\d{1,3}") || Integer.parseInt(note) > 127) {
                throw new ParamException(note, "a note is 0–127");
            }
            learnt.put(Integer.valueOf(note), (int) fields.whole(note, 0, 0, 127));
        }
        return learnt;
    }

    /** The map as a file. */
    public static String write(ControllerMap map) {
        Map<String, Object> plain = plain(map);
        return Json.write(
                map.unknown().get(ChainFile.VERSION_KEY) instanceof NewerFile newer ? newer.over(plain) : plain);
    }

    private static Map<String, Object> plain(ControllerMap map) {
        Map<String, Object> plain = new LinkedHashMap<>();
        plain.put(ChainFile.VERSION_KEY, ChainFile.version(map.unknown()));
        plain.put("map", map.name());
        if (map.pads() != null) {
            Map<String, Object> pads = new LinkedHashMap<>();
            pads.put("columns", map.pads().columns());
            pads.put("rows", map.pads().rows());
            pads.put("first", map.pads().first());
            pads.put("step", map.pads().step());
            plain.put("pads", pads);
        }
        if (!map.knobs().isEmpty()) {
            plain.put(
                    "knobs",
                    map.knobs().stream()
                            .map(knob -> Map.of(word(knob.kind()), knob.number()))
                            .toList());
        }
        if (map.lights() != null) {
            Map<String, Object> lights = new LinkedHashMap<>();
            lights.put("by", map.lights().byChannel() ? "channel" : "velocity");
            for (Light light : Light.values()) {
                lights.put(
                        light.name().toLowerCase(Locale.ROOT),
                        map.lights().colours().get(light.ordinal()));
            }
            plain.put("lights", lights);
        }
        if (!map.learnt().isEmpty()) {
            Map<String, Object> learnt = new LinkedHashMap<>();
            map.learnt().forEach((note, pad) -> learnt.put(String.valueOf(note), pad));
            plain.put("learnt", learnt);
        }
        PlainMap.merge(plain, map.unknown());
        return plain;
    }

    /** The maps that ship, by the names of their files. */
    public static Map<String, ControllerMap> shipped() {
        Map<String, ControllerMap> maps = new LinkedHashMap<>();
        for (String name : SHIPPED) {
            try (InputStream stream = MapFile.class.getResourceAsStream("/harpel/maps/" + name + ENDING)) {
                maps.put(name, read(new String(stream.readAllBytes(), StandardCharsets.UTF_8)));
            } catch (IOException | ParamException e) {
                throw new IllegalStateException("the map " + name + " that ships cannot be read", e);
            }
        }
        return maps;
    }

    /**
     * The maps that ship and those in a folder, which come in place of equal ones. One that cannot be read hides no other.
     *
     * @param folder null for none
     * @param problems takes what is wrong with each that cannot be read
     */
    public static Map<String, ControllerMap> all(Path folder, Consumer<String> problems) {
        Map<String, ControllerMap> maps = shipped();
        if (folder == null || !Files.isDirectory(folder)) {
            return maps;
        }
        try (Stream<Path> files = Files.list(folder)) {
            files.filter(file -> file.getFileName().toString().endsWith(ENDING))
                    .sorted()
                    .forEach(file -> {
                        String name = file.getFileName().toString();
                        try {
                            maps.put(name.replace(ENDING, ""), read(Json.text(Files.readAllBytes(file))));
                        } catch (IOException | ParamException e) {
                            problems.accept("The map " + file + " is left out: " + e.getMessage());
                        }
                    });
        } catch (IOException e) {
            problems.accept("The maps in " + folder + " cannot be read: " + e.getMessage());
        }
        return maps;
    }
}
