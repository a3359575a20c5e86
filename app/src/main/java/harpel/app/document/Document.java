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

    private Object life = new Object();

    /**
     * Where a piece lives.
     *
     * @param path null for nowhere yet
     * @param onDisk what the file held when it was opened or saved here
     * @param saved the piece as it was opened or saved
     * @param life the piece's own, through all edits
     */
    private record Home(Path path, byte[] onDisk, Piece saved, Object life) {}

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

    /** Opens a piece in place of this one; undo brings the old one and its file back. What cannot be read changes nothing. */
    public void open(Path path) throws IOException {
        byte[] bytes = Files.readAllBytes(path);
        Piece opened = PieceFile.read(bytes);
        other(opened, "Open " + path.getFileName(), path, bytes);
        begin(path, bytes, opened);
    }

    /** Puts another piece, which is no file yet, in place of this one; undo brings the old one and its file back. */
    public void other(Piece opened, String label) {
        other(opened, label, null, null);
    }

    private void other(Piece opened, String label, Path path, byte[] bytes) {
        Piece before = history.current();
        Home left = home();
        history.apply(PieceEdit.of(label, piece -> withAPart(opened)));
        // One that is no file yet, such as what was read from a MIDI file, is not saved either.
        Home home = new Home(path, bytes, path == null ? left.saved : history.current(), new Object());
        if (history.current() != before) {
            // What cannot be done again any more is not crossed to.
            crossings.removeIf(crossing -> crossing.before == before);
            crossings.add(new Crossing(before, history.current(), left, home));
        }
        live(home);
        show();
    }

    /** The piece came from a file. */
    public void begin(Path path, byte[] bytes, Piece opened) {
        // First, since those who hear of the file ask what it held.
        onDisk = bytes;
        file.set(path);
        List<String> unknown = PieceFile.unknown(opened);
        if (!unknown.isEmpty()) {
            messages.say("A newer version wrote this file. Kept as it is, and not used here: "
                    + String.join(", ", unknown.subList(0, Math.min(NAMED, unknown.size())))
                    + (unknown.size() > NAMED ? " and " + (unknown.size() - NAMED) + " more" : "") + ".");
        }
    }

    /** Puts what is in the same file's place, such as work that was not saved, in place of this. */
    public void replace(Piece opened, String label) {
        apply(PieceEdit.of(label, before -> withAPart(opened)));
    }

    public void save(Path path) throws IOException {
        byte[] bytes = PieceFile.write(piece.get()).getBytes(StandardCharsets.UTF_8);
        AtomicFile.write(path, bytes);
        onDisk = bytes;
        file.set(path);
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

    /** What the file held when it was opened or saved here; null for nowhere. Not to be written to. */
    byte[] held() {
        return onDisk;
    }

    public ObjectProperty<Path> file() {
        return file;
    }

    public BooleanProperty unsaved() {
        return unsaved;
    }
}
