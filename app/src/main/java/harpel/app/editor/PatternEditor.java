package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.draw.StepRow;
import harpel.app.look.Theme;
import harpel.app.ui.Buttons;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.effect.held.Arpeggio;
import harpel.effect.held.Arpeggio.Play;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.IntType;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.geometry.Side;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;

/** An arpeggio's pattern: each step's velocity, gate, octave or chance as bars, and below them what it plays. */
final class PatternEditor extends StageEditor {
    private static final int NEW_STEPS = 8;
    private static final int MOST = 64;

    private final Map<Param<Integer>, ToggleButton> shown = new LinkedHashMap<>();
    private final HBox choice = new HBox(Space.TIGHT);
    private final Button add;
    private final Label words = words("pattern-words");
    private final Map<Param<Integer>, StepRow<Integer>> rows = new LinkedHashMap<>();
    private final Plays plays;

    public PatternEditor(Around around, Edit edit) {
        super(around, edit);
        ToggleGroup group = new ToggleGroup();
        for (Param<Integer> param :
                List.of(Arpeggio.STEP_VELOCITY, Arpeggio.STEP_GATE, Arpeggio.STEP_OCTAVE, Arpeggio.STEP_CHANCE)) {
            ToggleButton button =
                    Buttons.oneOf(group, param.label(), "pattern-" + param.id(), param.help(), false, this::arrange);
            shown.put(param, button);
            choice.getChildren().add(button);
            StepRow<Integer> row = new StepRow<>(
                    around.look(),
                    around.messages(),
                    "steps-" + param.id(),
                    param.label(),
                    param.type(),
                    param.defaultValue(),
                    MOST,
                    66,
                    (values, done) -> take(param, values, done));
            row.face(face());
            row.steps(new WholeSteps());
            rows.put(param, row);
        }
        shown.get(Arpeggio.STEP_VELOCITY).setSelected(true);
        add = Buttons.button(
                "Give it a pattern of its own",
                "add-pattern",
                "Steps with their own velocity, gate, octave and chance, with rests, ties and chords",
                () -> set(Arpeggio.PATTERN, fresh(), true));
        plays = new Plays(around);
    }

    private static List<ParamSet> fresh() {
        List<ParamSet> steps = new ArrayList<>();
        for (int i = 0; i < NEW_STEPS; i++) {
            steps.add(Arpeggio.STEP.defaults());
        }
        return steps;
    }

    @Override
    public Set<Param<?>> instead(ParamSpec spec) {
        return Set.of(Arpeggio.PATTERN);
    }

    private List<ParamSet> steps() {
        return stage() == null ? List.of() : get(Arpeggio.PATTERN);
    }

    private StepRow.Face face() {
        return new StepRow.Face() {
            private ParamSet at(int step) {
                return step < steps().size() ? steps().get(step) : Arpeggio.STEP.defaults();
            }

            @Override
            public double width(int step) {
                int own = at(step).get(Arpeggio.STEP_GATE);
                return (own > 0 ? own : get(Arpeggio.GATE)) / 100.0;
            }

            @Override
            public double strength(int step) {
                return at(step).get(Arpeggio.STEP_CHANCE) / 100.0;
            }

            @Override
            public int pieces(int step) {
                return switch (at(step).get(Arpeggio.PLAY)) {
                    case REST -> 0;
                    case CHORD -> 3;
                    default -> 1;
                };
            }

            @Override
            public boolean tied(int step) {
                return at(step).get(Arpeggio.PLAY) == Play.TIE;
            }

            @Override
            public boolean hollow(int step) {
                return param().type() instanceof IntType type
                        && !type.word().isEmpty()
                        && at(step).get(param()).equals(type.wordValue());
            }
        };
    }

    private Param<Integer> param() {
        return shown.entrySet().stream()
                .filter(entry -> entry.getValue().isSelected())
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(Arpeggio.STEP_VELOCITY);
    }

    /** Lays the values of one parameter over the steps. */
    private void take(Param<Integer> param, List<Integer> values, boolean done) {
        List<ParamSet> after = new ArrayList<>(steps());
        for (int i = 0; i < values.size(); i++) {
            after.set(i, after.get(i).with(param, values.get(i)));
        }
        set(Arpeggio.PATTERN, List.copyOf(after), done);
    }

    /** Steps come and go whole, whatever of them is shown. */
    private final class WholeSteps implements StepRow.Steps {
        @Override
        public void insert(int at) {
            List<ParamSet> after = new ArrayList<>(steps());
            after.add(at, after.isEmpty() ? Arpeggio.STEP.defaults() : after.get(Math.max(0, at - 1)));
            set(Arpeggio.PATTERN, List.copyOf(after), true);
        }

        @Override
        public void remove(int at) {
            List<ParamSet> after = new ArrayList<>(steps());
            after.remove(at);
            set(Arpeggio.PATTERN, List.copyOf(after), true);
        }

        @Override
        public void length(int steps) {
            set(Arpeggio.PATTERN, StepRow.ofLength(steps(), steps, Arpeggio.STEP.defaults()), true);
        }
    }

    private void arrange() {
        boolean any = !steps().isEmpty();
        if (any) {
            getChildren().setAll(choice, rows.get(param()), plays, words);
        } else {
            getChildren().setAll(words, add);
        }
    }

    @Override
    public void show() {
        List<ParamSet> steps = steps();
        rows.forEach((param, row) ->
                row.show(steps.stream().map(step -> step.get(param)).toList()));
        plays.repaint();
        words.setText(
                steps.isEmpty()
                        ? "Every step plays the next note of the order."
                        : "Height: what is chosen above; width: gate; fainter: chance; outlined: as played or as set.");
        boolean arranged = getChildren().contains(plays) == !steps.isEmpty()
                && !getChildren().isEmpty();
        if (!arranged) {
            arrange();
        }
        plays.say();
    }

    @Override
    public void draw() {
        int lit = steps().isEmpty()
                ? -1
                : around().transport().traces().step(address().toString(), 0);
        rows.get(param()).light(lit);
        rows.get(param()).draw();
        plays.draw();
    }

    /** What each step plays; a click or Up and Down take the next of the words. */
    private final class Plays extends Drawing {
        private int chosen;
        private int pressed;
        private boolean tying;

        Plays(Around around) {
            super(around.look(), "steps-play", 26);
            addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                if (!steps().isEmpty()) {
                    chosen = stepAt(event);
                    pressed = chosen;
                    tying = false;
                    say();
                    repaint();
                }
            });
            addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
                if (!steps().isEmpty() && event.isPrimaryButtonDown()) {
                    tie(stepAt(event));
                }
                event.consume();
            });
            addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
                if (!steps().isEmpty() && event.getButton() == MouseButton.PRIMARY && !tying) {
                    Play now = steps().get(chosen).get(Arpeggio.PLAY);
                    Play other = event.isShiftDown() ? Play.CHORD : Play.REST;
                    put(now == other || !event.isShiftDown() && now == Play.TIE ? Play.NEXT : other);
                }
                around.document().endGesture();
            });
            setOnContextMenuRequested(event -> {
                offer();
                event.consume();
            });
            tip(
                    this,
                    "What each step plays: click for a rest and back, Shift-click for the whole chord, drag over steps to tie them,"
                            + " right-click to choose. Left and Right, Up and Down on the keyboard.\n"
                            + Arpeggio.PLAY.help());
        }

        private int stepAt(MouseEvent event) {
            return (int) clamp(Math.floor(across(event) * steps().size()), 0, steps().size() - 1.0);
        }

        /** All steps between the pressed one and this go on from the first of them. */
        private void tie(int to) {
            if (to == pressed && !tying) {
                return;
            }
            tying = true;
            List<ParamSet> after = new ArrayList<>(steps());
            for (int i = Math.min(pressed, to) + 1; i <= Math.max(pressed, to); i++) {
                after.set(i, after.get(i).with(Arpeggio.PLAY, Play.TIE));
            }
            set(Arpeggio.PATTERN, List.copyOf(after), false);
        }

        private void offer() {
            ContextMenu menu = Menus.list();
            for (Play play : Play.values()) {
                MenuItem item = new MenuItem(Arpeggio.PLAY.type().show(play));
                item.setOnAction(event -> put(play));
                menu.getItems().add(item);
            }
            menu.show(this, Side.BOTTOM, 0, 0);
        }

        private void change(int by) {
            Play now = steps().get(chosen).get(Arpeggio.PLAY);
            put(Play.values()[Math.floorMod(now.ordinal() + by, Play.values().length)]);
        }

        private void put(Play play) {
            List<ParamSet> after = new ArrayList<>(steps());
            after.set(chosen, after.get(chosen).with(Arpeggio.PLAY, play));
            set(Arpeggio.PATTERN, List.copyOf(after), true);
        }

        void say() {
            chosen = (int) clamp(chosen, 0, Math.max(0, steps().size() - 1.0));
            if (!steps().isEmpty()) {
                setAccessibleText("What step " + (chosen + 1) + " of " + steps().size() + " plays: "
                        + Arpeggio.PLAY.show(steps().get(chosen)));
            }
        }

        @Override
        public boolean key(KeyEvent event) {
            if (steps().isEmpty()) {
                return false;
            }
            switch (event.getCode()) {
                case LEFT -> chosen = Math.max(0, chosen - 1);
                case RIGHT -> chosen = Math.min(steps().size() - 1, chosen + 1);
                case UP, ENTER -> change(1);
                case DOWN -> change(-1);
                case DELETE, BACK_SPACE -> put(Play.NEXT);
                default -> {
                    return false;
                }
            }
            say();
            repaint();
            return true;
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            double step = width / Math.max(1, steps().size());
            for (int i = 0; i < steps().size(); i++) {
                double middle = (i + 0.5) * step;
                double r = Math.min(2.5, step / 3);
                g.setFill(theme.ink);
                g.setStroke(theme.ink);
                switch (steps().get(i).get(Arpeggio.PLAY)) {
                    case NEXT -> g.fillOval(middle - r, height / 2 - r, 2 * r, 2 * r);
                    case LOWEST -> g.fillOval(middle - r, height - 2 * r - 1, 2 * r, 2 * r);
                    case HIGHEST -> g.fillOval(middle - r, 1, 2 * r, 2 * r);
                    case NTH ->
                        g.fillText(String.valueOf(steps().get(i).get(Arpeggio.NTH)), middle - 3, height / 2 + 4);
                    case CHORD -> {
                        for (int line = -1; line <= 1; line++) {
                            g.fillRect(middle - step * 0.3, height / 2 + line * 5 - 1, step * 0.6, 2);
                        }
                    }
                    case REST -> {
                        g.setFill(theme.soft);
                        g.fillRect(middle - step * 0.2, height / 2, step * 0.4, 1);
                    }
                    case TIE ->
                        g.strokeArc(middle - step, height / 2 - 4, step, 9, 180, 180, javafx.scene.shape.ArcType.OPEN);
                }
                if (i == chosen && isFocused()) {
                    g.setStroke(theme.brassText);
                    g.strokeRect(i * step + 1, 0.5, step - 2, height - 1);
                }
            }
        }
    }
}
