package harpel.app;

import harpel.app.chain.ChainView;
import harpel.app.chain.EffectMenu;
import harpel.app.chain.StageActions;
import harpel.app.chain.StageRow;
import harpel.app.chain.TimeWindow;
import harpel.app.draw.Drawing;
import harpel.app.inspector.Inspector;
import harpel.app.parts.PartActions;
import harpel.app.parts.PartCard;
import harpel.app.parts.PartPanel;
import harpel.app.parts.RoutesPage;
import harpel.app.phrase.PhraseActions;
import harpel.app.phrase.PhraseList;
import harpel.app.phrase.PhraseView;
import harpel.app.session.Document;
import harpel.app.session.Look.View;
import harpel.app.session.OwnPhrases;
import harpel.app.session.Session;
import harpel.app.ui.Asking;
import harpel.app.ui.Buttons;
import harpel.app.ui.ParamTile;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.TestPhrases;
import harpel.theory.Key;
import harpel.theory.OctaveNaming;
import java.io.File;
import java.util.EnumSet;
import java.util.List;
import java.util.function.BooleanSupplier;
import javafx.css.PseudoClass;
import javafx.event.EventHandler;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Alert;
import javafx.scene.control.Button;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ButtonType;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.Window;
import org.fxmisc.richtext.CodeArea;

/** The whole window: the views, and every action with its key. */
final class HarpelPane extends BorderPane {
    private static final double ZOOM = 1.4;
    /** So many frames from one look at what may have gone wrong to the next. */
    private static final int LOOK_EVERY = 30;

    private final Session session;
    private final Actions actions;
    private final TopBar top;
    private final ChainView chain;
    private final KeysView keys;
    private final Inspector inspector;
    private final PartPanel parts;
    private final RoutesPage routes;
    private final PhraseView phrases;
    private final Label keysInfo = new Label();
    private static final PseudoClass AWAY = PseudoClass.getPseudoClass("away");

    private final Label lettersInfo = new Label();
    private final Label heldInfo = new Label();
    private String toldLetters;
    private int toldOctave;
    private int frame;
    private int toldTouch;
    private final MenuButton menu = new MenuButton("Piece");

    HarpelPane(Session session) {
        this.session = session;
        actions = new Actions(() -> session.look().view().get());
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
        routes = new RoutesPage(session);
        phrases = new PhraseView(session);
        setLeft(parts);
        setCenter(chain);
        setRight(inspector);
        setBottom(foot());
        session.look().large().addListener((property, before, now) -> cover());
        session.look().routes().addListener((property, before, now) -> cover());
        session.look().view().addListener((property, before, now) -> switchTo(now));
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

    /** The rows, or what lies over them: the routes, or an editor opened large. */
    private void cover() {
        setCenter(chain);
        boolean routed = session.look().routes().get();
        boolean large = session.look().large().get();
        chain.cover(routed ? routes : large ? inspector.large() : null);
        // The keyboard goes with what is looked at, and comes back to the row it was in.
        if (!routed && large) {
            inspector.focusFirst();
        } else if (!routed) {
            chain.focusSelected();
        }
    }

    /** Shows a view; the parts at the left and the keys below stay. */
    private void switchTo(View view) {
        if (view == View.PHRASE) {
            setCenter(phrases);
            setRight(phrases.panel());
            phrases.panel().setPrefWidth(292);
            phrases.panel().setMinWidth(280);
            phrases.focusRoll();
        } else {
            setCenter(chain);
            setRight(inspector);
            chain.focusSelected();
        }
    }

    Session session() {
        return session;
    }

    PhraseView phrases() {
        return phrases;
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
        switchTo(session.look().view().get());
        requestFocus();
    }

    private Node foot() {
        keysInfo.getStyleClass().add("soft");
        keysInfo.setMinWidth(100);
        HBox.setHgrow(keys, Priority.ALWAYS);
        lettersInfo.setId("letters");
        lettersInfo.getStyleClass().addAll("soft", "letters");
        heldInfo.setId("held");
        heldInfo.getStyleClass().add("soft");
        VBox beside = new VBox(4, new KeyPicker(session), new VariationField(session), heldInfo, keysInfo, lettersInfo);
        beside.setMinWidth(196);
        beside.setMaxWidth(196);
        HBox row = new HBox(14, keys, beside);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setPadding(new Insets(2, 14, 6, 14));
        Label message = new Label();
        message.setId("message");
        message.textProperty().bind(session.messages().last());
        Label sound = new Label();
        sound.setId("no-sound");
        sound.getStyleClass().add("soft");
        sound.textProperty().bind(session.transport().noSound());
        Button cancel = Buttons.button(
                "Cancel",
                "cancel",
                "End the work that goes on; nothing is written",
                () -> session.messages().cancel().get().run());
        cancel.getStyleClass().add("tiny");
        cancel.visibleProperty().bind(session.messages().cancel().isNotNull());
        cancel.managedProperty().bind(cancel.visibleProperty());
        HBox line = new HBox(20, message, cancel, sound);
        line.setPadding(new Insets(4, 14, 0, 14));
        VBox foot = new VBox(0, line, row);
        foot.getStyleClass().add("foot");
        return foot;
    }

    /** Declares every action and fills the menu. */
    void setActions(Files files) {
        TimeWindow window = chain.window();
        Document document = session.document();
        BooleanSupplier stage = () -> session.selection().selected().get() != null;
        BooleanSupplier parts = () -> document.piece().get().parts().size() > 1;
        inMenu("new", "New piece", "Shortcut+N", files::newPiece);
        inMenu("open", "Open…", "Shortcut+O", files::open);
        inMenu("save", "Save", "Shortcut+S", files::save);
        inMenu("save-as", "Save as…", "Shortcut+Shift+S", files::saveAs);
        line();
        inMenu("read-phrase", "Read a phrase from a MIDI file…", "Shortcut+I", files::openPhrase);
        Menu tests = new Menu("Send a test phrase through the chain");
        tests.setId("test-phrases");
        fillTests(tests, files);
        menu.setOnShowing(event -> {
            fillTests(tests, files);
            actions.refresh();
        });
        menu.getItems().add(tests);
        setOnDragDropped(event -> {
            List<File> dropped = event.getDragboard().getFiles();
            Node at = event.getPickResult().getIntersectedNode();
            for (File file : dropped) {
                if (phrases.isOverRoll(at) && file.getName().matches(".*\\.midi?")) {
                    files.putIntoPhrase(file.toPath());
                } else {
                    files.take(file.toPath(), partAt(at));
                }
            }
            event.setDropCompleted(!dropped.isEmpty());
            event.consume();
        });
        inMenu("print", "Print the phrase to a MIDI file…", "Shortcut+P", files::print);
        line();
        inMenu("open-chain", "Open chain…", "Shortcut+Shift+O", files::openChain);
        inMenu("save-chain", "Save chain…", "Shortcut+Shift+P", files::saveChain);
        line();
        inMenu("octaves", "Call note 60 C3, or C4 again", "Shortcut+Shift+C", this::otherOctaves);
        inMenu("larger", "Larger", "Shortcut+Shift+Equals", () -> session.look().resize(1));
        inMenu(
                "smaller",
                "Smaller",
                "Shortcut+Shift+Minus",
                () -> session.look().resize(-1));
        line();
        inMenu("first-steps", "First steps", "Shift+F1", () -> showFirstPage(files));
        inMenu("keys", "Keys and actions", "F1", this::showKeys);
        action(
                "view-chain",
                "The Chain view",
                "Shortcut+1",
                () -> session.look().view().set(View.CHAIN));
        action(
                "view-phrase",
                "The Phrase view",
                "Shortcut+2",
                () -> session.look().view().set(View.PHRASE));
        action("add-part", "Add a part", "Shortcut+Shift+N", () -> PartActions.add(session));
        action("duplicate-part", "Duplicate the part", "Shortcut+Shift+D", () -> PartActions.duplicate(session));
        actions.add(
                "delete-part", "Delete the part", "Shortcut+Shift+Delete", parts, () -> PartActions.delete(session));
        actions.add("undo", "Undo", "Shortcut+Z", () -> document.undoLabel().isPresent(), document::undo);
        actions.add(
                "redo", "Redo", "Shortcut+Shift+Z", () -> document.redoLabel().isPresent(), document::redo);
        actions.add("redo-too", "Redo", "Shortcut+Y", () -> document.redoLabel().isPresent(), document::redo);
        action("to-start", "To the start", "Home", session.transport()::toStart);
        action("silence", "Silence", "Esc", session::silence);
        actions.in(View.CHAIN);
        action("add-effect", "Add an effect after the selected stage", "Shortcut+E", this::addEffect);
        action(
                "copy",
                "Copy the selected stage, or the chain, as text",
                "Shortcut+C",
                () -> StageActions.copy(session));
        action("paste", "Paste stages behind the selected one", "Shortcut+V", () -> StageActions.paste(session));
        actions.add(
                "replace",
                "Replace the selected stage",
                "Shortcut+R",
                stage,
                () -> StageActions.replace(session, chain));
        actions.add("fold", "Fold or unfold the selected stage", "Shortcut+F", stage, () -> StageActions.fold(session));
        actions.add("large", "Open the stage’s editor large, or bring it back", "F7", inspector::hasEditor, () -> {
            session.look().routes().set(false);
            session.look().large().set(!session.look().large().get());
        });
        action(
                "routes",
                "Who hears whom: all routes, or the rows again",
                "F8",
                () -> session.look().routes().set(!session.look().routes().get()));
        action("between", "From a stage to its controls, and back", "F6", this::between);
        actions.in(null);
        action("record", "Record the chosen part, or end", "Shortcut+Shift+R", session.recorder()::toggle);
        action("keep", "Keep the marked bars, or the last ones, as a phrase", "Shortcut+K", session.keeping()::keep);
        action("keep-chords", "Keep a phrase a chord", "Shortcut+Shift+K", session.keeping()::keepByChords);
        action("hear-other", "Hear the other chain, A or B", "F2", session.selection()::hearOther);
        action("chain-off", "Whole chain off or on", "Shortcut+Shift+B", session.selection()::switchChain);
        actions.in(View.CHAIN);
        action("freeze", "Freeze the traces, or let them go on", "F4", () -> window.freeze(!window.isFrozen()));
        action("bar-back", "Go a bar back in the traces", "Alt+Left", () -> window.back(1));
        action("bar-forth", "Go a bar forth in the traces", "Alt+Right", () -> window.back(-1));
        action("fewer-bars", "Show fewer bars", "Shortcut+Equals", () -> window.zoomTime(1 / ZOOM));
        action("more-bars", "Show more bars", "Shortcut+Minus", () -> window.zoomTime(ZOOM));
        action("fewer-pitches", "Show fewer pitches", "Alt+Equals", () -> window.zoomPitch(ZOOM));
        action("more-pitches", "Show more pitches", "Alt+Minus", () -> window.zoomPitch(1 / ZOOM));
        action("zoom-reset", "Show bars and pitches as at first", "Shortcut+0", window::reset);
        action("difference", "The selected stage’s difference", "Shortcut+J", chain::toggleDifference);
        actions.add(
                "duplicate-stage",
                "Duplicate the selected stage",
                "Shortcut+D",
                stage,
                () -> StageActions.duplicate(session));
        actions.add(
                "remove-stage",
                "Remove the selected stage",
                "Shortcut+Delete",
                stage,
                () -> StageActions.remove(session));
        actions.add(
                "switch-stage",
                "Switch the selected stage off or on",
                "Shortcut+B",
                stage,
                () -> StageActions.toggle(session));
        actions.add(
                "stage-up", "Move the selected stage up", "Shortcut+Up", stage, () -> StageActions.move(session, -1));
        actions.add(
                "stage-down",
                "Move the selected stage down",
                "Shortcut+Down",
                stage,
                () -> StageActions.move(session, 1));
        action("select-above", "Select the stage above", "Alt+Up", () -> StageActions.step(session, -1));
        action("select-below", "Select the stage below", "Alt+Down", () -> StageActions.step(session, 1));
        actions.in(View.PHRASE);
        action("copy-notes", "Copy the picked notes, or all, as text", "Shortcut+C", () -> PhraseActions.copy(session));
        action("cut-notes", "Cut the picked notes", "Shortcut+X", () -> PhraseActions.cut(session));
        action("paste-notes", "Paste notes at the mark", "Shortcut+V", () -> PhraseActions.paste(session));
        action("pick-all", "Pick all notes", "Shortcut+A", () -> PhraseActions.pickAll(session));
        action(
                "draw-or-pick",
                "Draw notes, or pick them",
                "Shortcut+D",
                () -> session.desk().drawing().set(!session.desk().drawing().get()));
        action(
                "step-in",
                "Step in what is played, or no longer",
                "Shortcut+E",
                () -> session.desk().stepping().set(!session.desk().stepping().get()));
        action("cut-at-mark", "Cut notes at the mark", "Shortcut+M", phrases::cutAtMark);
        action("less-time", "Show less time", "Shortcut+Equals", () -> phrases.zoom(true));
        action("more-time", "Show more time", "Shortcut+Minus", () -> phrases.zoom(false));
        action("fit-phrase", "Show the whole phrase", "Shortcut+0", phrases::fit);
        action("to-roll", "From the roll to the values of what is picked, and back", "F6", phrases::between);
        actions.in(null);
        action("new-phrase", "A new phrase", "Shortcut+Alt+N", () -> PhraseActions.fresh(session));
        action(
                "duplicate-phrase",
                "Duplicate the phrase",
                "Shortcut+Alt+D",
                () -> PhraseActions.duplicate(session, session.desk().phraseId().get()));
        action(
                "hear-phrase",
                "The chosen part hears the phrase",
                "Shortcut+Alt+H",
                () -> PhraseActions.hear(session, session.desk().phraseId().get()));
        action(
                "theme",
                "Day or night",
                "Shortcut+T",
                () -> session.look().theme().set(session.look().theme().get().other()));
    }

    /** The part that hears what is let go of over a node: the one of a card, none over the list of phrases, else the chosen one. */
    private String partAt(Node node) {
        for (Node at = node; at != null; at = at.getParent()) {
            if (at instanceof PhraseList) {
                return "";
            }
            if (at instanceof PartCard card) {
                return card.part();
            }
        }
        return session.selection().partId().get();
    }

    /** The actions of the window. */
    Actions actions() {
        return actions;
    }

    private Actions.Action action(String id, String words, String key, Runnable run) {
        return actions.add(id, words, key, () -> true, run);
    }

    private void inMenu(String id, String words, String key, Runnable run) {
        menu.getItems().add(actions.item(action(id, words, key, run)));
    }

    private void line() {
        menu.getItems().add(new SeparatorMenuItem());
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
        Piece now = session.document().piece().get();
        Phrase phrase = TestPhrases.all(now.key(), now.time().meter()).stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow();
        String id = session.selection().partId().get();
        session.document()
                .apply(PieceEdit.of(
                        "Hear " + name,
                        piece -> piece.withPhrase(phrase).withPart(id, part -> part.withPhrase(phrase.id()))));
        session.transport().play();
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
                && !event.getCode().isFunctionKey()
                && (!event.isShortcutDown()
                        || EnumSet.of(KeyCode.DELETE, KeyCode.Z, KeyCode.Y, KeyCode.C, KeyCode.V)
                                .contains(event.getCode()))) {
            return;
        }
        if (actions.take(event)) {
            event.consume();
            return;
        }
        if (event.getCode() == KeyCode.ENTER && getScene().getFocusOwner() instanceof ButtonBase button) {
            // Space belongs to the transport, so Enter presses the button that has the keyboard.
            button.fire();
            event.consume();
        } else if (event.getCode() == KeyCode.ENTER && getScene().getFocusOwner() instanceof StageRow) {
            inspector.focusFirst();
            event.consume();
        } else if (event.getCode() == KeyCode.SPACE) {
            session.transport().togglePlay();
            event.consume();
        } else if (event.getCode() == KeyCode.K
                && !event.isShortcutDown()
                && (lettersGoTo().isEmpty() || phrases.isRoll(getScene().getFocusOwner()))) {
            session.keeping().keep();
            event.consume();
        } else if (event.getCode() == KeyCode.F3) {
            session.transport().dry().set(true);
            event.consume();
        } else if (lettersGoTo().isEmpty()
                && !(getScene().getFocusOwner() instanceof Drawing
                        && event.getCode().isDigitKey())
                && keys.key(event)) {
            event.consume();
        }
    }

    /** What waits for words, so that letters play no keys; empty when they do. */
    private String lettersGoTo() {
        Node owner = getScene() == null ? null : getScene().getFocusOwner();
        boolean list = owner instanceof ComboBoxBase<?> box && box.isShowing() || isListOpen();
        if (!list && owner instanceof ParamTile<?> tile) {
            return tile.param().label();
        }
        return list
                ? "the list"
                : typing()
                        ? "what is typed in"
                        : phrases.isRoll(owner) && !session.desk().stepping().get() ? "the roll" : "";
    }

    /** Asked each frame, so without more ado. */
    private static boolean isListOpen() {
        for (Window window : Window.getWindows()) {
            if (window instanceof ContextMenu) {
                return true;
            }
        }
        return false;
    }

    private void released(KeyEvent event) {
        if (event.getCode() == KeyCode.F3) {
            session.transport().dry().set(false);
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
        var address = session.selection().selected().get();
        var way = address == null ? java.util.List.<harpel.chain.StageAddress.Step>of() : address.chainWay();
        var stages = session.selection().chainAt(way);
        int place = address == null ? stages.stages().size() : stages.indexOf(address.stageId()) + 1;
        EffectMenu.show(chain, session, way, place);
    }

    private void showKeys() {
        StringBuilder text = new StringBuilder(
                "Space    Play or stop\nK    Keep the marked bars, or the last ones, as a phrase\nEnter    Press the button that has the keyboard\nF3    Hear dry while held\n"
                        + "Z–M, Q–I    Play notes;  [ and ] shift the octave\n");
        actions.all()
                .forEach(action -> text.append(action.keys())
                        .append("    ")
                        .append(action.words())
                        .append('\n'));
        text.append(
                "\nOn a control: drag, or type a value; arrow keys step, Shift finely; Delete or Alt-click for the default;"
                        + " double click or Enter to choose.");
        Label lines = new Label(text.toString());
        lines.setWrapText(true);
        lines.setPadding(new Insets(12));
        // Longer than a small screen is high.
        ScrollPane list = new ScrollPane(lines);
        list.setFitToWidth(true);
        list.setPrefViewportHeight(480);
        list.setPrefViewportWidth(440);
        Alert sheet =
                Asking.sheet(getScene().getWindow(), session.look().styles(), "Keys and actions", "", ButtonType.CLOSE);
        sheet.getDialogPane().setContent(list);
        sheet.show();
    }

    /** Lets go of every key, as when the window loses the keyboard. */
    void releaseKeys() {
        keys.releaseAll();
    }

    /** Draws a frame. */
    void draw(long nanos) {
        if (frame++ % LOOK_EVERY == 0) {
            session.transport().look();
        }
        top.draw(nanos);
        if (session.look().view().get() == View.PHRASE) {
            phrases.draw(nanos);
        } else {
            chain.draw(nanos);
            inspector.draw();
        }
        parts.draw();
        if (session.look().routes().get()) {
            routes.draw();
        }
        session.levers().takeLearnt();
        session.recorder().look();
        keys.draw();
        String held = keys.held(session.selection().part().channel());
        if (!held.equals(heldInfo.getText())) {
            heldInfo.setText(held);
        }
        String letters = lettersGoTo();
        if (!letters.equals(toldLetters)) {
            toldLetters = letters;
            lettersInfo.setText(letters.isEmpty() ? "letters play" : "letters: " + letters);
            lettersInfo.pseudoClassStateChanged(AWAY, !letters.isEmpty());
        }
        if (keys.octave() != toldOctave || keys.touch() != toldTouch) {
            toldOctave = keys.octave();
            toldTouch = keys.touch();
            keysInfo.setText("octave  [  " + toldOctave + "  ]   touch " + toldTouch);
        }
    }
}
