package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.look.Theme;
import harpel.app.transport.Words;
import harpel.effect.notes.Echo;
import harpel.event.NoteStart;
import harpel.theory.Interval;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/** The repeats of an echo as bars that fade, higher or lower where they move in pitch. */
final class EchoEditor extends StageEditor {
    private static final int PLAYED = 100;
    private static final int MOST = 16;

    private final Repeats repeats;
    private final Label words = words("echo-words");

    public EchoEditor(Around around, Edit edit) {
        super(around, edit);
        repeats = new Repeats(around);
        getChildren().addAll(repeats, words);
    }

    private int velocity(int k) {
        return NoteStart.clampVelocity(Echo.velocity(stage().params(), PLAYED, k));
    }

    @Override
    public void show() {
        String velocities = IntStream.rangeClosed(1, get(Echo.REPEATS))
                .mapToObj(k -> String.valueOf(velocity(k)))
                .collect(Collectors.joining(" "));
        double bars = get(Echo.REPEATS)
                * get(Echo.TIME).ticksAt(0, around().document().piece().get().time())
                / around().document().piece().get().time().meter().at(0).barTicks();
        words.setText(
                velocities.isEmpty()
                        ? "No repeats."
                        : "Velocity 100 comes again as " + velocities + ", over " + Words.number(bars)
                                + (bars == 1 ? " bar." : " bars."));
        repeats.setAccessibleText("Repeats: " + words.getText());
        repeats.repaint();
    }

    @Override
    public void draw() {
        repeats.draw();
    }

    private final class Repeats extends Drawing {
        private boolean counting;

        Repeats(Around around) {
            super(around.look(), "echo-bars", 76);
            addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                int k = placeAt(event);
                counting = k > get(Echo.REPEATS) || up(event) < 0.12;
                take(event);
            });
            addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
                take(event);
                event.consume();
            });
            addEventHandler(MouseEvent.MOUSE_RELEASED, event -> set(Echo.FADE, get(Echo.FADE), true));
            tip(
                    this,
                    "Drag a repeat up or down for the fading; drag along the foot, or press beyond the last, for how many.\n"
                            + "Left and Right: how many; Up and Down: fading, Shift finely; Delete: defaults.");
        }

        private int placeAt(MouseEvent event) {
            return (int) clamp(Math.floor(across(event) * (MOST + 1)), 0, MOST);
        }

        private void take(MouseEvent event) {
            int k = placeAt(event);
            if (counting) {
                set(Echo.REPEATS, k, false);
            } else if (k > 0) {
                double left = Math.pow(clamp(up(event), 0, 1), 1.0 / k);
                set(Echo.FADE, (int) Math.round(100 * (1 - left)), false);
            }
        }

        @Override
        public boolean reset() {
            return EchoEditor.this.reset(Echo.REPEATS, Echo.FADE);
        }

        @Override
        public boolean key(KeyEvent event) {
            return switch (event.getCode()) {
                case LEFT -> step(Echo.REPEATS, -1, true);
                case RIGHT -> step(Echo.REPEATS, 1, true);
                case UP -> step(Echo.FADE, -1, event.isShiftDown());
                case DOWN -> step(Echo.FADE, 1, event.isShiftDown());
                default -> false;
            };
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            double place = width / (MOST + 1);
            Interval shift = get(Echo.SHIFT);
            for (int k = 0; k <= MOST; k++) {
                g.setFill(faint(theme.rule, 0.35));
                g.fillRect(k * place + 0.5, 0, place - 1, height);
                if (k <= get(Echo.REPEATS)) {
                    double tall = Math.max(2, height * velocity(k) / PLAYED);
                    boolean sounds = k > 0 || get(Echo.FIRST) == Echo.First.KEEP;
                    if (sounds) {
                        g.setFill(faint(theme.ink, k == 0 ? 0.9 : 0.3 + 0.6 * get(Echo.CHANCE) / 100.0));
                        g.fillRect(k * place + 2, height - tall, place - 4, tall);
                    } else {
                        g.setStroke(theme.soft);
                        g.strokeRect(k * place + 2.5, 0.5, place - 5, height - 1);
                    }
                    if (k > 0 && shift.amount() != 0) {
                        double y = clamp(height / 2 - shift.amount() * k * 1.5, 2, height - 2);
                        g.setFill(theme.brass);
                        g.fillRect(k * place + 2, y - 1.5, place - 4, 3);
                    }
                }
            }
        }
    }
}
