package harpel.app.print;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import harpel.app.ui.room.Scrolling;
import harpel.offline.Tail;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.print.PrintOrder;
import harpel.print.VariationNumbers;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Predicate;
import javafx.geometry.HPos;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;

/** Asks for parts and bars, how often round, which variations, and what becomes of the end: what a print and an export are of. */
final class Stretch {
    private static final double FIELD_WIDE = 90;
    private static final double PARTS_WIDE = 380;
    private static final double PARTS_TALL = 150;
    private static final int MOST_BARS = 10_000;
    private static final int MOST_ROUNDS = 999;
    private static final int MOST_VARIATIONS = 48;

    private final Piece piece;
    private final Map<String, CheckBox> parts = new LinkedHashMap<>();
    private final TextField from = field("print-from", "1", "The first bar, counted from 1");
    private final TextField bars = field("print-bars", "", "How many bars make a round");
    private final TextField rounds = field("print-rounds", "1", "How often the round comes, one after the other");
    private final TextField variations =
            field("print-variations", "", "The number that chance depends on; 1-12 or 3,7 gives several");
    private final Choice<Tail> tail =
            new Choice<>("print-tail", "What becomes of notes that sound over the end", Stretch::words, one -> {});

    /**
     * Proposes what is chosen now.
     *
     * @param ticked the parts that are ticked at first
     * @param end what becomes of the end at first
     */
    Stretch(Document document, Selection selection, Predicate<Part> ticked, Tail end) {
        piece = document.piece().get();
        Set<String> wanted = new LinkedHashSet<>();
        for (Part part : piece.parts()) {
            boolean on = ticked.test(part);
            parts.put(part.id(), Buttons.check(part.name(), "print-part-" + part.id(), on));
            if (on) {
                wanted.add(part.id());
            }
        }
        if (wanted.isEmpty()) {
            wanted.add(selection.partId().get());
        }
        long once = PrintOrder.onceThrough(piece, wanted);
        bars.setText(String.valueOf(piece.time().meter().barAt(once - 1) + 1));
        variations.setText(String.valueOf(piece.variation()));
        tail.show(List.of(Tail.values()), end);
    }

    static TextField field(String id, String text, String tip) {
        TextField field = new TextLine(id, tip, text);
        field.setPrefColumnCount(5);
        field.setMaxWidth(FIELD_WIDE);
        return field;
    }

    private static String words(Tail tail) {
        return switch (tail) {
            case ROUND -> "repeats past the end come in at the beginning: loops without a seam";
            case RING -> "rings out after the end";
            case CUT -> "is cut";
            case STOP -> "ends as when Stop is pressed";
        };
    }

    /** The parts, to be ticked. */
    Node parts() {
        FlowPane boxes = new FlowPane(Space.EDGE, Space.CLOSE);
        boxes.getChildren().setAll(parts.values());
        boxes.setPrefWrapLength(PARTS_WIDE);
        Scrolling all = new Scrolling(boxes);
        all.setMaxHeight(PARTS_TALL);
        return all;
    }

    /** From which bar, how many, and how often round. */
    Node bars() {
        HBox all = new HBox(Space.GAP, from, bars, new Label("bars"), rounds, new Label("times"));
        all.setAlignment(Pos.CENTER_LEFT);
        return all;
    }

    Node variations() {
        return variations;
    }

    Node tail() {
        return tail;
    }

    /** Puts a control with its words into the next row. */
    static void row(GridPane rows, String words, Node control) {
        int row = rows.getRowCount();
        Label label = new Label(words);
        label.setLabelFor(control);
        label.setMinWidth(Region.USE_PREF_SIZE);
        GridPane.setHalignment(label, HPos.LEFT);
        rows.add(label, 0, row);
        rows.add(control, 1, row);
    }

    /**
     * What was asked for, one a variation.
     *
     * @param of what is printed in place of the piece, for the parts that are ticked
     * @throws IllegalArgumentException when something cannot be, in words
     */
    List<PrintOrder> orders(BiFunction<Piece, Set<String>, Piece> of) {
        Set<String> chosen = new LinkedHashSet<>();
        parts.forEach((id, box) -> {
            if (box.isSelected()) {
                chosen.add(id);
            }
        });
        if (chosen.isEmpty()) {
            throw new IllegalArgumentException("Choose one part at least.");
        }
        long first = number("From bar", from.getText(), MOST_BARS) - 1;
        long count = number("Bars", bars.getText(), MOST_BARS) * number("Rounds", rounds.getText(), MOST_ROUNDS);
        long begin = piece.time().meter().tickOfBar(first);
        long end = piece.time().meter().tickOfBar(first + count);
        PrintOrder order = new PrintOrder(of.apply(piece, chosen), chosen, begin, end, tail.getValue());
        List<PrintOrder> orders = new ArrayList<>();
        VariationNumbers.parse(variations.getText(), MOST_VARIATIONS)
                .forEach(variation -> orders.add(order.withVariation(variation)));
        return orders;
    }

    static long number(String what, String text, long most) {
        if (text.strip().matches("\\d{1,6}")) {
            long number = Long.parseLong(text.strip());
            if (number >= 1 && number <= most) {
                return number;
            }
        }
        throw new IllegalArgumentException(what + " must be 1–" + most + " but was “" + text + "”.");
    }
}
