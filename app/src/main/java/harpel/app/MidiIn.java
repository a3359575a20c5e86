package harpel.app;

import harpel.app.file.Disk;
import harpel.app.file.FileAsk;
import harpel.app.file.FileKind;
import harpel.app.phrase.TrackSheet;
import harpel.app.session.Session;
import harpel.format.InFile;
import harpel.format.midi.MidiFile;
import harpel.format.midi.MidiPiece;
import harpel.format.midi.SmfReader;
import harpel.phrase.Note;
import harpel.phrase.action.Shapes;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.stage.Window;

/** Reads MIDI files: as phrases, as parts, as a piece, or into the shown phrase. */
final class MidiIn {
    private final Session session;
    private final Window window;
    private final FileAsk ask;
    private final Disk disk;
    private final Consumer<Runnable> leaving;

    /** @param leaving does something once the piece that is open may be left */
    MidiIn(Session session, Window window, FileAsk ask, Disk disk, Consumer<Runnable> leaving) {
        this.session = session;
        this.window = window;
        this.ask = ask;
        this.disk = disk;
        this.leaving = leaving;
    }

    /** Asks for a file and reads a phrase of it that the shown part hears. The piece keeps its tempo. */
    void phrase() {
        ask.toOpen(FileKind.MIDI, "Read a phrase from a MIDI file")
                .ifPresent(path -> phrase(path, session.selection().partId().get()));
    }

    /**
     * Reads a MIDI file as phrases; where it has several tracks it is asked which.
     *
     * @param part the id of the part that hears the first of them; empty for none
     */
    void phrase(Path path, String part) {
        read(path, file -> take(path, file, part, TrackSheet.As.PHRASES));
    }

    /** Asks for a file and reads all of it as a piece, once it is said what becomes of its tracks. */
    void piece() {
        ask.toOpen(FileKind.MIDI, "Open a MIDI file as a piece")
                .ifPresent(path -> read(path, file -> take(path, file, "", TrackSheet.As.PIECE)));
    }

    /** Puts the notes of a file into the shown phrase at its mark. */
    void intoPhrase(Path path) {
        read(path, file -> {
            List<Note> notes = file.toPhrase("read").notes();
            long at = session.desk().mark().get();
            session.desk().act("Put notes in", (phrase, picked) -> Shapes.paste(phrase, notes, at));
        });
    }

    private void read(Path path, Consumer<MidiFile> then) {
        disk.run(
                "Reading " + path.getFileName(),
                () -> {
                    MidiFile file = SmfReader.read(InFile.read(path));
                    if (file.notes().isEmpty()) {
                        throw new IllegalArgumentException("there are no notes in this file");
                    }
                    return file;
                },
                then,
                words -> Files.failed(session, window, path, words));
    }

    private void take(Path path, MidiFile file, String part, TrackSheet.As as) {
        String name = FileKind.MIDI.stem(path);
        TrackSheet.Chosen chosen = new TrackSheet.Chosen(
                TrackSheet.As.PHRASES, List.of(), List.of(file.toPhrase(name)), false, false, false);
        if (file.lines().size() > 1 || as != TrackSheet.As.PHRASES) {
            Optional<TrackSheet.Chosen> asked = TrackSheet.ask(session.look(), window, file, name, as);
            if (asked.isEmpty() || asked.get().phrases().isEmpty()) {
                return;
            }
            chosen = asked.get();
        }
        switch (chosen.as()) {
            case PHRASES -> put(file, chosen, name, part);
            case PARTS -> putParts(file, chosen, name);
            case PIECE -> putPiece(file, chosen, name);
        }
    }

    private void putParts(MidiFile file, TrackSheet.Chosen chosen, String name) {
        session.document()
                .apply(PieceEdit.of(
                        "Read " + name,
                        piece -> TrackSheet.along(MidiPiece.with(piece, file, chosen.lines(), name), chosen, file)));
        session.say("Read " + count(chosen) + " onto the timeline.");
    }

    private void putPiece(MidiFile file, TrackSheet.Chosen chosen, String name) {
        leaving.accept(() -> {
            session.replace(MidiPiece.piece(file, chosen.lines(), name), "Open " + name);
            session.say("Opened “" + name + "”: " + count(chosen) + " on the timeline.");
        });
    }

    private static String count(TrackSheet.Chosen chosen) {
        int parts = chosen.lines().size();
        return parts == 1 ? "1 part" : parts + " parts";
    }

    private void put(MidiFile file, TrackSheet.Chosen chosen, String name, String part) {
        List<String> ids = new ArrayList<>();
        session.document().apply(PieceEdit.of("Read " + name, piece -> {
            ids.clear();
            Piece with = TrackSheet.with(piece, chosen, file, ids);
            return part.isEmpty() ? with : with.withPart(part, one -> one.withPhrase(ids.get(0)));
        }));
        session.desk().show(ids.get(0));
        int notes = chosen.phrases().stream()
                .mapToInt(phrase -> phrase.notes().size())
                .sum();
        session.say(
                !file.repairs().isEmpty()
                        ? String.join("; ", file.repairs())
                        : "Read " + notes + (notes == 1 ? " note" : " notes")
                                + (ids.size() == 1 ? "" : " in " + ids.size() + " phrases"));
    }
}
