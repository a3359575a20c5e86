package harpel.app;

import harpel.device.Instrument;
import harpel.piece.Part;
import harpel.piece.Phrase;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.theory.Key;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The parts at the left, and what the shown one hears and sounds like. */
final class PartPanel extends VBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final String KEYS_ONLY = "keys only";
    private static final String BUILT_IN = "built-in sounds";

    private final Session session;
    private final VBox cards = new VBox(6);
    private final ComboBox<String> phrase = new ComboBox<>();
    private final ComboBox<String> sound = new ComboBox<>();
    private final ComboBox<String> output = new ComboBox<>();
    private final TextField key = new TextField();
    private final TextField variation = new TextField();
    private boolean showing;

    PartPanel(Session session) {
        super(8);
        this.session = session;
        getStyleClass().add("part-panel");
        setPadding(new Insets(12, 10, 10, 10));
        setPrefWidth(196);
        setMinWidth(176);
        choice(
                phrase,
                "phrase",
                "What the part hears while the transport runs, besides the keys",
                chosen -> editPart("Choose phrase", part -> part.withPhrase(chosen.equals(KEYS_ONLY) ? "" : chosen)));
        choice(
                sound,
                "sound",
                "The stand-in instrument",
                chosen -> editPart("Choose sound", part -> part.withSound(chosen)));
        choice(
                output,
                "output",
                "Where the part's notes go",
                chosen -> editPart("Choose output", part -> part.withOutput(chosen.equals(BUILT_IN) ? "" : chosen)));
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
        next.setOnAction(event -> session.apply(
                PieceEdit.of("Next variation", piece -> piece.withVariation((piece.variation() + 1) % 1_000_000))));
        HBox variationRow = new HBox(6, variation, next);
        HBox.setHgrow(variation, Priority.ALWAYS);
        getChildren()
                .addAll(
                        small("Parts"),
                        cards,
                        small("Hears"),
                        phrase,
                        small("Sound"),
                        sound,
                        small("Goes to"),
                        output,
                        small("Key"),
                        key,
                        small("Variation"),
                        variationRow);
        session.piece().addListener((property, before, now) -> show());
        session.partId().addListener((property, before, now) -> show());
        session.noSound().addListener((property, before, now) -> show());
        output.setOnShowing(event -> show());
        show();
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
        box.setOnAction(event -> {
            if (!showing && box.getValue() != null) {
                chosen.accept(box.getValue());
            }
        });
    }

    private void field(TextField field, String id, String tip, BiFunction<Piece, String, Piece> change) {
        field.setId(id);
        field.setTooltip(new Tooltip(tip + "; Enter sets it"));
        field.setOnAction(event -> {
            try {
                String text = field.getText();
                change.apply(session.piece().get(), text);
                session.apply(PieceEdit.of("Set " + id, piece -> change.apply(piece, text)));
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
        String id = session.partId().get();
        session.apply(PieceEdit.of(label, piece -> piece.withPart(id, change)));
    }

    private void show() {
        showing = true;
        Piece piece = session.piece().get();
        Part part = session.part();
        cards.getChildren().setAll(piece.parts().stream().map(this::card).toList());
        List<String> phrases = new ArrayList<>(List.of(KEYS_ONLY));
        phrases.addAll(piece.phrases().stream().map(Phrase::name).toList());
        fill(phrase, phrases, part.phrase().isEmpty() ? KEYS_ONLY : part.phrase());
        fill(sound, Instrument.all().stream().map(Instrument::name).toList(), part.sound());
        List<String> outputs = new ArrayList<>(List.of(BUILT_IN));
        session.outputs().stream().filter(name -> !name.isEmpty()).forEach(outputs::add);
        fill(output, outputs, part.output().isEmpty() ? BUILT_IN : part.output());
        key.setText(piece.key().name());
        variation.setText(String.valueOf(piece.variation()));
        showing = false;
    }

    private static void fill(ComboBox<String> box, List<String> items, String value) {
        if (!box.getItems().equals(items)) {
            box.getItems().setAll(items);
        }
        box.setValue(value);
    }

    private Button card(Part part) {
        String hears = part.phrase().isEmpty() ? "Keys" : "Keys · " + part.phrase();
        Label name = new Label(part.name());
        name.getStyleClass().add("stage-name");
        Button card = new Button(
                "",
                new VBox(name, small(hears), small("→ " + (part.output().isEmpty() ? part.sound() : part.output()))));
        card.setAccessibleText(part.name());
        card.getStyleClass().add("part-card");
        card.setMaxWidth(Double.MAX_VALUE);
        card.setId("part-" + part.id());
        card.setTooltip(new Tooltip("Show this part's chain and play it with the keys"));
        card.pseudoClassStateChanged(SELECTED, part.id().equals(session.partId().get()));
        card.setOnAction(event -> {
            session.selected().set(null);
            session.partId().set(part.id());
        });
        return card;
    }
}
