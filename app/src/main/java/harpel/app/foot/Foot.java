package harpel.app.foot;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Look.Fold;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.NameLabel;
import harpel.app.ui.Space;
import harpel.app.ui.room.OnlyShown;
import java.util.Locale;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The foot of the window: what was said last and what can be done about it, what is folded, the drawn keys and what they play. */
public final class Foot extends VBox {
    private static final double BESIDE_WIDE = 196;
    /** What was said last goes before what stands there all the time. */
    private static final double SAID_WIDE = 280;

    private static final PseudoClass AWAY = PseudoClass.getPseudoClass("away");

    private final Selection selection;
    private final Look look;
    private final KeysView keys;
    private final KeyPicker keyPicker;
    private final VariationField variationField;
    private final HBox keyRow = new HBox(Space.EDGE);
    private final VBox besideKeys = new VBox(Space.TIGHT);
    private final Label keysInfo = new Label();
    private final Label lettersInfo = new Label();
    private final Label heldInfo = new Label();
    private String toldLetters;
    private int toldOctave;
    private int toldTouch;
    /** How the keys lie: −1 not laid yet. */
    private int laid = -1;

    public Foot(Document document, Selection selection, Look look, Transport transport, Messages messages) {
        this.selection = selection;
        this.look = look;
        keys = new KeysView(document, selection, look, transport, messages);
        keyPicker = new KeyPicker(document, messages);
        variationField = new VariationField(document, messages);
        keysInfo.getStyleClass().add("soft");
        keysInfo.setMinWidth(100);
        HBox.setHgrow(keys, Priority.ALWAYS);
        lettersInfo.setId("letters");
        lettersInfo.setMinWidth(Region.USE_PREF_SIZE);
        lettersInfo.getStyleClass().addAll("soft", "letters");
        heldInfo.setId("held");
        heldInfo.getStyleClass().add("soft");
        keyPicker.setMaxWidth(BESIDE_WIDE);
        variationField.setMaxWidth(BESIDE_WIDE);
        besideKeys.setMinWidth(BESIDE_WIDE);
        besideKeys.setMaxWidth(BESIDE_WIDE);
        keyRow.setAlignment(Pos.CENTER_LEFT);
        keyRow.setPadding(new Insets(Space.FINE, Space.EDGE, Space.CLOSE, Space.EDGE));
        Label message = new NameLabel(SAID_WIDE);
        message.setId("message");
        message.textProperty().bind(messages.last());
        Label sound = new Label();
        sound.setId("no-sound");
        sound.getStyleClass().add("soft");
        sound.textProperty().bind(transport.noSound());
        Button cancel = Buttons.button(
                "Cancel",
                "cancel",
                "End the work that goes on; nothing is written",
                () -> messages.cancel().get().run());
        cancel.getStyleClass().add("tiny");
        cancel.visibleProperty().bind(messages.cancel().isNotNull());
        cancel.managedProperty().bind(cancel.visibleProperty());
        Hyperlink offer = Buttons.link("", "offer", "Does what it says (Ctrl+Enter)", messages::doOffered);
        // It goes when it has been pressed, and would take the keyboard with it.
        offer.setFocusTraversable(false);
        offer.setMinWidth(Region.USE_PREF_SIZE);
        sound.setMinWidth(0);
        messages.offered().addListener((property, before, now) -> offer.setText(now == null ? "" : now.words()));
        offer.visibleProperty().bind(messages.offered().isNotNull());
        offer.managedProperty().bind(offer.visibleProperty());
        HBox said = new HBox(Space.PAGE, message, offer, cancel, sound);
        OnlyShown.in(said);
        HBox.setHgrow(said, Priority.ALWAYS);
        HBox shown = new HBox(Space.FINE);
        for (Fold fold : Fold.values()) {
            shown.getChildren().add(foldButton(fold));
        }
        HBox line = new HBox(Space.EDGE, said, shown);
        line.setPadding(new Insets(Space.TIGHT, Space.EDGE, 0, Space.EDGE));
        getChildren().setAll(line, keyRow);
        getStyleClass().add("foot");
        fold(false, true);
    }

    /**
     * Shows the keys as a strip, with what is said of them in a row beside it, or as tall as keys are.
     *
     * @param room whether there is room for the key and the variation beside a strip
     */
    public void fold(boolean strip, boolean room) {
        int wanted = strip ? room ? 2 : 1 : 0;
        if (wanted == laid) {
            // What has the keyboard keeps it while the window is resized.
            return;
        }
        laid = wanted;
        keys.fold(strip);
        besideKeys.getChildren().clear();
        if (!strip) {
            besideKeys.getChildren().setAll(keyPicker, variationField, heldInfo, keysInfo, lettersInfo);
            keyRow.getChildren().setAll(keys, besideKeys);
        } else if (room) {
            keyRow.getChildren().setAll(keys, heldInfo, lettersInfo, keyPicker, variationField);
        } else {
            keyRow.getChildren().setAll(keys, lettersInfo);
        }
    }

    /** The drawn keys, which the computer's play, too. */
    public KeysView keys() {
        return keys;
    }

    /**
     * Draws a frame.
     *
     * @param letters what letters do; empty where they play notes
     */
    public void draw(String letters) {
        keys.draw();
        String held = keys.held(selection.part().channel());
        if (!held.equals(heldInfo.getText())) {
            heldInfo.setText(held);
        }
        if (!letters.equals(toldLetters)) {
            toldLetters = letters;
            lettersInfo.setText(letters.isEmpty() ? "Letters play notes" : letters);
            lettersInfo.pseudoClassStateChanged(AWAY, !letters.isEmpty());
        }
        if (keys.octave() != toldOctave || keys.touch() != toldTouch) {
            toldOctave = keys.octave();
            toldTouch = keys.touch();
            keysInfo.setText("octave  [  " + toldOctave + "  ]   touch " + toldTouch);
        }
    }

    /** Shows whether something is open, and folds or opens it. */
    private ToggleButton foldButton(Fold fold) {
        String name = fold.name().charAt(0) + fold.name().substring(1).toLowerCase(Locale.ROOT);
        ToggleButton button = Buttons.toggle(
                name,
                "fold-" + fold.name().toLowerCase(Locale.ROOT),
                "Shows " + fold.words() + ", or folds it away  (" + fold.key() + ")",
                on -> look.toggle(fold));
        button.getStyleClass().setAll("fold-word");
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setSelected(!look.folds().get().contains(fold));
        look.folds().addListener((property, before, now) -> button.setSelected(!now.contains(fold)));
        return button;
    }
}
