package harpel.app;

import harpel.advice.Advice;
import harpel.advice.Advisor;
import harpel.app.draw.Scrolling;
import harpel.app.session.Change;
import harpel.app.session.Session;
import harpel.phrase.Phrase;
import harpel.piece.Hearing;
import harpel.piece.Instrument;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.Routes;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The parts at the left, and what the shown one hears and sounds like. */
final class PartPanel extends VBox {
    private static final String KEYS_ONLY = "keys only";
    private static final String BUILT_IN = "built-in";

    private final Session session;
    private final VBox cards = new VBox(4);
    private final Map<String, PartCard> kept = new HashMap<>();
    private final TextField name = new TextField();
    private final ComboBox<String> input = new ComboBox<>();
    private final ComboBox<String> channel = new ComboBox<>();
    private final Label why = new Label();
    private final Hyperlink help = new Hyperlink();
    private final LeversPanel levers;
    private final ComboBox<String> phrase = new ComboBox<>();
    private final ComboBox<String> sound = new ComboBox<>();
    private final ComboBox<String> output = new ComboBox<>();
    private final TextField key = new TextField();
    private final TextField variation = new TextField();
    private boolean showing;
    private Change lastChange;

    PartPanel(Session session) {
        super(0);
        this.session = session;
        getStyleClass().add("part-panel");
        setPrefWidth(214);
        setMinWidth(200);
        levers = new LeversPanel(session);
        choice(
                input,
                "input",
                "Where the part takes its notes from, besides its phrase",
                chosen -> editPart("Choose input", part -> part.withHearing(inputs().get(chosen))));
        choice(
                channel,
                "channel",
                "The channel the part sends on",
                chosen -> editPart("Choose channel", part -> part.withChannel(Integer.parseInt(chosen) - 1)));
        name.setId("part-name");
        name.setTooltip(new Tooltip("The part's name; Enter sets it"));
        name.setAccessibleText("The part's name");
        name.setOnAction(event -> {
            String text = name.getText().strip();
            if (!text.isEmpty()) {
                editPart("Rename part", part -> part.withName(text));
            }
            show();
        });
        why.setId("why-silent");
        why.setWrapText(true);
        why.getStyleClass().add("problem");
        help.setId("help-silent");
        choice(
                phrase,
                "phrase",
                "What the part hears while the transport runs, besides the keys",
                chosen -> editPart("Choose phrase", part -> part.withPhrase(phraseId(chosen))));
        choice(
                sound,
                "sound",
                "The stand-in instrument",
                chosen -> editPart("Choose sound", part -> part.withSound(chosen)));
        choice(
                output,
                "output",
                "Where the part's notes go",
                chosen -> editPart("Choose output", part -> part.withPort(chosen.equals(BUILT_IN) ? "" : chosen)));
        field(key, "key", "The key of the piece, such as D dorian", (piece, text) -> piece.withKey(Key.parse(text)));
        field(
                variation,
                "variation",
                "The number that all chance depends on: another number, other notes",
                PartPanel::withVariation);
        Button next = new Button("next");
        next.setId("next-variation");
        next.setMinWidth(Region.USE_PREF_SIZE);
        next.setTooltip(new Tooltip("The next variation"));
        next.setOnAction(event -> session.document()
                .apply(PieceEdit.of(
                        "Next variation", piece -> piece.withVariation((piece.variation() + 1) % 1_000_000))));
        HBox variationRow = new HBox(6, variation, next);
        HBox.setHgrow(variation, Priority.ALWAYS);
        channel.setPrefWidth(56);
        channel.setMinWidth(56);
        HBox.setHgrow(output, Priority.ALWAYS);
        HBox goesTo = new HBox(4, output, channel);
        VBox chosen = new VBox(
                4, why, help, row("Keys", input), row("Phrase", phrase), row("Sound", sound), row("To", goesTo));
        chosen.getStyleClass().add("chosen-part");
        HBox.setHgrow(name, Priority.ALWAYS);
        HBox head = new HBox(4, name, partMenu());
        head.setAlignment(Pos.CENTER_LEFT);
        Scrolling list = new Scrolling(cards);
        VBox.setVgrow(list, Priority.ALWAYS);
        list.setMinHeight(80);
        Scrolling leverList = new Scrolling(levers);
        leverList.setMaxHeight(112);
        leverList.setMinHeight(52);
        setSpacing(6);
        setPadding(new Insets(8, 8, 8, 10));
        getChildren()
                .addAll(head, list, chosen, levers.head(), leverList, row("Key", key), row("Variation", variationRow));
        session.document().onChange(change -> lastChange = change);
        session.document().piece().addListener((property, before, now) -> take(lastChange));
        session.selection().partId().addListener((property, before, now) -> show());
        session.transport().noSound().addListener((property, before, now) -> show());
        output.setOnShowing(event -> show());
        show();
    }

    private static Node row(String text, Region control) {
        Label label = small(text);
        label.setMinWidth(50);
        label.setLabelFor(control);
        HBox.setHgrow(control, Priority.ALWAYS);
        HBox row = new HBox(4, label, control);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private MenuButton partMenu() {
        MenuButton menu = new MenuButton("Part");
        menu.setId("part-menu");
        menu.setMinWidth(Region.USE_PREF_SIZE);
        menu.setTooltip(new Tooltip("Add, duplicate, move or delete parts"));
        item(menu, "Add part    Ctrl+Shift+N", "add-part", () -> PartActions.add(session));
        item(
                menu,
                "Duplicate, on the next free channel    Ctrl+Shift+D",
                "duplicate-part",
                () -> PartActions.duplicate(session));
        item(menu, "Add a part that hears the same", "add-section", () -> PartActions.addSection(session));
        item(menu, "Next colour", "colour-part", () -> PartActions.colour(session));
        item(menu, "Move up", "part-up", () -> PartActions.move(session, -1));
        item(menu, "Move down", "part-down", () -> PartActions.move(session, 1));
        item(menu, "Delete part    Ctrl+Shift+Delete", "delete-part", () -> PartActions.delete(session));
        return menu;
    }

    private static void item(MenuButton menu, String text, String id, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setId(id);
        item.setOnAction(event -> action.run());
        menu.getItems().add(item);
    }

    /** Every input there is, by what it is called here. */
    private Map<String, Hearing> inputs() {
        Map<String, Hearing> inputs = new LinkedHashMap<>();
        inputs.put("when chosen", Hearing.KEYS);
        inputs.put("none", Hearing.NOTHING);
        for (String device : session.transport().inputs()) {
            inputs.put(device, new Hearing(Hearing.Source.DEVICE, device, 0));
        }
        for (Part other : session.document().piece().get().parts()) {
            if (!other.id().equals(session.selection().partId().get())) {
                inputs.put("what " + other.name() + " hears", new Hearing(Hearing.Source.INPUT_OF, other.id(), 0));
                inputs.put("what " + other.name() + " sends", new Hearing(Hearing.Source.OUTPUT_OF, other.id(), 0));
            }
        }
        inputs.putIfAbsent(
                session.selection().part().hearing().toString(),
                session.selection().part().hearing());
        return inputs;
    }

    private static Label small(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("soft");
        return label;
    }

    private void choice(ComboBox<String> box, String id, String tip, Consumer<String> chosen) {
        box.setId(id);
        box.setMaxWidth(Double.MAX_VALUE);
        box.setTooltip(new Tooltip(tip));
        box.setAccessibleText(tip);
        box.setOnAction(event -> {
            if (!showing && box.getValue() != null) {
                chosen.accept(box.getValue());
            }
        });
    }

    private void field(TextField field, String id, String tip, BiFunction<Piece, String, Piece> change) {
        field.setId(id);
        field.setTooltip(new Tooltip(tip + "; Enter sets it"));
        field.setAccessibleText(tip);
        field.setOnAction(event -> {
            try {
                String text = field.getText();
                change.apply(session.document().piece().get(), text);
                session.document().apply(PieceEdit.of("Set " + id, piece -> change.apply(piece, text)));
            } catch (IllegalArgumentException e) {
                session.say(e.getMessage());
            }
            show();
        });
    }

    private static Piece withVariation(Piece piece, String text) {
        if (!text.strip().matches("\\d{1,6}")) {
            throw new IllegalArgumentException("variation must be 0–999999 but was \"" + text + "\"");
        }
        return piece.withVariation(Long.parseLong(text.strip()));
    }

    private void editPart(String label, java.util.function.UnaryOperator<Part> change) {
        String id = session.selection().partId().get();
        session.document().apply(PieceEdit.of(label, piece -> piece.withPart(id, change)));
    }

    /** Values of stages are not shown here, so an edit of nothing else makes no list anew; only the advice may be another. */
    private void take(Change change) {
        if (!change.around() && change.parts().stream().allMatch(change::onlyValues)) {
            showAdvice(change.after(), session.selection().part());
        } else {
            show();
        }
    }

    private void show() {
        showing = true;
        Piece piece = session.document().piece().get();
        Part part = session.selection().part();
        cards.getChildren().setAll(piece.parts().stream().map(this::card).toList());
        kept.keySet().removeIf(id -> piece.part(id).isEmpty());
        Map<String, Hearing> inputs = inputs();
        fill(
                input,
                List.copyOf(inputs.keySet()),
                inputs.entrySet().stream()
                        .filter(entry -> entry.getValue().equals(part.hearing()))
                        .map(Map.Entry::getKey)
                        .findFirst()
                        .orElseThrow());
        fill(
                channel,
                IntStream.rangeClosed(1, 16).mapToObj(String::valueOf).toList(),
                String.valueOf(part.channel() + 1));
        name.setText(part.name());
        showAdvice(piece, part);
        List<String> phrases = new ArrayList<>(List.of(KEYS_ONLY));
        phrases.addAll(piece.phrases().stream().map(this::phraseLabel).toList());
        fill(phrase, phrases, piece.phrase(part.phrase()).map(this::phraseLabel).orElse(KEYS_ONLY));
        fill(sound, Instrument.all().stream().map(Instrument::name).toList(), part.sound());
        List<String> outputs = new ArrayList<>(List.of(BUILT_IN));
        session.transport().outputs().stream().filter(name -> !name.isEmpty()).forEach(outputs::add);
        fill(output, outputs, part.port().isEmpty() ? BUILT_IN : part.port());
        key.setText(piece.key().name());
        variation.setText(String.valueOf(piece.variation()));
        showing = false;
    }

    /** A phrase's name; with its id where two have one name. */
    private String phraseLabel(Phrase phrase) {
        long alike = session.document().piece().get().phrases().stream()
                .filter(one -> one.name().equals(phrase.name()))
                .count();
        return alike > 1 ? phrase.name() + " · " + phrase.id() : phrase.name();
    }

    private String phraseId(String label) {
        return session.document().piece().get().phrases().stream()
                .filter(one -> phraseLabel(one).equals(label))
                .map(Phrase::id)
                .findFirst()
                .orElse("");
    }

    private static void fill(ComboBox<String> box, List<String> items, String value) {
        if (!box.getItems().equals(items)) {
            box.getItems().setAll(items);
        }
        box.setValue(value);
    }

    private PartCard card(Part part) {
        PartCard card = kept.computeIfAbsent(part.id(), id -> new PartCard(session, id));
        card.show(part, part.id().equals(session.selection().partId().get()));
        return card;
    }

    /** Says where the notes stop, and offers the one action that helps; names what is wrong with the ways between parts. */
    private void showAdvice(Piece piece, Part part) {
        Optional<Advice> advice = Advisor.silence(
                        piece, part, session.transport().outputs())
                .or(() -> Advisor.noSound(
                        part,
                        session.transport().noSound().get(),
                        session.transport().outputs()));
        List<String> problems = Routes.of(piece).problems(session.transport().outputs());
        boolean any = advice.isPresent() || !problems.isEmpty();
        why.setText(advice.map(Advice::text).orElse(problems.isEmpty() ? "" : problems.get(0)));
        why.setManaged(any);
        why.setVisible(any);
        help.setText(advice.map(Advice::action).orElse(""));
        help.setManaged(advice.isPresent());
        help.setVisible(advice.isPresent());
        help.setOnAction(event ->
                advice.ifPresent(one -> session.document().apply(PieceEdit.of(one.action(), one.fix()))));
    }

    /** Draws a frame. */
    void draw() {
        kept.values().forEach(PartCard::draw);
        levers.draw();
    }
}
