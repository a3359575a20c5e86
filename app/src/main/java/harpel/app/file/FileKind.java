package harpel.app.file;

import harpel.format.PieceFile;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import javafx.stage.FileChooser.ExtensionFilter;

/**
 * A kind of file that is asked for.
 *
 * @param key by which the folder it was last in is remembered
 * @param words what they are called
 * @param endings what their names end with; the first is added where there is none
 */
public record FileKind(String key, String words, List<String> endings) {
    public static final FileKind PIECE = new FileKind("piece", "Pieces", List.of(PieceFile.ENDING));
    public static final FileKind CHAIN = new FileKind("chain", "Chains", List.of(".chain.json"));
    public static final FileKind MIDI = new FileKind("midi", "MIDI files", List.of(".mid", ".midi"));
    public static final FileKind SOUNDS =
            new FileKind("sounds", "SoundFont and DLS files", List.of(".sf2", ".SF2", ".dls", ".DLS"));
    /** For folders that files are written into. */
    public static final FileKind EXPORT = export("Files", "mid");

    /** A file that is exported, of which there are several formats. */
    public static FileKind export(String words, String ending) {
        return new FileKind("export", words, List.of("." + ending));
    }

    ExtensionFilter filter() {
        return new ExtensionFilter(
                words, endings.stream().map(ending -> "*" + ending).toList());
    }

    /** A file's name without the ending. */
    public String stem(Path file) {
        String name = file.getFileName().toString();
        return endings.stream()
                .filter(ending -> ends(name, ending))
                .findFirst()
                .map(ending -> name.substring(0, name.length() - ending.length()))
                .orElse(name);
    }

    /** With the ending, where nobody typed one. */
    Path complete(Path chosen) {
        String name = chosen.getFileName().toString();
        return endings.stream().anyMatch(ending -> ends(name, ending))
                ? chosen
                : chosen.resolveSibling(name + endings.get(0));
    }

    private static boolean ends(String name, String ending) {
        return name.length() > ending.length()
                && name.toLowerCase(Locale.ROOT).endsWith(ending.toLowerCase(Locale.ROOT));
    }
}
