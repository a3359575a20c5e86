package harpel.app.desk;

import harpel.event.Event;
import harpel.event.NoteStart;
import harpel.format.AtomicFile;
import harpel.format.Presets;
import harpel.format.midi.SmfForm;
import harpel.format.midi.SmfReader;
import harpel.format.midi.SmfWriter;
import harpel.offline.PrintJob;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.plan.Program;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/** The user's own test phrases: MIDI files in a folder beside the presets. */
public final class OwnPhrases {
    private static final String ENDING = ".mid";

    private OwnPhrases() {}

    public static Path folder() {
        return Presets.userFolder().resolveSibling("test-phrases");
    }

    /** Their names, in order. */
    public static List<String> names(Path folder) {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString())
                    .filter(name -> name.endsWith(ENDING))
                    .map(name -> name.substring(0, name.length() - ENDING.length()))
                    .sorted()
                    .toList();
        } catch (IOException e) {
            return List.of();
        }
    }

    public static Phrase read(Path folder, String name) throws IOException {
        return SmfReader.read(Files.readAllBytes(folder.resolve(name + ENDING))).toPhrase(name);
    }

    /** Keeps the phrase of a part under its name and says where. */
    public static Path keep(Path folder, Piece piece, Part part) throws IOException {
        Phrase phrase = piece.phrase(part.phrase())
                .orElseThrow(() -> new IllegalArgumentException("“" + part.name() + "” hears no phrase to keep."));
        // Played over and over: what starts at its end is the next time round.
        Program loops = Program.of(piece.withTimeline(false));
        List<Event> events = PrintJob.phrases(loops, 0, phrase.length()).get(part.id()).events().stream()
                .filter(event -> !(event instanceof NoteStart) || event.tick() < phrase.length())
                .toList();
        Files.createDirectories(folder);
        Path file = folder.resolve(Part.idFor(phrase.name().replace("Test: ", "")) + ENDING);
        AtomicFile.write(file, SmfWriter.write(SmfForm.PLAIN, piece.time(), List.of(), events, phrase.length()));
        return file;
    }
}
