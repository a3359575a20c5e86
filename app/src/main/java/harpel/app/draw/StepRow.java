package harpel.app.draw;

import harpel.app.session.Session;
import harpel.app.session.Theme;
import harpel.app.ui.Buttons;
import harpel.app.ui.Tips;
import harpel.param.ParamType;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.geometry.Side;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
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
    private static final double LITTLE = 0.08;
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
        super(1);
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
        Button fewer = small("−", "fewer-" + id, "One step fewer", () -> removeAt(values.size() - 1));
        Button more = small("+", "more-" + id, "One step more", () -> insertAt(values.size()));
        Button menu = small("…", "menu-" + id, "Fill, nudge or reset the whole row", this::offer);
        HBox head = new HBox(4, title, words, space, fewer, more, menu);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, bars);
        bars.setOnContextMenuRequested(event -> {
            offer();
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

    public void show(List<T> newValues) {
        values = newValues;
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
        String at = values.isEmpty()
                ? "no steps"
                : (chosen + 1) + " of " + values.size() + ": " + type.show(values.get(chosen));
        words.setText(at);
        bars.setAccessibleText(name + ", step " + at);
    }

    private void choose(int step) {
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
        if (values.size() < most) {
            steps.insert(at);
            choose(at);
        }
    }

    private void removeAt(int at) {
        if (!values.isEmpty()) {
            steps.remove(at);
            choose(chosen);
        }
    }

    private void offer() {
        ContextMenu menu = new ContextMenu();
        menu.setId("row-menu");
        offer(menu, "Fill at random", () -> shuffle(1));
        offer(menu, "Nudge at random, a little", () -> shuffle(LITTLE));
        offer(
                menu,
                "Reset the row",
                () -> tell(values.stream().map(value -> fresh).toList(), true));
        menu.show(bars, Side.BOTTOM, 0, 0);
    }

    private void shuffle(double how) {
        tell(
                values.stream()
                        .map(value -> type.shuffled(value, how, Math::random))
                        .toList(),
                true);
    }

    private static void offer(ContextMenu menu, String text, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setOnAction(event -> action.run());
        menu.getItems().add(item);
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
            addEventHandler(MouseEvent.MOUSE_RELEASED, event -> tell(values, true));
            addEventHandler(KeyEvent.KEY_TYPED, this::typed);
        }

        private int stepAt(MouseEvent event) {
            return (int) clamp(Math.floor(across(event) * values.size()), 0, values.size() - 1.0);
        }

        private void pressed(MouseEvent event) {
            if (values.isEmpty() || event.isSecondaryButtonDown()) {
                return;
            }
            choose(stepAt(event));
            if (event.isAltDown()) {
                set(chosen, fresh, false);
            } else {
                set(chosen, type.atFraction(clamp(up(event), 0, 1)), false);
            }
        }

        private void dragged(MouseEvent event) {
            if (!values.isEmpty() && !event.isSecondaryButtonDown() && !event.isAltDown()) {
                int from = chosen;
                choose(stepAt(event));
                // A fast hand passes over steps between two events.
                for (int step = Math.min(from, chosen); step <= Math.max(from, chosen); step++) {
                    if (step != from || from == chosen) {
                        set(step, type.atFraction(clamp(up(event), 0, 1)), false);
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
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            double step = width / Math.max(1, values.size());
            for (int i = 0; i < values.size(); i++) {
                double left = i * step;
                boolean beat = i % 4 == 0;
                g.setFill(faint(theme.rule, i == lit ? 1 : beat ? 0.6 : 0.35));
                g.fillRect(left + 0.5, 0, step - 1, height);
                paintBar(g, theme, i, left, step, height);
                if (i == chosen && isFocused()) {
                    g.setStroke(theme.brassText);
                    g.strokeRect(left + 1, 0.5, step - 2, height - 1);
                }
            }
            if (zero > 0) {
                g.setFill(theme.soft);
                g.fillRect(0, Math.round((1 - zero) * height), width, 1);
            }
        }

        private void paintBar(GraphicsContext g, Theme theme, int i, double left, double step, double height) {
            int pieces = look.pieces(i);
            if (pieces == 0) {
                return;
            }
            // A tie goes on at the height of the step it ties to, an open value stands at a height of its own.
            int of = i;
            while (of > 0 && look.tied(of)) {
                of--;
            }
            boolean hollow = look.hollow(of);
            double top = (1 - (hollow ? OPEN : type.fraction(values.get(of)))) * height;
            double base = (1 - zero) * height;
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
