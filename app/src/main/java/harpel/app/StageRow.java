package harpel.app;

import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectKind;
import harpel.event.NoteStart;
import harpel.piece.Advice;
import harpel.piece.PieceEdit;
import harpel.theory.Key;
import javafx.beans.property.ObjectProperty;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Button;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** One row of the chain: a name, what it is set to, how many notes, and the trace. Shows the input, a stage, or the sound. */
final class StageRow extends HBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass OFF = PseudoClass.getPseudoClass("off");
    private static final double NAME_WIDTH = 276;

    final StageAddress address;
    private final TraceCanvas trace;
    private final Label name = new Label();
    private final Label setting = new Label();
    private final Label count = new Label();
    private final Button onOff = new Button();
    private final Label adviceText = new Label();
    private final Hyperlink adviceLink = new Hyperlink();
    private final VBox adviceBox = new VBox(0, adviceText, adviceLink);
    private boolean off;
    private int shownCount = -1;

    /** @param address null for the input and the sound */
    StageRow(
            Session session,
            TimeWindow window,
            ObjectProperty<NoteStart> pointed,
            StageAddress address,
            String place,
            double indent) {
        this.address = address;
        getStyleClass().add("stage-row");
        setAlignment(Pos.CENTER_LEFT);
        setPadding(new Insets(4, 12, 4, 9));
        setSpacing(8);
        VBox.setMargin(this, new Insets(0, 0, 0, indent));
        trace = new TraceCanvas(session, window, pointed, place, address == null ? 52 : 62);
        name.getStyleClass().add("stage-name");
        setting.getStyleClass().add("soft");
        setting.setWrapText(true);
        setting.setMaxHeight(34);
        count.getStyleClass().add("soft");
        count.setMinWidth(Region.USE_PREF_SIZE);
        onOff.getStyleClass().add("on-off");
        onOff.setFocusTraversable(false);
        onOff.setVisible(address != null);
        adviceText.setWrapText(true);
        adviceText.getStyleClass().add("advice");
        adviceText.setMinHeight(Region.USE_PREF_SIZE);
        adviceLink.getStyleClass().add("advice-link");
        adviceLink.setId(address == null ? null : "advice-" + address.stageId());
        adviceBox.setManaged(false);
        adviceBox.setVisible(false);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox title = new HBox(6, name, space, count);
        title.setAlignment(Pos.BASELINE_LEFT);
        VBox words = new VBox(1, title, setting, adviceBox);
        words.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox left = new HBox(8, onOff, words);
        left.setAlignment(Pos.CENTER_LEFT);
        left.setMinWidth(NAME_WIDTH - indent);
        left.setPrefWidth(NAME_WIDTH - indent);
        left.setMaxWidth(NAME_WIDTH - indent);
        HBox.setHgrow(trace, Priority.ALWAYS);
        getChildren().addAll(left, trace);
        if (address != null) {
            setFocusTraversable(true);
            setAccessibleRole(AccessibleRole.LIST_ITEM);
            setId("stage-" + address.stageId());
            onOff.setId("onoff-" + address.stageId());
            onOff.setOnAction(event -> session.editStage(
                    off ? "Switch on" : "Switch off", "", address, stage -> stage.with(EffectKind.ON, off)));
            focusedProperty().addListener((property, before, now) -> {
                if (now) {
                    session.selected().set(address);
                }
            });
        }
    }

    void showStage(Stage stage, Key key) {
        off = stage.isKnown() && !stage.on();
        name.setText(stage.name());
        setting.setText(
                stage.isKnown()
                        // A number stays with its unit on one line.
                        ? stage.kind().describe(stage.params(), key).replace(" %", "\u00A0%")
                        : "not known to this version; notes pass unchanged and the file keeps it");
        pseudoClassStateChanged(OFF, off);
        onOff.setText(off ? "○" : "●");
        onOff.setDisable(!stage.isKnown());
        String what = (off ? "Switch on " : "Switch off ") + stage.name();
        onOff.setAccessibleText(what);
        onOff.setTooltip(new Tooltip(what + "  (Ctrl+B)"));
        setAccessibleText(stage.name() + ", " + setting.getText() + (off ? ", off" : ""));
    }

    /** Shows what will surprise here, with the way out; nothing with null. */
    void showAdvice(Advice advice, Session session) {
        boolean any = advice != null;
        adviceBox.setManaged(any);
        adviceBox.setVisible(any);
        if (any) {
            adviceText.setText(advice.text());
            adviceLink.setText(advice.action());
            adviceLink.setOnAction(event -> session.apply(PieceEdit.of(advice.action(), advice.fix())));
        }
    }

    void showWords(String title, String words) {
        name.setText(title);
        setting.setText(words);
    }

    void setSelected(boolean selected) {
        pseudoClassStateChanged(SELECTED, selected);
    }

    void draw() {
        trace.draw(off);
    }

    void showCount() {
        int now = trace.count();
        if (now != shownCount) {
            shownCount = now;
            count.setText(now == 1 ? "1 note" : now + " notes");
        }
    }
}
