package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.look.Theme;
import harpel.app.transport.Places;
import harpel.app.transport.TraceStore;
import harpel.effect.pitch.NoteBend;
import harpel.theory.Interval;
import harpel.theory.Pitch;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/** Which note bends how far: notes across, the bend up, and the note that came last on the line. */
final class BendEditor extends StageEditor {
    private static final int AROUND = 24;

    private final Line line;
    private final Label words = words("bend-words");
    private final Label lastWords = words("bend-last");

    public BendEditor(Around around, Edit edit) {
        super(around, edit);
        line = new Line(around);
        getChildren().addAll(line, lastWords, words);
    }

    @Override
    public void show() {
        int centre = get(NoteBend.CENTRE);
        int range = get(NoteBend.BEND_RANGE);
        words.setText(Pitch.shown(centre, around().spelling()) + " bends nothing; "
                + Interval.ofSemitones(range).shown() + " is a full bend, reached at "
                + named(centre - range) + " and " + named(centre + range) + ".");
        line.repaint();
    }

    private String named(int pitch) {
        return Pitch.inRange(pitch) ? Pitch.shown(pitch, around().spelling()) : "a note beyond 0–127";
    }

    @Override
    public void draw() {
        line.follow();
        line.draw();
    }

    private final class Line extends Drawing {
        private int last = -1;
        private double pressedAcross;
        private double pressedUp;
        private int centre;
        private double range;

        Line(Around around) {
            super(around.look(), "bend-line", 104);
            addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                pressedAcross = across(event);
                pressedUp = up(event);
                centre = get(NoteBend.CENTRE);
                range = get(NoteBend.BEND_RANGE);
            });
            addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
            addEventHandler(MouseEvent.MOUSE_RELEASED, event -> set(NoteBend.CENTRE, get(NoteBend.CENTRE), true));
            tip(
                    this,
                    "Drag sideways for the note that bends nothing, up and down for the range.\n"
                            + "Left and Right: the note; Up and Down: the range.");
        }

        void follow() {
            List<TraceStore.Drawn> notes =
                    around().transport().traces().last(Places.before(around().document(), address()), 1);
            int now = notes.isEmpty() ? -1 : notes.get(0).note.pitch();
            if (now != last) {
                last = now;
                repaint();
            }
            lastWords.setText(last < 0 ? "" : "Last: " + told(last) + ".");
            setAccessibleText("Bend. " + words.getText() + " " + lastWords.getText());
        }

        private String told(int pitch) {
            int bend = NoteBend.bend(stage().params(), pitch);
            return Pitch.shown(pitch, around().spelling()) + " "
                    + (bend < 0
                            ? "is left out"
                            : Interval.ofSemitones(pitch - get(NoteBend.CENTRE)).shown() + ", bend " + bend);
        }

        private void dragged(MouseEvent event) {
            double right = across(event) - pressedAcross;
            double higher = up(event) - pressedUp;
            if (Math.abs(right) * getWidth() > Math.abs(higher) * getHeight()) {
                set(NoteBend.CENTRE, (int) clamp(Math.round(centre + right * 2 * AROUND), 0, 127), false);
            } else {
                set(NoteBend.BEND_RANGE, (int) clamp(Math.round(range + higher * AROUND), 1, 48), false);
            }
            event.consume();
        }

        @Override
        public boolean reset() {
            return BendEditor.this.reset(NoteBend.CENTRE, NoteBend.BEND_RANGE);
        }

        @Override
        public boolean key(KeyEvent event) {
            return switch (event.getCode()) {
                case LEFT -> step(NoteBend.CENTRE, -1, true);
                case RIGHT -> step(NoteBend.CENTRE, 1, true);
                case UP -> step(NoteBend.BEND_RANGE, 1, true);
                case DOWN -> step(NoteBend.BEND_RANGE, -1, true);
                default -> false;
            };
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            int middle = get(NoteBend.CENTRE);
            double tall = height - 14;
            g.setFill(theme.soft);
            g.fillRect(0, tall / 2, width, 1);
            for (int pitch = middle - AROUND; pitch <= middle + AROUND; pitch++) {
                double x = (pitch - middle + AROUND + 0.5) * width / (2 * AROUND + 1);
                int name = Pitch.pitchClass(pitch);
                boolean string = name == 0 || name == 5;
                g.setFill(string ? faint(name == 0 ? theme.red : theme.blue, 0.5) : faint(theme.rule, 0.5));
                g.fillRect(x, 0, 1, tall);
                int bend = Pitch.inRange(pitch) ? NoteBend.bend(stage().params(), pitch) : -1;
                if (bend >= 0) {
                    double y = tall - bend / 16383.0 * tall;
                    g.setFill(pitch == last ? theme.brass : theme.ink);
                    double r = pitch == last ? 4.5 : 2;
                    g.fillOval(x - r, y - r, 2 * r, 2 * r);
                }
                if (name == 0 && Pitch.inRange(pitch)) {
                    g.setFill(theme.soft);
                    g.fillText(Pitch.shown(pitch, around().spelling()), clamp(x - 8, 0, width - 16), height - 1);
                }
            }
        }
    }
}
