package harpel.app.chain;

import harpel.app.document.Document;
import harpel.app.draw.SharpCanvas;
import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.app.ui.Tips;
import harpel.app.ui.Type;
import harpel.piece.Mark;
import harpel.piece.Piece;
import harpel.time.MeterMap;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;

/** The numbers of the bars over the traces, and a mark for now. Drawn anew when it has moved by a pixel. */
final class Ruler extends Region {
    private static final double TALL = 16;
    /** Numbers closer than this are left out. */
    private static final double APART = 26;
    /** A mark's name stands behind the number of its bar, at most so wide. */
    private static final double MARK_APART = 24;

    private static final double MARK_WIDE = 90;

    private final Document document;
    private final Look look;
    private final TimeWindow window;
    private final SharpCanvas canvas = new SharpCanvas();
    private double left;
    private double wide;
    private double fitted;
    private long drawnAt = Long.MIN_VALUE;
    private double drawnBars;
    private Theme drawnIn;
    private Piece drawnOf;
    private double draggedX;

    Ruler(Document document, Look look, TimeWindow window) {
        this.document = document;
        this.look = look;
        this.window = window;
        setId("ruler");
        getChildren().add(canvas);
        setMinHeight(TALL);
        setPrefHeight(TALL);
        setMaxHeight(TALL);
        Tips.set(this, "Bars. Drag sideways to go back in time.");
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> draggedX = event.getX());
        addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
            window.back((event.getX() - draggedX) / Math.max(1, wide) * window.bars());
            draggedX = event.getX();
            event.consume();
        });
    }

    @Override
    protected void layoutChildren() {
        fitted = 0;
    }

    /** Draws over traces that begin so far from the left and are so wide. */
    void draw(double traceLeft, double traceWide) {
        if (traceWide <= 0) {
            return;
        }
        Theme theme = look.theme().get();
        double size = look.size().get();
        long at = Math.round(window.x(0, traceWide));
        Piece piece = document.piece().get();
        boolean laid = fitted == size && left == traceLeft && wide == traceWide;
        if (laid && at == drawnAt && drawnBars == window.bars() && drawnIn == theme && drawnOf == piece) {
            return;
        }
        if (!laid) {
            fitted = size;
            left = traceLeft;
            wide = traceWide;
            canvas.relocate(left, 0);
            canvas.fit(wide, TALL, size);
        }
        drawnAt = at;
        drawnBars = window.bars();
        drawnIn = theme;
        drawnOf = piece;
        GraphicsContext g = canvas.begin();
        g.setFont(Type.plain(Type.NOTE));
        g.setFill(theme.paper);
        g.fillRect(0, 0, wide, TALL);
        MeterMap meter = piece.time().meter();
        long bar = meter.barAt(Math.max(0, (long) window.fromTick()));
        double free = 0;
        for (long tick = meter.tickOfBar(bar); tick < window.toTick(); tick = meter.tickOfBar(++bar)) {
            double x = Math.round(window.x(tick, wide));
            g.setFill(theme.rule);
            g.fillRect(x, TALL - 4, 1, 4);
            if (x >= free && x >= 0 && x < wide - APART / 2) {
                g.setFill(theme.soft);
                g.fillText(String.valueOf(bar + 1), x + 3, TALL - 4);
                free = x + APART;
            }
        }
        for (Mark mark : piece.marks()) {
            double x = Math.round(window.x(mark.tick(), wide));
            if (x > -MARK_WIDE && x < wide) {
                g.setFill(theme.sage);
                g.fillRect(x, 2, 2, TALL - 2);
                g.fillText(mark.name(), x + MARK_APART, TALL - 4, MARK_WIDE);
            }
        }
        for (long gap : window.gaps()) {
            double x = Math.round(window.x(gap, wide));
            if (x > -MARK_WIDE && x < wide) {
                g.setFill(theme.soft);
                g.fillRect(x, 2, 1, TALL - 2);
                g.fillText("not all seen", x + 3, TALL - 4, MARK_WIDE);
            }
        }
        double now = Math.round(window.x(window.nowTick(), wide));
        if (now <= wide) {
            g.setFill(theme.brass);
            g.fillRect(now, TALL - 6, 2, 6);
        }
    }
}
