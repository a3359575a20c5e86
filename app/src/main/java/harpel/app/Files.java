package harpel.app;

import harpel.app.desk.OwnPhrases;
import harpel.app.desk.Printing;
import harpel.app.document.Document;
import harpel.app.file.Disk;
import harpel.app.file.FileAsk;
import harpel.app.file.FileKind;
import harpel.app.print.ExportSheet;
import harpel.app.print.PrintSheet;
import harpel.app.session.Session;
import harpel.app.ui.Asking;
import harpel.chain.Chain;
import harpel.effect.EffectCatalog;
import harpel.format.AtomicFile;
import harpel.format.ChainFile;
import harpel.format.InFile;
import harpel.format.PieceFile;
import harpel.make.TestPhrases;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.print.PrintFormat;
import harpel.print.PrintOrder;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.control.ButtonBar;
import javafx.scene.control.ButtonType;
import javafx.stage.Window;

/** Opening and saving: asks for the file, does it, and says what went wrong. */
public final class Files {
    private final Session session;
    private final Window window;
    private final FileAsk ask;
    private final Disk disk;
    private final MidiIn midi;
    private Supplier<List<Path>> recent = List::of;

    Files(Session session, Window window) {
        this(
                session,
                window,
                new FileAsk(
                        window,
                        session.look()::styles,
                        FileAsk.Folders.in(new HashMap<>()),
                        session.document().file()::get));
    }

    Files(Session session, Window window, FileAsk ask) {
        this.session = session;
        this.window = window;
        this.ask = ask;
        disk = new Disk(session.messages());
        midi = new MidiIn(session, window, ask, disk, this::leaving);
    }

    /** What works with files while the window goes on. */
    Disk disk() {
        return disk;
    }

    private Consumer<String> failed(Path path) {
        return words -> failed(session, window, path, words);
    }

    /** Says what went wrong with a file. */
    static void failed(Session session, Window window, Path path, String words) {
        session.say(path.getFileName() + ": " + words);
        Asking.sheet(window, session.look().styles(), path.getFileName().toString(), words, ButtonType.OK)
                .show();
    }

    void newPiece() {
        leaving(() -> session.replace(Piece.empty(), "New piece"));
    }

    void open() {
        leaving(() -> ask.toOpen(FileKind.PIECE, "Open a piece").ifPresent(this::open));
    }

    /** Opens the piece of a file; what plays goes on until it is read. */
    void open(Path path) {
        open(path, () -> Document.Opened.read(path));
    }

    /** @param reading gives what is in the file */
    void open(Path path, Callable<Document.Opened> reading) {
        disk.run("Opening " + path.getFileName(), reading, session::open, failed(path));
    }

    void save() {
        save(() -> {});
    }

    void saveAs() {
        saveAs(() -> {});
    }

    /** @param then what is done once it is saved */
    private void save(Runnable then) {
        Path path = session.document().file().get();
        if (path == null) {
            saveAs(then);
            return;
        }
        Document.Saving saving = session.document().saving(path);
        disk.run(
                "Saving " + path.getFileName(),
                () -> saving.isOverNewer() ? Optional.<Document.Opened>empty() : Optional.of(saving.write()),
                written -> {
                    if (written.isPresent()) {
                        session.document().saved(saving, written.get());
                        then.run();
                    } else {
                        askToWriteOver(saving, then);
                    }
                },
                failed(path));
    }

    private void saveAs(Runnable then) {
        Path present = session.document().file().get();
        Piece piece = session.document().piece().get();
        ask.toSave(
                        FileKind.PIECE,
                        "Save the piece",
                        present == null
                                ? Part.idFor(piece.name()) + PieceFile.ENDING
                                : present.getFileName().toString())
                .ifPresent(path -> save(path, then));
    }

    /** Saves to a file, whatever is there. A piece without a name of its own takes the file's. */
    void save(Path path, Runnable then) {
        if (session.document().piece().get().name().equals(Piece.UNTITLED)) {
            session.document().apply(PieceEdit.of("Name", piece -> piece.withName(FileKind.PIECE.stem(path))));
        }
        write(session.document().saving(path), then);
    }

    private void write(Document.Saving saving, Runnable then) {
        disk.run(
                "Saving " + saving.path().getFileName(),
                saving::write,
                written -> {
                    session.document().saved(saving, written);
                    then.run();
                },
                failed(saving.path()));
    }

    /** Somebody else has written the file since it was opened here. */
    private void askToWriteOver(Document.Saving saving, Runnable then) {
        ButtonType over = new ButtonType("Write over it", ButtonBar.ButtonData.YES);
        ButtonType other = new ButtonType("Save as…", ButtonBar.ButtonData.NO);
        Optional<ButtonType> answer = Asking.sheet(
                        window,
                        session.look().styles(),
                        "Write over “" + saving.path().getFileName() + "”?",
                        "It was changed on disk since it was opened here. What was written there would be lost.",
                        over,
                        other,
                        ButtonType.CANCEL)
                .showAndWait();
        if (answer.isPresent() && answer.get() == over) {
            write(saving, then);
        } else if (answer.isPresent() && answer.get() == other) {
            saveAs(then);
        }
    }

    /** Does something once the piece that is open may be left: it is saved, or the user says so. */
    void leaving(Runnable then) {
        if (!session.document().unsaved().get()) {
            then.run();
            return;
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
            save(then);
        } else if (answer.isPresent() && answer.get() == discard) {
            then.run();
        }
    }

    void chooseSounds() {
        ask.toOpen(FileKind.SOUNDS, "Choose a SoundFont or DLS file").ifPresent(session.sounds()::choose);
    }

    void openChain() {
        ask.toOpen(FileKind.CHAIN, "Open a chain").ifPresent(this::openChain);
    }

    /** Puts the chain of a file in place of the shown part's. */
    void openChain(Path path) {
        String id = session.selection().partId().get();
        disk.run(
                "Opening " + path.getFileName(),
                () -> ChainFile.read(InFile.read(path)),
                chain -> session.document().apply(PieceEdit.of("Open chain " + path.getFileName(), piece -> {
                    Piece changed = piece.withPart(id, part -> part.withChain(chain.chain()));
                    return chain.key() == null ? changed : changed.withKey(chain.key());
                })),
                failed(path));
    }

    void saveChain() {
        Part part = session.selection().part();
        ChainFile file =
                new ChainFile(part.id(), session.document().piece().get().key(), part.chain(), Map.of());
        ask.toSave(
                        FileKind.CHAIN,
                        "Save the chain",
                        part.id() + FileKind.CHAIN.endings().get(0))
                .ifPresent(path -> disk.run(
                        "Saving " + path.getFileName(),
                        () -> {
                            AtomicFile.write(path, file.write().getBytes(StandardCharsets.UTF_8));
                            return path;
                        },
                        saved -> session.say("Saved " + saved.getFileName()),
                        failed(path)));
    }

    void openPhrase() {
        midi.phrase();
    }

    void openMidi() {
        midi.piece();
    }

    /** Puts the notes of a MIDI file into the shown phrase at its mark. */
    void putIntoPhrase(Path path) {
        midi.intoPhrase(path);
    }

    /** Takes a file that was dragged into the window: a piece, a chain for the shown part, or a phrase for it. */
    void take(Path path) {
        take(path, session.selection().partId().get());
    }

    /** @param part the id of the part that is to hear or be given what the file holds; empty for none */
    void take(Path path, String part) {
        String name = path.getFileName().toString();
        if (name.endsWith(PieceFile.ENDING)) {
            leaving(() -> open(path));
        } else if (name.matches(".*\\.midi?")) {
            midi.phrase(path, part);
        } else if (name.endsWith(".json")) {
            openChain(path);
        } else {
            failed(path).accept("pieces (.harpel), chains (.chain.json) and MIDI files (.mid) can be dragged in");
        }
    }

    void keepTestPhrase() {
        Path folder = OwnPhrases.folder();
        Piece piece = session.document().piece().get();
        Part part = session.selection().part();
        disk.run(
                "Keeping a test phrase",
                () -> OwnPhrases.keep(folder, piece, part),
                kept -> session.say("Kept as a test phrase in " + kept),
                failed(folder));
    }

    /** The shown part hears one of the user's own test phrases, and the transport plays it. */
    void hearOwnPhrase(String name) {
        disk.run(
                "Reading " + name,
                () -> OwnPhrases.read(OwnPhrases.folder(), name),
                phrase -> {
                    hear(phrase);
                    session.transport().play();
                },
                failed(Path.of(name)));
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
        leaving(this::showDemo);
    }

    private void showDemo() {
        show("the-salt-clock", "the demo piece");
    }

    /** Small pieces that each show one kind of work: the names of their files, and what each shows. */
    static final Map<String, String> EXAMPLES = examples();

    private static Map<String, String> examples() {
        Map<String, String> all = new LinkedHashMap<>();
        all.put("strum", "Strum: ropes in the wind");
        all.put("groove", "Groove from rules: a salt mill");
        all.put("lanes", "Lanes to several sounds: three lamps");
        all.put("bend", "Bend from another part: gull wind");
        all.put("board", "Boards that play by themselves: a rock pool");
        all.put("maker", "A made melody with its chords: the keeper’s tune");
        return Collections.unmodifiableMap(all);
    }

    /** Opens one of the examples, and plays it. */
    void openExample(String name) {
        leaving(() -> show("examples/" + name, "the example"));
    }

    private void show(String name, String what) {
        try (InputStream stream = Files.class.getResourceAsStream("demo/" + name + ".harpel")) {
            session.replace(PieceFile.read(stream.readAllBytes()), "Open " + what);
            session.transport().play();
        } catch (IOException e) {
            session.say("This could not be read, " + what + ": " + e.getMessage());
        }
    }

    /** The files of pieces that were open last, the last first. */
    List<Path> recent() {
        return recent.get();
    }

    /** Says which files were open last. */
    void recentBy(Supplier<List<Path>> files) {
        recent = files;
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

    /** Asks what to print as ready phrases, and prints it. */
    void printSheet() {
        PrintSheet.ask(session.document(), session.selection(), session.look(), window)
                .ifPresent(session.printing()::ontoParts);
    }

    /** Asks what to write to files, and where to, and writes it. */
    void export() {
        ExportSheet.ask(
                        session.document(),
                        session.selection(),
                        session.look(),
                        session.sounds().bank().get(),
                        window)
                .ifPresent(this::export);
    }

    private void export(ExportSheet.Wanted wanted) {
        List<PrintOrder> orders = wanted.orders();
        Printing printing = session.printing();
        if (wanted.isOne()) {
            ask.toSave(kind(wanted.as()), "Export", wanted.fileName(stem()))
                    .ifPresent(path -> printing.toFile(orders.get(0), wanted.as(), wanted.form(), path));
            return;
        }
        ask.folder(FileKind.EXPORT, "A folder for the files").ifPresent(folder -> {
            switch (wanted.each()) {
                case ALL -> printing.toFolder(orders, wanted.as(), wanted.form(), folder);
                case PART -> printing.toFiles(orders.get(0), wanted.as(), wanted.form(), folder);
                case STAGE -> printing.toStages(orders.get(0), wanted.as(), wanted.form(), folder);
            }
        });
    }

    /** What an export is called at first: as the piece's file, or as the piece. */
    private String stem() {
        Path present = session.document().file().get();
        return present == null ? Part.idFor(session.document().piece().get().name()) : FileKind.PIECE.stem(present);
    }

    private static FileKind kind(PrintFormat format) {
        return FileKind.export(format.name(), format.ending());
    }
}
