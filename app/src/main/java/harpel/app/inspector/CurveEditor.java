package harpel.app.inspector;

import harpel.app.document.Document;
import harpel.app.draw.Drawing;
import harpel.app.draw.PointsDrawing;
import harpel.app.editor.StageEditor;
import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.app.transport.Transport;
import harpel.app.transport.Words;
import harpel.move.Mover;
import harpel.move.Source;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamType;
import harpel.param.type.ChoiceType;
import harpel.param.type.CurveType;
import harpel.param.type.FlagType;
import harpel.param.type.PathType;
import harpel.piece.Piece;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.stream.Stream;
import javafx.geometry.Point2D;
import javafx.scene.canvas.GraphicsContext;

/** A curve that moves a parameter, drawn: a loop of its own length, or automation along the piece. */
public final class CurveEditor extends PointsDrawing {
    private final Document document;
    private final Transport transport;
    private static final double BARS = 8;

    /** How the settings of a mover become points of the drawing and back. */
    private interface Axes {
        /** The length of what is drawn, in ticks. */
        double ticks(ParamSet settings, Piece piece);

        List<Point2D> read(ParamSet settings, double ticks);

        ParamSet write(ParamSet settings, List<Point2D> points, double ticks);

        String height(double share);

        /** Whether it holds from point to point, as switches do. */
        default boolean holds(ParamSet settings) {
            return false;
        }
    }

    private final Axes axes;
    private final boolean loops;
    private final BiConsumer<ParamSet, Boolean> change;
    private ParamSet settings;
    private double place = -1;

    private CurveEditor(
            Document document,
            Look look,
            Transport transport,
            String id,
            Axes axes,
            boolean loops,
            BiConsumer<ParamSet, Boolean> change) {
        super(look, id, 112);
        this.document = document;
        this.transport = transport;
        this.axes = axes;
        this.loops = loops;
        this.change = change;
        StageEditor.tip(this, (loops ? "The curve over its loop. " : "The way along the piece. ") + HOW);
    }

    /** The editor for a source that has points, or null for another. */
    public static CurveEditor of(
            Document document,
            Look look,
            Transport transport,
            String id,
            Param<?> moved,
            Source source,
            BiConsumer<ParamSet, Boolean> change) {
        return switch (source) {
            case CURVE -> new CurveEditor(document, look, transport, id, loop(document), true, change);
            case AUTOMATION ->
                new CurveEditor(document, look, transport, id, way(document, moved, source), false, change);
            default -> null;
        };
    }

    private static Axes loop(Document document) {
        return new Axes() {
            private double beatTicks() {
                return document.piece().get().time().meter().at(0).beatTicks();
            }

            @Override
            public double ticks(ParamSet settings, Piece piece) {
                return settings.get(Source.LOOP).ticksAt(0, piece.time());
            }

            @Override
            public List<Point2D> read(ParamSet settings, double ticks) {
                return settings.get(Source.SHAPE_POINTS).stream()
                        .map(point -> new Point2D(
                                Drawing.clamp(point.at() * beatTicks() / ticks, 0, 1), point.height() / 100))
                        .toList();
            }

            @Override
            public ParamSet write(ParamSet settings, List<Point2D> points, double ticks) {
                return settings.with(
                        Source.SHAPE_POINTS,
                        points.stream()
                                .map(point -> new CurveType.Point(
                                        round(point.getX() * ticks / beatTicks()), round(point.getY() * 100)))
                                .toList());
            }

            @Override
            public String height(double share) {
                return Words.number(share * 100) + " %";
            }
        };
    }

    private static double round(double value) {
        return Math.round(value * 100) / 100.0;
    }

    @SuppressWarnings("unchecked") // automation's points hold values of the moved parameter
    private static <T> Axes way(Document document, Param<T> moved, Source source) {
        ParamType<T> type = moved.type();
        Param<List<PathType.Point<T>>> param = (Param<List<PathType.Point<T>>>)
                source.spec(moved).byId("points").orElseThrow();
        return new Axes() {
            @Override
            public double ticks(ParamSet settings, Piece piece) {
                double phrases = piece.phrases().stream()
                        .mapToLong(phrase -> phrase.length())
                        .max()
                        .orElse(0);
                double points = settings.get(param).stream()
                        .mapToLong(PathType.Point::tick)
                        .max()
                        .orElse(0);
                return Stream.of(
                                phrases,
                                points,
                                BARS * piece.time().meter().at(0).barTicks())
                        .max(Double::compare)
                        .orElseThrow();
            }

            @Override
            public List<Point2D> read(ParamSet settings, double ticks) {
                return settings.get(param).stream()
                        .map(point -> new Point2D(point.tick() / ticks, type.fraction(point.value())))
                        .toList();
            }

            @Override
            public ParamSet write(ParamSet settings, List<Point2D> points, double ticks) {
                List<PathType.Point<T>> way = new ArrayList<>();
                for (Point2D point : points) {
                    long least = way.isEmpty() ? 0 : way.get(way.size() - 1).tick() + 1;
                    long tick = Math.max(least, Math.round(point.getX() * ticks));
                    way.add(new PathType.Point<>(tick, type.atFraction(point.getY())));
                }
                return settings.with(param, List.copyOf(way));
            }

            @Override
            public String height(double share) {
                return type.show(type.atFraction(share), document.spelling());
            }

            @Override
            public boolean holds(ParamSet settings) {
                return type instanceof FlagType
                        || type instanceof ChoiceType<?>
                        || settings.get(Source.BETWEEN) == Source.Between.HOLD;
            }
        };
    }

    public void show(Mover mover) {
        settings = mover.settings();
        points(axes.read(settings, ticks()));
    }

    private double ticks() {
        return Math.max(1, axes.ticks(settings, document.piece().get()));
    }

    @Override
    public void changed(List<Point2D> newPoints, boolean done) {
        change.accept(axes.write(settings, newPoints, ticks()), done);
    }

    @Override
    public String words(Point2D point) {
        double bars = point.getX()
                * ticks()
                / document.piece().get().time().meter().at(0).barTicks();
        return axes.height(point.getY()) + " after " + Words.count(bars, "bar");
    }

    /** Shows where time stands on it. */
    public void follow(long nanos) {
        double tick = transport.status().tickAt(nanos);
        double now = loops ? tick % ticks() / ticks() : tick / ticks();
        if (Math.abs(now - place) > 0.002) {
            place = now;
            repaint();
        }
    }

    @Override
    public void paint(GraphicsContext g, Theme theme, double width, double height) {
        Piece piece = document.piece().get();
        double bar = piece.time().meter().at(0).barTicks();
        double beat = piece.time().meter().at(0).beatTicks();
        for (double tick = 0; tick < ticks() && width * beat / ticks() > 3; tick += beat) {
            g.setFill(faint(theme.ink, tick % bar == 0 ? 0.4 : 0.12));
            g.fillRect(Math.round(tick / ticks() * width), 0, 1, height);
        }
        // Bars and the ends of the range, in the control's own unit.
        g.setFill(theme.soft);
        double free = 0;
        for (double tick = 0; tick < ticks(); tick += bar) {
            double x = tick / ticks() * width;
            if (x >= free && x < width - 14) {
                g.fillText(String.valueOf(Math.round(tick / bar) + 1), x + 3, height - 3);
                free = x + 26;
            }
        }
        String most = axes.height(1);
        g.fillText(most, Math.max(30, width - 6.2 * most.length() - 2), 10);
        String least = axes.height(0);
        g.fillText(least, Math.max(30, width - 6.2 * least.length() - 2), height - 3);
        if (place >= 0 && place <= 1) {
            g.setFill(theme.brass);
            g.fillRect(place * width, 0, 1.5, height);
        }
        List<Point2D> points = points();
        if (points.isEmpty()) {
            g.setFill(theme.soft);
            g.fillText("double-click adds a point", 6, height / 2);
            return;
        }
        g.setStroke(theme.ink);
        g.setLineWidth(2);
        g.beginPath();
        g.moveTo(0, (1 - points.get(0).getY()) * height);
        boolean holds = axes.holds(settings);
        double before = points.get(0).getY();
        for (Point2D point : points) {
            if (holds) {
                g.lineTo(point.getX() * width, (1 - before) * height);
                before = point.getY();
            }
            g.lineTo(point.getX() * width, (1 - point.getY()) * height);
        }
        g.lineTo(width, (1 - points.get(points.size() - 1).getY()) * height);
        g.stroke();
        g.setLineWidth(1);
        paintPoints(g, theme, width, height);
    }
}
