package harpel.app.draw;

import harpel.app.look.Look;
import harpel.app.look.Theme;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/**
 * A line through points, each 0–1 across and 0–1 up. Dragging moves a point, a double click adds one; on the keyboard Page Up and
 * Page Down choose a point, the arrows (with Shift finely) move it, Insert adds one and Delete removes it.
 */
public abstract class PointsDrawing extends Drawing {
    public static final String HOW =
            "Drag a point; double-click adds one.\nPage Up and Page Down choose a point, arrows move it (Shift finely),"
                    + " Insert adds one, Delete removes it.";

    private static final double NEAR = 9;
    private static final double STEP = 0.05;
    private static final double FINE = 0.01;
    private List<Point2D> points = List.of();
    private int chosen = -1;
    private boolean dragging;

    public PointsDrawing(Look look, String id, double height) {
        super(look, id, height);
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
            if (dragging) {
                dragging = false;
                changed(points, true);
            }
        });
    }

    /** Takes the points after a change. */
    public abstract void changed(List<Point2D> newPoints, boolean done);

    /** What to call a point. */
    public abstract String words(Point2D point);

    public final void points(List<Point2D> newPoints) {
        if (!dragging) {
            points = List.copyOf(newPoints);
            chosen = Math.min(chosen, points.size() - 1);
        }
        say();
        repaint();
    }

    public final List<Point2D> points() {
        return points;
    }

    private void say() {
        setAccessibleText(
                chosen < 0
                        ? points.size() + " points"
                        : "Point " + (chosen + 1) + " of " + points.size() + ", " + words(points.get(chosen)));
    }

    private int near(MouseEvent event) {
        for (int i = 0; i < points.size(); i++) {
            double dx = (points.get(i).getX() - across(event)) * getWidth();
            double dy = (points.get(i).getY() - up(event)) * getHeight();
            if (Math.hypot(dx, dy) < NEAR) {
                return i;
            }
        }
        return -1;
    }

    private void pressed(MouseEvent event) {
        chosen = near(event);
        if (chosen >= 0 && (event.isAltDown() || event.isSecondaryButtonDown())) {
            remove();
        } else if (chosen < 0 && event.getClickCount() == 2) {
            add(new Point2D(clamp(across(event), 0, 1), clamp(up(event), 0, 1)));
        }
        say();
        repaint();
    }

    private void dragged(MouseEvent event) {
        if (chosen >= 0 && event.isPrimaryButtonDown()) {
            dragging = true;
            move(across(event), up(event), false);
        }
        event.consume();
    }

    private void move(double x, double y, boolean done) {
        double low = chosen == 0 ? 0 : points.get(chosen - 1).getX();
        double high = chosen == points.size() - 1 ? 1 : points.get(chosen + 1).getX();
        List<Point2D> moved = new ArrayList<>(points);
        moved.set(chosen, new Point2D(clamp(x, low, high), clamp(y, 0, 1)));
        take(moved, done);
    }

    private void add(Point2D point) {
        List<Point2D> more = new ArrayList<>(points);
        int place = 0;
        while (place < more.size() && more.get(place).getX() <= point.getX()) {
            place++;
        }
        more.add(place, point);
        chosen = place;
        take(more, true);
    }

    private void remove() {
        List<Point2D> fewer = new ArrayList<>(points);
        fewer.remove(chosen);
        chosen = Math.min(chosen, fewer.size() - 1);
        take(fewer, true);
    }

    private void take(List<Point2D> changed, boolean done) {
        points = List.copyOf(changed);
        say();
        repaint();
        changed(points, done);
    }

    @Override
    public boolean key(KeyEvent event) {
        KeyCode code = event.getCode();
        double by = event.isShiftDown() ? FINE : STEP;
        if (code == KeyCode.PAGE_UP || code == KeyCode.PAGE_DOWN) {
            chosen = points.isEmpty() ? -1 : Math.floorMod(chosen + (code == KeyCode.PAGE_UP ? 1 : -1), points.size());
        } else if (code == KeyCode.INSERT) {
            boolean last = chosen < 0 || chosen == points.size() - 1;
            Point2D left = chosen < 0 ? new Point2D(0, 0.5) : points.get(chosen);
            Point2D right = last ? new Point2D(1, left.getY()) : points.get(chosen + 1);
            add(left.midpoint(right));
        } else if (chosen < 0) {
            return false;
        } else {
            Point2D now = points.get(chosen);
            switch (code) {
                case LEFT -> move(now.getX() - by, now.getY(), true);
                case RIGHT -> move(now.getX() + by, now.getY(), true);
                case UP -> move(now.getX(), now.getY() + by, true);
                case DOWN -> move(now.getX(), now.getY() - by, true);
                case DELETE, BACK_SPACE -> remove();
                default -> {
                    return false;
                }
            }
        }
        say();
        repaint();
        return true;
    }

    /** The line's points and the handles to drag them by. */
    public final void paintPoints(GraphicsContext g, Theme theme, double width, double height) {
        for (int i = 0; i < points.size(); i++) {
            double x = points.get(i).getX() * width;
            double y = (1 - points.get(i).getY()) * height;
            g.setFill(i == chosen ? theme.brassText : theme.ink);
            g.fillOval(x - 4, y - 4, 8, 8);
        }
    }
}
