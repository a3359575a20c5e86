package harpel.app.draw;

import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.look.Theme;
import harpel.param.ParamType;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import javafx.animation.PauseTransition;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.util.Duration;

/**
 * The bars of a row of steps, and what the hand does to them.
 *
 * @param <T> the class of a step's value
 */
public final class StepBars<T> extends Drawing {
    private static final double NAMES = 15;
    private static final double OPEN = 0.7;

    /** The row that the bars stand in. */
    interface Row<T> {
        /** @param done whether the hand has left the row */
        void changed(List<T> values, boolean done);

        void insertAt(int at);

        void removeAt(int at);

        /** Another step is chosen, or the chosen one's value is another. */
        void say();
    }

    private final String name;
    private final ParamType<T> type;
    private final T fresh;
    private final Row<T> row;
    private final double zero;
    private final PauseTransition typingEnds = new PauseTransition(Duration.seconds(1.2));
    private final Messages messages;
    private StepRow.Face face = StepRow.Face.PLAIN;
    private List<T> values = List.of();
    private int chosen;
    private int lit = -1;
    private String typed = "";
    private IntFunction<String> names;
    private double viewLow;
    private double viewHigh = 1;
    private double spanLow;
    private double spanHigh = 1;
    private boolean drawing;
    private boolean shift;

    /** @param fresh a step's default */
    StepBars(
            Look look,
            Messages messages,
            String id,
            double height,
            String name,
            ParamType<T> type,
            T fresh,
            Row<T> row) {
        super(look, id, height);
        this.messages = messages;
        this.name = name;
        this.type = type;
        this.fresh = fresh;
        this.row = row;
        typingEnds.setOnFinished(event -> typed = "");
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
            fit();
            tell(values, true);
        });
        addEventHandler(KeyEvent.KEY_TYPED, this::typed);
    }

    List<T> values() {
        return values;
    }

    /** The step that is chosen, counted from 0. */
    int chosen() {
        return chosen;
    }

    /** The range in view, as fractions of the type's. */
    double low() {
        return viewLow;
    }

    double high() {
        return viewHigh;
    }

    boolean isShiftDrawn() {
        return drawing && shift;
    }

    void face(StepRow.Face newFace) {
        face = newFace;
        repaint();
    }

    void names(IntFunction<String> newNames) {
        names = newNames;
    }

    /** The range that is drawn, as fractions of the type's, as long as no value lies outside. */
    void span(double low, double high) {
        spanLow = low;
        spanHigh = high;
        fit();
    }

    /** The range of values in view. */
    private void fit() {
        viewLow = spanLow;
        viewHigh = spanHigh;
        for (T value : values) {
            viewLow = Math.min(viewLow, type.fraction(value));
            viewHigh = Math.max(viewHigh, type.fraction(value));
        }
    }

    void show(List<T> newValues) {
        values = newValues;
        if (!drawing) {
            fit();
        }
        chosen = Math.max(0, Math.min(values.size() - 1, chosen));
        row.say();
        repaint();
    }

    void light(int step) {
        int now = values.isEmpty() ? -1 : step;
        if (now != lit) {
            lit = now;
            repaint();
        }
    }

    void choose(int step) {
        chosen = Math.max(0, Math.min(values.size() - 1, step));
        typed = "";
        row.say();
        repaint();
    }

    private void set(int step, T value, boolean done) {
        if (step >= 0 && step < values.size()) {
            List<T> changed = new ArrayList<>(values);
            changed.set(step, value);
            tell(changed, done);
        }
    }

    void tell(List<T> changed, boolean done) {
        boolean differs = !changed.equals(values);
        values = List.copyOf(changed);
        row.say();
        repaint();
        if (differs || done) {
            row.changed(values, done);
        }
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
            row.insertAt(Math.min(values.size(), chosen + 1));
            return true;
        }
        if (values.isEmpty()) {
            return false;
        }
        switch (code) {
            case HOME -> choose(0);
            case END -> choose(values.size() - 1);
            case LEFT -> choose(chosen - 1);
            case RIGHT -> choose(chosen + 1);
            case UP -> nudge(1, event.isShiftDown());
            case DOWN -> nudge(-1, event.isShiftDown());
            case DELETE, BACK_SPACE -> {
                if (event.isShiftDown()) {
                    row.removeAt(chosen);
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
            messages.say(name + ": " + e.getMessage());
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
        int pieces = face.pieces(i);
        if (pieces == 0 || names != null && type.fraction(values.get(i)) <= zero) {
            return;
        }
        // A tie goes on at the height of the step it ties to, an open value stands at a height of its own.
        int of = i;
        while (of > 0 && face.tied(of)) {
            of--;
        }
        boolean hollow = face.hollow(of);
        double top = (1 - (hollow ? OPEN : place(type.fraction(values.get(of))))) * height;
        double base = (1 - place(zero)) * height;
        double y = Math.min(top, base);
        double tall = Math.max(2, Math.abs(base - top));
        boolean tied = face.tied(i);
        double wide = Math.max(2, Math.min(1, face.width(i)) * (step - 2));
        double x = tied ? left - 2 : left + 1;
        double w = tied ? wide + 3 : wide;
        g.setFill(faint(i == lit ? theme.brass : theme.ink, (0.25 + 0.65 * face.strength(i)) * (hollow ? 0.3 : 1)));
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
