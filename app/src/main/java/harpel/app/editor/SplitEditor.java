package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.look.Theme;
import harpel.chain.Branch;
import harpel.effect.route.Split;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.type.SpanType.Span;
import harpel.theory.Pitch;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/** Which notes each branch takes: its keys as a band over all 128, and under it, narrower, its velocities. */
final class SplitEditor extends StageEditor {
    private static final double BAND = 26;
    /** From where in a band, counted from its top, a press means the velocities. */
    private static final double VELOCITY_FROM = 0.62;

    private final Label words = words("split-words");
    private Bands bands;

    public SplitEditor(Around around, Edit edit) {
        super(around, edit);
    }

    private List<Branch> branches() {
        return stage().branches();
    }

    @Override
    public void show() {
        if (bands == null || bands.branches != branches().size()) {
            bands = new Bands(around(), branches().size());
            getChildren().setAll(bands, words);
        }
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < branches().size(); i++) {
            text.append(i == 0 ? "" : "\n")
                    .append(i + 1)
                    .append(" takes ")
                    .append(Split.describeTakes(branches().get(i).takes(), around().spelling()));
        }
        words.setText(text.toString());
        bands.say();
        bands.repaint();
    }

    @Override
    public void draw() {
        bands.draw();
    }

    private final class Bands extends Drawing {
        private final int branches;
        private int chosen;
        private boolean low;
        private Param<Span> dragged = Split.KEYS;

        Bands(Around around, int branches) {
            super(around.look(), "split-bands", Math.max(1, branches) * BAND + 2 * EDGE);
            this.branches = branches;
            addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
            addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
                move(valueAt(event), false);
                event.consume();
            });
            addEventHandler(
                    MouseEvent.MOUSE_RELEASED, event -> around.document().endGesture());
            tip(
                    this,
                    "Drag an end of a band: above the keys a branch takes, below its velocities.\n"
                            + "Up and Down choose a branch, Left and Right move the lower end of its keys, with Shift the upper one;"
                            + " Enter shows the branch.");
        }

        private int valueAt(MouseEvent event) {
            return (int) clamp(Math.round(across(event) * 127), 0, 127);
        }

        private void pressed(MouseEvent event) {
            double y = (1 - up(event)) * branches;
            chosen = (int) clamp(Math.floor(y), 0, branches - 1.0);
            dragged = y - chosen > VELOCITY_FROM ? Split.VELOCITY : Split.KEYS;
            Span span = branches().get(chosen).takes().get(dragged);
            int value = valueAt(event);
            low = Math.abs(value - span.low()) < Math.abs(value - span.high());
            if (event.getClickCount() == 2) {
                around().selection().selected().set(address().branch(chosen + 1));
            }
            say();
            repaint();
        }

        private void move(int value, boolean done) {
            Span span = branches().get(chosen).takes().get(dragged);
            int least = dragged == Split.KEYS ? 0 : 1;
            Span moved = low
                    ? new Span(Math.max(least, Math.min(value, span.high())), span.high())
                    : new Span(span.low(), Math.max(value, span.low()));
            int branch = chosen;
            Param<Span> param = dragged;
            around().selection()
                    .editStage(
                            "Set " + param.id() + " of branch " + (branch + 1),
                            address() + " takes " + param.id() + branch,
                            address(),
                            stage -> stage.withTakes(branch + 1, takes -> takes.with(param, moved)));
            if (done) {
                around().document().endGesture();
            }
        }

        void say() {
            chosen = Math.min(chosen, Math.max(0, branches - 1));
            if (branches > 0) {
                setAccessibleText("Branch " + (chosen + 1) + " takes "
                        + Split.describeTakes(branches().get(chosen).takes(), around().spelling()));
            }
        }

        @Override
        public boolean key(KeyEvent event) {
            KeyCode code = event.getCode();
            if (branches == 0) {
                return false;
            }
            switch (code) {
                case UP -> chosen = Math.max(0, chosen - 1);
                case DOWN -> chosen = Math.min(branches - 1, chosen + 1);
                case LEFT, RIGHT -> {
                    dragged = Split.KEYS;
                    low = !event.isShiftDown();
                    Span span = branches().get(chosen).takes().get(Split.KEYS);
                    int by = code == KeyCode.LEFT ? -1 : 1;
                    move((int) clamp((low ? span.low() : span.high()) + by, 0, 127), true);
                }
                case ENTER -> around().selection().selected().set(address().branch(chosen + 1));
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
            double unit = width / 128;
            for (int pitch = 0; pitch < 128; pitch++) {
                int name = Pitch.pitchClass(pitch);
                if (name == 0 || name == 5) {
                    g.setFill(faint(name == 0 ? theme.red : theme.blue, 0.3));
                    g.fillRect(pitch * unit, 0, 1, height);
                }
            }
            for (int i = 0; i < branches; i++) {
                ParamSet takes = branches().get(i).takes();
                Span keys = takes.get(Split.KEYS);
                Span velocity = takes.get(Split.VELOCITY);
                double band = height / branches;
                double top = i * band;
                g.setFill(faint(theme.ink, 0.75));
                g.fillRect(
                        keys.low() * unit,
                        top + 2,
                        Math.max(2, (keys.high() - keys.low() + 1) * unit),
                        band * (VELOCITY_FROM - 0.12));
                g.setFill(theme.sage);
                g.fillRect(
                        velocity.low() * unit,
                        top + band * (VELOCITY_FROM + 0.03),
                        Math.max(2, (velocity.high() - velocity.low() + 1) * unit),
                        band * 0.18);
                g.setFill(theme.paper);
                g.fillText(
                        String.valueOf(i + 1),
                        (keys.low() + keys.high()) / 2.0 * unit - 3,
                        top + 2 + band * (VELOCITY_FROM - 0.12) / 2 + 4);
                if (i == chosen && isFocused()) {
                    g.setStroke(theme.brassText);
                    g.strokeRect(0.5, top + 0.5, width - 1, band - 2);
                }
            }
        }
    }
}
