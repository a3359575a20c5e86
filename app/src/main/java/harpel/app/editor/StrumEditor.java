package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.look.Theme;
import harpel.effect.held.Strum;
import harpel.effect.held.Strum.Stroke;
import harpel.time.TimeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/** A stroke over six strings: when each is struck, and how loudly. */
final class StrumEditor extends StageEditor {
    private static final int STRINGS = 6;

    private final Strings strings;
    private final Label words = words("strum-words");

    public StrumEditor(Around around, Edit edit) {
        super(around, edit);
        strings = new Strings(around);
        getChildren().addAll(strings, words);
    }

    @Override
    public void show() {
        TimeMap time = around().document().piece().get().time();
        String moments = IntStream.range(0, STRINGS)
                .mapToObj(k -> {
                    double share = Strum.place(stage().params(), k, STRINGS);
                    long tick = time.after(0, get(Strum.SPREAD), share);
                    return String.valueOf(Math.round(time.tempo().nanosAt(tick) / 1e6));
                })
                .collect(Collectors.joining(" "));
        words.setText("Six strings are struck after " + moments + " ms.");
        strings.setAccessibleText("Stroke: " + words.getText());
        strings.repaint();
    }

    @Override
    public void draw() {
        strings.draw();
    }

    private final class Strings extends Drawing {
        private double pressedAcross;
        private double pressedUp;
        private double spread;
        private double curve;

        Strings(Around around) {
            super(around.look(), "strum-strings", 84);
            addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                pressedAcross = across(event);
                pressedUp = up(event);
                spread = Strum.SPREAD.type().fraction(get(Strum.SPREAD));
                curve = Strum.CURVE.type().fraction(get(Strum.CURVE));
            });
            addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
            addEventHandler(MouseEvent.MOUSE_RELEASED, event -> set(Strum.CURVE, get(Strum.CURVE), true));
            tip(
                    this,
                    "Drag sideways for the time of the whole stroke, up and down for its curve.\n"
                            + "Left and Right: time; Up and Down: curve, Shift finely.");
        }

        private void dragged(MouseEvent event) {
            double right = across(event) - pressedAcross;
            double higher = up(event) - pressedUp;
            // One gesture sets one of both: the way it goes farther.
            if (Math.abs(right) * getWidth() > Math.abs(higher) * getHeight()) {
                set(Strum.SPREAD, Strum.SPREAD.type().atFraction(clamp(spread + right * 0.5, 0, 1)), false);
            } else {
                set(Strum.CURVE, Strum.CURVE.type().atFraction(clamp(curve + higher, 0, 1)), false);
            }
            event.consume();
        }

        @Override
        public boolean reset() {
            return StrumEditor.this.reset(Strum.SPREAD, Strum.CURVE);
        }

        @Override
        public boolean key(KeyEvent event) {
            return switch (event.getCode()) {
                case LEFT -> step(Strum.SPREAD, -1, event.isShiftDown());
                case RIGHT -> step(Strum.SPREAD, 1, event.isShiftDown());
                case UP -> step(Strum.CURVE, 1, event.isShiftDown());
                case DOWN -> step(Strum.CURVE, -1, event.isShiftDown());
                default -> false;
            };
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            boolean down = get(Strum.STROKE) != Stroke.HIGH_TO_LOW;
            double between = height / STRINGS;
            for (int k = 0; k < STRINGS; k++) {
                int string = down ? k : STRINGS - 1 - k;
                double y = height - (string + 0.5) * between;
                double x = 8 + Strum.place(stage().params(), k, STRINGS) * (width - 30);
                double r = clamp(Strum.velocity(stage().params(), 90, k, STRINGS) / 24, 1.5, 6);
                g.setFill(theme.rule);
                g.fillRect(0, y, width, 1);
                g.setFill(faint(theme.brass, 0.5));
                g.fillRect(x, y - 0.5, width - x, 2);
                g.setFill(theme.ink);
                g.fillOval(x - r, y - r, 2 * r, 2 * r);
            }
        }
    }
}
