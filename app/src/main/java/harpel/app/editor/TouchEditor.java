package harpel.app.editor;

import harpel.app.draw.PointsDrawing;
import harpel.app.look.Theme;
import harpel.app.transport.Places;
import harpel.app.transport.TraceStore;
import harpel.effect.shape.Touch;
import harpel.event.NoteStart;
import harpel.param.type.PointsType;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/** Velocity in to velocity out as a line, with the notes that just came through as dots. */
final class TouchEditor extends StageEditor {
    private static final int LATELY = 24;
    private static final double SPAN = 126;

    private final Line line;
    private final Label words = words("touch-words");

    public TouchEditor(Around around, Edit edit) {
        super(around, edit);
        line = new Line(around);
        getChildren().addAll(line, words);
    }

    @Override
    public void show() {
        line.points(get(Touch.POINTS).stream()
                .map(point -> new Point2D((point.in() - 1) / SPAN, (point.out() - 1) / SPAN))
                .toList());
        words.setText("Across: as it comes, 1–127; up: as it goes. A soft 32 goes as "
                + NoteStart.clampVelocity(Touch.shape(stage().params(), 32)) + ", 64 as "
                + NoteStart.clampVelocity(Touch.shape(stage().params(), 64)) + ", 96 as "
                + NoteStart.clampVelocity(Touch.shape(stage().params(), 96)) + ".");
    }

    @Override
    public void draw() {
        line.follow();
        line.draw();
    }

    private final class Line extends PointsDrawing {
        private List<Point2D> lately = List.of();
        private double pressedUp;
        private double curve;

        Line(Around around) {
            super(around.look(), "touch-curve", 132);
            addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                pressedUp = up(event);
                curve = Touch.CURVE.type().fraction(get(Touch.CURVE));
            });
            addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
                if (points().isEmpty()) {
                    set(Touch.CURVE, Touch.CURVE.type().atFraction(clamp(curve + up(event) - pressedUp, 0, 1)), false);
                }
            });
            addEventHandler(
                    MouseEvent.MOUSE_RELEASED,
                    event -> set(Touch.CURVE, stage().params().get(Touch.CURVE), true));
            tip(this, "Drag up or down to bend the line. " + HOW);
        }

        @Override
        public boolean key(KeyEvent event) {
            boolean bend = points().isEmpty() && (event.getCode() == KeyCode.UP || event.getCode() == KeyCode.DOWN);
            if (bend) {
                int by = event.getCode() == KeyCode.UP ? 1 : -1;
                set(Touch.CURVE, Touch.CURVE.type().step(get(Touch.CURVE), by, event.isShiftDown()), true);
            }
            return bend || super.key(event);
        }

        @Override
        public String words(Point2D point) {
            return Math.round(1 + point.getX() * SPAN) + " goes as " + Math.round(1 + point.getY() * SPAN);
        }

        @Override
        public void changed(List<Point2D> points, boolean done) {
            List<PointsType.Point> drawn = new ArrayList<>();
            for (Point2D point : points) {
                int in = (int) Math.round(1 + point.getX() * SPAN);
                int out = (int) Math.round(1 + point.getY() * SPAN);
                // Two points never lie above one another.
                int least = drawn.isEmpty() ? 1 : drawn.get(drawn.size() - 1).in() + 1;
                if (Math.max(in, least) <= 127) {
                    drawn.add(new PointsType.Point(Math.max(in, least), out));
                }
            }
            set(Touch.POINTS, List.copyOf(drawn), done);
        }

        /** Takes the notes that left the stage lately, each with the velocity it came with. */
        void follow() {
            TraceStore traces = around().transport().traces();
            Places.Place before = Places.before(around().document(), address());
            List<Point2D> now = new ArrayList<>();
            for (TraceStore.Drawn drawn : traces.last(Places.at(address()), LATELY)) {
                NoteStart note = drawn.note;
                NoteStart came = note.cause() == null || traces.has(before, note) ? note : note.cause();
                now.add(new Point2D(came.velocity(), note.velocity()));
            }
            if (!now.equals(lately)) {
                lately = now;
                repaint();
            }
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            g.setFill(faint(theme.rule, 0.6));
            for (int part = 1; part < 4; part++) {
                g.fillRect(Math.round(width * part / 4), 0, 1, height);
                g.fillRect(0, Math.round(height * part / 4), width, 1);
            }
            g.setStroke(faint(theme.soft, 0.6));
            g.strokeLine(0, height, width, 0);
            g.setStroke(theme.ink);
            g.setLineWidth(2);
            g.beginPath();
            for (int in = 1; in <= 127; in++) {
                double out = Touch.shape(stage().params(), in);
                g.lineTo((in - 1) / SPAN * width, height - (out - 1) / SPAN * height);
            }
            g.stroke();
            g.setLineWidth(1);
            for (int i = 0; i < lately.size(); i++) {
                Point2D dot = lately.get(i);
                g.setFill(faint(theme.brass, 0.3 + 0.7 * (i + 1) / lately.size()));
                g.fillOval((dot.getX() - 1) / SPAN * width - 3, height - (dot.getY() - 1) / SPAN * height - 3, 6, 6);
            }
            paintPoints(g, theme, width, height);
        }
    }
}
