package harpel.app.timeline;

import harpel.app.draw.Drawing;
import harpel.app.draw.Picture;
import harpel.app.draw.Raster;
import harpel.app.session.Session;
import harpel.app.session.Theme;
import harpel.app.session.TimelineDesk;
import harpel.app.ui.Tips;
import harpel.piece.Lever;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import javafx.geometry.Point2D;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;

/** Below the rows: where each lever stands along the timeline, by points that are drawn, dragged and typed. */
final class LeverLanes extends Picture {
    static final double TALL = 44;

    private static final double EDGE = 6;
    private static final double NEAR = 7;
    private static final double FIELD_WIDE = 70;

    private final TimelineDesk desk;
    private final TimelineWindow window;
    private final TextField typed = new TextField();
    private int lane = -1;
    private long at = -1;
    private int gestures;
    private long drawnWindow = -1;
    private Piece drawn;

    LeverLanes(Session session, TimelineWindow window) {
        super(session);
        this.desk = session.timeline();
        this.window = window;
        setId("lever-lanes");
        Tips.set(
                this,
                "Press to set a point, drag it, double click to type where the lever stands there; empty takes it away. The lever goes"
                        + " straight from point to point while the timeline plays.");
        typed.setId("lever-field");
        typed.setManaged(false);
        typed.setVisible(false);
        typed.setOnAction(event -> takeTyped());
        typed.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                typed.setVisible(false);
                event.consume();
            }
        });
        typed.focusedProperty().addListener((property, before, focused) -> {
            if (!focused) {
                typed.setVisible(false);
            }
        });
        getChildren().add(typed);
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
        addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            // A point that is set and dragged at once is none that is to be typed.
            if (event.getClickCount() == 2 && event.isStillSincePress() && lane >= 0) {
                Lever.Point on = pointAt(lane, event.getX(), event.getY());
                if (on != null) {
                    open(on);
                }
            }
            event.consume();
        });
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
            at = -1;
            session.document().endGesture();
        });
    }

    private Piece piece() {
        return session().document().piece().get();
    }

    private double y(int place, double value) {
        return place * TALL + EDGE + (1 - value / 100) * (TALL - 2 * EDGE);
    }

    private double valueAt(int place, double y) {
        double share = 1 - (y - place * TALL - EDGE) / (TALL - 2 * EDGE);
        return Math.round(Drawing.clamp(share, 0, 1) * 100);
    }

    /** Where on the screen a lever's place lies. */
    Point2D place(int lever, double tick, double value) {
        return localToScreen(window.x(tick, getWidth()), y(lever, value));
    }

    private Lever.Point pointAt(int place, double x, double y) {
        Lever.Point found = null;
        for (Lever.Point point : piece().levers().get(place).points()) {
            if (Math.abs(window.x(point.tick(), getWidth()) - x) <= NEAR
                    && Math.abs(y(place, point.value()) - y) <= NEAR) {
                found = point;
            }
        }
        return found;
    }

    private void edit(String label, String gesture, UnaryOperator<Lever> change) {
        int place = lane;
        session().document().apply(new PieceEdit(label, gesture, piece -> {
            List<Lever> levers = new ArrayList<>(piece.levers());
            levers.set(place, change.apply(levers.get(place)));
            return piece.withLevers(levers);
        }));
    }

    private void pressed(MouseEvent event) {
        if (event.getTarget() == typed || event.getButton() != MouseButton.PRIMARY) {
            return;
        }
        event.consume();
        lane = (int) (event.getY() / TALL);
        if (lane < 0 || lane >= piece().levers().size()) {
            lane = -1;
            return;
        }
        Lever.Point on = pointAt(lane, event.getX(), event.getY());
        gestures++;
        if (on == null) {
            Lever.Point fresh =
                    new Lever.Point(desk.snapped(window.tickAt(event.getX(), getWidth())), valueAt(lane, event.getY()));
            edit("Set a lever’s point", "lever point " + gestures, lever -> lever.withPoint(fresh));
            at = fresh.tick();
        } else {
            at = on.tick();
        }
    }

    private void dragged(MouseEvent event) {
        event.consume();
        if (at < 0 || lane < 0) {
            return;
        }
        long from = at;
        Lever.Point to =
                new Lever.Point(desk.snapped(window.tickAt(event.getX(), getWidth())), valueAt(lane, event.getY()));
        edit(
                "Set a lever’s point",
                "lever point " + gestures,
                lever -> lever.withoutPoint(from).withPoint(to));
        at = to.tick();
        session()
                .say(piece().levers().get(lane).name() + " at " + Math.round(to.value()) + " %, "
                        + desk.place(to.tick()) + ".");
    }

    private void open(Lever.Point on) {
        at = -1;
        typed.setText(String.format(Locale.ROOT, "%.0f", on.value()));
        typed.setUserData(on.tick());
        typed.resizeRelocate(
                Drawing.clamp(window.x(on.tick(), getWidth()), 0, Math.max(0, getWidth() - FIELD_WIDE)),
                lane * TALL + 8,
                FIELD_WIDE,
                26);
        typed.setVisible(true);
        typed.requestFocus();
        typed.selectAll();
    }

    private void takeTyped() {
        long tick = (long) typed.getUserData();
        String text = typed.getText().strip().replace("%", "").replace(',', '.').strip();
        if (text.isEmpty()) {
            edit("Remove a lever’s point", "", lever -> lever.withoutPoint(tick));
        } else if (text.matches("\\d{1,3}(\\.\\d{1,3})?") && Double.parseDouble(text) <= 100) {
            edit("Set a lever’s point", "", lever -> lever.withPoint(new Lever.Point(tick, Double.parseDouble(text))));
        } else {
            session().say("A lever stands at 0–100 %, but it was to stand at “" + text + "”.");
            return;
        }
        typed.setVisible(false);
        getParent().requestFocus();
    }

    /** Draws a frame. */
    void drawFrame() {
        if (piece() != drawn || window.version() != drawnWindow) {
            drawn = piece();
            drawnWindow = window.version();
            repaint();
        }
        draw();
    }

    @Override
    protected void paint(Raster g, Theme theme) {
        g.begin(Raster.mixed(theme.raised, theme.raised, 0));
        int rule = Raster.mixed(theme.raised, theme.rule, 1);
        int line = Raster.mixed(theme.raised, theme.brass, 1);
        int faint = Raster.mixed(theme.raised, theme.soft, 0.4);
        List<Lever> levers = piece().levers();
        for (int i = 0; i < levers.size(); i++) {
            g.fill(0, i * TALL, g.shownWidth(), 1, rule);
            Lever lever = levers.get(i);
            double before = Double.NaN;
            for (double x = 0; x < g.shownWidth(); x++) {
                double value = lever.points().isEmpty()
                        ? lever.value()
                        : lever.at(Math.max(0, (long) window.tickAt(x, g.shownWidth())));
                double y = y(i, value);
                double top = Double.isNaN(before) ? y : Math.min(y, before);
                double bottom = Double.isNaN(before) ? y : Math.max(y, before);
                g.fill(x, top, 1, Math.max(2, bottom - top), lever.points().isEmpty() ? faint : line);
                before = y;
            }
            for (Lever.Point point : lever.points()) {
                double x = window.x(point.tick(), g.shownWidth());
                g.fill(x - 4, y(i, point.value()) - 4, 9, 9, line);
                g.fill(x - 2, y(i, point.value()) - 2, 5, 5, Raster.mixed(theme.raised, theme.paper, 1));
            }
        }
    }
}
