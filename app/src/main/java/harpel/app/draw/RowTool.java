package harpel.app.draw;

import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import harpel.param.ParamType;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/**
 * What can be done to a whole row of steps: filled or nudged at random, turned, reversed, reset, made longer or shorter. The same for
 * every row in every effect.
 *
 * @param <T> the class of a step's value
 */
final class RowTool<T> extends VBox {
    private static final double FIELD = 74;
    private static final List<Integer> LENGTHS = List.of(8, 16, 32);

    /** The row that is worked on. */
    interface Row<T> {
        List<T> values();

        void take(List<T> changed);

        void length(int steps);

        T fresh();

        /** The range in view, from 0 to 1 of what the type takes. */
        double low();

        double high();
    }

    private final Row<T> row;
    private final ParamType<T> type;
    private final Consumer<String> say;
    private final TextField low;
    private final TextField high;
    private final TextField amount;
    private final List<Button> lengths = new ArrayList<>();

    RowTool(String id, ParamType<T> type, int most, Row<T> row, Consumer<String> say) {
        super(Space.TIGHT);
        this.row = row;
        this.type = type;
        this.say = say;
        getStyleClass().add("row-tool");
        low = field("low-" + id, "The lowest value drawn; " + type.range());
        high = field("high-" + id, "The highest value drawn; " + type.range());
        amount = field("amount-" + id, "How far at most, in percent of the range");
        amount.setText("8");
        Button fill = Buttons.button("Fill", "fill-" + id, "Draw every value anew between the two", this::fill);
        Button nudge = Buttons.button("Nudge", "nudge-" + id, "Move every value a little at random", this::nudge);
        low.setOnAction(event -> fill());
        high.setOnAction(event -> fill());
        amount.setOnAction(event -> nudge());
        FlowPane turns = new FlowPane(Space.TIGHT, Space.TIGHT);
        turns.getChildren()
                .addAll(
                        turn("◂", "earlier-" + id, "Turn the row one step to the left", values -> turned(values, -1)),
                        turn("▸", "later-" + id, "Turn the row one step to the right", values -> turned(values, 1)),
                        turn("Reverse", "reverse-" + id, "The last step first", RowTool::reversed),
                        turn(
                                "Reset",
                                "reset-" + id,
                                "Every step as a new one",
                                values -> values.stream()
                                        .map(value -> row.fresh())
                                        .toList()));
        for (int steps : LENGTHS) {
            if (steps <= most) {
                Button button = Buttons.button(
                        String.valueOf(steps),
                        "length-" + steps + "-" + id,
                        steps + " steps: repeated from the beginning, or cut",
                        () -> row.length(steps));
                button.getStyleClass().add("tiny");
                lengths.add(button);
            }
        }
        turns.getChildren().addAll(lengths);
        fill.getStyleClass().add("tiny");
        nudge.getStyleClass().add("tiny");
        getChildren()
                .addAll(
                        line(fill, low, new Label("to"), high),
                        line(nudge, new Label("by"), amount, new Label("%")),
                        turns);
    }

    private static HBox line(javafx.scene.Node... nodes) {
        HBox line = new HBox(Space.TIGHT, nodes);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    private static TextField field(String id, String what) {
        TextField field = new TextLine(id, what, "");
        field.setPrefWidth(FIELD);
        return field;
    }

    private Button turn(String words, String id, String tip, UnaryOperator<List<T>> change) {
        Button button = Buttons.button(words, id, tip, () -> row.take(change.apply(row.values())));
        button.getStyleClass().add("tiny");
        button.setAccessibleText(tip);
        return button;
    }

    private static <S> List<S> turned(List<S> values, int by) {
        List<S> changed = new ArrayList<>(values);
        Collections.rotate(changed, by);
        return changed;
    }

    private static <S> List<S> reversed(List<S> values) {
        List<S> changed = new ArrayList<>(values);
        Collections.reverse(changed);
        return changed;
    }

    /** The row keeps its length. */
    void fixed() {
        lengths.forEach(button -> {
            button.setManaged(false);
            button.setVisible(false);
        });
    }

    /** Says what would be drawn: the range in view, unless something was typed. */
    void open() {
        if (low.getText().isEmpty()) {
            low.setText(type.show(type.atFraction(row.low())));
        }
        if (high.getText().isEmpty()) {
            high.setText(type.show(type.atFraction(row.high())));
        }
    }

    private void fill() {
        try {
            double from = type.fraction(type.parse(low.getText()));
            double to = type.fraction(type.parse(high.getText()));
            row.take(row.values().stream()
                    .map(value -> type.atFraction(from + Math.random() * (to - from)))
                    .toList());
        } catch (IllegalArgumentException e) {
            say.accept("Fill: " + e.getMessage());
        }
    }

    private void nudge() {
        String typed = amount.getText().replace("%", "").strip();
        if (!typed.matches("\\d{1,3}") || Integer.parseInt(typed) > 100) {
            say.accept("Nudge by 0–100 % of the range, not “" + amount.getText() + "”");
            return;
        }
        double most = Integer.parseInt(typed) / 100.0 * (row.high() - row.low());
        row.take(row.values().stream()
                .map(value -> type.shuffled(value, most, Math::random))
                .toList());
    }
}
