package harpel.app.session;

import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.device.MidiDevices;
import harpel.device.OutputPort;
import harpel.device.Ports;
import harpel.device.RecordingPort;
import harpel.engine.InputPort;
import harpel.engine.LiveEngine;
import harpel.engine.LiveStatus;
import harpel.format.AtomicFile;
import harpel.format.PieceFile;
import harpel.piece.History;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableSet;

/** The open piece, its history, the engine that plays it, and what is selected. The only class that joins them. Interface thread. */
public final class Session implements AutoCloseable {
    public static final double LARGEST = 2;
    private static final double SIZE_STEP = 0.25;

    private final History history;
    private final ReadOnlyObjectWrapper<Piece> piece;
    private final StringProperty partId = new SimpleStringProperty();
    /** The selected stage, or branch where it ends in one; null for none. */
    private final ObjectProperty<StageAddress> selected = new SimpleObjectProperty<>();

    private final ObjectProperty<Path> file = new SimpleObjectProperty<>();
    /** What the file held when it was opened or saved here. */
    private byte[] onDisk;

    private final StringProperty message = new SimpleStringProperty("");
    private final StringProperty noSound = new SimpleStringProperty("");
    private final BooleanProperty dry = new SimpleBooleanProperty();
    private final ObjectProperty<Theme> theme = new SimpleObjectProperty<>(Theme.DAY);
    private final DoubleProperty size = new SimpleDoubleProperty(1);
    private final BooleanProperty unsaved = new SimpleBooleanProperty();

    private long toldTroubles;
    private Map<String, String> toldProblems = Map.of();

    private final ObservableSet<StageAddress> folded = FXCollections.observableSet();

    private final LeverWiring levers = new LeverWiring(this);

    private final TraceQueue queue = new TraceQueue();
    private final TraceStore traces = new TraceStore();
    private final Ports ports = new Ports();
    private final MidiDevices devices = new MidiDevices();
    private final LiveEngine engine;
    private final InputPort keys;

    public Session(Piece opened) {
        Piece start = withAPart(opened);
        history = new History(start);
        piece = new ReadOnlyObjectWrapper<>(start);
        partId.set(start.parts().get(0).id());
        engine = new LiveEngine(start, ports, queue);
        keys = engine.openInput(InputPort.KEYS);
        partId.addListener((property, before, now) -> engine.keysTo(now));
        dry.addListener((property, before, now) -> engine.hearDry(partId.get(), now));
    }

    /** A piece that has no part has an empty one, so that there is always one to show and to play. */
    private static Piece withAPart(Piece piece) {
        return piece.parts().isEmpty() ? piece.withParts(Piece.empty().parts()) : piece;
    }

    /** Starts the engine; apart from making a session, so that the window may be there first. What was played before is played then. */
    public void start() {
        engine.start();
    }

    /** Opens the machine's MIDI devices and sound, in the background, and says what there is. */
    public void openDevices() {
        Thread opener = new Thread(
                () -> {
                    MidiDevices.Report report = devices.openAll(engine, ports);
                    Platform.runLater(() -> noSound.set(report.noSound()));
                },
                "harpel-devices");
        opener.setDaemon(true);
        opener.start();
    }

    // The piece and its edits

    public ReadOnlyObjectProperty<Piece> piece() {
        return piece.getReadOnlyProperty();
    }

    /** Does an edit; one that the piece refuses, such as a circle of routes, is not done and the reason said. */
    public void apply(PieceEdit edit) {
        try {
            history.apply(edit);
        } catch (IllegalArgumentException e) {
            say(e.getMessage());
            return;
        }
        show();
    }

    /** The hand has left the control: what comes next is undone on its own. */
    public void endGesture() {
        history.endGesture();
    }

    public void undo() {
        history.undoLabel().ifPresent(label -> say("Undone: " + label));
        history.undo();
        show();
    }

    public void redo() {
        history.redoLabel().ifPresent(label -> say("Done again: " + label));
        history.redo();
        show();
    }

    public Optional<String> undoLabel() {
        return history.undoLabel();
    }

    public Optional<String> redoLabel() {
        return history.redoLabel();
    }

    private void show() {
        Piece now = history.current();
        unsaved.set(history.hasUnsavedChanges());
        if (now.equals(piece.get())) {
            return;
        }
        if (now.part(partId.get()).isEmpty()) {
            partId.set(now.parts().get(0).id());
        }
        if (selected.get() != null && stage(selected.get()).isEmpty()) {
            selected.set(null);
        }
        engine.update(now);
        piece.set(now);
    }

    public Part part() {
        Piece now = piece.get();
        // Where another piece is being taken the id may be that of the other for a moment.
        return now.part(partId.get()).orElseGet(() -> now.parts().get(0));
    }

    public StringProperty partId() {
        return partId;
    }

    public ObjectProperty<StageAddress> selected() {
        return selected;
    }

    /** The stage at an address of the shown part; that of the split for the address of a branch. */
    public Optional<Stage> stage(StageAddress address) {
        Optional<Part> part = piece.get().part(address.part());
        return part.isEmpty()
                ? Optional.empty()
                : chainAt(part.get().chain(), address.chainWay()).find(address.stageId());
    }

    private static Chain chainAt(Chain chain, List<StageAddress.Step> way) {
        Chain found = chain;
        for (StageAddress.Step step : way) {
            var branches = found.find(step.stage()).map(Stage::branches).orElse(List.of());
            if (step.branch() > branches.size()) {
                return Chain.EMPTY;
            }
            found = branches.get(step.branch() - 1).chain();
        }
        return found;
    }

    public Chain chainAt(List<StageAddress.Step> way) {
        return chainAt(part().chain(), way);
    }

    /** Changes a chain of the shown part as one edit. */
    public void edit(String label, String gesture, List<StageAddress.Step> way, UnaryOperator<Chain> change) {
        String id = partId.get();
        apply(new PieceEdit(
                label,
                gesture,
                before ->
                        before.withPart(id, part -> part.withChain(part.chain().within(way, change)))));
    }

    public void editStage(String label, String gesture, StageAddress address, UnaryOperator<Stage> change) {
        edit(label, gesture, address.chainWay(), chain -> chain.withStage(address.stageId(), change));
    }

    /** Folds a stage's row, or unfolds it; a matter of the view alone. */
    public void fold(StageAddress address) {
        if (!folded.remove(address)) {
            folded.add(address);
        }
    }

    public boolean isFolded(StageAddress address) {
        return folded.contains(address);
    }

    /** The stages whose rows are folded. */
    public ObservableSet<StageAddress> folded() {
        return folded;
    }

    /** Hears the other of the part's two chains, from now on, in time. */
    public void hearOther() {
        String id = partId.get();
        char letter = part().rack().otherLetter();
        apply(PieceEdit.of("Hear chain " + letter, before -> before.withPart(id, Part::withOtherChain)));
    }

    /** Hears the part without its whole chain, or with it again. */
    public void switchChain() {
        String id = partId.get();
        boolean off = !part().rack().off();
        apply(PieceEdit.of(
                off ? "Switch the chain off" : "Switch the chain on",
                before -> before.withPart(id, part -> part.withChainOff(off))));
    }

    // Files

    /** Opens a piece in place of this one; undo brings the old one back. */
    public void open(Path path) throws IOException {
        byte[] bytes = Files.readAllBytes(path);
        Piece opened = PieceFile.read(new String(bytes, StandardCharsets.UTF_8));
        replace(opened, "Open " + path.getFileName());
        file.set(path);
        onDisk = bytes;
        history.markSaved();
        show();
        sayUnknown(opened);
    }

    /** Says what of a newer version's file is kept and not known here. */
    void sayUnknown(Piece opened) {
        List<String> unknown = PieceFile.unknown(opened);
        if (!unknown.isEmpty()) {
            say("A newer version wrote this file. Kept as it is, and not used here: "
                    + String.join(", ", unknown.subList(0, Math.min(3, unknown.size())))
                    + (unknown.size() > 3 ? " and " + (unknown.size() - 3) + " more" : "") + ".");
        }
    }

    /** The piece of a file, for a window that begins with it. */
    public static Session of(Path path) throws IOException {
        byte[] bytes = Files.readAllBytes(path);
        Piece piece = PieceFile.read(new String(bytes, StandardCharsets.UTF_8));
        Session session = new Session(piece);
        session.file.set(path);
        session.onDisk = bytes;
        session.sayUnknown(piece);
        return session;
    }

    /** Whether somebody else has written the file since it was opened or saved here. */
    public boolean isChangedOnDisk() {
        Path path = file.get();
        try {
            return path != null && onDisk != null && Files.exists(path) && !Arrays.equals(Files.readAllBytes(path), onDisk);
        } catch (IOException e) {
            return true;
        }
    }

    /** Puts a piece in place of this one. */
    public void replace(Piece opened, String label) {
        engine.silence();
        selected.set(null);
        apply(PieceEdit.of(label, before -> withAPart(opened)));
    }

    public void save(Path path) throws IOException {
        byte[] bytes = PieceFile.write(piece.get()).getBytes(StandardCharsets.UTF_8);
        AtomicFile.write(path, bytes);
        file.set(path);
        onDisk = bytes;
        history.markSaved();
        unsaved.set(false);
        say("Saved " + path.getFileName());
    }

    public ObjectProperty<Path> file() {
        return file;
    }

    public BooleanProperty unsaved() {
        return unsaved;
    }

    // Playing

    public LiveStatus status() {
        return engine.status();
    }

    public void play() {
        engine.play();
    }

    public void stop() {
        engine.stop();
    }

    public void togglePlay() {
        if (status().mode() == LiveStatus.Mode.PLAYING) {
            stop();
        } else {
            play();
        }
    }

    public void toStart() {
        engine.locate(0);
    }

    public void silence() {
        engine.silence();
        if (engine.standsNanos() > 0) {
            ports.panic();
        }
        levers.leave();
        say("Silence: every note and every waiting repeat has ended.");
    }

    /** Does a stage's own action, such as letting go of what no key holds. */
    public void act(StageAddress address) {
        engine.act(address.part(), address.toString());
    }

    public BooleanProperty dry() {
        return dry;
    }

    public void press(int pitch, int velocity) {
        keys.offer(0x90, pitch, velocity, System.nanoTime());
    }

    public void release(int pitch) {
        keys.offer(0x80, pitch, 64, System.nanoTime());
    }

    /** Keeps everything that is sent from now on, for tests. */
    public RecordingPort record() {
        RecordingPort port = new RecordingPort();
        listen(port);
        return port;
    }

    /** Sends everything there as well, for tests and for measuring. */
    public void listen(OutputPort port) {
        ports.addListener(port);
    }

    public LiveEngine engine() {
        return engine;
    }

    /** The names of the devices that can play. */
    public List<String> inputs() {
        return engine.inputNames();
    }

    /** What levers wait for: a controller, or a control to move. */
    public LeverWiring levers() {
        return levers;
    }

    public List<String> outputs() {
        return ports.names();
    }

    // What is shown

    /** Takes what the engine has sent since the last frame. */
    public TraceStore traces() {
        queue.drain(traces::take);
        return traces;
    }

    /** Whether the engine has sent anything since the last frame. */
    public boolean tracesWait() {
        return queue.isWaiting();
    }

    public long droppedTraces() {
        return queue.dropped();
    }

    public StringProperty message() {
        return message;
    }

    /** Says what went wrong since the last look, in the engine or at an output; once a while. */
    public void look() {
        LiveStatus status = engine.status();
        if (status.troubles() != toldTroubles) {
            toldTroubles = status.troubles();
            say(status.trouble());
        }
        Map<String, String> problems = ports.problems();
        problems.forEach((name, problem) -> {
            if (!problem.equals(toldProblems.get(name))) {
                say("The output “" + (name.isEmpty() ? "built-in sounds" : name) + "” " + problem
                        + ". Its notes are left out; it is tried again every two seconds.");
            }
        });
        toldProblems.keySet().stream()
                .filter(name -> !problems.containsKey(name))
                .forEach(name -> say("The output “" + (name.isEmpty() ? "built-in sounds" : name) + "” is back."));
        toldProblems = problems;
        if (engine.standsNanos() > 0) {
            say("The engine does not answer. Silence ends every note.");
        }
    }

    /** One line at the foot of the window. */
    public void say(String text) {
        message.set(text);
    }

    /** Why nothing is heard on this machine; empty when sound works. */
    public StringProperty noSound() {
        return noSound;
    }

    public ObjectProperty<Theme> theme() {
        return theme;
    }

    /** How much larger everything is shown, 1–2. */
    public DoubleProperty size() {
        return size;
    }

    /** Shows everything larger or smaller by a step, between 100 and 200 %. */
    public void resize(int steps) {
        double next = Math.round((size.get() + steps * SIZE_STEP) * 100) / 100.0;
        size.set(Math.max(1, Math.min(LARGEST, next)));
        say("Size " + Math.round(100 * size.get()) + " %.");
    }

    /** The style sheets of this theme and size. */
    public List<String> styles() {
        return theme.get().styles(size.get());
    }

    @Override
    public void close() {
        engine.close();
        ports.close();
        devices.close();
    }
}
