package harpel.app.phrase;

import harpel.app.session.PhraseDesk;
import harpel.app.session.Session;
import harpel.format.FileException;
import harpel.format.NotesText;
import harpel.format.SmfForm;
import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.phrase.action.Edited;
import harpel.phrase.action.Shapes;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.print.PrintFormat;
import harpel.print.PrintedNotes;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.DataFormat;
import javafx.scene.input.Dragboard;
import javafx.scene.input.TransferMode;

/** What can be done with phrases as a whole, and with notes and the clipboard. */
public final class PhraseActions {
    /** A phrase of this piece that is carried by a drag, by its id. */
    static final DataFormat CARRIED = new DataFormat("application/x-harpel-phrase");

    private static final int NEW_BARS = 4;

    private PhraseActions() {}

    /** A new phrase; the chosen part hears it if it hears none. */
    public static void fresh(Session session) {
        Piece now = session.document().piece().get();
        String id = now.freePhraseId("phrase");
        String name = id.equals("phrase") ? "Phrase" : "Phrase " + id.replace("phrase-", "");
        Phrase phrase = Phrase.of(name, now.time().meter().tickOfBar(NEW_BARS), List.of())
                .withId(id);
        String part = session.selection().partId().get();
        boolean hears = !session.selection().part().phrase().isEmpty();
        session.document().apply(PieceEdit.of("New phrase", piece -> {
            Piece with = piece.withPhrase(phrase);
            return hears ? with : with.withPart(part, one -> one.withPhrase(id));
        }));
        session.desk().show(id);
        session.say(
                hears
                        ? "“" + name + "” is heard by no part yet: drag it to one, or press Ctrl+Alt+H."
                        : session.selection().part().name() + " hears “" + name + "”.");
    }

    public static void rename(Session session, String id, String text) {
        String name = text.strip();
        if (name.isEmpty()) {
            session.say("A phrase needs a name; Escape brings back the one it has.");
            return;
        }
        edit(session, "Rename phrase", id, phrase -> phrase.withName(name));
    }

    private static void edit(
            Session session, String label, String id, java.util.function.UnaryOperator<Phrase> change) {
        session.document()
                .apply(PieceEdit.of(
                        label,
                        piece -> piece.phrase(id)
                                .map(phrase -> piece.withPhrase(change.apply(phrase)))
                                .orElse(piece)));
    }

    private static Phrase copyOf(Piece piece, Phrase phrase) {
        return phrase.withId(piece.freePhraseId(phrase.id())).withName(phrase.name() + " 2");
    }

    public static void duplicate(Session session, String id) {
        Piece now = session.document().piece().get();
        now.phrase(id).ifPresent(phrase -> {
            Phrase copy = copyOf(now, phrase);
            session.document().apply(PieceEdit.of("Duplicate phrase", piece -> piece.withPhrase(copy)));
            session.desk().show(copy.id());
        });
    }

    /** The chosen part hears a copy, so that it may be changed without the others. */
    static void ownCopy(Session session, String id) {
        Piece now = session.document().piece().get();
        String part = session.selection().partId().get();
        now.phrase(id).ifPresent(phrase -> {
            Phrase copy = copyOf(now, phrase);
            session.document()
                    .apply(PieceEdit.of(
                            "Own copy",
                            piece -> piece.withPhrase(copy).withPart(part, one -> one.withPhrase(copy.id()))));
            session.desk().show(copy.id());
        });
    }

    /** Takes a phrase out of the piece; the parts that heard it hear none then, and it is said. */
    public static void delete(Session session, String id) {
        Piece now = session.document().piece().get();
        Phrase phrase = now.phrase(id).orElse(null);
        if (phrase == null) {
            return;
        }
        List<String> parts =
                PhraseDesk.hearers(now, id).stream().map(Part::name).toList();
        session.document().apply(PieceEdit.of("Delete phrase", piece -> piece.withoutPhrase(id)));
        session.say("“" + phrase.name() + "” is deleted"
                + (parts.isEmpty() ? "" : "; " + String.join(", ", parts) + " hears no phrase now")
                + ". Ctrl+Z brings it back.");
    }

    /** The chosen part hears a phrase. */
    public static void hear(Session session, String id) {
        hear(session, id, session.selection().partId().get());
    }

    public static void hear(Session session, String id, String part) {
        session.document()
                .apply(PieceEdit.of("Choose phrase", piece -> piece.withPart(part, one -> one.withPhrase(id))));
        session.desk().show(id);
        Piece now = session.document().piece().get();
        session.say(now.part(part).map(Part::name).orElse("") + " hears “"
                + now.phrase(id).map(Phrase::name).orElse("") + "”.");
    }

    /** Has a phrase be heard past the chain, or through it again. */
    static void ready(Session session, String id) {
        edit(session, "Past the chain or through it", id, phrase -> phrase.withReady(!phrase.ready()));
    }

    /** A phrase as a file in a folder that goes with the program, to be dragged out; nothing where it cannot be written. */
    static Optional<File> asFile(Session session, String id, PrintFormat as) {
        Piece piece = session.document().piece().get();
        Phrase phrase = piece.phrase(id).orElse(null);
        if (phrase == null) {
            return Optional.empty();
        }
        try {
            Path folder = Files.createTempDirectory("harpel-");
            // Those that are named last are deleted first.
            folder.toFile().deleteOnExit();
            Path file = folder.resolve(Phrase.idFor(phrase.name()) + "." + as.ending());
            Files.write(file, as.write(PrintedNotes.of(phrase, piece.time()), SmfForm.PLAIN));
            file.toFile().deleteOnExit();
            return Optional.of(file.toFile());
        } catch (IOException e) {
            session.say("The phrase could not be written to be dragged: " + e.getMessage());
            return Optional.empty();
        }
    }

    /**
     * Begins to drag a phrase from a node: to a part, or as a file to wherever it is let go.
     *
     * @param table whether the file is a table of notes; else it is a MIDI file
     */
    static void carry(Session session, Node from, String id, boolean table) {
        Dragboard board = from.startDragAndDrop(TransferMode.COPY);
        ClipboardContent content = new ClipboardContent();
        content.put(CARRIED, id);
        asFile(session, id, table ? PrintFormat.ofEnding("csv") : PrintFormat.plain())
                .ifPresent(file -> content.putFiles(List.of(file)));
        board.setContent(content);
    }

    // Notes and the clipboard

    /** Puts the picked notes, or all, on the clipboard as text. */
    public static void copy(Session session) {
        session.desk().phrase().ifPresent(phrase -> {
            List<Note> notes = Edited.meant(phrase, session.desk().picked().get());
            if (notes.isEmpty()) {
                session.say("There is no note to copy.");
                return;
            }
            long beat = session.desk().around().time().meter().at(0).beatTicks();
            long from = notes.get(0).tick() / beat * beat;
            List<Note> moved = new ArrayList<>();
            notes.forEach(note -> moved.add(note.withTick(note.tick() - from)));
            ClipboardContent content = new ClipboardContent();
            content.putString(NotesText.write(moved));
            Clipboard.getSystemClipboard().setContent(content);
            session.say("Copied " + notes.size() + (notes.size() == 1 ? " note." : " notes."));
        });
    }

    public static void cut(Session session) {
        if (session.desk().picked().get().isEmpty()) {
            session.say("Pick the notes to cut first.");
            return;
        }
        copy(session);
        session.desk().act("Cut notes", Shapes::remove);
    }

    /** Puts copied notes in at the mark, which moves on behind them. */
    public static void paste(Session session) {
        String text = Clipboard.getSystemClipboard().getString();
        try {
            List<Note> notes = NotesText.read(text == null ? "" : text);
            long at = session.desk().mark().get();
            session.desk().act("Paste notes", (phrase, picked) -> Shapes.paste(phrase, notes, at));
        } catch (FileException | IllegalArgumentException e) {
            session.say("The clipboard holds no notes: " + e.getMessage());
        }
    }

    public static void pickAll(Session session) {
        session.desk().phrase().ifPresent(phrase -> {
            Notes notes = phrase.notes();
            Set<Integer> all = new java.util.HashSet<>();
            notes.forEach(note -> all.add(note.id()));
            session.desk().pick(all);
        });
    }
}
