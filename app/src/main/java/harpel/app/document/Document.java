package harpel.app.document;

import harpel.app.look.Messages;
import harpel.format.AtomicFile;
import harpel.format.InFile;
import harpel.format.PieceFile;
import harpel.piece.History;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.theory.Spelling;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** The open piece, its history and its file. Interface thread. */
public final class Document {
    private static final int NAMED = 3;

    private final Messages messages;
    private final History history;
    private final ReadOnlyObjectWrapper<Piece> piece;
    private final ObjectProperty<Path> file = new SimpleObjectProperty<>();
    private final BooleanProperty unsaved = new SimpleBooleanProperty();
    private final List<Consumer<Change>> listeners = new ArrayList<>();
    private Spelling spelling;
    /** By which it is known what the file held when it was opened or saved here; empty for nowhere. */
    private String onDisk = "";

    private Object life = new Object();

    /**
     * Where a piece lives.
     *
     * @param path null for nowhere yet
     * @param onDisk what the file held when it was opened or saved here
     * @param saved the piece as it was opened or saved
     * @param life the piece's own, through all edits
     */
    private record Home(Path path, String onDisk, Piece saved, Object life) {}

    /** Where one piece took the place of another, and where each lives. */
    private static final class Crossing {
        final Piece before;
        final Piece after;
        Home homeBefore;
        Home homeAfter;

        Crossing(Piece before, Piece after, Home homeBefore, Home homeAfter) {
            this.before = before;
            this.after = after;
            this.homeBefore = homeBefore;
            this.homeAfter = homeAfter;
        }
    }

    private final List<Crossing> crossings = new ArrayList<>();
    private final List<Runnable> crossed = new ArrayList<>();

    public Document(Piece opened, Messages messages) {
        this.messages = messages;
        Piece start = withAPart(opened);
        spelling = Spelling.of(start.key());
        history = new History(start);
        piece = new ReadOnlyObjectWrapper<>(start);
    }

    /** A piece that has no part has an empty one, so that there is always one to show and to play. */
    private static Piece withAPart(Piece piece) {
        return piece.parts().isEmpty() ? piece.withParts(Piece.empty().parts()) : piece;
    }

    public ReadOnlyObjectProperty<Piece> piece() {
        return piece.getReadOnlyProperty();
    }

    /** How notes are written: as the piece's key writes them. */
    public Spelling spelling() {
        return spelling;
    }

    /** Tells of every edit what it changed, in the order in which this was asked, before whoever listens to {@link #piece}. */
    public void onChange(Consumer<Change> listener) {
        listeners.add(listener);
    }

    /** Does an edit; one that the piece refuses, such as a circle of routes, is not done and the reason said. */
    public void apply(PieceEdit edit) {
        try {
            history.apply(edit);
        } catch (IllegalArgumentException e) {
            messages.say(e.getMessage());
            return;
        }
        // What those who listen do wrong is no refusal of the edit.
        show();
    }

    /** The same for whoever says itself what is wrong, as a field does. Throws {@link IllegalArgumentException}, and changes nothing then. */
    public void take(PieceEdit edit) {
        history.apply(edit);
        show();
    }

    /** Does an edit as one undo with all that has been done since a piece was open. */
    public void together(Piece since, PieceEdit edit) {
        history.together(since, edit);
        show();
    }

    /** The hand has left the control: what comes next is undone on its own. */
    public void endGesture() {
        history.endGesture();
    }

    public void undo() {
        Optional<String> undone = history.undoLabel();
        Piece from = history.current();
        history.undo();
        for (Crossing crossing : crossings) {
            if (crossing.after == from && crossing.before == history.current()) {
                crossing.homeAfter = home();
                live(crossing.homeBefore);
            }
        }
        undone.ifPresent(label -> messages.say("Undone: " + label));
        show();
    }

    public void redo() {
        Optional<String> redone = history.redoLabel();
        Piece from = history.current();
        history.redo();
        for (Crossing crossing : crossings) {
            if (crossing.before == from && crossing.after == history.current()) {
                crossing.homeBefore = home();
                live(crossing.homeAfter);
            }
        }
        redone.ifPresent(label -> messages.say("Done again: " + label));
        show();
    }

    private Home home() {
        return new Home(file.get(), onDisk, history.saved(), life);
    }

    private void live(Home home) {
        onDisk = home.onDisk;
        life = home.life;
        history.markSaved(home.saved);
        file.set(home.path);
        crossed.forEach(Runnable::run);
    }

    /** Tells whenever another piece takes the place of this one, also where that is undone, before it is shown. */
    public void onOther(Runnable listener) {
        crossed.add(listener);
    }

    /** Stands for the piece that is open: another for each, and the same again where that is undone. */
    public Object life() {
        return life;
    }

    /** About how many bytes are kept for undo. */
    public long keptBytes() {
        return history.bytes();
    }

    public Optional<String> undoLabel() {
        return history.undoLabel();
    }

    public Optional<String> redoLabel() {
        return history.redoLabel();
    }

    private void show() {
        Piece before = piece.get();
        Piece now = history.current();
        unsaved.set(history.hasUnsavedChanges());
        if (now == before || now.equals(before)) {
            return;
        }
        spelling = Spelling.of(now.key());
        Change change = Change.of(before, now);
        RuntimeException thrown = null;
        for (Consumer<Change> listener : listeners) {
            try {
                listener.accept(change);
            } catch (RuntimeException e) {
                // The others hear of it all the same.
                thrown = thrown == null ? e : thrown;
            }
        }
        piece.set(now);
        if (thrown != null) {
            throw thrown;
        }
    }

    // Files

    /**
     * A piece as a file holds it.
     *
     * @param digest by which it is known whether the file holds something else by now
     */
    public record Opened(Path path, Piece piece, String digest) {
        /** Reads a file, on any thread. */
        public static Opened read(Path path) throws IOException {
            byte[] bytes = InFile.read(path);
            return new Opened(path, PieceFile.read(bytes), Digests.of(bytes));
        }
    }

    /**
     * The piece as it is to be written.
     *
     * @param overDigest what the file held when it was opened or saved here; empty where another may be written over
     * @param life the piece's own, through all edits
     */
    public record Saving(Path path, Piece piece, String overDigest, Object life) {
        /** Whether somebody else has written the file meanwhile. On any thread. */
        public boolean isOverNewer() throws IOException {
            return !overDigest.isEmpty() && Files.exists(path) && !overDigest.equals(Digests.of(path));
        }

        /** Writes the file, on any thread, and gives what it holds then. */
        public Opened write() throws IOException {
            MessageDigest digest = Digests.begin();
            AtomicFile.write(path, out -> {
                OutputStream through = new DigestOutputStream(out, digest);
                PieceFile.write(piece, through);
                through.flush();
            });
            return new Opened(path, piece, Digests.end(digest));
        }
    }

    /** Opens a piece in place of this one; undo brings the old one and its file back. */
    public void open(Opened opened) {
        other(opened.piece, "Open " + opened.path.getFileName(), opened.path, opened.digest);
        begin(opened);
    }

    /** Puts another piece, which is no file yet, in place of this one; undo brings the old one and its file back. */
    public void other(Piece opened, String label) {
        other(opened, label, null, "");
    }

    private void other(Piece opened, String label, Path path, String digest) {
        Piece before = history.current();
        Home left = home();
        history.apply(PieceEdit.of(label, piece -> withAPart(opened)));
        // One that is no file yet, such as what was read from a MIDI file, is not saved either.
        Home home = new Home(path, digest, path == null ? left.saved : history.current(), new Object());
        if (history.current() != before) {
            // What cannot be done again any more is not crossed to.
            crossings.removeIf(crossing -> crossing.before == before);
            crossings.add(new Crossing(before, history.current(), left, home));
        }
        live(home);
        show();
    }

    /** The piece came from a file. */
    public void begin(Opened opened) {
        // First, since those who hear of the file ask what it held.
        onDisk = opened.digest;
        file.set(opened.path);
        List<String> unknown = PieceFile.unknown(opened.piece);
        if (!unknown.isEmpty()) {
            messages.say("A newer version wrote this file. Kept as it is, and not used here: "
                    + String.join(", ", unknown.subList(0, Math.min(NAMED, unknown.size())))
                    + (unknown.size() > NAMED ? " and " + (unknown.size() - NAMED) + " more" : "") + ".");
        } else if (PieceFile.isNewer(opened.piece)) {
            messages.say("A newer version wrote this file. Nothing in it is unknown here.");
        }
    }

    /** Puts what is in the same file's place, such as work that was not saved, in place of this. */
    public void replace(Piece opened, String label) {
        apply(PieceEdit.of(label, before -> withAPart(opened)));
    }

    /** The piece as it is now, to be written to a file. */
    public Saving saving(Path path) {
        return new Saving(path, piece.get(), path.equals(file.get()) ? onDisk : "", life);
    }

    /** A piece was written to a file, which is its own from now on; another one may be open by now. */
    public void saved(Saving saving, Opened written) {
        if (saving.life == life) {
            onDisk = written.digest;
            file.set(written.path);
            history.markSaved(written.piece);
            unsaved.set(history.hasUnsavedChanges());
        }
        messages.say("Saved " + written.path.getFileName());
    }

    /** What the file holds is not what this piece was made of: before it is written over it is asked. */
    public void askBeforeSaving() {
        onDisk = Digests.OTHER;
    }

    /** By which it is known what the file held when it was opened or saved here; empty for nowhere. */
    String held() {
        return onDisk;
    }

    public ObjectProperty<Path> file() {
        return file;
    }

    public BooleanProperty unsaved() {
        return unsaved;
    }
}
