package harpel.app;

import harpel.app.chain.ChainView;
import harpel.app.chain.StageRow;
import harpel.app.devices.DevicesPage;
import harpel.app.draw.Drawing;
import harpel.app.draw.StepBars;
import harpel.app.editor.Around;
import harpel.app.inspector.Inspector;
import harpel.app.look.Look.View;
import harpel.app.parts.PartCard;
import harpel.app.parts.PartPanel;
import harpel.app.parts.RoutesPage;
import harpel.app.phrase.PhraseList;
import harpel.app.phrase.PhraseView;
import harpel.app.play.PlayView;
import harpel.app.session.Session;
import harpel.app.timeline.TimelineView;
import harpel.app.ui.Buttons;
import harpel.app.ui.Menus;
import harpel.app.ui.OnlyShown;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.app.vary.VariationPage;
import java.io.File;
import java.util.EnumSet;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.event.EventHandler;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Slider;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.Window;
import org.fxmisc.richtext.CodeArea;

/** The whole window: the views, and every action with its key. */
final class HarpelPane extends BorderPane {
    /** So many frames from one look at what may have gone wrong to the next. */
    private static final int LOOK_EVERY = 30;

    private final Session session;
    private final Around around;
    private final Actions actions;
    private final TopBar top;
    private final ChainView chain;
    private final KeysView keys;
    private final Inspector inspector;
    private final PartPanel parts;
    private final RoutesPage routes;
    // Made when they are first shown.
    private PhraseView phrases;
    private Files files;
    private TimelineView timeline;
    private PlayView play;
    private DevicesPage devices;
    private VariationPage variations;
    private View beforeDevices = View.CHAIN;
    private final Node foot;
    private final Label keysInfo = new Label();
    private static final PseudoClass AWAY = PseudoClass.getPseudoClass("away");

    private final Label lettersInfo = new Label();
    private final Label heldInfo = new Label();
    private String toldLetters;
    private int toldOctave;
    private int frame;
    private int toldTouch;
    private final MenuButton menu =
            Menus.button("Piece", "menu", "Files, prints, devices and what the window looks like");

    HarpelPane(Session session) {
        this.session = session;
        around = new Around(
                session.document(),
                session.selection(),
                session.look(),
                session.transport(),
                session.timeline(),
                session.performing(),
                session.messages());
        actions = new Actions(() -> session.look().view().get());
        getStyleClass().add("harpel");
        top = new TopBar(
                session.document(),
                session.look(),
                session.transport(),
                session.recorder(),
                session.performing(),
                session.messages(),
                menu);
        chain = new ChainView(session);
        keys = new KeysView(
                session.document(), session.selection(), session.look(), session.transport(), session.messages());
        inspector = new Inspector(session, around);
        inspector.setPrefWidth(292);
        inspector.setMinWidth(280);
        // As large as the window, never as the longest name in it: what acts would lie outside.
        setMinSize(0, 0);
        setTop(top);
        parts = new PartPanel(session);
        routes = new RoutesPage(session.document(), session.selection(), session.look(), session.transport());
        setLeft(parts);
        setCenter(chain);
        setRight(inspector);
        foot = foot();
        setBottom(foot);
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
        boolean sheet = view == View.VARIATIONS;
        // The timeline has the cards of the parts beside its rows.
        boolean own = view == View.TIMELINE || view == View.PLAY || view == View.DEVICES;
        setLeft(sheet || own ? null : parts);
        if (!sheet && view != View.DEVICES) {
            beforeDevices = view;
        }
        session.performing().releaseAll();
        setBottom(sheet ? null : foot);
        if (sheet) {
            setRight(null);
            if (variations == null) {
                variations = new VariationPage(
                        session.look(), session.transport(), session.variations(), session.messages());
            }
            setCenter(variations);
            variations.requestFocus();
        } else if (view == View.DEVICES) {
            setRight(null);
            if (devices == null) {
                devices = new DevicesPage(
                        session.transport(),
                        session.recorder(),
                        session.simulated(),
                        session.deviceDesk(),
                        session.performing(),
                        session.messages(),
                        () -> session.look().view().set(beforeDevices));
            }
            setCenter(devices);
            devices.requestFocus();
        } else if (view == View.PLAY) {
            setRight(null);
            if (play == null) {
                play = new PlayView(session, around);
            }
            setCenter(play);
            play.focusPads();
        } else if (view == View.TIMELINE) {
            setCenter(timeline());
            setRight(timeline.panel());
            timeline.panel().setPrefWidth(292);
            timeline.panel().setMinWidth(280);
            timeline.focusBoard();
        } else if (view == View.PHRASE) {
            setCenter(phrases());
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

    TimelineView timeline() {
        if (timeline == null) {
            timeline = new TimelineView(session);
        }
        return timeline;
    }

    PhraseView phrases() {
        if (phrases == null) {
            phrases = new PhraseView(session, () -> files.openPhrase());
        }
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
        VBox beside = new VBox(
                Space.TIGHT,
                new KeyPicker(session.document(), session.messages()),
                new VariationField(session.document(), session.messages()),
                heldInfo,
                keysInfo,
                lettersInfo);
        beside.setMinWidth(196);
        beside.setMaxWidth(196);
        HBox row = new HBox(Space.EDGE, keys, beside);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setPadding(new Insets(Space.FINE, Space.EDGE, Space.CLOSE, Space.EDGE));
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
        Hyperlink offer = Buttons.link("", "offer", "Does what it says (Ctrl+Enter)", session.messages()::doOffered);
        // It goes when it has been pressed, and would take the keyboard with it.
        offer.setFocusTraversable(false);
        offer.setMinWidth(Region.USE_PREF_SIZE);
        sound.setMinWidth(0);
        session.messages()
                .offered()
                .addListener((property, before, now) -> offer.setText(now == null ? "" : now.words()));
        offer.visibleProperty().bind(session.messages().offered().isNotNull());
        offer.managedProperty().bind(offer.visibleProperty());
        HBox line = new HBox(Space.PAGE, message, offer, cancel, sound);
        OnlyShown.in(line);
        line.setPadding(new Insets(Space.TIGHT, Space.EDGE, 0, Space.EDGE));
        VBox foot = new VBox(0, line, row);
        foot.getStyleClass().add("foot");
        return foot;
    }

    /** Declares every action, fills the menu, and takes files that are dragged in. */
    void setActions(Files newFiles) {
        files = newFiles;
        WindowActions.declare(this, menu, inspector, files);
        setOnDragDropped(event -> {
            List<File> dropped = event.getDragboard().getFiles();
            Node at = event.getPickResult().getIntersectedNode();
            for (File file : dropped) {
                if (phrases != null && phrases.isOverRoll(at) && file.getName().matches(".*\\.midi?")) {
                    files.putIntoPhrase(file.toPath());
                } else {
                    files.take(file.toPath(), partAt(at));
                }
            }
            event.setDropCompleted(!dropped.isEmpty());
            event.consume();
        });
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

    private boolean typing() {
        Node owner = getScene() == null ? null : getScene().getFocusOwner();
        return owner instanceof TextInputControl || owner instanceof CodeArea;
    }

    private void pressed(KeyEvent event) {
        if (typing()
                && !event.getCode().isFunctionKey()
                && (!event.isShortcutDown()
                        || EnumSet.of(KeyCode.DELETE, KeyCode.Z, KeyCode.Y, KeyCode.A, KeyCode.X, KeyCode.C, KeyCode.V)
                                .contains(event.getCode()))) {
            return;
        }
        if (isOwnHome(event)) {
            return;
        }
        if (actions.take(event)) {
            event.consume();
            return;
        }
        if (session.variations().isOpen() && variations.take(event)) {
            event.consume();
        } else if (event.getCode() == KeyCode.ENTER && getScene().getFocusOwner() instanceof ButtonBase button) {
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
                && (lettersGoTo().isEmpty() || isRoll(getScene().getFocusOwner()))) {
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

    /** Home belongs to what has the keyboard, where that has a beginning of its own. */
    private boolean isOwnHome(KeyEvent event) {
        Node owner = getScene().getFocusOwner();
        boolean goes = owner instanceof Slider
                || owner instanceof ListView
                || owner instanceof ComboBoxBase
                || owner instanceof StepBars<?>
                || isRoll(owner)
                || timeline != null && timeline.isBoard(owner)
                || owner != null && owner.getStyleClass().contains("string");
        return goes && event.getCode() == KeyCode.HOME && !event.isShortcutDown() && !event.isAltDown();
    }

    private boolean isRoll(Node owner) {
        return phrases != null && phrases.isRoll(owner);
    }

    /** What waits for words, so that letters play no keys; empty when they do. */
    private String lettersGoTo() {
        Node owner = getScene() == null ? null : getScene().getFocusOwner();
        boolean list = owner instanceof ComboBoxBase<?> box && box.isShowing() || isListOpen();
        if (!list && owner instanceof ParamTile<?> tile) {
            return tile.param().label();
        }
        if (!list && session.variations().isOpen() && !typing()) {
            return "the sheet";
        }
        return list
                ? "the list"
                : typing()
                        ? "what is typed in"
                        : isRoll(owner) && !session.desk().stepping().get()
                                ? "the roll"
                                : timeline != null && timeline.isBoard(owner) ? "the blocks" : "";
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
    void between() {
        Node owner = getScene().getFocusOwner();
        boolean inside = owner != null && inspector.isAround(owner);
        if (inside) {
            chain.focusSelected();
        } else {
            inspector.focusFirst();
        }
    }

    /** Lets go of all that is held, as when the window loses the keyboard. */
    void releaseKeys() {
        session.transport().dry().set(false);
        session.performing().releaseAll();
        keys.releaseAll();
    }

    /** Draws a frame. */
    void draw(long nanos) {
        if (frame++ % LOOK_EVERY == 0) {
            session.transport().look();
            session.timeline()
                    .lookForEnd(session.recorder().armed().get()
                            || session.writing().armed().get());
        }
        top.draw(nanos);
        if (session.variations().isOpen()) {
            variations.draw(nanos);
        } else if (session.look().view().get() == View.PHRASE) {
            phrases.draw(nanos);
        } else if (session.look().view().get() == View.TIMELINE) {
            timeline.draw();
        } else if (session.look().view().get() == View.PLAY) {
            play.draw();
        } else if (session.look().view().get() == View.DEVICES) {
            devices.draw();
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
        session.performing().look();
        session.controller().look();
        session.writing().look();
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
