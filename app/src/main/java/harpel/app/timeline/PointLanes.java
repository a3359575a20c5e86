package harpel.app.timeline;

import harpel.app.desk.TimelineDesk;
import harpel.app.document.Document;
import harpel.app.draw.Drawing;
import harpel.app.draw.Picture;
import harpel.app.draw.Raster;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.look.Theme;
import harpel.app.ui.Tips;
import harpel.app.ui.TypedOver;
import harpel.param.ParamType;
import harpel.param.type.PathType;
import harpel.param.type.PathType.Point;
import harpel.piece.Lane;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.geometry.Point2D;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;

/** Below the rows: what levers, parameters, switches and mutes do along the timeline, by points that are drawn, dragged and typed. */
final class PointLanes extends Picture {
    private final Document document;
    private final TimelineDesk timeline;
    private final Messages messages;
    static final double TALL = 44;

    private static final double EDGE = 6;
    private static final double NEAR = 7;
    private static final double FIELD_WIDE = 70;

    private final TimelineDesk desk;
    private final TimelineWindow window;
    private final TypedOver typed = new TypedOver("point-field");
    private int lane = -1;
    private long at = -1;
    private int gestures;
    private long drawnWindow = -1;
    private Piece drawn;
    private Piece listedOf;
    private List<Lane<?>> listed = List.of();

    PointLanes(Document document, Look look, TimelineDesk timeline, Messages messages, TimelineWindow window) {
        super(look);
        this.document = document;
        this.timeline = timeline;
        this.messages = messages;
        this.desk = timeline;
        this.window = window;
        setId("point-lanes");
        Tips.set(
                this,
                "Press to set a point, drag it, double click to type its value; empty takes it away. Levers go straight from point to"
                        + " point while the timeline plays; switches hold.");
        getChildren().add(typed);
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
        addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            // A point that is set and dragged at once is none that is to be typed.
            if (event.getClickCount() == 2 && event.isStillSincePress() && lane >= 0 && lane < lanes().size()) {
                doublePressed(lanes().get(lane), event);
            }
            event.consume();
        });
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
            at = -1;
            document.endGesture();
        });
    }

    private Piece piece() {
        return document.piece().get();
    }

    /** What is shown, from the top. */
    List<Lane<?>> lanes() {
        if (piece() != listedOf) {
            listedOf = piece();
            listed = Lane.of(listedOf);
        }
        return listed;
    }

    private static double y(int place, double share) {
        return place * TALL + EDGE + (1 - share) * (TALL - 2 * EDGE);
    }

    private <T> T valueAt(Lane<T> lane, double y) {
        double share = 1 - (y - this.lane * TALL - EDGE) / (TALL - 2 * EDGE);
        return lane.type(piece()).atFraction(Drawing.clamp(share, 0, 1));
    }

    /** Where on the screen a place, 0–1 of its range, of a lane lies. */
    Point2D place(int lane, double tick, double share) {
        return localToScreen(window.x(tick, getWidth()), y(lane, share));
    }

    private <T> Point<T> pointAt(Lane<T> lane, double x, double y) {
        Point<T> found = null;
        for (Point<T> point : lane.points(piece())) {
            double share = lane.type(piece()).fraction(point.value());
            if (Math.abs(window.x(point.tick(), getWidth()) - x) <= NEAR && Math.abs(y(this.lane, share) - y) <= NEAR) {
                found = point;
            }
        }
        return found;
    }

    private void edit(Lane<?> lane, String gesture, UnaryOperator<Piece> change) {
        document.apply(new PieceEdit("Set points of " + lane.name(piece()), gesture, change));
    }

    private void pressed(MouseEvent event) {
        if (event.getTarget() == typed || event.getButton() != MouseButton.PRIMARY) {
            return;
        }
        event.consume();
        lane = (int) (event.getY() / TALL);
        if (lane < 0 || lane >= lanes().size()) {
            lane = -1;
            return;
        }
        gestures++;
        press(lanes().get(lane), event);
    }

    private <T> void press(Lane<T> on, MouseEvent event) {
        Point<T> point = pointAt(on, event.getX(), event.getY());
        if (point == null) {
            long tick = desk.snapped(window.tickAt(event.getX(), getWidth()));
            T value = valueAt(on, event.getY());
            edit(on, "lane point " + gestures, piece -> on.with(piece, tick, value));
            at = tick;
        } else {
            at = point.tick();
        }
    }

    private void dragged(MouseEvent event) {
        event.consume();
        if (at >= 0 && lane >= 0 && lane < lanes().size()) {
            drag(lanes().get(lane), event);
        }
    }

    private <T> void drag(Lane<T> on, MouseEvent event) {
        long from = at;
        long tick = desk.snapped(window.tickAt(event.getX(), getWidth()));
        T value = valueAt(on, event.getY());
        edit(on, "lane point " + gestures, piece -> on.with(on.without(piece, from), tick, value));
        at = tick;
        messages.say(on.name(piece()) + ": " + on.type(piece()).show(value, document.spelling()) + ", "
                + desk.place(tick) + ".");
    }

    private <T> void doublePressed(Lane<T> on, MouseEvent event) {
        Point<T> point = pointAt(on, event.getX(), event.getY());
        if (point != null) {
            open(point.tick(), on.type(piece()).show(point.value(), document.spelling()));
        }
    }

    private void open(long tick, String shown) {
        at = -1;
        typed.resizeRelocate(
                Drawing.clamp(window.x(tick, getWidth()), 0, Math.max(0, getWidth() - FIELD_WIDE)),
                lane * TALL + 8,
                FIELD_WIDE,
                26);
        typed.ask(shown, text -> take(tick, text));
    }

    private void take(long tick, String text) {
        if (lane < 0 || lane >= lanes().size()) {
            return;
        }
        Lane<?> on = lanes().get(lane);
        try {
            UnaryOperator<Piece> change =
                    text.isEmpty() ? piece -> on.without(piece, tick) : piece -> on.typed(piece, tick, text);
            document.take(PieceEdit.of("Set points of " + on.name(piece()), change));
        } catch (IllegalArgumentException e) {
            messages.say(on.name(piece()) + " " + e.getMessage() + ".");
            return;
        }
        typed.putAway();
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
        List<Lane<?>> lanes = lanes();
        for (int i = 0; i < lanes.size(); i++) {
            g.fill(0, i * TALL, g.shownWidth(), 1, rule);
            paint(g, theme, lanes.get(i), i, line, faint);
        }
    }

    private <T> void paint(Raster g, Theme theme, Lane<T> lane, int row, int line, int faint) {
        Piece piece = piece();
        ParamType<T> type = lane.type(piece);
        List<Point<T>> points = lane.points(piece);
        PathType<T> path = new PathType<>(type);
        boolean straight = lane.line(piece);
        T base = lane.base(piece);
        double before = Double.NaN;
        for (double x = 0; x < g.shownWidth(); x++) {
            long tick = Math.max(0, (long) window.tickAt(x, g.shownWidth()));
            double y = y(row, type.fraction(points.isEmpty() ? base : path.at(points, tick, straight)));
            double top = Double.isNaN(before) ? y : Math.min(y, before);
            double bottom = Double.isNaN(before) ? y : Math.max(y, before);
            g.fill(x, top, 1, Math.max(2, bottom - top), points.isEmpty() ? faint : line);
            before = y;
        }
        for (Point<T> point : points) {
            double x = window.x(point.tick(), g.shownWidth());
            double y = y(row, type.fraction(point.value()));
            g.fill(x - 4, y - 4, 9, 9, line);
            g.fill(x - 2, y - 2, 5, 5, Raster.mixed(theme.raised, theme.paper, 1));
        }
    }
}
