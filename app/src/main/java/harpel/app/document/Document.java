package harpel.app.document;

import harpel.app.look.Messages;
import harpel.format.AtomicFile;
import harpel.format.PieceFile;
import harpel.piece.History;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.theory.Spelling;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
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
    /** What the file held when it was opened or saved here. */
    private byte[] onDisk;

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
        history.undoLabel().ifPresent(label -> messages.say("Undone: " + label));
        history.undo();
        show();
    }

    public void redo() {
        history.redoLabel().ifPresent(label -> messages.say("Done again: " + label));
        history.redo();
        show();
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

    /** Opens a piece in place of this one; undo brings the old one back. */
    public void open(Path path) throws IOException {
        byte[] bytes = Files.readAllBytes(path);
        Piece opened = PieceFile.read(new String(bytes, StandardCharsets.UTF_8));
        replace(opened, "Open " + path.getFileName());
        begin(path, bytes, opened);
        history.markSaved();
        show();
    }

    /** The piece came from a file. */
    public void begin(Path path, byte[] bytes, Piece opened) {
        file.set(path);
        onDisk = bytes;
        List<String> unknown = PieceFile.unknown(opened);
        if (!unknown.isEmpty()) {
            messages.say("A newer version wrote this file. Kept as it is, and not used here: "
                    + String.join(", ", unknown.subList(0, Math.min(NAMED, unknown.size())))
                    + (unknown.size() > NAMED ? " and " + (unknown.size() - NAMED) + " more" : "") + ".");
        }
    }

    /** Puts a piece in place of this one. */
    public void replace(Piece opened, String label) {
        apply(PieceEdit.of(label, before -> withAPart(opened)));
    }

    public void save(Path path) throws IOException {
        byte[] bytes = PieceFile.write(piece.get()).getBytes(StandardCharsets.UTF_8);
        AtomicFile.write(path, bytes);
        file.set(path);
        onDisk = bytes;
        history.markSaved();
        unsaved.set(false);
        messages.say("Saved " + path.getFileName());
    }

    /** Whether somebody else has written the file since it was opened or saved here. */
    public boolean isChangedOnDisk() {
        Path path = file.get();
        try {
            return path != null
                    && onDisk != null
                    && Files.exists(path)
                    && !Arrays.equals(Files.readAllBytes(path), onDisk);
        } catch (IOException e) {
            return true;
        }
    }

    public ObjectProperty<Path> file() {
        return file;
    }

    public BooleanProperty unsaved() {
        return unsaved;
    }
}
