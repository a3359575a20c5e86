package harpel.app;

import harpel.app.file.FileAsk;
import harpel.app.look.Look;
import harpel.app.look.Look.Fold;
import harpel.app.look.Theme;
import harpel.app.transport.DeviceDesk;
import harpel.device.Devices;
import harpel.format.AtomicFile;
import harpel.sound.BuiltInSound;
import harpel.sound.Delay;
import harpel.theory.OctaveNaming;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** What a person has chosen for every piece: the theme, how large everything is and how octaves are counted. Kept in a file of its own. */
public final class Settings implements FileAsk.Folders {
    private static final String DEVICE = "device ";
    private static final String FOLDER = "folder ";
    private static final int MOST_RECENT = 8;
    private static final String FOLD = "fold ";
    private static final String FOLDED = "folded";
    private static final String AUTOMATIC = "automatic";
    private final Path file;
    private final Properties properties = new Properties();

    /** @param home where everything of a person's own is kept */
    public Settings(Path home) {
        file = home.resolve("settings.properties");
        if (Files.exists(file)) {
            try (InputStream stream = Files.newInputStream(file)) {
                properties.load(stream);
            } catch (IOException | IllegalArgumentException e) {
                log().warn("the settings in {} cannot be read and are left at their defaults", file, e);
            }
        }
    }

    public Theme theme() {
        return properties.getProperty("theme", "day").equals("night") ? Theme.NIGHT : Theme.DAY;
    }

    public OctaveNaming octaves() {
        return properties.getProperty("note-60", "C4").equals("C3") ? OctaveNaming.C3 : OctaveNaming.C4;
    }

    /** How much larger everything is shown, 1–2. */
    public double size() {
        try {
            double percent = Double.parseDouble(properties.getProperty("size", "100"));
            return Math.max(1, Math.min(Look.LARGEST, percent / 100));
        } catch (NumberFormatException e) {
            return 1;
        }
    }

    /** Whether nothing has been kept yet. */
    public boolean isFirstStart() {
        return properties.isEmpty();
    }

    /** How the MIDI devices of this machine are used. */
    public DeviceDesk.Kept devices() {
        Map<String, Devices.Use> uses = new LinkedHashMap<>();
        for (String key : properties.stringPropertyNames()) {
            String[] words = properties.getProperty(key).split(" ");
            if (key.startsWith(DEVICE) && words.length == 3) {
                try {
                    uses.put(
                            key.substring(DEVICE.length()),
                            new Devices.Use(
                                    words[0].equals("used"), Integer.parseInt(words[1]), Integer.parseInt(words[2])));
                } catch (IllegalArgumentException e) {
                    log().warn("what the settings say of {} is not understood", key);
                }
            }
        }
        String to = properties.getProperty("clock-to", "");
        return new DeviceDesk.Kept(
                uses,
                properties.getProperty("clock-from", ""),
                to.isEmpty() ? List.of() : List.of(to.split("\t")),
                new BuiltInSound.Wish(
                        properties.getProperty("sound-device", ""),
                        Delay.ofWord(properties.getProperty("sound-delay", AUTOMATIC))));
    }

    public void keep(DeviceDesk.Kept devices) {
        devices.uses()
                .forEach((key, use) -> properties.setProperty(
                        DEVICE + key, (use.used() ? "used " : "left ") + use.delay() + " " + use.channel()));
        properties.setProperty("clock-from", devices.clockFrom());
        properties.setProperty("clock-to", String.join("\t", devices.clockTo()));
        properties.setProperty("sound-device", devices.sound().device());
        properties.setProperty(
                "sound-delay", devices.sound().delay().map(Delay::word).orElse(AUTOMATIC));
        write();
    }

    /** The files of pieces that were open last, the last first. */
    List<Path> recent() {
        String text = properties.getProperty("recent", "");
        return text.isEmpty()
                ? List.of()
                : Arrays.stream(text.split("\t")).map(Path::of).toList();
    }

    void keepRecent(Path file) {
        List<String> files = new ArrayList<>(List.of(file.toAbsolutePath().toString()));
        recent().stream()
                .map(Path::toString)
                .filter(one -> !files.contains(one))
                .forEach(files::add);
        properties.setProperty("recent", String.join("\t", files.subList(0, Math.min(MOST_RECENT, files.size()))));
        write();
    }

    /** Where the window was last. */
    Optional<WindowPlace> place() {
        return WindowPlace.parse(properties.getProperty("window", ""));
    }

    /** What was folded away by hand, or opened, and which of both. */
    Map<Fold, Boolean> folds() {
        Map<Fold, Boolean> folds = new EnumMap<>(Fold.class);
        for (Fold fold : Fold.values()) {
            String word = properties.getProperty(FOLD + fold.name().toLowerCase(Locale.ROOT), "");
            if (!word.isEmpty()) {
                folds.put(fold, word.equals(FOLDED));
            }
        }
        return folds;
    }

    void keep(WindowPlace place, Map<Fold, Boolean> folds) {
        properties.setProperty("window", place.text());
        folds.forEach((fold, folded) ->
                properties.setProperty(FOLD + fold.name().toLowerCase(Locale.ROOT), folded ? FOLDED : "open"));
        write();
    }

    public void keep(Theme theme, OctaveNaming octaves, double size) {
        properties.setProperty("size", String.valueOf(Math.round(size * 100)));
        properties.setProperty("theme", theme == Theme.NIGHT ? "night" : "day");
        properties.setProperty("note-60", octaves.name());
        write();
    }

    @Override
    public Optional<Path> of(String kind) {
        String folder = properties.getProperty(FOLDER + kind, "");
        return folder.isEmpty() ? Optional.empty() : Optional.of(Path.of(folder));
    }

    @Override
    public void keep(String kind, Path folder) {
        if (!folder.toString().equals(properties.getProperty(FOLDER + kind))) {
            properties.setProperty(FOLDER + kind, folder.toString());
            write();
        }
    }

    /** The folders in which files may have been left by whoever was killed while writing. */
    Set<Path> folders() {
        Set<Path> folders = new LinkedHashSet<>(List.of(file.toAbsolutePath().getParent()));
        properties.stringPropertyNames().stream()
                .filter(key -> key.startsWith(FOLDER))
                .forEach(key -> folders.add(Path.of(properties.getProperty(key))));
        return folders;
    }

    private void write() {
        try {
            Files.createDirectories(file.toAbsolutePath().getParent());
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            properties.store(bytes, "Settings of Harpel");
            AtomicFile.write(file, bytes.toByteArray());
        } catch (IOException e) {
            log().warn("the settings could not be kept in {}", file, e);
        }
    }

    private static Logger log() {
        return LoggerFactory.getLogger(Settings.class);
    }
}
