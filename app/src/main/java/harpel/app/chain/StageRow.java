package harpel.app.chain;

import harpel.advice.Advice;
import harpel.app.desk.Keeping;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.transport.Places;
import harpel.app.transport.Places.Place;
import harpel.app.transport.TraceStore;
import harpel.app.transport.Transport;
import harpel.app.ui.AdviceLine;
import harpel.app.ui.Buttons;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.app.ui.room.OnlyShown;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectKind;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.piece.PieceEdit;
import harpel.piece.Routes;
import harpel.piece.Standing;
import harpel.run.Tap;
import harpel.run.Told;
import harpel.theory.Key;
import java.util.Objects;
import javafx.beans.property.ObjectProperty;
import javafx.css.PseudoClass;
import javafx.geometry.Bounds;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;

/** One row of the chain: a name, what it is set to, how many notes, and the trace. Shows the input, a stage, or the sound. */
public final class StageRow extends StackPane {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass OFF = PseudoClass.getPseudoClass("off");
    /** So far in stand the words, behind what folds and switches. */
    private static final double INDENT = 54;

    private static final double NAME_WIDTH = 238;
    private static final double TALL = 46;
    private static final double END_TALL = 46;
    private static final double COLLAPSED = 16;

    final StageAddress address;
    private final Document document;
    private final Selection selection;
    private final Look look;
    private final Transport transport;
    private final Place place;
    private final TraceCanvas trace;
    private final Label name = new Label();
    private final Label kind = new Label();
    private final Label setting = new Label();
    private final Label count = new Label();
    private final Label ends = new Label();
    private final Button onOff;
    private final FontIcon foldIcon = new FontIcon(Feather.CHEVRON_DOWN);
    private final Button fold;
    private final AdviceLine adviceLine = AdviceLine.beside("advice");
    private final Button act;
    private double tall = TALL;
    private Advice advice;
    private Advice liveAdvice;
    /** What the stage complains of, such as a script that was switched off; null for nothing. */
    private Told.Said complaint;

    private boolean off;
    private Stage stage;
    private Key key;
    private String shownCount = "";
    private int shownEnded;

    /**
     * @param address null for the input and the sound
     * @param narrow whether the words stand above the trace, as in a branch
     */
    StageRow(
            Document document,
            Selection selection,
            Look look,
            Transport transport,
            Keeping keeping,
            TimeWindow window,
            ObjectProperty<NoteStart> pointed,
            StageAddress address,
            Place place,
            boolean narrow) {
        this.document = document;
        this.selection = selection;
        this.look = look;
        this.transport = transport;
        this.address = address;
        this.place = place;
        getStyleClass().add("stage-row");
        setPadding(new Insets(
                Space.FINE, narrow ? Space.CLOSE : Space.EDGE, Space.FINE, narrow ? Space.TIGHT : Space.GAP));
        trace = new TraceCanvas(
                document, look, transport, keeping, window, pointed, place, address == null ? END_TALL : TALL);
        name.getStyleClass().add("stage-name");
        name.setMinWidth(40);
        kind.getStyleClass().add("soft");
        show(kind, false);
        setting.getStyleClass().add("soft");
        setting.setMinWidth(0);
        Tips.set(setting, setting::getText);
        count.getStyleClass().add("soft");
        count.setMinWidth(Region.USE_PREF_SIZE);
        Tips.set(count, "How many of the notes shown came in and went out, and the step that is played");
        ends.getStyleClass().add("advice");
        ends.setMinWidth(Region.USE_PREF_SIZE);
        Tips.set(
                ends,
                address == null
                        ? "So many of the notes shown have become one with another of their pitch that begins at the same moment"
                        : "So many of the notes shown end here, since no way on takes them");
        show(ends, false);
        String id = address == null ? place.name() : address.stageId();
        onOff = Buttons.button(
                "●",
                "onoff-" + id,
                "",
                () -> selection.editStage(
                        off ? "Switch on" : "Switch off", "", address, stage -> stage.with(EffectKind.ON, off)));
        onOff.getStyleClass().add("on-off");
        onOff.setFocusTraversable(false);
        fold = Buttons.picture(foldIcon, "fold-" + id, "", "", () -> look.fold(address));
        fold.getStyleClass().add("fold");
        fold.setFocusTraversable(false);
        adviceLine.ids("advice-text-" + id, "advice-" + id);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox title = new HBox(Space.CLOSE, name, kind, space, count);
        title.setAlignment(Pos.BASELINE_LEFT);
        act = Buttons.small("", "act-" + id, "", () -> transport.act(address));
        act.getStyleClass().add("act");
        show(act, false);
        Region between = new Region();
        HBox.setHgrow(between, Priority.ALWAYS);
        HBox second = new HBox(Space.TIGHT, setting, between, ends, act);
        second.setAlignment(Pos.CENTER_LEFT);
        OnlyShown.in(title);
        OnlyShown.in(second);
        VBox words = new VBox(0, title, second);
        words.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox left = new HBox(narrow ? Space.TIGHT : Space.CLOSE, words);
        left.setAlignment(Pos.CENTER_LEFT);
        adviceLine.node().setPadding(new Insets(0, 0, 0, INDENT));
        HBox.setHgrow(trace, Priority.ALWAYS);
        // What will surprise stands under the row, as long as it needs to be, so that the words beside the trace stay
        // two lines.
        VBox row = narrow
                ? new VBox(Space.FINE, left, trace, adviceLine.node())
                : new VBox(Space.HAIR, beside(left), adviceLine.node());
        OnlyShown.in(row);
        getChildren().add(row);
        if (address == null) {
            left.setPadding(new Insets(0, 0, 0, INDENT));
        } else {
            setUpStage(left);
        }
        showAdvice();
    }

    private Pane beside(HBox left) {
        left.setMinWidth(NAME_WIDTH);
        left.setPrefWidth(NAME_WIDTH);
        left.setMaxWidth(NAME_WIDTH);
        HBox.setHgrow(trace, Priority.ALWAYS);
        HBox row = new HBox(Space.GAP, left, trace);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** What can be done with the stage, by right press or the menu key. */
    private ContextMenu menu() {
        ContextMenu menu = Menus.list();
        menu.setId("stage-menu");
        menu.getItems()
                .setAll(
                        Menus.item(
                                "Replace…    Ctrl+R", "row-replace", () -> StageActions.replace(selection, look, this)),
                        Menus.item("Duplicate    Ctrl+D", "row-duplicate", () -> StageActions.duplicate(selection)),
                        Menus.item(
                                (off ? "Switch on" : "Switch off") + "    Ctrl+B",
                                "row-switch",
                                () -> StageActions.toggle(selection)),
                        Menus.item("Move up    Ctrl+Up", "row-up", () -> StageActions.move(selection, -1)),
                        Menus.item("Move down    Ctrl+Down", "row-down", () -> StageActions.move(selection, 1)),
                        new SeparatorMenuItem(),
                        Menus.item("Remove    Delete", "row-remove", () -> StageActions.remove(selection)));
        return menu;
    }

    private void setUpStage(HBox left) {
        HBox marks = new HBox(0, fold, onOff);
        marks.setAlignment(Pos.CENTER);
        marks.setMinWidth(USE_PREF_SIZE);
        left.getChildren().add(0, marks);
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.LIST_ITEM);
        setId("stage-" + address.stageId());
        setOnContextMenuRequested(event -> {
            selection.selected().set(address);
            menu().show(this, event.getScreenX(), event.getScreenY());
            event.consume();
        });
        focusedProperty().addListener((property, before, now) -> {
            if (now) {
                selection.selected().set(address);
            }
        });
    }

    void showStage(Stage newStage, Key newKey) {
        stage = newStage;
        key = newKey;
        off = stage.isKnown() && !stage.on();
        name.setText(stage.name());
        boolean labelled =
                stage.isKnown() && !stage.name().equals(stage.kind().words().label());
        kind.setText(labelled ? stage.kind().words().label() : "");
        show(kind, labelled);
        showSetting();
        pseudoClassStateChanged(OFF, off);
        showDot();
        onOff.setDisable(!stage.isKnown());
        String what = (off ? "Switch on " : "Switch off ") + stage.name();
        onOff.setAccessibleText(what);
        Tips.set(onOff, what + "  (Ctrl+B)");
        setAccessibleText(stage.name() + ", " + setting.getText() + (off ? ", off" : ""));
        boolean folded = look.isFolded(address);
        foldIcon.setIconCode(folded ? Feather.CHEVRON_RIGHT : Feather.CHEVRON_DOWN);
        String folding = (folded ? "Unfold " : "Fold ") + stage.name();
        fold.setAccessibleText(folding);
        Tips.set(fold, folding + "  (Ctrl+F)");
        show(setting, !folded);
        String action = stage.isKnown() ? stage.kind().words().action() : "";
        act.setText(action);
        act.setAccessibleText(action + ", " + stage.name());
        Tips.set(act, action + ": the effect’s own action, at once");
        show(act, !action.isEmpty() && !folded);
        fit();
        showAdvice();
    }

    /** Open where it does nothing: switched off by hand, or since it went wrong. */
    private void showDot() {
        onOff.setText(off || complaint != null && complaint.weight() == Told.Said.Weight.OFF ? "○" : "●");
    }

    private void showDetails() {
        selection.selected().set(address);
        look.large().set(true);
    }

    private static void show(Region node, boolean shown) {
        node.setManaged(shown);
        node.setVisible(shown);
    }

    /** How tall the trace is, unless the row is folded. */
    void tall(double newTall) {
        if (newTall != tall) {
            tall = newTall;
            fit();
        }
    }

    private void fit() {
        double now = address != null && look.isFolded(address) ? COLLAPSED : tall;
        trace.setMinHeight(now);
        trace.setPrefHeight(now);
        trace.setMaxHeight(now);
    }

    /** Where the trace lies, for the ruler over it; nothing while it has no place yet. */
    Bounds traceIn(Node other) {
        return other.sceneToLocal(trace.localToScene(trace.getLayoutBounds()));
    }

    /** What the stage is set to, with what moves it and what came last. */
    private void showSetting() {
        String text = "not known to this version; notes pass unchanged and the file keeps it";
        if (stage.isKnown()) {
            TraceStore traces = transport.traces();
            ParamSet now = transport.valuesNow(document.piece().get(), address, stage);
            int last = traces.lastPitch(Places.before(document, address));
            // A number stays with its unit on one line.
            text = stage.kind()
                    .words()
                    .describe(Routes.named(document.piece().get(), now), key, last)
                    .replace(" %", "\u00A0%");
        }
        if (!text.equals(setting.getText())) {
            setting.setText(text);
        }
    }

    /** Shows what has changed without an edit; now and then, since words cost more to draw than notes. */
    void showAgain() {
        if (stage != null && setting.isVisible()) {
            showSetting();
        }
        Told.Said now = address == null
                ? null
                : transport.traces().sayings().complaint(address.toString()).orElse(null);
        if (!Objects.equals(now, complaint)) {
            complaint = now;
            showDot();
            showAdvice();
        }
    }

    /** Shows what will surprise here, with the way out; nothing with null. */
    void showAdvice(Advice newAdvice) {
        advice = newAdvice;
        showAdvice();
    }

    /** The same for what the notes of the last bars show; what the chain shows comes first. */
    void showLiveAdvice(Advice newAdvice) {
        boolean same = newAdvice == null
                ? liveAdvice == null
                : liveAdvice != null && Objects.equals(newAdvice.text(), liveAdvice.text());
        liveAdvice = newAdvice;
        if (!same) {
            showAdvice();
        }
    }

    private void showAdvice() {
        if (complaint != null) {
            adviceLine.show(complaint.text(), "details", this::showDetails);
            return;
        }
        Advice shown = advice != null ? advice : liveAdvice;
        boolean any = shown != null && (address == null || !look.isFolded(address));
        if (any) {
            adviceLine.show(
                    shown.text(), shown.action(), () -> document.apply(PieceEdit.of(shown.action(), shown.fix())));
        } else {
            adviceLine.show("", "", () -> {});
        }
    }

    void showWords(String title, String words) {
        name.setText(title);
        setting.setText(words);
    }

    void setSelected(boolean selected, boolean difference) {
        pseudoClassStateChanged(SELECTED, selected);
        trace.compareWith(selected && difference && address != null ? Places.before(document, address) : null);
    }

    Place place() {
        return place;
    }

    void draw(Standing standing) {
        trace.draw(off || (isSound() ? standing.silent() : standing.past()));
    }

    private boolean isSound() {
        return address == null && place.name().equals(Tap.SOUND);
    }

    /**
     * @param came how many notes came in, or -1 where that is not said
     * @param ended how many of them end here since no way on takes them, or at the sound have become one with another
     * @param standing how the part stands: what is not heard is not counted as heard
     */
    void showCount(int came, int ended, Standing standing) {
        int went = trace.count();
        int step = address == null ? -1 : transport.traces().step(address.toString(), 0);
        String now = (step < 0 ? "" : "step " + (step + 1) + "   ")
                + (came < 0 ? "" : came + " → ")
                + went
                + (came >= 0 ? "" : went == 1 ? " note" : " notes");
        if (ended != shownEnded) {
            shownEnded = ended;
            ends.setText(isSound() ? ended + " joined" : ended + (ended == 1 ? " ends here" : " end here"));
            show(ends, ended > 0);
        }
        if (isSound() && standing.silent()) {
            now = standing.word();
        } else if (address != null && standing.past()) {
            now = "past the chain";
        }
        if (!now.equals(shownCount)) {
            shownCount = now;
            count.setText(now);
        }
    }

    int count() {
        return trace.count();
    }
}
