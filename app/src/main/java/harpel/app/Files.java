package harpel.app;

import harpel.app.desk.OwnPhrases;
import harpel.app.phrase.TrackSheet;
import harpel.app.print.PrintSheet;
import harpel.app.session.Session;
import harpel.app.ui.Asking;
import harpel.chain.Chain;
import harpel.effect.EffectCatalog;
import harpel.format.AtomicFile;
import harpel.format.ChainFile;
import harpel.format.PieceFile;
import harpel.format.midi.MidiFile;
import harpel.format.midi.MidiPiece;
import harpel.format.midi.SmfReader;
import harpel.make.TestPhrases;
import harpel.phrase.Phrase;
import harpel.phrase.action.Shapes;
import harpel.piece.Block;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.ButtonBar;
import javafx.scene.control.ButtonType;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.FileChooser.ExtensionFilter;
import javafx.stage.Window;

/** Opening and saving: asks for the file, does it, and says what went wrong. */
public class Files {
    private static final ExtensionFilter PIECES = new ExtensionFilter("Pieces", "*" + PieceFile.ENDING);
    private static final ExtensionFilter CHAINS = new ExtensionFilter("Chains", "*.chain.json");
    private static final ExtensionFilter MIDI = new ExtensionFilter("MIDI files", "*.mid", "*.midi");
    private static final ExtensionFilter SOUNDS =
            new ExtensionFilter("SoundFont and DLS files", "*.sf2", "*.SF2", "*.dls", "*.DLS");
    private static final ExtensionFilter WAV = new ExtensionFilter("Sound files", "*.wav");

    private final Session session;
    private final Window window;
    private Path folder = Path.of("").toAbsolutePath();

    Files(Session session, Window window) {
        this.session = session;
        this.window = window;
    }

    /** Something with a file that may fail. */
    private interface Work {
        void run() throws IOException;
    }

    private void doing(Path path, Work work) {
        try {
            work.run();
        } catch (IOException | IllegalArgumentException e) {
            session.say(path.getFileName() + ": " + e.getMessage());
            Asking.sheet(window, session.look().styles(), path.getFileName().toString(), e.getMessage(), ButtonType.OK)
                    .show();
        }
    }

    /** Asks for a file; nothing where it was cancelled. */
    Optional<Path> ask(boolean save, String title, ExtensionFilter filter, String name) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle(title);
        chooser.getExtensionFilters().add(filter);
        chooser.setInitialDirectory(folder.toFile());
        chooser.setInitialFileName(name);
        File chosen = save ? chooser.showSaveDialog(window) : chooser.showOpenDialog(window);
        Optional<Path> path = Optional.ofNullable(chosen).map(File::toPath);
        path.map(Path::toAbsolutePath).map(Path::getParent).ifPresent(parent -> folder = parent);
        return path;
    }

    void newPiece() {
        if (mayLeave()) {
            session.replace(Piece.empty(), "New piece");
        }
    }

    void open() {
        if (mayLeave()) {
            ask(false, "Open a piece", PIECES, "").ifPresent(path -> doing(path, () -> session.open(path)));
        }
    }

    void save() {
        Path path = session.document().file().get();
        if (path == null) {
            saveAs();
        } else if (!session.document().isChangedOnDisk() || confirmOverwrite(path)) {
            doing(path, () -> session.document().save(path));
        }
    }

    void saveAs() {
        ask(
                        true,
                        "Save the piece",
                        PIECES,
                        Part.idFor(session.document().piece().get().name()) + PieceFile.ENDING)
                .ifPresent(path -> doing(path, () -> session.document().save(path)));
    }

    void chooseSounds() {
        ask(false, "Choose a SoundFont or DLS file", SOUNDS, "").ifPresent(session.sounds()::choose);
    }

    void openChain() {
        ask(false, "Open a chain", CHAINS, "").ifPresent(path -> doing(path, () -> openChain(path)));
    }

    /** Puts the chain of a file in place of the shown part's. */
    void openChain(Path path) throws IOException {
        ChainFile chain = ChainFile.read(java.nio.file.Files.readAllBytes(path));
        String id = session.selection().partId().get();
        session.document().apply(PieceEdit.of("Open chain " + path.getFileName(), piece -> {
            Piece changed = piece.withPart(id, part -> part.withChain(chain.chain()));
            return chain.key() == null ? changed : changed.withKey(chain.key());
        }));
    }

    void saveChain() {
        Part part = session.selection().part();
        ask(true, "Save the chain", CHAINS, part.id() + ".chain.json")
                .ifPresent(path -> doing(path, () -> {
                    ChainFile file = new ChainFile(
                            part.id(), session.document().piece().get().key(), part.chain(), java.util.Map.of());
                    AtomicFile.write(path, file.write().getBytes(StandardCharsets.UTF_8));
                    session.say("Saved " + path.getFileName());
                }));
    }

    void openPhrase() {
        ask(false, "Read a phrase from a MIDI file", MIDI, "").ifPresent(path -> doing(path, () -> openPhrase(path)));
    }

    /** Reads a MIDI file as a phrase that the shown part hears. The piece keeps its tempo. */
    void openPhrase(Path path) throws IOException {
        openPhrase(path, session.selection().partId().get());
    }

    /**
     * Reads a MIDI file as phrases; where it has several tracks it is asked which.
     *
     * @param part the id of the part that hears the first of them; empty for none
     */
    private void openPhrase(Path path, String part) throws IOException {
        read(path, part, TrackSheet.As.PHRASES);
    }

    /** Reads a whole MIDI file as a piece, once it is said what becomes of its tracks. */
    void openMidi() {
        ask(false, "Open a MIDI file as a piece", MIDI, "")
                .ifPresent(path -> doing(path, () -> read(path, "", TrackSheet.As.PIECE)));
    }

    private void read(Path path, String part, TrackSheet.As as) throws IOException {
        MidiFile file = SmfReader.read(java.nio.file.Files.readAllBytes(path));
        String name = path.getFileName().toString().replaceFirst("\\.midi?$", "");
        if (file.notes().isEmpty()) {
            throw new IllegalArgumentException("there are no notes in this file");
        }
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
        if (mayLeave()) {
            session.replace(MidiPiece.piece(file, chosen.lines(), name), "Open " + name);
            session.say("Opened “" + name + "”: " + count(chosen) + " on the timeline.");
        }
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

    /** Puts the notes of a MIDI file into the shown phrase at its mark. */
    void putIntoPhrase(Path path) {
        doing(path, () -> {
            List<harpel.phrase.Note> notes = SmfReader.read(java.nio.file.Files.readAllBytes(path))
                    .toPhrase("read")
                    .notes();
            long at = session.desk().mark().get();
            session.desk().act("Put notes in", (phrase, picked) -> Shapes.paste(phrase, notes, at));
        });
    }

    /** Takes a file that was dragged into the window: a piece, a chain for the shown part, or a phrase for it. */
    void take(Path path) {
        take(path, session.selection().partId().get());
    }

    /** @param part the id of the part that is to hear or be given what the file holds; empty for none */
    void take(Path path, String part) {
        String name = path.getFileName().toString();
        doing(path, () -> {
            if (name.endsWith(PieceFile.ENDING)) {
                if (mayLeave()) {
                    session.open(path);
                }
            } else if (name.matches(".*\\.midi?")) {
                openPhrase(path, part);
            } else if (name.endsWith(".json")) {
                openChain(path);
            } else {
                throw new IllegalArgumentException(
                        "pieces (.harpel), chains (.chain.json) and MIDI files (.mid) can be dragged in");
            }
        });
    }

    void keepTestPhrase() {
        Path folder = OwnPhrases.folder();
        doing(
                folder,
                () -> session.say("Kept as a test phrase in "
                        + OwnPhrases.keep(
                                folder,
                                session.document().piece().get(),
                                session.selection().part())));
    }

    /** The shown part hears one of the user's own test phrases, and the transport plays it. */
    void hearOwnPhrase(String name) {
        doing(Path.of(name), () -> {
            hear(OwnPhrases.read(OwnPhrases.folder(), name));
            session.transport().play();
        });
    }

    private void hear(Phrase phrase) {
        String id = session.selection().partId().get();
        session.document()
                .apply(PieceEdit.of(
                        "Hear " + phrase.name(),
                        piece -> piece.withTimeline(false)
                                .withPhrase(phrase)
                                .withPart(id, part -> part.withPhrase(phrase.id()))));
    }

    /** Opens the demo piece that ships with the application, and plays. */
    void openDemo() {
        if (!mayLeave()) {
            return;
        }
        try (InputStream stream = Files.class.getResourceAsStream("demo/the-salt-clock.harpel")) {
            session.replace(PieceFile.read(stream.readAllBytes()), "Open the demo piece");
            session.transport().play();
        } catch (IOException e) {
            session.say("The demo piece could not be read: " + e.getMessage());
        }
    }

    /** Puts a chord effect and an arpeggio into the shown part, gives it four notes to work on, and plays. */
    void beginReady() {
        String id = session.selection().partId().get();
        Piece now = session.document().piece().get();
        Phrase phrase = TestPhrases.all(now.key(), now.time().meter()).get(2);
        session.document()
                .apply(PieceEdit.of(
                        "Begin with chords and an arpeggio",
                        piece -> piece.withPhrase(phrase)
                                .withPart(
                                        id,
                                        part -> part.withPhrase(phrase.id())
                                                .withChain(Chain.EMPTY
                                                        .plus(0, EffectCatalog.of("arpeggio"))
                                                        .plus(1, EffectCatalog.of("echo"))))));
        session.transport().play();
    }

    /** Prints the chosen part at once, on the timeline its picked blocks or all; one without a phrase asks how many bars. */
    void print() {
        List<Block> blocks = session.timeline().blocksToPrint();
        if (!blocks.isEmpty()) {
            session.printing().blocks(blocks);
        } else if (session.printing().hasPhrase()) {
            session.printing().once();
        } else {
            printSheet();
        }
    }

    /** Asks what to print and where to, and prints it. */
    void printSheet() {
        PrintSheet.ask(session.document(), session.selection(), session.look(), window)
                .ifPresent(wanted -> {
                    List<PrintOrder> orders = wanted.orders();
                    if (wanted.target() == PrintSheet.Target.PHRASES) {
                        session.printing().ontoParts(orders);
                    } else if (wanted.target() == PrintSheet.Target.SOUND_PARTS) {
                        askFolder("A folder for " + orders.get(0).parts().size() + " sound files")
                                .ifPresent(folder -> session.printing()
                                        .toSounds(
                                                orders.get(0),
                                                wanted.sound(
                                                        session.sounds().bank().get()),
                                                folder));
                    } else if (wanted.target().isSound()) {
                        ask(true, "Write a sound file", WAV, wanted.fileName())
                                .ifPresent(path -> session.printing()
                                        .toSound(
                                                orders.get(0),
                                                wanted.sound(
                                                        session.sounds().bank().get()),
                                                path));
                    } else if (wanted.target() == PrintSheet.Target.FILES) {
                        askFolder("A folder for " + orders.get(0).parts().size() + " files")
                                .ifPresent(folder ->
                                        session.printing().toFiles(orders.get(0), wanted.as(), wanted.form(), folder));
                    } else if (wanted.target() == PrintSheet.Target.STAGES) {
                        askFolder("A folder for what leaves each stage")
                                .ifPresent(folder ->
                                        session.printing().toStages(orders.get(0), wanted.as(), wanted.form(), folder));
                    } else if (orders.size() == 1) {
                        ask(true, "Print to a file", filter(wanted.as()), wanted.fileName())
                                .ifPresent(path ->
                                        session.printing().toFile(orders.get(0), wanted.as(), wanted.form(), path));
                    } else {
                        askFolder("A folder for " + orders.size() + " files")
                                .ifPresent(folder ->
                                        session.printing().toFolder(orders, wanted.as(), wanted.form(), folder));
                    }
                });
    }

    private static ExtensionFilter filter(PrintFormat format) {
        return new ExtensionFilter(format.name(), "*." + format.ending());
    }

    /** Asks for a folder; nothing where it was cancelled. */
    Optional<Path> askFolder(String title) {
        DirectoryChooser chooser = new DirectoryChooser();
        chooser.setTitle(title);
        return Optional.ofNullable(chooser.showDialog(window)).map(File::toPath);
    }

    /** Whether a file that somebody else has written may be written over. */
    private boolean confirmOverwrite(Path path) {
        ButtonType over = new ButtonType("Write over it", ButtonBar.ButtonData.YES);
        ButtonType other = new ButtonType("Save as…", ButtonBar.ButtonData.NO);
        Optional<ButtonType> answer = Asking.sheet(
                        window,
                        session.look().styles(),
                        "Write over “" + path.getFileName() + "”?",
                        "It was changed on disk since it was opened here. What was written there would be lost.",
                        over,
                        other,
                        ButtonType.CANCEL)
                .showAndWait();
        if (answer.isPresent() && answer.get() == other) {
            saveAs();
        }
        return answer.isPresent() && answer.get() == over;
    }

    /** Whether the piece may be left: it is saved, or the user says so. */
    boolean mayLeave() {
        if (!session.document().unsaved().get()) {
            return true;
        }
        ButtonType save = new ButtonType("Save", ButtonBar.ButtonData.YES);
        ButtonType discard = new ButtonType("Discard", ButtonBar.ButtonData.NO);
        Optional<ButtonType> answer = Asking.sheet(
                        window,
                        session.look().styles(),
                        "Save “" + session.document().piece().get().name() + "”?",
                        "It has changes that are not saved.",
                        save,
                        discard,
                        ButtonType.CANCEL)
                .showAndWait();
        if (answer.isPresent() && answer.get() == save) {
            save();
            return !session.document().unsaved().get();
        }
        return answer.isPresent() && answer.get() == discard;
    }
}
