package harpel.app.play;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.perform.ControllerDesk;
import harpel.app.perform.Performing;
import harpel.app.ui.Held;
import harpel.app.ui.Tips;
import harpel.piece.Piece;
import harpel.piece.perform.Pad;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextAlignment;

/** One pad: pressed by mouse or by Enter, it does what it is for; while pads are set up it is chosen. */
final class PadTile extends VBox {
    private static final PseudoClass ON = PseudoClass.getPseudoClass("on");
    private static final PseudoClass WAITS = PseudoClass.getPseudoClass("waits");
    private static final PseudoClass HELD = PseudoClass.getPseudoClass("held");
    private static final PseudoClass CHOSEN = PseudoClass.getPseudoClass("chosen");
    private static final PseudoClass EMPTY = PseudoClass.getPseudoClass("empty");

    private static final double NUMBER_LEFT = 9;
    private static final double NUMBER_TOP = 4;

    private final Document document;
    private final TimelineDesk timeline;
    private final ControllerDesk controller;
    private final Performing performing;
    private final int place;
    private final Label number = new Label();
    private final Label title = new Label();
    private final Label about = new Label();
    private final Consumer<Integer> choose;
    private int at;
    private boolean settingUp;
    private Pad down;

    /** @param place 0–15 on its page */
    PadTile(
            Document document,
            TimelineDesk timeline,
            ControllerDesk controller,
            Performing performing,
            int place,
            Consumer<Integer> choose) {
        this.document = document;
        this.timeline = timeline;
        this.controller = controller;
        this.performing = performing;
        this.place = place;
        this.choose = choose;
        setId("pad-" + place);
        getStyleClass().add("pad");
        setAlignment(Pos.CENTER);
        setAccessibleRole(AccessibleRole.BUTTON);
        setMinSize(60, 54);
        number.getStyleClass().add("pad-number");
        // It takes no line of those that say what the pad does.
        number.setManaged(false);
        title.getStyleClass().add("pad-title");
        title.setMaxWidth(Double.MAX_VALUE);
        title.setAlignment(Pos.CENTER);
        title.setTextAlignment(TextAlignment.CENTER);
        title.setWrapText(true);
        about.setMinHeight(USE_PREF_SIZE);
        Region above = new Region();
        Region below = new Region();
        VBox.setVgrow(above, Priority.ALWAYS);
        VBox.setVgrow(below, Priority.ALWAYS);
        about.getStyleClass().addAll("soft", "part-about");
        getChildren().addAll(number, above, title, about, below);
        Held.on(this, this::press, this::release);
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            if (event.getButton() == MouseButton.SECONDARY) {
                choose.accept(at);
            }
            event.consume();
        });
        Tips.set(
                this,
                () -> document.piece()
                        .get()
                        .pad(at)
                        .map(pad -> pad.title(piece()) + ": " + pad.does().words() + ", "
                                + pad.when().shown() + ". Enter presses it, too; the other mouse button sets it up.")
                        .orElse("An empty pad: press it to say what it does."));
    }

    @Override
    protected void layoutChildren() {
        super.layoutChildren();
        number.autosize();
        number.relocate(NUMBER_LEFT, NUMBER_TOP);
    }

    private Piece piece() {
        return document.piece().get();
    }

    private void press() {
        Pad pad = piece().pad(at).orElse(null);
        if (controller.learning().touched(at)) {
            return;
        }
        if (pad == null || settingUp) {
            choose.accept(at);
            return;
        }
        down = pad;
        performing.press(pad);
    }

    private void release() {
        if (down != null) {
            performing.release(down);
            down = null;
        }
    }

    /** Shows what is at its place on a page. */
    void show(int page, boolean nowSettingUp, int chosen) {
        settingUp = nowSettingUp;
        at = page * Pad.PAGE + place;
        Piece piece = piece();
        Pad pad = piece.pad(at).orElse(null);
        number.setText(String.valueOf(at + 1));
        title.setText(pad == null ? "" : pad.title(piece));
        String waits = pad == null
                ? ""
                : performing.waitsFor(pad).map(tick -> timeline.place(tick)).orElse("");
        about.setText(pad == null ? settingUp ? "set up" : "" : waits.isEmpty() ? pad.about(piece) : "at " + waits);
        pseudoClassStateChanged(ON, pad != null && pad.isOn(piece));
        pseudoClassStateChanged(WAITS, !waits.isEmpty());
        pseudoClassStateChanged(HELD, pad != null && performing.isHeld(pad));
        pseudoClassStateChanged(CHOSEN, at == chosen);
        pseudoClassStateChanged(EMPTY, pad == null);
        setAccessibleText(pad == null ? "Pad " + (at + 1) + ", empty" : "Pad " + (at + 1) + ", " + title.getText());
    }
}
