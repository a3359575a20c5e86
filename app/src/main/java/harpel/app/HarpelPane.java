package harpel.app;

import harpel.app.draw.Drawing;
import harpel.app.session.OwnPhrases;
import harpel.app.session.Session;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.TestPhrases;
import harpel.theory.Key;
import harpel.theory.OctaveNaming;
import java.io.File;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import javafx.event.EventHandler;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ButtonType;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.fxmisc.richtext.CodeArea;

/** The whole window: the views, and every action with its key. */
final class HarpelPane extends BorderPane {
    private record Action(String name, Runnable run) {}

    private static final double ZOOM = 1.4;
    /** So many frames from one look at what may have gone wrong to the next. */
    private static final int LOOK_EVERY = 30;

    private final Session session;
    private final Map<KeyCombination, Action> actions = new LinkedHashMap<>();
    private final TopBar top;
    private final ChainView chain;
    private final KeysView keys;
    private final Inspector inspector;
    private final PartPanel parts;
    private final Label keysInfo = new Label();
    private Key toldKey;
    private int toldOctave;
    private int frame;
    private int toldTouch;
    private final MenuButton menu = new MenuButton("Piece");

    HarpelPane(Session session) {
        this.session = session;
        getStyleClass().add("harpel");
        menu.setId("menu");
        top = new TopBar(session, menu);
        chain = new ChainView(session);
        keys = new KeysView(session);
        inspector = new Inspector(session);
        inspector.setPrefWidth(292);
        inspector.setMinWidth(280);
        setTop(top);
        parts = new PartPanel(session);
        setLeft(parts);
        setCenter(chain);
        setRight(inspector);
        setBottom(foot());
        // While the keyboard is in no other control it belongs to the piano keys.
        setFocusTraversable(true);
        setOnMousePressed(event -> requestFocus());
        EventHandler<KeyEvent> pressed = this::pressed;
        EventHandler<KeyEvent> released = this::released;
        sceneProperty().addListener((property, before, now) -> {
            if (before != null) {
                before.removeEventFilter(KeyEvent.KEY_PRESSED, pressed);
                before.removeEventFilter(KeyEvent.KEY_RELEASED, released);
            }
            if (now != null) {
                now.addEventFilter(KeyEvent.KEY_PRESSED, pressed);
                now.addEventFilter(KeyEvent.KEY_RELEASED, released);
            }
        });
        setOnDragOver(event -> {
            if (event.getDragboard().hasFiles()) {
                event.acceptTransferModes(TransferMode.COPY);
                event.consume();
            }
        });
    }

    Session session() {
        return session;
    }

    ChainView chain() {
        return chain;
    }

    /** The pane that a node lies in. */
    static HarpelPane of(Node node) {
        Node found = node;
        while (!(found instanceof HarpelPane)) {
            found = found.getParent();
        }
        return (HarpelPane) found;
    }

    /** Shows the first steps in place of the chain. */
    void showFirstPage(Files files) {
        setCenter(new FirstPage(
                () -> {
                    closeFirstPage();
                    files.openDemo();
                },
                () -> {
                    closeFirstPage();
                    files.beginReady();
                },
                this::closeFirstPage));
    }

    private void closeFirstPage() {
        setCenter(chain);
        requestFocus();
    }

    private Node foot() {
        keysInfo.getStyleClass().add("soft");
        keysInfo.setMinWidth(100);
        HBox.setHgrow(keys, Priority.ALWAYS);
        HBox row = new HBox(16, keys, keysInfo);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setPadding(new Insets(2, 14, 6, 14));
        Label message = new Label();
        message.setId("message");
        message.textProperty().bind(session.message());
        Label sound = new Label();
        sound.setId("no-sound");
        sound.getStyleClass().add("soft");
        sound.textProperty().bind(session.noSound());
        HBox line = new HBox(20, message, sound);
        line.setPadding(new Insets(4, 14, 0, 14));
        VBox foot = new VBox(0, line, row);
        foot.getStyleClass().add("foot");
        return foot;
    }

    /** Gives every action its key and fills the menu. */
    void setActions(Files files) {
        TimeWindow window = chain.window();
        action("New piece", "Shortcut+N", files::newPiece, true);
        action("Open…", "Shortcut+O", files::open, true);
        action("Save", "Shortcut+S", files::save, true);
        action("Save as…", "Shortcut+Shift+S", files::saveAs, true);
        menu.getItems().add(new SeparatorMenuItem());
        action("Read a phrase from a MIDI file…", "Shortcut+I", files::openPhrase, true);
        Menu tests = new Menu("Send a test phrase through the chain");
        tests.setId("test-phrases");
        fillTests(tests, files);
        menu.setOnShowing(event -> fillTests(tests, files));
        menu.getItems().add(tests);
        setOnDragDropped(event -> {
            List<File> dropped = event.getDragboard().getFiles();
            dropped.forEach(file -> files.take(file.toPath()));
            event.setDropCompleted(!dropped.isEmpty());
            event.consume();
        });
        action("Print the phrase to a MIDI file…", "Shortcut+P", files::print, true);
        menu.getItems().add(new SeparatorMenuItem());
        action("Open chain…", "Shortcut+Shift+O", files::openChain, true);
        action("Save chain…", "Shortcut+Shift+P", files::saveChain, true);
        menu.getItems().add(new SeparatorMenuItem());
        action("Call note 60 C3, or C4 again", "Shortcut+Shift+C", this::otherOctaves, true);
        action("Larger", "Shortcut+Shift+Equals", () -> session.resize(1), true);
        action("Smaller", "Shortcut+Shift+Minus", () -> session.resize(-1), true);
        menu.getItems().add(new SeparatorMenuItem());
        action("First steps", "Shift+F1", () -> showFirstPage(files), true);
        action("Keys and actions", "F1", this::showKeys, true);
        action("Add a part", "Shortcut+Shift+N", () -> PartActions.add(session), false);
        action("Duplicate the part", "Shortcut+Shift+D", () -> PartActions.duplicate(session), false);
        action("Delete the part", "Shortcut+Shift+Delete", () -> PartActions.delete(session), false);
        action("Undo", "Shortcut+Z", session::undo, false);
        action("Redo", "Shortcut+Shift+Z", session::redo, false);
        action("Redo", "Shortcut+Y", session::redo, false);
        action("To the start", "Home", session::toStart, false);
        action("Silence", "Escape", session::silence, false);
        action("Add an effect after the selected stage", "Shortcut+E", this::addEffect, false);
        action("Copy the selected stage, or the chain, as text", "Shortcut+C", () -> StageActions.copy(session), false);
        action("Paste stages behind the selected one", "Shortcut+V", () -> StageActions.paste(session), false);
        action("Replace the selected stage", "Shortcut+R", () -> StageActions.replace(session, chain), false);
        action("Fold or unfold the selected stage", "Shortcut+F", () -> StageActions.fold(session), false);
        action("From a stage to its controls, and back", "F6", this::between, false);
        action("Hear the other chain, A or B", "F2", session::hearOther, false);
        action("Whole chain off or on", "Shortcut+Shift+B", session::switchChain, false);
        action("Freeze the traces, or let them go on", "F4", () -> window.freeze(!window.isFrozen()), false);
        action("Go a bar back in the traces", "Alt+Left", () -> window.back(1), false);
        action("Go a bar forth in the traces", "Alt+Right", () -> window.back(-1), false);
        action("Show fewer bars", "Shortcut+Equals", () -> window.zoomTime(1 / ZOOM), false);
        action("Show more bars", "Shortcut+Minus", () -> window.zoomTime(ZOOM), false);
        action("Show fewer pitches", "Alt+Equals", () -> window.zoomPitch(ZOOM), false);
        action("Show more pitches", "Alt+Minus", () -> window.zoomPitch(1 / ZOOM), false);
        action("Show bars and pitches as at first", "Shortcut+0", window::reset, false);
        action("The selected stage’s difference", "Shortcut+J", chain::toggleDifference, false);
        action("Duplicate the selected stage", "Shortcut+D", () -> StageActions.duplicate(session), false);
        action("Remove the selected stage", "Shortcut+Delete", () -> StageActions.remove(session), false);
        action("Switch the selected stage off or on", "Shortcut+B", () -> StageActions.toggle(session), false);
        action("Move the selected stage up", "Shortcut+Up", () -> StageActions.move(session, -1), false);
        action("Move the selected stage down", "Shortcut+Down", () -> StageActions.move(session, 1), false);
        action("Select the stage above", "Alt+Up", () -> StageActions.step(session, -1), false);
        action("Select the stage below", "Alt+Down", () -> StageActions.step(session, 1), false);
        action(
                "Day or night",
                "Shortcut+T",
                () -> session.theme().set(session.theme().get().other()),
                false);
    }

    private void action(String name, String key, Runnable run, boolean inMenu) {
        KeyCombination combination = KeyCombination.keyCombination(key);
        actions.put(combination, new Action(name, run));
        if (inMenu) {
            // The key is shown, not registered: the window's own filter runs it.
            MenuItem item = new MenuItem(name + "    " + combination.getDisplayText());
            item.setOnAction(event -> run.run());
            menu.getItems().add(item);
        }
    }

    private void fillTests(Menu tests, Files files) {
        tests.getItems().clear();
        for (Phrase phrase : TestPhrases.all(Key.C_MAJOR, harpel.time.MeterMap.FOUR_FOUR)) {
            MenuItem item = new MenuItem(phrase.name().replace("Test: ", ""));
            item.setOnAction(event -> hearTestPhrase(phrase.name()));
            tests.getItems().add(item);
        }
        tests.getItems().add(new SeparatorMenuItem());
        for (String name : OwnPhrases.names(OwnPhrases.folder())) {
            MenuItem item = new MenuItem(name);
            item.setOnAction(event -> files.hearOwnPhrase(name));
            tests.getItems().add(item);
        }
        MenuItem keep = new MenuItem("Keep this part’s phrase as a test phrase");
        keep.setId("keep-test-phrase");
        keep.setOnAction(event -> files.keepTestPhrase());
        tests.getItems().add(keep);
    }

    /** The shown part hears a test phrase, in the piece's own key and meter, and the transport plays it. */
    private void hearTestPhrase(String name) {
        Piece now = session.piece().get();
        Phrase phrase = TestPhrases.all(now.key(), now.time().meter()).stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow();
        String id = session.partId().get();
        session.apply(PieceEdit.of(
                "Hear " + name, piece -> piece.withPhrase(phrase).withPart(id, part -> part.withPhrase(phrase.id()))));
        session.play();
    }

    private void otherOctaves() {
        OctaveNaming other = OctaveNaming.shown() == OctaveNaming.C4 ? OctaveNaming.C3 : OctaveNaming.C4;
        OctaveNaming.show(other);
        session.say("Note 60 is called " + other + " on the screen; files keep to C4.");
    }

    private boolean typing() {
        Node owner = getScene() == null ? null : getScene().getFocusOwner();
        return owner instanceof TextInputControl || owner instanceof CodeArea;
    }

    private void pressed(KeyEvent event) {
        if (typing()
                && (!event.isShortcutDown()
                        || EnumSet.of(KeyCode.DELETE, KeyCode.Z, KeyCode.Y, KeyCode.C, KeyCode.V)
                                .contains(event.getCode()))) {
            return;
        }
        for (Map.Entry<KeyCombination, Action> action : actions.entrySet()) {
            if (action.getKey().match(event)) {
                action.getValue().run.run();
                event.consume();
                return;
            }
        }
        if (event.getCode() == KeyCode.ENTER && getScene().getFocusOwner() instanceof ButtonBase button) {
            // Space belongs to the transport, so Enter presses the button that has the keyboard.
            button.fire();
            event.consume();
        } else if (event.getCode() == KeyCode.ENTER && getScene().getFocusOwner() instanceof StageRow) {
            inspector.focusFirst();
            event.consume();
        } else if (event.getCode() == KeyCode.SPACE) {
            session.togglePlay();
            event.consume();
        } else if (event.getCode() == KeyCode.F3) {
            session.dry().set(true);
            event.consume();
        } else if (!onTile(event) && keys.key(event)) {
            event.consume();
        }
    }

    /** Digits typed on a control set its value. */
    private boolean onTile(KeyEvent event) {
        Node owner = getScene().getFocusOwner();
        return (owner instanceof ParamTile<?> || owner instanceof Drawing)
                && event.getCode().isDigitKey();
    }

    private void released(KeyEvent event) {
        if (event.getCode() == KeyCode.F3) {
            session.dry().set(false);
        } else if (keys.key(event)) {
            event.consume();
        }
    }

    /** Brings the keyboard from the selected stage's row to its first control, and from its controls back to the row. */
    private void between() {
        Node owner = getScene().getFocusOwner();
        boolean inside = owner != null && inspector.isAround(owner);
        if (inside) {
            chain.focusSelected();
        } else {
            inspector.focusFirst();
        }
    }

    private void addEffect() {
        var address = session.selected().get();
        var way = address == null ? java.util.List.<harpel.chain.StageAddress.Step>of() : address.chainWay();
        var stages = session.chainAt(way);
        int place = address == null ? stages.stages().size() : stages.indexOf(address.stageId()) + 1;
        EffectMenu.show(chain, session, way, place);
    }

    private void showKeys() {
        StringBuilder text = new StringBuilder(
                "Space    Play or stop\nEnter    Press the button that has the keyboard\nF3    Hear dry while held\n"
                        + "Z–M, Q–I    Play notes;  [ and ] shift the octave\n");
        actions.forEach((key, action) -> text.append(key.getDisplayText())
                .append("    ")
                .append(action.name)
                .append('\n'));
        text.append(
                "\nOn a control: drag, or type a value; arrow keys step, Shift finely; Delete or Alt-click for the default;"
                        + " double click or Enter to choose.");
        Alert alert = new Alert(Alert.AlertType.INFORMATION, text.toString(), ButtonType.CLOSE);
        alert.initOwner(getScene().getWindow());
        alert.setTitle("Keys and actions");
        alert.setHeaderText(null);
        alert.setGraphic(null);
        alert.getDialogPane().setMinHeight(560);
        alert.getDialogPane().getStylesheets().setAll(session.styles());
        alert.show();
    }

    /** Lets go of every key, as when the window loses the keyboard. */
    void releaseKeys() {
        keys.releaseAll();
    }

    /** Draws a frame. */
    void draw(long nanos) {
        if (frame++ % LOOK_EVERY == 0) {
            session.look();
        }
        top.draw(nanos);
        chain.draw(nanos);
        inspector.draw();
        parts.draw();
        session.levers().takeLearnt();
        keys.draw();
        Key key = session.piece().get().key();
        if (key != toldKey || keys.octave() != toldOctave || keys.touch() != toldTouch) {
            toldKey = key;
            toldOctave = keys.octave();
            toldTouch = keys.touch();
            long inKey = IntStream.range(0, 12).filter(key::contains).count();
            keysInfo.setText("Keys C2–B6\nin key: " + inKey + " of 12\noctave  [  " + toldOctave + "  ]\ntouch " + toldTouch);
        }
    }
}
