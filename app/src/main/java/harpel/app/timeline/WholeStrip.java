package harpel.app.timeline;

import harpel.app.document.Document;
import harpel.app.draw.Drawing;
import harpel.app.draw.Picture;
import harpel.app.draw.Raster;
import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.app.ui.Tips;
import harpel.piece.Block;
import harpel.piece.Mark;
import harpel.piece.Part;
import harpel.piece.Piece;
import javafx.scene.input.MouseEvent;

/** The whole timeline in little, with a frame around what is seen; press or drag in it to see another stretch. */
final class WholeStrip extends Picture {
    private final Document document;
    private static final double TALL = 26;

    private final TimelineWindow window;
    private double held;
    private Piece drawn;
    private long drawnWindow = -1;
    private double drawnNow = -1;

    WholeStrip(Document document, Look look, TimelineWindow window) {
        super(look);
        this.document = document;
        this.window = window;
        setId("whole-timeline");
        setMinHeight(TALL);
        setPrefHeight(TALL);
        setMaxHeight(TALL);
        Tips.set(this, "The whole timeline: press or drag to see another stretch of it.");
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            // What its width stands for grows with what is seen: held still under the hand.
            held = ticks();
            go(event);
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::go);
    }

    /** What its width stands for: all there is, and all that is seen. */
    private double ticks() {
        long end = document.piece().get().timelineEnd();
        return Math.max(1, Math.max(end, window.from() + window.ticks()));
    }

    private void go(MouseEvent event) {
        double share = Drawing.clamp(event.getX() / Math.max(1, getWidth()), 0, 1);
        double tick = Math.min(share * held, held - window.ticks() / 2);
        window.scroll(
                tick - (window.from() + window.ticks() / 2),
                document.piece().get().timelineEnd());
        event.consume();
    }

    /** Draws a frame. */
    void draw(double now) {
        Piece piece = document.piece().get();
        double pixel = Math.floor(now / ticks() * getWidth());
        if (piece != drawn || window.version() != drawnWindow || pixel != drawnNow) {
            drawn = piece;
            drawnWindow = window.version();
            drawnNow = pixel;
            repaint();
        }
        draw();
    }

    @Override
    protected void paint(Raster g, Theme theme) {
        g.begin(Raster.mixed(theme.raised, theme.raised, 0));
        double unit = g.shownWidth() / ticks();
        double each = (g.shownHeight() - 4) / Math.max(1, drawn.parts().size());
        for (int i = 0; i < drawn.parts().size(); i++) {
            Part part = drawn.parts().get(i);
            int colour = Raster.mixed(theme.raised, BoardPainter.colour(theme, part), 0.7);
            for (Block block : part.blocks()) {
                g.fill(
                        block.at() * unit,
                        2 + i * each,
                        Math.max(1, block.length() * unit - 1),
                        Math.max(1, each - 1),
                        colour);
            }
        }
        int soft = Raster.mixed(theme.raised, theme.soft, 0.8);
        for (Mark mark : drawn.marks()) {
            g.fill(mark.tick() * unit, 0, 1, g.shownHeight(), soft);
        }
        g.fill(drawnNow, 0, 2, g.shownHeight(), Raster.mixed(theme.raised, theme.brass, 1));
        g.edge(
                window.from() * unit,
                0,
                Math.max(4, window.ticks() * unit),
                g.shownHeight(),
                Raster.mixed(theme.raised, theme.ink, 0.7));
    }
}
