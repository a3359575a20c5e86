package harpel.app;

import harpel.app.chain.ChainView;
import harpel.app.chain.StageActions;
import harpel.app.chain.StageRow;
import harpel.app.devices.DevicesPage;
import harpel.app.draw.Drawing;
import harpel.app.draw.StepBars;
import harpel.app.editor.Around;
import harpel.app.foot.Foot;
import harpel.app.inspector.Inspector;
import harpel.app.line.DoLine;
import harpel.app.look.Look.Fold;
import harpel.app.look.Look.View;
import harpel.app.parts.PartCard;
import harpel.app.parts.PartPanel;
import harpel.app.parts.PartStrip;
import harpel.app.parts.RoutesPage;
import harpel.app.phrase.PhraseList;
import harpel.app.phrase.PhraseView;
import harpel.app.play.PlayView;
import harpel.app.session.Session;
import harpel.app.timeline.TimelineView;
import harpel.app.ui.Menus;
import harpel.app.ui.ParamTile;
import harpel.app.ui.room.AtLeast;
import harpel.app.vary.VariationPage;
import java.io.File;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import javafx.event.EventHandler;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Slider;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Region;
import javafx.stage.Popup;
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
    private final Foot foot;
    private final PartStrip partStrip;
    private DoLine line;
    private final Areas areas = new Areas();
    /** What is shown where nothing is folded away. */
    private Region middle;

    private final Map<Region, AtLeast> middles = new IdentityHashMap<>();
    private static final double LEAST_WIDE = 520;
    private static final double LEAST_HIGH = 200;
    private static final double FIRST_STEPS_HIGH = 440;

    private Node left;
    private Region right;
    /** Below so many points there is no room for controls beside rows. */
    private static final double CONTROLS_BESIDE_FROM = 860;

    private int frame;
    private final MenuButton menu =
            Menus.button("Piece", "menu", "Files, prints, devices and what the window looks like");

    HarpelPane(Session session) {
        this.session = session;
        setAccessibleText("Harpel; letters play notes");
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
        inspector = new Inspector(session, around);
        inspector.setPrefWidth(292);
        inspector.setMinWidth(280);
        // As large as the window, never as the longest name in it: what acts would lie outside.
        setMinSize(0, 0);
        widthProperty().addListener((property, before, now) -> measure());
        heightProperty().addListener((property, before, now) -> measure());
        setTop(top);
        parts = new PartPanel(session);
        routes = new RoutesPage(session.document(), session.selection(), session.look(), session.transport());
        partStrip = new PartStrip(session.document(), session.selection());
        foot = new Foot(
                session.document(), session.selection(), session.look(), session.transport(), session.messages());
        setBottom(foot);
        left = parts;
        right = inspector;
        put(chain);
        session.look().folds().addListener((property, before, now) -> arrange());
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
        put(chain);
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
        left = sheet || own ? null : parts;
        if (!sheet && view != View.DEVICES) {
            beforeDevices = view;
        }
        session.performing().releaseAll();
        setBottom(sheet ? null : foot);
        if (sheet) {
            right = null;
            if (variations == null) {
                variations = new VariationPage(
                        session.look(), session.transport(), session.variations(), session.messages());
            }
            put(variations, 760, 420);
            variations.requestFocus();
        } else if (view == View.DEVICES) {
            right = null;
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
            put(devices, 760, 420);
            devices.requestFocus();
        } else if (view == View.PLAY) {
            right = null;
            if (play == null) {
                play = new PlayView(session, around);
            }
            put(play, 960, 500);
            play.focusPads();
        } else if (view == View.TIMELINE) {
            right = timeline().panel();
            put(timeline, 560, 330);
            timeline.panel().setPrefWidth(292);
            timeline.panel().setMinWidth(280);
            timeline.focusBoard();
        } else if (view == View.PHRASE) {
            right = phrases().panel();
            put(phrases, 560, 380);
            phrases.panel().setPrefWidth(292);
            phrases.panel().setMinWidth(280);
            phrases.focusRoll();
        } else {
            right = inspector;
            put(chain);
            chain.focusSelected();
        }
    }

    private void measure() {
        if (getWidth() <= 0 || getHeight() <= 0) {
            return;
        }
        session.look().room(getWidth(), getHeight());
        arrange();
    }

    /** Shows something in the middle. */
    private void put(Region shown) {
        put(shown, LEAST_WIDE, LEAST_HIGH);
    }

    /** Shows something that is scrolled where it would be less wide or high. */
    private void put(Region shown, double least, double lowest) {
        middle = middles.computeIfAbsent(shown, view -> new AtLeast(view, least, lowest));
        arrange();
    }

    /** Lays out what is shown and what is folded away. Where controls are open and leave too little beside them, they lie over the rows. */
    private void arrange() {
        Set<Fold> folds = session.look().folds().get();
        boolean controls = right != null && !folds.contains(Fold.CONTROLS);
        boolean over = controls && getWidth() > 0 && getWidth() < CONTROLS_BESIDE_FROM;
        set(left == null ? null : folds.contains(Fold.PARTS) ? partStrip : left, getLeft(), this::setLeft);
        set(over ? right : middle, getCenter(), this::setCenter);
        set(controls && !over ? right : null, getRight(), this::setRight);
        foot.fold(folds.contains(Fold.KEYS), getWidth() == 0 || getWidth() >= CONTROLS_BESIDE_FROM);
    }

    /** What is there already stays, with the keyboard. */
    private static void set(Node wanted, Node there, Consumer<Node> setter) {
        if (wanted != there) {
            setter.accept(wanted);
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
        FirstPage page = new FirstPage(
                () -> {
                    closeFirstPage();
                    files.openDemo();
                },
                () -> {
                    closeFirstPage();
                    files.beginReady();
                },
                this::closeFirstPage);
        middle = new AtLeast(page, LEAST_WIDE, FIRST_STEPS_HIGH);
        arrange();
    }

    private void closeFirstPage() {
        switchTo(session.look().view().get());
        requestFocus();
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

    /** The line for everything. */
    void setLine(DoLine newLine) {
        line = newLine;
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
        if (line != null && line.isOpen()) {
            // What is typed goes there.
            return;
        }
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
        } else if (event.getCode() == KeyCode.DELETE && getScene().getFocusOwner() instanceof StageRow) {
            StageActions.remove(session.selection());
            chain.focusSelected();
            event.consume();
        } else if (event.getCode() == KeyCode.ENTER && getScene().getFocusOwner() instanceof StageRow) {
            openControls();
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
                && foot.keys().key(event)) {
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
            return "Letters set " + tile.param().label();
        }
        if (!list && session.variations().isOpen() && !typing()) {
            return "Letters choose cards";
        }
        return list
                ? "Letters go to the list"
                : typing()
                        ? "Letters are typed"
                        : isRoll(owner) && !session.desk().stepping().get()
                                ? "Letters edit notes (F6 leaves)"
                                : timeline != null && timeline.isBoard(owner) ? "Letters edit blocks (F6 leaves)" : "";
    }

    /** Asked each frame, so without more ado. */
    private static boolean isListOpen() {
        for (Window window : Window.getWindows()) {
            if (window instanceof ContextMenu || window instanceof Popup) {
                return true;
            }
        }
        return false;
    }

    private void released(KeyEvent event) {
        if (event.getCode() == KeyCode.F3) {
            session.transport().dry().set(false);
        } else if (foot.keys().key(event)) {
            event.consume();
        }
    }

    /** Brings the keyboard to the next area of the window, or with −1 to the one before. */
    void goRound(int by) {
        List<Node> all = new ArrayList<>();
        all.addAll(Arrays.asList(getCenter(), getRight()));
        all.addAll(behind());
        all.addAll(Arrays.asList(getBottom(), getTop(), getLeft()));
        areas.go(all, by, this::begin);
    }

    /** Areas of the view that Tab does not come to, since what stands before them keeps it. */
    List<Node> behind() {
        return switch (session.look().view().get()) {
            case PHRASE -> phrases.behind();
            case TIMELINE -> timeline.behind();
            default -> List.of();
        };
    }

    /** Whoever goes to the controls wants to see them. */
    void openControls() {
        if (session.look().folds().get().contains(Fold.CONTROLS)) {
            session.look().wish(Fold.CONTROLS, false);
        }
    }

    /** What has the keyboard first in an area. */
    private void begin(Node area) {
        View view = session.look().view().get();
        if (area == getCenter() && view == View.CHAIN) {
            chain.focusSelected();
        } else if (area == getCenter() && view == View.PHRASE) {
            phrases.focusRoll();
        } else if (area == getCenter() && view == View.TIMELINE) {
            timeline.focusBoard();
        } else if (area == getCenter() && view == View.PLAY) {
            play.focusPads();
        } else if (area == inspector) {
            inspector.focusFirst();
        } else if (area == getRight() && view == View.PHRASE) {
            phrases.focusPanel();
        }
    }

    /** Leaves what lies over the rows; false where nothing does. */
    private boolean leavesInner() {
        boolean routed = session.look().routes().get();
        boolean large = session.look().large().get();
        if (session.look().view().get() != View.CHAIN || !routed && !large) {
            return false;
        }
        (routed ? session.look().routes() : session.look().large()).set(false);
        session.messages().say("Escape again is Silence.");
        return true;
    }

    /** Escape: leaves an inner place; where there is none, or pressed again, it is Silence. */
    void escape() {
        if (!leavesInner()) {
            session.performing().silence();
        }
    }

    /** Lets go of all that is held, as when the window loses the keyboard. */
    void releaseKeys() {
        session.transport().dry().set(false);
        session.performing().releaseAll();
        foot.keys().releaseAll();
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
        foot.draw(lettersGoTo());
    }
}
