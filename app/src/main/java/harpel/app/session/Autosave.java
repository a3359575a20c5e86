package harpel.app.session;

import harpel.format.AtomicFile;
import harpel.format.PieceFile;
import harpel.piece.Piece;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Keeps unsaved work in a file of its own, so that it survives a crash. Interface thread. */
public final class Autosave {
    private static final Logger LOG = LoggerFactory.getLogger(Autosave.class);
    private final Session session;
    private final Path folder;
    private Piece kept;
    private boolean keptUnsaved;
    /** The file that holds unsaved work now; null for none. */
    private Path written;

    public Autosave(Session session, Path home) {
        this.session = session;
        this.folder = home.resolve("autosave");
        this.kept = session.piece().get();
    }

    /** One file for each file that is worked on. */
    private Path place() {
        Path file = session.file().get();
        String name = file == null
                ? "untitled"
                : file.getFileName() + "-"
                        + Integer.toHexString(file.toAbsolutePath().hashCode());
        return folder.resolve(name);
    }

    /** Writes what has changed since the last time, or removes the file when all is saved. */
    public void keep() {
        Piece now = session.piece().get();
        boolean unsaved = session.unsaved().get();
        if (now.equals(kept) && unsaved == keptUnsaved) {
            return;
        }
        kept = now;
        keptUnsaved = unsaved;
        try {
            if (unsaved) {
                Files.createDirectories(folder);
                written = place();
                AtomicFile.write(written, PieceFile.write(now).getBytes(StandardCharsets.UTF_8));
            } else {
                forget();
            }
        } catch (IOException e) {
            LOG.warn("unsaved work could not be kept in {}", place(), e);
            session.say("Unsaved work could not be kept: " + e.getMessage());
        }
    }

    /** What was left unsaved when Harpel last ended without asking. */
    public Optional<Piece> leftOver() {
        try {
            return Files.exists(place())
                    ? Optional.of(PieceFile.read(Files.readString(place(), StandardCharsets.UTF_8)))
                    : Optional.empty();
        } catch (IOException | IllegalArgumentException e) {
            LOG.warn("left-over work in {} cannot be read", place(), e);
            return Optional.empty();
        }
    }

    /** The work is saved or given up: nothing is left over. */
    public void forget() {
        // Saved under a new name, the work lies kept under the old one.
        Path file = written == null ? place() : written;
        try {
            Files.deleteIfExists(file);
            written = null;
        } catch (IOException e) {
            LOG.warn("{} could not be removed", file, e);
        }
    }
}
