package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.format.FileException;
import harpel.format.NotesText;
import harpel.format.midi.SmfForm;
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
    public static void fresh(Document document, Selection selection, PhraseDesk desk, Messages messages) {
        Piece now = document.piece().get();
        String id = now.freePhraseId("phrase");
        String name = id.equals("phrase") ? "Phrase" : "Phrase " + id.replace("phrase-", "");
        Phrase phrase = Phrase.of(name, now.time().meter().tickOfBar(NEW_BARS), List.of())
                .withId(id);
        String part = selection.partId().get();
        boolean hears = !selection.part().phrase().isEmpty();
        document.apply(PieceEdit.of("New phrase", piece -> {
            Piece with = piece.withPhrase(phrase);
            return hears ? with : with.withPart(part, one -> one.withPhrase(id));
        }));
        desk.show(id);
        messages.say(
                hears
                        ? "“" + name + "” is heard by no part yet: drag it to one, or press Ctrl+Alt+H."
                        : selection.part().name() + " hears “" + name + "”.");
    }

    public static void rename(Document document, Messages messages, String id, String text) {
        String name = text.strip();
        if (name.isEmpty()) {
            messages.say("A phrase needs a name; Escape brings back the one it has.");
            return;
        }
        edit(document, "Rename phrase", id, phrase -> phrase.withName(name));
    }

    private static void edit(
            Document document, String label, String id, java.util.function.UnaryOperator<Phrase> change) {
        document.apply(PieceEdit.of(
                label,
                piece -> piece.phrase(id)
                        .map(phrase -> piece.withPhrase(change.apply(phrase)))
                        .orElse(piece)));
    }

    private static Phrase copyOf(Piece piece, Phrase phrase) {
        return phrase.withId(piece.freePhraseId(phrase.id())).withName(phrase.name() + " 2");
    }

    public static void duplicate(Document document, PhraseDesk desk, String id) {
        Piece now = document.piece().get();
        now.phrase(id).ifPresent(phrase -> {
            Phrase copy = copyOf(now, phrase);
            document.apply(PieceEdit.of("Duplicate phrase", piece -> piece.withPhrase(copy)));
            desk.show(copy.id());
        });
    }

    /** The chosen part hears a copy, so that it may be changed without the others. */
    static void ownCopy(Document document, Selection selection, PhraseDesk desk, String id) {
        Piece now = document.piece().get();
        String part = selection.partId().get();
        now.phrase(id).ifPresent(phrase -> {
            Phrase copy = copyOf(now, phrase);
            document.apply(PieceEdit.of(
                    "Own copy", piece -> piece.withPhrase(copy).withPart(part, one -> one.withPhrase(copy.id()))));
            desk.show(copy.id());
        });
    }

    /** Takes a phrase out of the piece; the parts that heard it hear none then, and it is said. */
    public static void delete(Document document, Messages messages, String id) {
        Piece now = document.piece().get();
        Phrase phrase = now.phrase(id).orElse(null);
        if (phrase == null) {
            return;
        }
        List<String> parts =
                PhraseDesk.hearers(now, id).stream().map(Part::name).toList();
        document.apply(PieceEdit.of("Delete phrase", piece -> piece.withoutPhrase(id)));
        messages.say("“" + phrase.name() + "” is deleted"
                + (parts.isEmpty() ? "" : "; " + String.join(", ", parts) + " hears no phrase now")
                + ". Ctrl+Z brings it back.");
    }

    /** The chosen part hears a phrase. */
    public static void hear(Document document, Selection selection, PhraseDesk desk, Messages messages, String id) {
        hear(document, selection, desk, messages, id, selection.partId().get());
    }

    public static void hear(
            Document document, Selection selection, PhraseDesk desk, Messages messages, String id, String part) {
        document.apply(PieceEdit.of("Choose phrase", piece -> piece.withPart(part, one -> one.withPhrase(id))));
        desk.show(id);
        Piece now = document.piece().get();
        messages.say(now.part(part).map(Part::name).orElse("") + " hears “"
                + now.phrase(id).map(Phrase::name).orElse("") + "”.");
    }

    /** Has a phrase be heard past the chain, or through it again. */
    static void ready(Document document, String id) {
        edit(document, "Past the chain or through it", id, phrase -> phrase.withReady(!phrase.ready()));
    }

    /** A phrase as a file in a folder that goes with the program, to be dragged out; nothing where it cannot be written. */
    static Optional<File> asFile(Document document, Messages messages, String id, PrintFormat as) {
        Piece piece = document.piece().get();
        Phrase phrase = piece.phrase(id).orElse(null);
        if (phrase == null) {
            return Optional.empty();
        }
        try {
            Path folder = Files.createTempDirectory("harpel-");
            // Those that are named last are deleted first.
            folder.toFile().deleteOnExit();
            Path file = folder.resolve(Phrase.idFor(phrase.name()) + "." + as.ending());
            Files.write(file, as.bytes(PrintedNotes.of(phrase, piece.time()), SmfForm.PLAIN));
            file.toFile().deleteOnExit();
            return Optional.of(file.toFile());
        } catch (IOException e) {
            messages.say("The phrase could not be written to be dragged: " + e.getMessage());
            return Optional.empty();
        }
    }

    /**
     * Begins to drag a phrase from a node: to a part, or as a file to wherever it is let go.
     *
     * @param table whether the file is a table of notes; else it is a MIDI file
     */
    static void carry(Document document, Messages messages, Node from, String id, boolean table) {
        Dragboard board = from.startDragAndDrop(TransferMode.COPY);
        ClipboardContent content = new ClipboardContent();
        content.put(CARRIED, id);
        asFile(document, messages, id, table ? PrintFormat.ofEnding("csv") : PrintFormat.plain())
                .ifPresent(file -> content.putFiles(List.of(file)));
        board.setContent(content);
    }

    // Notes and the clipboard

    /** Puts the picked notes, or all, on the clipboard as text. */
    public static void copy(PhraseDesk desk, Messages messages) {
        desk.phrase().ifPresent(phrase -> {
            List<Note> notes = Edited.meant(phrase, desk.picked().get());
            if (notes.isEmpty()) {
                messages.say("There is no note to copy.");
                return;
            }
            long beat = desk.around().time().meter().at(0).beatTicks();
            long from = notes.get(0).tick() / beat * beat;
            List<Note> moved = new ArrayList<>();
            notes.forEach(note -> moved.add(note.withTick(note.tick() - from)));
            ClipboardContent content = new ClipboardContent();
            content.putString(NotesText.write(moved));
            Clipboard.getSystemClipboard().setContent(content);
            messages.say("Copied " + notes.size() + (notes.size() == 1 ? " note." : " notes."));
        });
    }

    public static void cut(PhraseDesk desk, Messages messages) {
        if (desk.picked().get().isEmpty()) {
            messages.say("Pick the notes to cut first.");
            return;
        }
        copy(desk, messages);
        desk.act("Cut notes", Shapes::remove);
    }

    /** Puts copied notes in at the mark, which moves on behind them. */
    public static void paste(PhraseDesk desk, Messages messages) {
        String text = Clipboard.getSystemClipboard().getString();
        try {
            List<Note> notes = NotesText.read(text == null ? "" : text);
            long at = desk.mark().get();
            desk.act("Paste notes", (phrase, picked) -> Shapes.paste(phrase, notes, at));
        } catch (FileException | IllegalArgumentException e) {
            messages.say("The clipboard holds no notes: " + e.getMessage());
        }
    }

    public static void pickAll(PhraseDesk desk) {
        desk.phrase().ifPresent(phrase -> {
            Notes notes = phrase.notes();
            Set<Integer> all = new java.util.HashSet<>();
            notes.forEach(note -> all.add(note.id()));
            desk.pick(all);
        });
    }
}
