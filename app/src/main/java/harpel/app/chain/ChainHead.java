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
import harpel.app.ui.Space;
import harpel.chain.Chain;
import harpel.chain.Differences;
import harpel.event.NoteStart;
import harpel.piece.Part;
import harpel.piece.PieceEdit;
import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.BooleanProperty;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Above the rows: which part and chain, comparing A with B, and how the traces are looked at. */
final class ChainHead extends VBox {
    private static final double CLOSER = 1 / 1.4;

    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Messages messages;
    private final TimeWindow window;
    private final Label title = new Label();
    private final Label about = new Label();
    private final Label standing = new Label();
    private final Label pointedWords = new Label();
    private final ToggleButton chainOn;
    private final ToggleButton a;
    private final ToggleButton b;
    private final MenuButton differs =
            Menus.button("compare", "compare", "What differs between the chains A and B", button -> listDifferences());
    private final ToggleButton difference;
    private final ToggleButton freeze;
    private final Label back = new Label();

    ChainHead(
            Document document,
            Selection selection,
            Transport transport,
            VariationSheet variations,
            Printing printing,
            Messages messages,
            TimeWindow window) {
        super(Space.FINE);
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.messages = messages;
        this.window = window;
        setPadding(new Insets(Space.CLOSE, Space.EDGE, Space.FINE, Space.EDGE));
        title.getStyleClass().add("part-title");
        title.setMinWidth(USE_PREF_SIZE);
        about.getStyleClass().add("soft");
        about.setMinWidth(0);
        standing.setId("standing");
        standing.getStyleClass().add("advice");
        standing.setMinWidth(USE_PREF_SIZE);
        standing.setManaged(false);
        standing.setVisible(false);
        pointedWords.getStyleClass().add("soft");
        pointedWords.setId("pointed");
        pointedWords.setMinWidth(30);
        chainOn = toggle(
                "chain off",
                "chain-on",
                "Hear the part with its chain, or without it",
                "Ctrl+Shift+B",
                selection::switchChain);
        a = toggle("A", "chain-a", "Hear chain A, in time", "F2", () -> hear('A'));
        b = toggle("B", "chain-b", "Hear chain B, in time; it begins as a copy of A", "F2", () -> hear('B'));
        differs.setMinWidth(USE_PREF_SIZE);
        HBox first = new HBox(
                Space.GAP,
                title,
                standing,
                about,
                PresetMenu.ofChains(selection, messages),
                chainOn,
                new PrintButtons(document, selection, variations, printing, "chain"),
                space(),
                differs,
                pair(a, b));
        first.setAlignment(Pos.CENTER_LEFT);
        difference = toggle(
                "Difference",
                "difference",
                "The selected stage’s trace as a difference: brass is new, red outlines were taken away, faint went through",
                "Ctrl+J",
                () -> {});
        Button wider = button("time −", "time-out", "Show more bars", "Ctrl+Minus", () -> window.zoomTime(1 / CLOSER));
        Button closer = button("+", "time-in", "Show fewer bars", "Ctrl+Equals", () -> window.zoomTime(CLOSER));
        Button lower = button("pitch −", "pitch-out", "Show more pitches", "Alt+Minus", () -> window.zoomPitch(CLOSER));
        Button higher = button("+", "pitch-in", "Show fewer pitches", "Alt+Equals", () -> window.zoomPitch(1 / CLOSER));
        freeze = toggle(
                "Freeze",
                "freeze",
                "Hold the traces still; Alt+Left and Alt+Right go through the last minutes",
                "F4",
                this::freeze);
        back.setId("bars-back");
        back.getStyleClass().add("soft");
        HBox second = new HBox(
                Space.GAP, pointedWords, space(), back, freeze, difference, pair(wider, closer), pair(lower, higher));
        second.setAlignment(Pos.CENTER_LEFT);
        second.setMinHeight(22);
        getChildren().addAll(first, second);
    }

    private static HBox pair(Node left, Node right) {
        HBox pair = new HBox(Space.HAIR, left, right);
        pair.setAlignment(Pos.CENTER);
        return pair;
    }

    private static Region space() {
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        return space;
    }

    private static ToggleButton toggle(String words, String id, String tip, String key, Runnable action) {
        ToggleButton button = Buttons.toggle(words, id, tip + "  (" + key + ")", on -> action.run());
        button.setAccessibleText(tip);
        return button;
    }

    private static Button button(String words, String id, String tip, String key, Runnable action) {
        Button button = Buttons.small(words, id, tip + "  (" + key + ")", action);
        button.setAccessibleText(tip);
        return button;
    }

    private void hear(char letter) {
        if (selection.part().rack().letter() != letter) {
            selection.hearOther();
        }
        show();
    }

    private void freeze() {
        window.freeze(freeze.isSelected());
    }

    /** Whether the selected stage shows its difference. */
    BooleanProperty difference() {
        return difference.selectedProperty();
    }

    void show() {
        Part part = selection.part();
        title.setText(part.name());
        int stages = part.chain().stages().size();
        about.setText((stages == 1 ? "1 stage" : stages + " stages") + " · key "
                + document.piece().get().key().name() + " · " + variation(part));
        boolean off = part.rack().off();
        chainOn.setSelected(off);
        chainOn.setText(off ? "chain is off" : "chain off");
        a.setSelected(part.rack().letter() == 'A');
        b.setSelected(part.rack().letter() == 'B');
    }

    /** Says how the part stands: "muted", "nothing here until bar 33"; nothing where it is heard through its chain. */
    void showStanding(String words) {
        if (!words.equals(standing.getText())) {
            standing.setText(words);
            standing.setManaged(!words.isEmpty());
            standing.setVisible(!words.isEmpty());
        }
    }

    private String variation(Part part) {
        List<Long> turns = part.playing().variations();
        return turns.isEmpty()
                ? "variation " + document.piece().get().variation()
                : "variations " + turns.toString().replaceAll("[\\[\\]]", "") + " in turn";
    }

    /** What happened to the note that is pointed at, or nothing with null. */
    void point(NoteStart note) {
        pointedWords.setText(
                note == null
                        ? ""
                        : Words.ancestry(
                                note,
                                document.spelling(),
                                (from, made) -> Words.told(document, selection, transport, from, made)));
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

    /** Says how far back the traces stand; now and then. */
    void draw() {
        freeze.setSelected(window.isFrozen());
        back.setText(window.isFrozen() ? Words.number(window.barsBack()) + " bars back" : "");
    }
}
