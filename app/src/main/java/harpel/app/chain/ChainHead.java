package harpel.app.chain;

import harpel.app.desk.Printing;
import harpel.app.desk.VariationSheet;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.print.PrintButtons;
import harpel.app.transport.Transport;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Menus;
import harpel.app.ui.NameLabel;
import harpel.app.ui.Space;
import harpel.chain.Chain;
import harpel.chain.Differences;
import harpel.piece.Part;
import harpel.piece.PieceEdit;
import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCombination;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** Above the rows, in one row: which part and how it stands, its chains and prints, comparing A with B, and a menu of the rest. */
final class ChainHead extends HBox {
    private static final double COMPARE_FROM = 620;

    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Messages messages;
    private final TimeWindow window;
    private final NameLabel title = new NameLabel();
    private final Label about = new Label();
    private final NameLabel standing = new NameLabel();
    private final ToggleButton a;
    private final ToggleButton b;
    private final MenuButton differs =
            Menus.button("compare", "compare", "What differs between the chains A and B", button -> listDifferences());
    private final BooleanProperty difference = new SimpleBooleanProperty();
    private String stands = "";

    ChainHead(
            Document document,
            Selection selection,
            Transport transport,
            VariationSheet variations,
            Printing printing,
            Messages messages,
            TimeWindow window) {
        super(Space.GAP);
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.messages = messages;
        this.window = window;
        setAlignment(Pos.CENTER_LEFT);
        setPadding(new Insets(Space.CLOSE, Space.EDGE, Space.FINE, Space.EDGE));
        title.getStyleClass().add("part-title");
        about.getStyleClass().add("soft");
        about.setMinWidth(0);
        standing.setId("standing");
        standing.getStyleClass().add("advice");
        a = toggle("A", "chain-a", "Hear chain A, in time", "F2", () -> hear('A'));
        b = toggle("B", "chain-b", "Hear chain B, in time; it begins as a copy of A", "F2", () -> hear('B'));
        differs.setMinWidth(USE_PREF_SIZE);
        Button fit = Buttons.small(
                "fit",
                "chain-fit",
                "Shows bars and pitches as at first  (Ctrl+0); Ctrl+wheel shows more or less",
                window::reset);
        // Where there is little room both are in the menu.
        for (Region one : List.of(differs, fit)) {
            one.visibleProperty().bind(widthProperty().greaterThanOrEqualTo(COMPARE_FROM));
            one.managedProperty().bind(one.visibleProperty());
        }
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox pair = new HBox(Space.HAIR, a, b);
        pair.setAlignment(Pos.CENTER);
        MenuButton more =
                Menus.button("…", "chain-more", "The chain off, frozen traces, what is seen of them", this::fillMore);
        more.setAccessibleText("More of this chain");
        more.setMinWidth(USE_PREF_SIZE);
        getChildren()
                .addAll(
                        title,
                        about,
                        standing,
                        PresetMenu.ofChains(selection, messages),
                        new PrintButtons(document, selection, variations, printing, "chain"),
                        space,
                        differs,
                        pair,
                        fit,
                        more);
        about.managedProperty().bind(about.visibleProperty());
        standing.managedProperty().bind(standing.visibleProperty());
        standing.setVisible(false);
    }

    private static ToggleButton toggle(String words, String id, String tip, String key, Runnable action) {
        ToggleButton button = Buttons.toggle(words, id, tip + "  (" + key + ")", on -> action.run());
        button.setAccessibleText(tip);
        return button;
    }

    private void fillMore(MenuButton more) {
        more.getItems()
                .setAll(
                        check(
                                "Whole chain off",
                                "chain-off",
                                "Shortcut+Shift+B",
                                selection.part().rack().off(),
                                selection::switchChain),
                        check(
                                "Freeze the traces",
                                "freeze",
                                "F4",
                                window.isFrozen(),
                                () -> window.freeze(!window.isFrozen())),
                        check(
                                "The selected stage’s trace as a difference: brass is new, red was taken away",
                                "difference",
                                "Shortcut+J",
                                difference.get(),
                                () -> difference.set(!difference.get())),
                        new SeparatorMenuItem(),
                        keyed(
                                "Show fewer bars",
                                "time-in",
                                "Shortcut+Equals",
                                () -> window.zoomTime(1 / TimeWindow.ZOOM)),
                        keyed("Show more bars", "time-out", "Shortcut+Minus", () -> window.zoomTime(TimeWindow.ZOOM)),
                        keyed("Show fewer pitches", "pitch-in", "Alt+Equals", () -> window.zoomPitch(TimeWindow.ZOOM)),
                        keyed(
                                "Show more pitches",
                                "pitch-out",
                                "Alt+Minus",
                                () -> window.zoomPitch(1 / TimeWindow.ZOOM)));
        if (!differs.isVisible()) {
            listDifferences();
            Menu compare = new Menu("Compare A and B");
            compare.getItems().setAll(List.copyOf(differs.getItems()));
            more.getItems().add(compare);
        }
    }

    private static MenuItem check(String words, String id, String key, boolean on, Runnable action) {
        CheckMenuItem item = new CheckMenuItem(words);
        item.setSelected(on);
        return keyed(item, id, key, action);
    }

    private static MenuItem keyed(String words, String id, String key, Runnable action) {
        return keyed(new MenuItem(words), id, key, action);
    }

    private static MenuItem keyed(MenuItem item, String id, String key, Runnable action) {
        item.setId(id);
        item.setAccelerator(KeyCombination.keyCombination(key));
        item.setOnAction(event -> action.run());
        return item;
    }

    private void hear(char letter) {
        if (selection.part().rack().letter() != letter) {
            selection.hearOther();
        }
        show();
    }

    /** Whether the selected stage shows its difference. */
    BooleanProperty difference() {
        return difference;
    }

    void show() {
        Part part = selection.part();
        title.setText(part.name());
        int stages = part.chain().stages().size();
        about.setText((stages == 1 ? "1 stage" : stages + " stages") + variations(part));
        showStanding();
        a.setSelected(part.rack().letter() == 'A');
        b.setSelected(part.rack().letter() == 'B');
    }

    /** Says how the part stands: "muted", "nothing here until bar 33"; nothing where it is heard through its chain. */
    void showStanding(String words) {
        stands = words;
        showStanding();
    }

    /** What could surprise stands where it is said what the chain is. */
    private void showStanding() {
        String words = window.isFrozen()
                ? "frozen, " + Words.count(window.barsBack(), "bar") + " back"
                : stands.isEmpty() && selection.part().rack().off() ? "chain off" : stands;
        standing.setText(words);
        standing.setVisible(!words.isEmpty());
        about.setVisible(words.isEmpty());
    }

    private static String variations(Part part) {
        List<Long> turns = part.playing().variations();
        return turns.isEmpty() ? "" : " · variations " + turns.toString().replaceAll("[\\[\\]]", "") + " in turn";
    }

    private void listDifferences() {
        Part part = selection.part();
        Chain other = part.rack().other();
        differs.getItems().clear();
        if (other == null) {
            line("There is only A. Press B for a copy of it, and change that.");
            return;
        }
        Chain first = part.rack().letter() == 'A' ? part.chain() : other;
        Chain second = part.rack().letter() == 'A' ? other : part.chain();
        List<String> found = Differences.between(first, second, document.spelling());
        line(found.isEmpty() ? "A and B are alike." : "From A to B:");
        found.forEach(this::line);
        char letter = part.rack().letter();
        char otherLetter = part.rack().otherLetter();
        differs.getItems().add(new SeparatorMenuItem());
        between(part);
        item("make-alike", "Make " + otherLetter + " like " + letter, Part::withOtherAlike);
        item(
                "keep-one",
                "Keep only " + letter,
                one -> one.withRack(one.rack().withLetter('A').withOther(null)));
    }

    /** Which lever stands between the two. */
    private void between(Part part) {
        Menu menu = new Menu("A lever between A and B");
        menu.setId("between");
        if (!part.rack().isAlike()) {
            line("With the same stages in both a lever could stand between them.");
            return;
        }
        List<String> levers = new ArrayList<>(List.of(""));
        document.piece().get().levers().forEach(lever -> levers.add(lever.name()));
        for (String lever : levers) {
            CheckMenuItem item =
                    new CheckMenuItem(lever.isEmpty() ? "None: A or B" : "“" + lever + "”: at 0 % A, at 100 % B");
            item.setId("between-" + lever.toLowerCase(java.util.Locale.ROOT).replace(' ', '-'));
            item.setSelected(part.rack().between().equals(lever));
            item.setOnAction(event -> {
                document.apply(PieceEdit.of(
                        "A lever between A and B",
                        piece -> piece.withPart(
                                part.id(), one -> one.withRack(one.rack().withBetween(lever)))));
                messages.say(
                        lever.isEmpty()
                                ? "A or B is heard, as chosen."
                                : "“" + lever
                                        + "” leads from A to B: numbers in between, choices and switches in the middle.");
            });
            menu.getItems().add(item);
        }
        differs.getItems().add(menu);
    }

    private void line(String text) {
        MenuItem item = new MenuItem(text);
        item.setDisable(true);
        item.getStyleClass().add("menu-head");
        differs.getItems().add(item);
    }

    private void item(String id, String text, java.util.function.UnaryOperator<Part> change) {
        MenuItem item = new MenuItem(text);
        item.setId(id);
        String part = selection.partId().get();
        item.setOnAction(event -> document.apply(PieceEdit.of(text, piece -> piece.withPart(part, change))));
        differs.getItems().add(item);
    }
}
