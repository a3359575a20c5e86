package harpel.app.draw;

import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.param.ParamType;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.IntFunction;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * A row of steps drawn as bars. Dragging over them sets them; on the keyboard Left and Right choose a step, Up and Down (with Shift
 * finely) or typing set it, Delete gives the default, Insert adds a step and Shift+Delete removes it.
 *
 * @param <T> the class of a step's value
 */
public final class StepRow<T> extends VBox {
    /** How the bars of a row look where that is more than their height. */
    public interface Face {
        Face PLAIN = new Face() {};

        /** How wide the bar of a step is, as a share of the step. */
        default double width(int step) {
            return 0.8;
        }

        /** How strong it is drawn, 0–1. */
        default double strength(int step) {
            return 1;
        }

        /** Into how many pieces the bar is cut: 0 for no bar, 3 for a chord. */
        default int pieces(int step) {
            return 1;
        }

        /** Whether the bar goes on from the one before it. */
        default boolean tied(int step) {
            return false;
        }

        /** Whether the bar is only outlined, as where a value is left as played. */
        default boolean hollow(int step) {
            return false;
        }
    }

    /** Adds and takes away steps, at a place counted from 0. */
    public interface Steps {
        void insert(int at);

        void remove(int at);

        /** Makes it so long, in one edit: repeated from its beginning, or cut. */
        void length(int steps);
    }

    /** A list repeated from its beginning, or cut, to so many. */
    public static <S> List<S> ofLength(List<S> values, int length, S fresh) {
        List<S> changed = new ArrayList<>();
        for (int i = 0; i < length; i++) {
            changed.add(values.isEmpty() ? fresh : values.get(i % values.size()));
        }
        return changed;
    }

    private final Label title = new Label();
    private String name;
    private final ParamType<T> type;
    private final T fresh;
    private final int most;
    private final BiConsumer<List<T>, Boolean> change;
    private final Label words = new Label();
    private final StepBars<T> bars;
    private IntFunction<String> says = this::plainly;
    private boolean fixed;
    private final Button fewer;
    private final Button more;
    private final HBox head;
    private final RowTool<T> tool;
    private Steps steps = new Steps() {
        @Override
        public void insert(int at) {
            List<T> changed = new ArrayList<>(bars.values());
            changed.add(at, changed.isEmpty() ? fresh : changed.get(Math.max(0, at - 1)));
            bars.tell(changed, true);
        }

        @Override
        public void remove(int at) {
            List<T> changed = new ArrayList<>(bars.values());
            changed.remove(at);
            bars.tell(changed, true);
        }

        @Override
        public void length(int length) {
            bars.tell(ofLength(bars.values(), length, fresh), true);
        }
    };

    /**
     * @param id of the drawn row
     * @param fresh a step's default
     * @param most the most steps
     * @param change takes all values, and whether the hand has left the row
     */
    public StepRow(
            Look look,
            Messages messages,
            String id,
            String name,
            ParamType<T> type,
            T fresh,
            int most,
            double height,
            BiConsumer<List<T>, Boolean> change) {
        super(Space.HAIR);
        this.name = name;
        this.type = type;
        this.fresh = fresh;
        this.most = most;
        this.change = change;
        bars = new StepBars<>(look, messages, id, height, name, type, fresh, new StepBars.Row<T>() {
            @Override
            public void changed(List<T> values, boolean done) {
                StepRow.this.change.accept(values, done);
            }

            @Override
            public void insertAt(int at) {
                StepRow.this.insertAt(at);
            }

            @Override
            public void removeAt(int at) {
                StepRow.this.removeAt(at);
            }

            @Override
            public void say() {
                StepRow.this.say();
            }
        });
        title.setText(name);
        title.getStyleClass().add("tile-name");
        words.getStyleClass().add("tile-name");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        words.setMinWidth(0);
        fewer = small(
                "−",
                "fewer-" + id,
                "One step fewer",
                () -> removeAt(bars.values().size() - 1));
        more = small(
                "+", "more-" + id, "One step more", () -> insertAt(bars.values().size()));
        tool = new RowTool<>(
                id,
                type,
                most,
                new RowTool.Row<T>() {
                    @Override
                    public List<T> values() {
                        return bars.values();
                    }

                    @Override
                    public void take(List<T> changed) {
                        bars.tell(changed, true);
                    }

                    @Override
                    public void length(int steps) {
                        StepRow.this.steps.length(steps);
                    }

                    @Override
                    public T fresh() {
                        return fresh;
                    }

                    @Override
                    public double low() {
                        return bars.low();
                    }

                    @Override
                    public double high() {
                        return bars.high();
                    }
                },
                messages::say);
        Button menu = small("…", "menu-" + id, "Fill, nudge, turn or reset the whole row", this::unfold);
        head = new HBox(Space.TIGHT, title, words, space, fewer, more, menu);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, bars);
        bars.setOnContextMenuRequested(event -> {
            unfold();
            event.consume();
        });
        Tips.set(
                bars,
                "Drag over the steps, or choose one with Left and Right and type, or press Up and Down (Shift finely)."
                        + "\nDelete: default. Insert: a step more. Shift+Delete: one fewer. Each step: "
                        + type.range());
    }

    private static Button small(String text, String id, String tip, Runnable action) {
        Button button = Buttons.button(text, id, tip, action);
        button.getStyleClass().add("tiny");
        button.setAccessibleText(tip);
        return button;
    }

    public void face(Face newFace) {
        bars.face(newFace);
    }

    private String plainly(int step) {
        return (step + 1) + " of " + bars.values().size() + ": "
                + type.show(bars.values().get(step));
    }

    /** Puts something more at the end of its head. */
    public void addToHead(Node... more) {
        head.getChildren().addAll(more);
    }

    /** Puts something more among what the whole row can be done to, under its tools. */
    public void addToTool(Node... more) {
        tool.getChildren().addAll(more);
    }

    /** The range that is drawn, as long as no value lies outside; the whole range of the type unless this says less. */
    public void span(T low, T high) {
        bars.span(type.fraction(low), type.fraction(high));
    }

    /** Names under the steps, and what is said of the chosen one; such a row has a length of its own that stays. */
    public void named(IntFunction<String> newNames, IntFunction<String> newSays) {
        bars.names(newNames);
        says = newSays;
        fixed = true;
        fewer.setManaged(false);
        fewer.setVisible(false);
        more.setManaged(false);
        more.setVisible(false);
        tool.fixed();
    }

    /** Whether the hand that draws holds Shift. */
    public boolean isShiftDrawn() {
        return bars.isShiftDrawn();
    }

    /** The step that is chosen, counted from 0. */
    public int chosen() {
        return bars.chosen();
    }

    /** Calls the row something else from now on. */
    public void title(String newName) {
        if (!newName.equals(name)) {
            name = newName;
            title.setText(newName);
            say();
        }
    }

    /** Names or what is said have changed. */
    public void rename() {
        say();
        bars.repaint();
    }

    private void unfold() {
        if (getChildren().contains(tool)) {
            getChildren().remove(tool);
        } else {
            tool.open();
            getChildren().add(1, tool);
        }
    }

    public void show(List<T> newValues) {
        bars.show(newValues);
    }

    /** Lights the step that is played, or none with -1. */
    public void light(int step) {
        bars.light(step);
    }

    private void say() {
        String at = bars.values().isEmpty() ? "no steps" : says.apply(bars.chosen());
        words.setText(at);
        bars.setAccessibleText(name + ", step " + at);
    }

    public void choose(int step) {
        bars.choose(step);
    }

    /** Has steps added and taken away by whoever keeps more of a step than this row shows. */
    public void steps(Steps keeper) {
        steps = keeper;
    }

    /** Adds a step like the one before it. */
    private void insertAt(int at) {
        if (bars.values().size() < most && !fixed) {
            steps.insert(at);
            choose(at);
        }
    }

    private void removeAt(int at) {
        if (!bars.values().isEmpty() && !fixed) {
            steps.remove(at);
            choose(bars.chosen());
        }
    }

    /** Paints if anything has changed; once a frame. */
    public void draw() {
        bars.draw();
    }
}
