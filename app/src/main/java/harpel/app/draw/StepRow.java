package harpel.app.draw;

import harpel.app.session.Session;
import harpel.app.session.Theme;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.param.ParamType;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.IntFunction;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/**
 * A row of steps drawn as bars. Dragging over them sets them; on the keyboard Left and Right choose a step, Up and Down (with Shift
 * finely) or typing set it, Delete gives the default, Insert adds a step and Shift+Delete removes it.
 *
 * @param <T> the class of a step's value
 */
public final class StepRow<T> extends VBox {
    private static final double NAMES = 15;
    private static final double OPEN = 0.7;

    /** How the bars of a row look where that is more than their height. */
    public interface Look {
        Look PLAIN = new Look() {};

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

    private final String name;
    private final ParamType<T> type;
    private final T fresh;
    private final int most;
    private final BiConsumer<List<T>, Boolean> change;
    private final Label words = new Label();
    private final Bars bars;
    private Look look = Look.PLAIN;
    private List<T> values = List.of();
    private int chosen;
    private int lit = -1;
    private String typed = "";
    private IntFunction<String> says = this::plainly;
    private IntFunction<String> names;
    private boolean fixed;
    private double viewLow;
    private double viewHigh = 1;
    private double spanLow;
    private double spanHigh = 1;
    private boolean drawing;
    private boolean shift;
    private final Button fewer;
    private final Button more;
    private final HBox head;
    private final RowTool<T> tool;
    private Steps steps = new Steps() {
        @Override
        public void insert(int at) {
            List<T> changed = new ArrayList<>(values);
            changed.add(at, values.isEmpty() ? fresh : values.get(Math.max(0, at - 1)));
            tell(changed, true);
        }

        @Override
        public void remove(int at) {
            List<T> changed = new ArrayList<>(values);
            changed.remove(at);
            tell(changed, true);
        }

        @Override
        public void length(int length) {
            tell(ofLength(values, length, fresh), true);
        }
    };

    private final PauseTransition typingEnds = new PauseTransition(Duration.seconds(1.2));

    /**
     * @param id of the drawn row
     * @param fresh a step's default
     * @param most the most steps
     * @param change takes all values, and whether the hand has left the row
     */
    public StepRow(
            Session session,
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
        bars = new Bars(session, id, height);
        Label title = new Label(name);
        title.getStyleClass().add("tile-name");
        words.getStyleClass().add("tile-name");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        words.setMinWidth(0);
        fewer = small("−", "fewer-" + id, "One step fewer", () -> removeAt(values.size() - 1));
        more = small("+", "more-" + id, "One step more", () -> insertAt(values.size()));
        tool = new RowTool<>(
                id,
                type,
                most,
                new RowTool.Row<T>() {
                    @Override
                    public List<T> values() {
                        return values;
                    }

                    @Override
                    public void take(List<T> changed) {
                        tell(changed, true);
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
                        return viewLow;
                    }

                    @Override
                    public double high() {
                        return viewHigh;
                    }
                },
                session::say);
        Button menu = small("…", "menu-" + id, "Fill, nudge, turn or reset the whole row", this::unfold);
        head = new HBox(Space.TIGHT, title, words, space, fewer, more, menu);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, bars);
        bars.setOnContextMenuRequested(event -> {
            unfold();
            event.consume();
        });
        typingEnds.setOnFinished(event -> typed = "");
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

    public void look(Look newLook) {
        look = newLook;
        bars.repaint();
    }

    private String plainly(int step) {
        return (step + 1) + " of " + values.size() + ": " + type.show(values.get(step));
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
        spanLow = type.fraction(low);
        spanHigh = type.fraction(high);
        look();
    }

    /** The range of values in view. */
    private void look() {
        viewLow = spanLow;
        viewHigh = spanHigh;
        for (T value : values) {
            viewLow = Math.min(viewLow, type.fraction(value));
            viewHigh = Math.max(viewHigh, type.fraction(value));
        }
    }

    /** Names under the steps, and what is said of the chosen one; such a row has a length of its own that stays. */
    public void named(IntFunction<String> newNames, IntFunction<String> newSays) {
        names = newNames;
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
        return drawing && shift;
    }

    /** The step that is chosen, counted from 0. */
    public int chosen() {
        return chosen;
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
        values = newValues;
        if (!drawing) {
            look();
        }
        chosen = Math.max(0, Math.min(values.size() - 1, chosen));
        say();
        bars.repaint();
    }

    /** Lights the step that is played, or none with -1. */
    public void light(int step) {
        int now = values.isEmpty() ? -1 : step;
        if (now != lit) {
            lit = now;
            bars.repaint();
        }
    }

    private void say() {
        String at = values.isEmpty() ? "no steps" : says.apply(chosen);
        words.setText(at);
        bars.setAccessibleText(name + ", step " + at);
    }

    public void choose(int step) {
        chosen = Math.max(0, Math.min(values.size() - 1, step));
        typed = "";
        say();
        bars.repaint();
    }

    private void set(int step, T value, boolean done) {
        if (step >= 0 && step < values.size()) {
            List<T> changed = new ArrayList<>(values);
            changed.set(step, value);
            tell(changed, done);
        }
    }

    private void tell(List<T> changed, boolean done) {
        boolean differs = !changed.equals(values);
        values = List.copyOf(changed);
        say();
        bars.repaint();
        if (differs || done) {
            change.accept(values, done);
        }
    }

    /** Has steps added and taken away by whoever keeps more of a step than this row shows. */
    public void steps(Steps keeper) {
        steps = keeper;
    }

    /** Adds a step like the one before it. */
    private void insertAt(int at) {
        if (values.size() < most && !fixed) {
            steps.insert(at);
            choose(at);
        }
    }

    private void removeAt(int at) {
        if (!values.isEmpty() && !fixed) {
            steps.remove(at);
            choose(chosen);
        }
    }

    /** Paints if anything has changed; once a frame. */
    public void draw() {
        bars.draw();
    }

    private final class Bars extends Drawing {
        private final double zero;

        Bars(Session session, String id, double height) {
            super(session, id, height);
            double place = Double.NaN;
            try {
                place = type.fraction(type.parse("0"));
            } catch (IllegalArgumentException e) {
                // a type without a nought is drawn from the bottom
            }
            zero = Double.isNaN(place) ? 0 : place;
            addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
            addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
            addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
                drawing = false;
                look();
                tell(values, true);
            });
            addEventHandler(KeyEvent.KEY_TYPED, this::typed);
        }

        private double strip() {
            return names == null ? 0 : NAMES;
        }

        /** The value that lies where the hand is. */
        private T at(MouseEvent event) {
            double tall = getHeight() - 2 * EDGE - strip();
            double up = clamp(1 - (event.getY() - EDGE) / Math.max(1, tall), 0, 1);
            return type.atFraction(viewLow + up * (viewHigh - viewLow));
        }

        private int stepAt(MouseEvent event) {
            return (int) clamp(Math.floor(across(event) * values.size()), 0, values.size() - 1.0);
        }

        private void pressed(MouseEvent event) {
            if (values.isEmpty() || event.isSecondaryButtonDown()) {
                return;
            }
            drawing = true;
            shift = event.isShiftDown();
            choose(stepAt(event));
            if (event.isAltDown()) {
                set(chosen, fresh, false);
            } else {
                set(chosen, at(event), false);
            }
        }

        private void dragged(MouseEvent event) {
            if (!values.isEmpty() && !event.isSecondaryButtonDown() && !event.isAltDown()) {
                int from = chosen;
                choose(stepAt(event));
                // A fast hand passes over steps between two events.
                for (int step = Math.min(from, chosen); step <= Math.max(from, chosen); step++) {
                    if (step != from || from == chosen) {
                        set(step, at(event), false);
                    }
                }
            }
            event.consume();
        }

        private void nudge(int direction, boolean fine) {
            set(chosen, type.step(values.get(chosen), direction, fine), true);
        }

        @Override
        public boolean key(KeyEvent event) {
            KeyCode code = event.getCode();
            if (code == KeyCode.INSERT) {
                insertAt(Math.min(values.size(), chosen + 1));
                return true;
            }
            if (values.isEmpty()) {
                return false;
            }
            switch (code) {
                case LEFT -> choose(chosen - 1);
                case RIGHT -> choose(chosen + 1);
                case UP -> nudge(1, event.isShiftDown());
                case DOWN -> nudge(-1, event.isShiftDown());
                case DELETE, BACK_SPACE -> {
                    if (event.isShiftDown()) {
                        removeAt(chosen);
                    } else {
                        set(chosen, fresh, true);
                    }
                }
                default -> {
                    return false;
                }
            }
            return true;
        }

        /** Digits gather to a number; each that makes a value sets it. */
        private void typed(KeyEvent event) {
            String character = event.getCharacter();
            if (values.isEmpty() || event.isShortcutDown() || !character.matches("[\\d-]")) {
                return;
            }
            typed += character;
            typingEnds.playFromStart();
            try {
                set(chosen, type.parse(typed), true);
            } catch (IllegalArgumentException e) {
                session().say(name + ": " + e.getMessage());
            }
            event.consume();
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double whole) {
            double height = whole - strip();
            double step = width / Math.max(1, values.size());
            for (int i = 0; i < values.size(); i++) {
                double left = i * step;
                // Steps are told in fours; a row with names has a middle.
                boolean beat = names == null ? i % 4 == 0 : i == values.size() / 2;
                g.setFill(faint(theme.rule, i == lit ? 1 : beat ? 0.6 : 0.35));
                g.fillRect(left + 0.5, 0, step - 1, height);
                paintBar(g, theme, i, left, step, height);
                if (i == chosen && isFocused()) {
                    g.setStroke(theme.brassText);
                    g.strokeRect(left + 1, 0.5, step - 2, height - 1);
                }
            }
            if (place(zero) > 0) {
                g.setFill(theme.soft);
                g.fillRect(0, Math.round((1 - place(zero)) * height), width, 1);
            }
            if (names != null) {
                paintNames(g, theme, step, whole);
            }
        }

        /** Where on the drawing a place in the type's range lies, from the bottom. */
        private double place(double fraction) {
            return clamp((fraction - viewLow) / (viewHigh - viewLow), 0, 1);
        }

        /** Where they have room, else those that stand, and the chosen one over all others. */
        private void paintNames(GraphicsContext g, Theme theme, double step, double whole) {
            double free = 0;
            for (int i = 0; i < values.size(); i++) {
                String text = names.apply(i);
                double wide = 6.5 * text.length();
                double x = clamp((i + 0.5) * step - wide / 2, 0, values.size() * step - wide);
                boolean stands = type.fraction(values.get(i)) > zero;
                boolean hidden = i != chosen && Math.abs(i - chosen) * step < wide + 4;
                if (!hidden && x >= free && (stands || i == chosen || step >= wide)) {
                    g.setFill(i == chosen && isFocused() ? theme.brassText : stands ? theme.ink : theme.soft);
                    g.fillText(text, x, whole - 3);
                    free = x + wide + 4;
                }
            }
        }

        private void paintBar(GraphicsContext g, Theme theme, int i, double left, double step, double height) {
            int pieces = look.pieces(i);
            if (pieces == 0 || names != null && type.fraction(values.get(i)) <= zero) {
                return;
            }
            // A tie goes on at the height of the step it ties to, an open value stands at a height of its own.
            int of = i;
            while (of > 0 && look.tied(of)) {
                of--;
            }
            boolean hollow = look.hollow(of);
            double top = (1 - (hollow ? OPEN : place(type.fraction(values.get(of))))) * height;
            double base = (1 - place(zero)) * height;
            double y = Math.min(top, base);
            double tall = Math.max(2, Math.abs(base - top));
            boolean tied = look.tied(i);
            double wide = Math.max(2, Math.min(1, look.width(i)) * (step - 2));
            double x = tied ? left - 2 : left + 1;
            double w = tied ? wide + 3 : wide;
            g.setFill(faint(i == lit ? theme.brass : theme.ink, (0.25 + 0.65 * look.strength(i)) * (hollow ? 0.3 : 1)));
            if (hollow) {
                g.setStroke(faint(i == lit ? theme.brass : theme.ink, 0.6));
                g.strokeRect(x + 0.5, y + 0.5, w - 1, tall - 1);
            }
            for (int piece = 0; piece < pieces; piece++) {
                double part = tall / pieces;
                g.fillRect(x, y + piece * part, w, pieces == 1 ? part : Math.max(1, part - 1.5));
            }
        }
    }
}
