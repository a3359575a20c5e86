package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.session.Session;
import harpel.app.session.Theme;
import harpel.effect.notes.Pulse;
import java.util.Locale;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/** The cycle of a pulse: steps that always sound stand full, the others as high as their chance. */
final class PulseEditor extends StageEditor {
    private final Cycle cycle;
    private final Label words = words("pulse-words");

    public PulseEditor(Session session, Edit edit) {
        super(session, edit);
        cycle = new Cycle(session);
        getChildren().addAll(cycle, words);
    }

    @Override
    public void show() {
        boolean[] must = Pulse.mustSteps(stage().params());
        int always = 0;
        for (boolean one : must) {
            always += one ? 1 : 0;
        }
        double expected = always + (must.length - always) * get(Pulse.FILL) / 100.0;
        double step =
                get(Pulse.PACE).ticksAt(0, session().document().piece().get().time());
        double bar = session().document().piece().get().time().meter().at(0).barTicks();
        words.setText(String.format(
                Locale.ROOT,
                "%d of %d steps always sound, %d with a chance of %d %%: about %.1f a bar.",
                always,
                must.length,
                must.length - always,
                get(Pulse.FILL),
                expected * bar / (step * must.length)));
        cycle.setAccessibleText("Cycle: " + words.getText());
        cycle.repaint();
    }

    @Override
    public void draw() {
        cycle.light(session().transport().traces().step(address().toString(), 0));
        cycle.draw();
    }

    private final class Cycle extends Drawing {
        private int lit = -1;
        private int pressedStep;
        private int pressedOffset;
        private boolean turning;

        Cycle(Session session) {
            super(session, "pulse-steps", 58);
            addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
            addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
            addEventHandler(MouseEvent.MOUSE_RELEASED, event -> set(Pulse.FILL, get(Pulse.FILL), true));
            tip(
                    this,
                    "Drag a full step sideways to turn the cycle; drag between them up and down for the chance of the others.\n"
                            + "Left and Right turn it, Up and Down set the chance, Page Up and Page Down how many steps are spread"
                            + " evenly.");
        }

        void light(int step) {
            if (step != lit) {
                lit = step;
                repaint();
            }
        }

        private int stepAt(MouseEvent event) {
            int steps = get(Pulse.STEPS);
            return (int) clamp(Math.floor(across(event) * steps), 0, steps - 1.0);
        }

        private void pressed(MouseEvent event) {
            pressedStep = stepAt(event);
            pressedOffset = get(Pulse.OFFSET);
            turning = Pulse.mustSteps(stage().params())[pressedStep];
            if (!turning) {
                fill(event);
            }
        }

        private void fill(MouseEvent event) {
            set(Pulse.FILL, (int) Math.round(100 * clamp(up(event), 0, 1)), false);
        }

        private void dragged(MouseEvent event) {
            if (turning) {
                set(Pulse.OFFSET, Math.floorMod(pressedOffset + stepAt(event) - pressedStep, get(Pulse.STEPS)), false);
            } else {
                fill(event);
            }
            event.consume();
        }

        @Override
        public boolean reset() {
            return PulseEditor.this.reset(Pulse.OFFSET, Pulse.FILL, Pulse.EVEN_SPREAD);
        }

        @Override
        public boolean key(KeyEvent event) {
            switch (event.getCode()) {
                case LEFT -> set(Pulse.OFFSET, Math.floorMod(get(Pulse.OFFSET) - 1, get(Pulse.STEPS)), true);
                case RIGHT -> set(Pulse.OFFSET, (get(Pulse.OFFSET) + 1) % get(Pulse.STEPS), true);
                case UP -> step(Pulse.FILL, 1, event.isShiftDown());
                case DOWN -> step(Pulse.FILL, -1, event.isShiftDown());
                case PAGE_UP -> step(Pulse.EVEN_SPREAD, 1, true);
                case PAGE_DOWN -> step(Pulse.EVEN_SPREAD, -1, true);
                default -> {
                    return false;
                }
            }
            return true;
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            boolean[] must = Pulse.mustSteps(stage().params());
            double step = width / must.length;
            for (int i = 0; i < must.length; i++) {
                g.setFill(faint(theme.rule, i == lit ? 1 : i % 4 == 0 ? 0.6 : 0.35));
                g.fillRect(i * step + 0.5, 0, step - 1, height);
                if (must[i]) {
                    g.setFill(i == lit ? theme.brass : theme.ink);
                    g.fillRect(i * step + 1, 0, Math.max(2, step - 2), height);
                } else if (get(Pulse.FILL) > 0) {
                    double tall = height * get(Pulse.FILL) / 100.0;
                    g.setStroke(i == lit ? theme.brass : theme.soft);
                    g.strokeRect(i * step + 1.5, height - tall + 0.5, Math.max(1, step - 3), Math.max(1, tall - 1));
                }
            }
        }
    }
}
