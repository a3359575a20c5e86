package harpel.app.editor;

import harpel.app.draw.StepRow;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Columns;
import harpel.app.ui.Menus;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.effect.held.Polymeter;
import harpel.effect.held.Polymeter.Of;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import javafx.geometry.Side;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;

/** The rows of a polymeter, each with its own length, the step it is at, and after how many bars all come together. */
final class PolymeterEditor extends StageEditor {
    private static final int MOST_VALUES = 64;
    private static final int MOST_ROWS = 12;
    private static final double TALL = 46;

    /** What is offered to be added, by what people want of it. */
    private static final Map<Of, String> WHAT = Map.of(
            Of.DEGREE, "Degree: steps of the scale",
            Of.OCTAVE, "Octave",
            Of.SEMITONE, "Semitone",
            Of.VELOCITY, "Velocity: loud and soft",
            Of.LENGTH, "Length, and rests",
            Of.CHANCE, "Chance: how often it sounds",
            Of.REPEATS, "Repeats in a step",
            Of.LATE, "Late: pushes and drags");

    private final VBox rows = new VBox(Space.CLOSE);
    private final List<Shown> shown = new ArrayList<>();
    private final Label words = words("common-period");
    private final Button add;

    /** A row on the screen. */
    private record Shown(Of of, StepRow<Integer> steps, Label more, List<ParamTile<?>> tiles) {}

    public PolymeterEditor(Around around, Edit edit) {
        super(around, edit);
        add = Buttons.button("+ add row", "add-row", "Another row, of any kind, of a length of its own", this::offer);
        getChildren().addAll(rows, add, words);
    }

    @Override
    public Set<Param<?>> instead(ParamSpec spec) {
        return Set.of(Polymeter.ROWS);
    }

    private void offer() {
        ContextMenu menu = Menus.list();
        menu.setId("row-kinds");
        for (Of of : Of.values()) {
            MenuItem item = new MenuItem(WHAT.get(of));
            item.setOnAction(event -> change(true, list -> {
                if (list.size() < MOST_ROWS) {
                    list.add(Polymeter.row(of, of.fresh(), of.fresh(), of.fresh()));
                } else {
                    around().say("At most " + MOST_ROWS + " rows run against each other.");
                }
            }));
            menu.getItems().add(item);
        }
        menu.show(add, Side.BOTTOM, 0, 0);
    }

    private void change(boolean done, Consumer<List<ParamSet>> how) {
        List<ParamSet> changed = new ArrayList<>(get(Polymeter.ROWS));
        how.accept(changed);
        set(Polymeter.ROWS, List.copyOf(changed), done);
    }

    private Shown row(int number, Of of) {
        StepRow<Integer> steps = new StepRow<>(
                around().look(),
                around().messages(),
                "row-" + (number + 1),
                WHAT.get(of).split("[:, ]")[0],
                of.type(),
                of.fresh(),
                MOST_VALUES,
                TALL,
                // A row has at least one value.
                (values, done) -> change(
                        done,
                        list -> list.set(
                                number,
                                list.get(number)
                                        .with(Polymeter.VALUES, values.isEmpty() ? List.of(of.fresh()) : values))));
        switch (of) {
            case DEGREE -> steps.span(-7, 7);
            case SEMITONE -> steps.span(-12, 12);
            case OCTAVE -> steps.span(-2, 2);
            case VELOCITY -> steps.span(1, 150);
            case LENGTH -> steps.span(0, 200);
            default -> {
                // its whole range is the useful one
            }
        }
        Label more = new Label();
        more.getStyleClass().add("tile-name");
        Button remove = Buttons.remove(
                "remove-row-" + (number + 1), "row " + (number + 1), () -> change(true, list -> list.remove(number)));
        remove.getStyleClass().add("tiny");
        steps.addToHead(more, remove);
        List<ParamTile<?>> tiles = new ArrayList<>();
        GridPane grid = Columns.two();
        for (Param<?> param : List.of(Polymeter.ROW_PACE, Polymeter.RUNS, Polymeter.TURNED)) {
            ParamTile<?> tile = new ParamTile<>(
                    param,
                    (changed, done) -> change(
                            done, list -> list.set(number, list.get(number).withPlain(param, changed.plain()))),
                    around()::spelling,
                    around()::say);
            tile.setId("row-" + (number + 1) + "-" + param.id());
            grid.add(tile, tiles.size() % 2, tiles.size() / 2);
            tiles.add(tile);
        }
        FlowPane order = new FlowPane(Space.TIGHT, Space.TIGHT);
        order.getChildren()
                .addAll(
                        tiny(
                                "Copy row",
                                "copy-row-" + (number + 1),
                                "The same row once more, after it",
                                () -> change(true, list -> {
                                    if (list.size() < MOST_ROWS) {
                                        list.add(number + 1, list.get(number));
                                    }
                                })),
                        tiny("Up", "row-up-" + (number + 1), "Before the row above it", () -> swap(number, number - 1)),
                        tiny(
                                "Down",
                                "row-down-" + (number + 1),
                                "After the row below it",
                                () -> swap(number, number + 1)));
        steps.addToTool(grid, order);
        return new Shown(of, steps, more, tiles);
    }

    private static Button tiny(String text, String id, String tip, Runnable action) {
        Button button = Buttons.button(text, id, tip, action);
        button.getStyleClass().add("tiny");
        return button;
    }

    private void swap(int one, int other) {
        if (other >= 0 && other < get(Polymeter.ROWS).size()) {
            change(true, list -> Collections.swap(list, one, other));
        }
    }

    @Override
    public void show() {
        List<ParamSet> all = get(Polymeter.ROWS);
        // Rows that are there already are not made anew under a hand.
        for (int i = 0; i < all.size(); i++) {
            Of of = all.get(i).get(Polymeter.OF);
            if (i == shown.size()) {
                shown.add(row(i, of));
            } else if (shown.get(i).of() != of) {
                shown.set(i, row(i, of));
            }
        }
        shown.subList(all.size(), shown.size()).clear();
        List<StepRow<Integer>> steps = shown.stream().map(Shown::steps).toList();
        if (!rows.getChildren().equals(steps)) {
            rows.getChildren().setAll(steps);
        }
        for (int i = 0; i < all.size(); i++) {
            ParamSet row = all.get(i);
            shown.get(i).steps().show(row.get(Polymeter.VALUES));
            shown.get(i).tiles().forEach(tile -> tile.show(row));
            shown.get(i).more().setText(more(row));
        }
        double step =
                get(Polymeter.PACE).ticksAt(0, around().document().piece().get().time());
        long period = Polymeter.commonPeriod(
                stage().params(), around().document().piece().get().time());
        words.setText(period == 1 ? "The same at every step." : Words.period(period * step, around().document()));
    }

    /** How the row runs, where that is not plainly. */
    private static String more(ParamSet row) {
        String pace = row.isDefault(Polymeter.ROW_PACE) ? "" : Polymeter.ROW_PACE.show(row);
        String runs = row.isDefault(Polymeter.RUNS) ? "" : " " + Polymeter.RUNS.show(row);
        String turned = row.isDefault(Polymeter.TURNED) ? "" : " from " + (row.get(Polymeter.TURNED) + 1);
        return (pace + runs + turned).strip();
    }

    @Override
    public void draw() {
        for (int i = 0; i < shown.size(); i++) {
            shown.get(i)
                    .steps()
                    .light(around().transport().traces().step(address().toString(), i));
            shown.get(i).steps().draw();
        }
    }
}
