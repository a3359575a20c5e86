package harpel.app.vary;

import harpel.app.desk.VariationSheet;
import harpel.app.desk.VariationSheet.Card;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.app.ui.AdviceLine;
import harpel.app.ui.Buttons;
import harpel.app.ui.NameLabel;
import harpel.app.ui.Space;
import harpel.piece.Part;
import harpel.vary.Way;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.collections.ListChangeListener;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The sheet of variations: cards to compare, hear and choose from. */
public final class VariationPage extends BorderPane {
    private static final int COLUMNS = 4;
    private static final double ROW_TALL = 200;

    private final Look look;
    private final Transport transport;
    private final VariationSheet variations;
    private final VariationSheet sheet;
    private final NameLabel title = new NameLabel();
    private final Label about = new Label();
    private final GridPane grid = new GridPane();
    private final ScrollPane scroll = new ScrollPane(grid);
    private final Button more;
    private final Button keepStarred;
    private final Button spread;
    private final ToggleButton apart;
    private final ToggleButton others;
    private final ToggleButton made;
    private final Button timeline;
    private final AdviceLine why = AdviceLine.beside("advice").ids("variations-why", "variations-little");
    private final List<CardView> views = new ArrayList<>();

    public VariationPage(Look look, Transport transport, VariationSheet variations, Messages messages) {
        this.look = look;
        this.transport = transport;
        this.variations = variations;
        this.sheet = variations;
        setId("variation-sheet");
        getStyleClass().add("variation-sheet");
        setAccessibleRole(AccessibleRole.LIST_VIEW);
        setAccessibleText("Variations; letters and arrow keys choose cards");
        title.setId("variations-title");
        title.getStyleClass().add("page-title");
        about.setId("variations-about");
        about.getStyleClass().add("soft");
        HBox first = new HBox(
                Space.ROOM,
                title,
                about,
                space(),
                Buttons.button(
                        "Done",
                        "variations-done",
                        "Back to where you came from; the piece is heard again",
                        sheet::close));
        first.setAlignment(Pos.BASELINE_LEFT);
        HBox second = new HBox(Space.CLOSE);
        second.setAlignment(Pos.CENTER_LEFT);
        ToggleGroup group = new ToggleGroup();
        way(group, second, Way.CHANCE, "chance only", "Only the draws differ: other numbers of the variation");
        way(group, second, Way.LITTLE, "settings a little", "Some settings are moved a little, choices rarely");
        way(
                group,
                second,
                Way.LOT,
                "settings a lot",
                "Many settings are moved far, and now and then a choice or a stage");
        made = way(
                group,
                second,
                Way.MADE,
                "made anew",
                "Others of what made the phrase: the next seeds, or progressions");
        more = Buttons.button("12 more", "variations-more", "Shows twelve more, at most 48", sheet::more);
        apart = Buttons.toggle(
                "drawn apart: unlike first",
                "variations-apart",
                "Of eight times as many those that are most unlike one another",
                sheet.apart()::set);
        others = Buttons.toggle(
                "heard with the others",
                "variations-others",
                "Hears it with the other parts, or alone",
                sheet.withOthers()::set);
        keepStarred = Buttons.button(
                "Keep the starred",
                "variations-keep",
                "Puts the notes of all starred ones into the list of phrases",
                sheet.choice()::keepStarred);
        spread = Buttons.button(
                "Spread over rounds",
                "variations-spread",
                "The part takes the starred variations in turn, one a round of its phrase",
                sheet.choice()::spread);
        timeline = Buttons.button(
                "Starred to the timeline",
                "variations-timeline",
                "The starred ones go onto the timeline one behind another, from where now is",
                sheet.choice()::toTimeline);
        second.getChildren().addAll(gap(), more, apart, gap(), others, space(), spread, timeline, keepStarred);
        VBox head = new VBox(Space.GAP, first, second, why.node());
        head.setPadding(new Insets(Space.EDGE, Space.PAGE, Space.ROOM, Space.PAGE));
        setTop(head);
        grid.setHgap(Space.EDGE);
        grid.setVgap(Space.EDGE);
        grid.setPadding(new Insets(Space.FINE, Space.PAGE, Space.GAP, Space.PAGE));
        for (int i = 0; i < COLUMNS; i++) {
            ColumnConstraints column = new ColumnConstraints();
            column.setPercentWidth(100.0 / COLUMNS);
            grid.getColumnConstraints().add(column);
        }
        scroll.setFitToWidth(true);
        scroll.setId("variations-scroll");
        setCenter(scroll);
        Label hint = new Label(
                "Arrow keys hear the next one at the bar · Enter uses it · S stars it · brass notes differ from what is"
                        + " heard now");
        hint.getStyleClass().add("soft");
        Label message = new Label();
        message.setId("variations-message");
        message.textProperty().bind(messages.last());
        message.setMinWidth(0);
        HBox foot = new HBox(Space.PAGE, hint, space(), message);
        hint.setMinWidth(Region.USE_PREF_SIZE);
        foot.setPadding(new Insets(Space.CLOSE, Space.PAGE, Space.ROOM, Space.PAGE));
        setBottom(foot);
        setFocusTraversable(true);
        sheet.cards().addListener((ListChangeListener<Card>) change -> rebuild());
        sheet.changes().addListener((property, before, now) -> show());
        sheet.chosen().addListener((property, before, now) -> {
            show();
            reveal();
        });
    }

    private ToggleButton way(ToggleGroup group, HBox row, Way way, String words, String tip) {
        ToggleButton button = Buttons.oneOf(
                group,
                words,
                "vary-" + way.name().toLowerCase(Locale.ROOT),
                tip,
                sheet.way().get() == way,
                () -> sheet.way().set(way));
        // The sheet itself leaves a way that a part does not have.
        sheet.way().addListener((property, before, now) -> button.setSelected(now == way));
        row.getChildren().add(button);
        return button;
    }

    private static Region space() {
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        return space;
    }

    private static Region gap() {
        Region gap = new Region();
        gap.setMinWidth(12);
        return gap;
    }

    private void rebuild() {
        List<Card> cards = sheet.cards();
        boolean longer = !views.isEmpty() && cards.size() > views.size();
        if (!longer) {
            views.clear();
            grid.getChildren().clear();
        }
        for (int i = views.size(); i < cards.size(); i++) {
            CardView view = new CardView(look, variations, cards.get(i), i);
            view.setMinHeight(ROW_TALL);
            view.setPrefHeight(ROW_TALL);
            views.add(view);
            grid.add(view, i % COLUMNS, i / COLUMNS);
        }
    }

    private void show() {
        if (!sheet.isOpen()) {
            return;
        }
        Part part = sheet.part();
        title.setText("Variations of " + part.name());
        int stages = part.chain().stages().size();
        String phrase = sheet.base()
                .phrase(part.phrase())
                .map(one -> "“" + one.name() + "”, ")
                .orElse("");
        about.setText(phrase + "through " + (stages == 1 ? "1 stage" : stages + " stages") + " · "
                + switch (sheet.way().get()) {
                    case CHANCE -> "all alike but for chance";
                    case LITTLE, LOT -> "drawn from what is set, chance as it is";
                    case MADE -> "phrases of the same making, chance as it is";
                });
        made.setVisible(sheet.canMake());
        made.setManaged(sheet.canMake());
        for (int i = 0; i < views.size(); i++) {
            views.get(i).show(i);
        }
        more.setDisable(sheet.cards().isEmpty() || sheet.cards().size() >= VariationSheet.MOST);
        apart.setSelected(sheet.apart().get());
        others.setSelected(sheet.withOthers().get());
        long starred = sheet.choice().starred();
        keepStarred.setText(starred == 0 ? "Keep the starred" : "Keep the " + starred + " starred");
        keepStarred.setDisable(starred == 0);
        timeline.setDisable(starred == 0);
        Way next = sheet.way().get() == Way.LITTLE ? Way.LOT : Way.LITTLE;
        boolean silent = sheet.cards().isEmpty()
                || sheet.cards().get(0).phrase() == null
                || sheet.cards().get(0).phrase().notes().isEmpty();
        why.show(
                sheet.whyAlike(),
                silent || sheet.way().get() == Way.LOT ? "" : next == Way.LOT ? "Settings a lot" : "Settings a little",
                () -> sheet.way().set(next));
        spread.setText(sheet.choice().isSpread() ? "One variation for all rounds" : "Spread over rounds");
        spread.setDisable(
                !sheet.choice().isSpread() && sheet.choice().starredNumbers().size() < 2);
    }

    private void reveal() {
        int place = sheet.chosen().get();
        double rows = Math.ceil(views.size() / (double) COLUMNS);
        double seen = scroll.getViewportBounds().getHeight() / (ROW_TALL + grid.getVgap());
        if (rows > seen) {
            scroll.setVvalue(Math.max(0, Math.min(1, (place / COLUMNS - (seen - 1) / 2) / (rows - seen))));
        }
    }

    /** Takes a key of the sheet: arrows, Enter, S. */
    public boolean take(KeyEvent event) {
        // Behind another page it is in no scene.
        if (event.isShortcutDown() || event.isAltDown() || getScene() == null) {
            return false;
        }
        Card card = sheet.atKeys();
        KeyCode code = event.getCode();
        if (code == KeyCode.LEFT || code == KeyCode.RIGHT) {
            sheet.walk(code == KeyCode.LEFT ? -1 : 1);
        } else if (code == KeyCode.UP || code == KeyCode.DOWN) {
            sheet.walk(code == KeyCode.UP ? -COLUMNS : COLUMNS);
        } else if (code == KeyCode.ENTER && card != null && !(getScene().getFocusOwner() instanceof Button)) {
            sheet.choice().use(card);
        } else if (code == KeyCode.S && card != null) {
            sheet.choice().star(card);
        } else {
            return false;
        }
        return true;
    }

    /** Once a frame. */
    public void draw(long nanos) {
        double now = transport.status().tickAt(nanos);
        boolean plays = transport.status().mode() == harpel.engine.LiveStatus.Mode.PLAYING;
        for (CardView view : views) {
            view.draw(plays ? now : -1);
        }
    }
}
