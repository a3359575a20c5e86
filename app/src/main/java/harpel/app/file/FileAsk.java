package harpel.app.file;

import harpel.app.ui.Asking;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.scene.control.ButtonBar;
import javafx.scene.control.ButtonType;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Window;

/** Asks for files, beginning where the last of that kind was. Interface thread. */
public class FileAsk {
    /** The folders in which files were last, by their kind. */
    public interface Folders {
        Optional<Path> of(String kind);

        void keep(String kind, Path folder);

        /** Folders that are known as long as a map is. */
        static Folders in(Map<String, Path> known) {
            return new Folders() {
                @Override
                public Optional<Path> of(String kind) {
                    return Optional.ofNullable(known.get(kind));
                }

                @Override
                public void keep(String kind, Path folder) {
                    known.put(kind, folder);
                }
            };
        }
    }

    private final Window window;
    private final Supplier<List<String>> styles;
    private final Folders folders;
    private final Supplier<Path> present;

    /**
     * @param styles the style sheets of the window
     * @param present the file of the piece that is open; null for none
     */
    public FileAsk(Window window, Supplier<List<String>> styles, Folders folders, Supplier<Path> present) {
        this.window = window;
        this.styles = styles;
        this.folders = folders;
        this.present = present;
    }

    /** A file that is there; nothing where it was cancelled. */
    public Optional<Path> toOpen(FileKind kind, String title) {
        return kept(kind, shown(chooser(kind, title, ""), false));
    }

    /**
     * A file to write, with its ending; nothing where it was cancelled, or where it is there already and is not to be replaced.
     *
     * @param name what is proposed
     */
    public Optional<Path> toSave(FileKind kind, String title, String name) {
        Optional<Path> chosen = kept(kind, shown(chooser(kind, title, name), true));
        Optional<Path> whole = chosen.map(kind::complete);
        // The dialog asked about what was typed, not about the completed name.
        return whole.filter(path -> chosen.get().equals(path) || !isThere(path) || mayReplace(path));
    }

    /** A folder; nothing where it was cancelled. */
    public Optional<Path> folder(FileKind kind, String title) {
        DirectoryChooser chooser = new DirectoryChooser();
        chooser.setTitle(title);
        chooser.setInitialDirectory(begin(kind).toFile());
        Optional<Path> folder = Optional.ofNullable(shown(chooser));
        folder.ifPresent(chosen -> folders.keep(kind.key(), chosen));
        return folder;
    }

    private FileChooser chooser(FileKind kind, String title, String name) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle(title);
        chooser.getExtensionFilters().add(kind.filter());
        chooser.setInitialDirectory(begin(kind).toFile());
        chooser.setInitialFileName(name);
        return chooser;
    }

    /** The system's own dialog; null where it was cancelled. */
    protected Path shown(FileChooser chooser, boolean save) {
        return path(save ? chooser.showSaveDialog(window) : chooser.showOpenDialog(window));
    }

    /** The system's own dialog; null where it was cancelled. */
    protected Path shown(DirectoryChooser chooser) {
        return path(chooser.showDialog(window));
    }

    private static Path path(File chosen) {
        return chosen == null ? null : chosen.toPath().toAbsolutePath();
    }

    private Optional<Path> kept(FileKind kind, Path chosen) {
        Optional<Path> path = Optional.ofNullable(chosen);
        path.map(Path::getParent).ifPresent(folder -> folders.keep(kind.key(), folder));
        return path;
    }

    /** A piece is looked for beside the one that is open, other files where the last of their kind was; a folder that has gone is left out. */
    private Path begin(FileKind kind) {
        Optional<Path> open =
                Optional.ofNullable(present.get()).map(Path::toAbsolutePath).map(Path::getParent);
        Optional<Path> last = folders.of(kind.key());
        Optional<Path> wanted = kind == FileKind.PIECE ? open.or(() -> last) : last.or(() -> open);
        Path home = Path.of(System.getProperty("user.home", "/")).toAbsolutePath();
        return Disk.soon(() -> nearest(wanted.orElse(home)), home.getRoot());
    }

    private static Path nearest(Path folder) {
        Path there = folder.toAbsolutePath();
        while (there.getParent() != null && !Files.isDirectory(there)) {
            there = there.getParent();
        }
        return there;
    }

    private static boolean isThere(Path path) {
        return Disk.soon(() -> Files.exists(path), true);
    }

    private boolean mayReplace(Path path) {
        ButtonType replace = new ButtonType("Replace it", ButtonBar.ButtonData.YES);
        return Asking.sheet(
                        window,
                        styles.get(),
                        "Replace “" + path.getFileName() + "”?",
                        "There is a file of this name in " + path.getParent() + ".",
                        replace,
                        ButtonType.CANCEL)
                .showAndWait()
                .filter(answer -> answer == replace)
                .isPresent();
    }
}
