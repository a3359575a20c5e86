package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.file.FileAsk;
import harpel.app.look.ToolkitStyles;
import harpel.app.session.Session;
import harpel.app.transport.Places;
import harpel.app.transport.TraceStore;
import harpel.chain.StageAddress;
import harpel.event.NoteStart;
import harpel.format.PieceFile;
import harpel.param.Param;
import harpel.piece.Piece;
import harpel.port.OutputPort;
import harpel.testkit.RecordingPort;
import harpel.testkit.Wire;
import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeoutException;
import javafx.application.Platform;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Scene;
import javafx.scene.control.Labeled;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.input.MouseButton;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Stage;
import javafx.stage.Window;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.testfx.api.FxToolkit;
import org.testfx.service.support.FiredEvents;

/** The real window with one piece, driven as a hand would. One window serves all tests of a run; each puts its own piece into it. */
abstract class WindowCase extends Hand {
    static final double WIDTH = 1280;
    static final double HEIGHT = 800;

    private static final long PATIENT_MS = 10_000;
    static Stage stage;

    /** On any thread, since the window was shown. */
    final Queue<Throwable> uncaught = new ConcurrentLinkedQueue<>();

    Session session;
    RecordingPort sent;
    HarpelPane pane;
    Files files;
    private Frames frames;

    /** The parts of the piece, as they stand in its file, in single quotation marks. */
    abstract String parts();

    /** The levers of the piece, in the same form. */
    String levers() {
        return "{'name':'Tide','value':0}";
    }

    Piece piece() {
        return read(
                "{'harpel':1,'piece':'Test','key':'C major','levers':[" + levers() + "],'parts':[" + parts() + "]}");
    }

    /** The piece of the demo. */
    static Piece demo() {
        try {
            return PieceFile.read(java.nio.file.Files.readString(Path.of("../demo/the-salt-clock.harpel")));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** A piece of a file's text with single quotation marks. */
    static Piece read(String text) {
        try {
            return PieceFile.read(text.replace('\'', '"'));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @BeforeEach
    void show() throws TimeoutException {
        if (stage == null) {
            Platform.setImplicitExit(false);
            stage = FxToolkit.registerPrimaryStage();
            forgetEvents();
        }
        interact(() -> {
            begin();
            ToolkitStyles.use();
            HarpelApp.loadFonts();
            session = new Session(piece(), new harpel.port.Ports(), machine(), System::nanoTime);
            sent = new RecordingPort();
            session.transport().listen(listener());
            pane = new HarpelPane(session);
            files = files();
            pane.setActions(files);
            // The same scene for all: what its style sheets mean for a kind of node is worked out once.
            Scene scene = stage.getScene();
            if (scene == null) {
                scene = SizedRoot.scene(session, pane, WIDTH, HEIGHT);
                stage.setScene(scene);
            } else {
                ((SizedRoot) scene.getRoot()).show(session, pane);
            }
            stage.setX(0);
            stage.setY(0);
            stage.setWidth(WIDTH);
            stage.setHeight(HEIGHT);
            stage.show();
            stage.requestFocus();
            pane.requestFocus();
            Thread.setDefaultUncaughtExceptionHandler((thread, thrown) -> uncaught.add(thrown));
            session.transport().start();
            frames = new Frames(session, pane::draw);
            frames.start(scene);
        });
        await(() -> onFx(() -> stage.isFocused() && pane.getWidth() == WIDTH));
    }

    @AfterEach
    void end() {
        Thread.setDefaultUncaughtExceptionHandler(null);
        letGo();
        interact(() -> {
            frames.close();
            List.copyOf(Window.getWindows()).stream()
                    .filter(window -> window != stage)
                    .forEach(Window::hide);
        });
        session.close();
        assertThat(uncaught).as("what nobody caught").isEmpty();
    }

    /** The test tool would keep each event there was, with the node that had it, and so all that was ever shown. */
    private void forgetEvents() {
        try {
            var kept = FxToolkit.toolkitContext().getClass().getDeclaredField("firedEvents");
            kept.setAccessible(true);
            FiredEvents events = (FiredEvents) kept.get(FxToolkit.toolkitContext());
            onFx(() -> {
                events.stopStoringFiredEvents();
                return null;
            });
        } catch (ReflectiveOperationException e) {
            throw new AssertionError(e);
        }
    }

    /** What hears all that is sent. */
    OutputPort listener() {
        return sent;
    }

    /** What is chosen where a file or folder is asked for; null cancels. The system's own dialogs are no part of the window. */
    Path chosenFile;

    /** Which folder the last dialog began with, and which name it proposed. */
    Path askedIn;

    String askedFor;
    /** The folders that files were last in, by their kind. */
    final Map<String, Path> lastFolders = new HashMap<>();

    private Files files() {
        FileAsk ask =
                new FileAsk(
                        stage,
                        session.look()::styles,
                        FileAsk.Folders.in(lastFolders),
                        session.document().file()::get) {
                    @Override
                    protected Path shown(FileChooser chooser, boolean save) {
                        askedIn = chooser.getInitialDirectory().toPath();
                        askedFor = chooser.getInitialFileName();
                        return chosenFile;
                    }

                    @Override
                    protected Path shown(DirectoryChooser chooser) {
                        askedIn = chooser.getInitialDirectory().toPath();
                        return chosenFile;
                    }
                };
        Files made = new Files(session, stage, ask);
        // A busy machine is no slow disk.
        made.disk().waitFor(PATIENT_MS);
        return made;
    }

    /** Saves the piece to a file. */
    void save(Path file) {
        interact(() -> files.save(file, () -> {}));
        assertThat(session.document().unsaved().get()).isFalse();
    }

    /** The MIDI devices there are: none of the machine's own. */
    harpel.device.MachineDevices machine() {
        return List::of;
    }

    List<byte[]> messages() {
        return sent.sent().stream().map(RecordingPort.Sent::message).toList();
    }

    List<String> starts() {
        return Wire.starts(messages());
    }

    /** Selects a stage of the shown part. */
    void select(String id) {
        interact(() -> session.selection()
                .selected()
                .set(StageAddress.parse(session.selection().partId().get() + "/" + id)));
    }

    <T> T value(String stage, Param<T> param) {
        return session.selection()
                .part()
                .chain()
                .find(stage)
                .orElseThrow()
                .params()
                .get(param);
    }

    /** Gives the keyboard to a node without pressing it. */
    void focus(String node) {
        // A menu that has just closed gives the keyboard back a little later.
        await(() -> {
            interact(() -> lookup(node).query().requestFocus());
            return onFx(() -> lookup(node).query().isFocused());
        });
    }

    /** A place on a node, as shares of its width from the left and of its height from the bottom. */
    Point2D on(String node, double across, double up) {
        Bounds bounds = bounds(node);
        return new Point2D(bounds.getMinX() + across * bounds.getWidth(), bounds.getMaxY() - up * bounds.getHeight());
    }

    void drag(Point2D from, Point2D to) {
        moveTo(from).press(MouseButton.PRIMARY);
        moveTo(from.midpoint(to)).moveTo(to).drop();
    }

    /** The open sheet of that title, or null. */
    static javafx.stage.Window dialog(String title) {
        return javafx.stage.Window.getWindows().stream()
                .filter(window -> window instanceof Stage stage && title.equals(stage.getTitle()))
                .findFirst()
                .orElse(null);
    }

    String text(String label) {
        return lookup(label).queryAs(Labeled.class).getText();
    }

    /** Opens a menu and chooses the item of that id or text. */
    void choose(String button, String item) {
        MenuButton menu = lookup(button).queryAs(MenuButton.class);
        interact(menu::show);
        MenuItem found = menu.getItems().stream()
                .filter(one -> item.equals(one.getId()) || item.equals(one.getText()))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no " + item + " in " + menu.getItems()));
        interact(() -> {
            menu.hide();
            found.fire();
        });
    }

    /** Plays a note and waits until it has been taken note of. */
    NoteStart play(int pitch, int velocity) {
        interact(() -> session.transport().press(pitch, velocity));
        await(() -> onFx(() -> !session.transport()
                .traces()
                .notes(Places.input(session.selection().partId().get()))
                .isEmpty()));
        interact(() -> session.transport().release(pitch));
        List<TraceStore.Drawn> notes = session.transport()
                .traces()
                .notes(Places.input(session.selection().partId().get()));
        return notes.get(notes.size() - 1).note;
    }

    /** An item of the menu of test phrases, as it is when that is opened. */
    MenuItem testPhrase(String text) {
        MenuButton menu = lookup("#menu").queryAs(MenuButton.class);
        menu.getOnShowing().handle(null);
        return menu.getItems().stream()
                .filter(one -> "test-phrases".equals(one.getId()))
                .flatMap(one -> ((Menu) one).getItems().stream())
                .filter(one -> text.equals(one.getText()))
                .findFirst()
                .orElseThrow();
    }
}
