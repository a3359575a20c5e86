package harpel.app.vary;

import harpel.app.desk.VariationSheet;
import harpel.app.desk.VariationSheet.Card;
import harpel.app.draw.Picture;
import harpel.app.draw.Raster;
import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.theory.Pitch;
import harpel.vary.Way;
import java.util.Locale;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;

/** One variation: its number, what differs, its notes on strings, and what can be done with it. */
final class CardView extends VBox {
    private static final PseudoClass SOUNDING = PseudoClass.getPseudoClass("sounding");
    private static final PseudoClass AT_KEYS = PseudoClass.getPseudoClass("at-keys");
    private static final double TALL = 104;

    private final VariationSheet sheet;
    private final Card card;
    private final Label about = new Label();
    private final Label counts = new Label();
    private final ToggleButton star;
    private final Button hear;
    private final Button use;
    private final Button keep;
    private final Notes notes;
    private final Region now = new Region();
    private final StackPane field;

    CardView(Look look, VariationSheet variations, Card card, int place) {
        super(Space.TIGHT);
        this.sheet = variations;
        this.card = card;
        setId("card-" + place);
        getStyleClass().add("variation-card");
        Label number = new Label(String.valueOf(card.variant().number()));
        number.getStyleClass().add("part-title");
        about.setId("card-about-" + place);
        about.getStyleClass().add("soft");
        about.setMinWidth(0);
        star = Buttons.stays(
                "",
                "card-star-" + place,
                "Stars it; stars stay with the piece  (S)",
                on -> sheet.choice().star(card));
        star.setGraphic(new FontIcon(Feather.STAR));
        star.getStyleClass().add("star");
        star.setAccessibleText("Star");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(Space.GAP, number, about, space, star);
        head.setAlignment(Pos.CENTER_LEFT);
        notes = new Notes(look);
        now.getStyleClass().add("roll-now");
        now.setManaged(false);
        now.setMouseTransparent(true);
        now.setVisible(false);
        field = new StackPane(notes, now);
        field.setMinHeight(TALL);
        field.setPrefHeight(TALL);
        VBox.setVgrow(field, Priority.ALWAYS);
        counts.getStyleClass().add("soft");
        hear = Buttons.small(
                "hear", "card-hear-" + place, "Hears it from the next bar on, or no longer  (arrows)", () -> {
                    sheet.chosen().set(place);
                    sheet.toggle(card);
                });
        use = Buttons.small(
                "use",
                "card-use-" + place,
                "The part plays it from now on  (Enter)",
                () -> sheet.choice().use(card));
        keep = Buttons.small(
                "keep as phrase",
                "card-keep-" + place,
                "Puts its notes into the list of phrases",
                () -> sheet.choice().keep(card));
        HBox buttons = new HBox(Space.CLOSE, hear, use, keep);
        getChildren().addAll(head, field, counts, buttons);
        setOnMousePressed(event -> sheet.chosen().set(place));
        show(place);
    }

    /** What is known of it has changed. */
    void show(int place) {
        about.setText(about());
        counts.setText(counts());
        star.setSelected(sheet.choice().isStarred(card));
        boolean empty = card.phrase() == null || card.phrase().notes().isEmpty();
        hear.setDisable(empty);
        keep.setDisable(empty);
        use.setDisable(card.phrase() == null || sheet.isUsed(card));
        boolean sounds = sheet.sounding().get() == card;
        pseudoClassStateChanged(SOUNDING, sounds);
        pseudoClassStateChanged(AT_KEYS, sheet.chosen().get() == place);
        hear.pseudoClassStateChanged(PseudoClass.getPseudoClass("selected"), sounds);
        if (card.variant().way() != Way.CHANCE) {
            String differs = card.variant().differs().isEmpty()
                    ? "as it is set"
                    : String.join("\n", card.variant().differs());
            Tips.set(this, differs);
            if (card.phrase() != null && !card.variant().differs().isEmpty()) {
                counts.setText(card.variant().differs().get(0)
                        + (card.variant().differs().size() > 1
                                ? " · " + (card.variant().differs().size() - 1) + " more"
                                : ""));
            }
        }
        notes.repaint();
    }

    /** What differs: "21 of 104 notes differ". */
    private String about() {
        if (!card.failed().isEmpty()) {
            return "could not be printed: " + card.failed();
        }
        if (card.phrase() == null) {
            return "…";
        }
        String sounds = card == sheet.sounding().get() ? " · sounding" : "";
        if (sheet.isPresent(card)) {
            return "as it is now" + sounds;
        }
        int differing = sheet.differing(card);
        return (differing == 0
                        ? card.variant().differs().isEmpty() ? "the same notes" : "other settings, the same notes"
                        : differing + " of " + card.phrase().notes().size() + " differ")
                + sounds;
    }

    /** "17.0 notes a bar · 2 outside". */
    private String counts() {
        if (card.phrase() == null) {
            return "";
        }
        double bars = card.phrase().length()
                / (double) sheet.base().time().meter().at(0).barTicks();
        long outside = card.phrase().notes().stream()
                .filter(note -> !sheet.base().key().contains(note.pitch()))
                .count();
        return String.format(
                        Locale.ROOT,
                        "%.1f notes a bar · ",
                        card.phrase().notes().size() / bars)
                + (outside == 0 ? "all in key" : outside + " outside");
    }

    /** Once a frame. */
    void draw(double nowTick) {
        notes.draw();
        boolean seen = sheet.sounding().get() == card && nowTick >= 0 && card.phrase() != null;
        now.setVisible(seen);
        if (seen) {
            double x = nowTick % card.phrase().length() / card.phrase().length() * notes.getWidth();
            now.resizeRelocate(Math.round(x), 0, 2, field.getHeight());
        }
    }

    /** The notes on strings; those that the present one does not have in brass. */
    private final class Notes extends Picture {
        Notes(Look look) {
            super(look);
            setMinSize(0, 0);
        }

        @Override
        protected void paint(Raster g, Theme theme) {
            g.begin(Raster.mixed(theme.raised, theme.raised, 0));
            Phrase phrase = card.phrase();
            if (phrase == null) {
                return;
            }
            int low = 127;
            int high = 0;
            // All cards have the range of the present one and of their own, so that they can be compared.
            Phrase present = sheet.cards().get(0).phrase();
            for (Phrase one : present == null ? new Phrase[] {phrase} : new Phrase[] {phrase, present}) {
                for (Note note : one.notes()) {
                    low = Math.min(low, note.pitch());
                    high = Math.max(high, note.pitch());
                }
            }
            double rows = Math.max(24, high - low + 3);
            double row = g.shownHeight() / rows;
            double middle = (low + high) / 2.0;
            double width = g.shownWidth();
            for (int pitch = 0; pitch < 128; pitch++) {
                double y = g.shownHeight() / 2 - (pitch - middle) * row;
                int name = Pitch.pitchClass(pitch);
                if (y >= 0
                        && y < g.shownHeight()
                        && (name == 0 || name == 5 || sheet.base().key().contains(pitch))) {
                    var string = name == 0 ? theme.red : name == 5 ? theme.blue : theme.rule;
                    g.fill(
                            0,
                            Math.round(y),
                            width,
                            1,
                            Raster.mixed(theme.raised, string, name == 0 || name == 5 ? 0.5 : 0.4));
                }
            }
            double unit = width / phrase.length();
            long bar = sheet.base().time().meter().at(0).barTicks();
            for (long tick = 0; tick <= phrase.length(); tick += bar) {
                g.fill(
                        Math.min(width - 1, Math.round(tick * unit)),
                        0,
                        1,
                        g.shownHeight(),
                        Raster.mixed(theme.raised, theme.ink, 0.45));
            }
            int brass = Raster.mixed(theme.raised, theme.brass, 1);
            int ink = Raster.mixed(theme.raised, theme.ink, 0.8);
            for (Note note : phrase.notes()) {
                double y = Math.round(g.shownHeight() / 2 - (note.pitch() - middle) * row - 1);
                double wide = Math.max(3, note.length() * unit - 0.5);
                g.fill(Math.round(note.tick() * unit), y, wide, 3, sheet.differs(note) ? brass : ink);
            }
        }
    }
}
