package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.draw.Picture;
import harpel.app.draw.Raster;
import harpel.app.draw.Thumbnail;
import harpel.app.look.Look;
import harpel.app.look.Theme;
import harpel.app.ui.Tips;
import harpel.phrase.Phrase;
import javafx.scene.input.MouseEvent;

/** The whole phrase in little, with a frame around what the roll shows; drag in it to go there. */
final class Overview extends Picture {
    private final PhraseDesk desk;
    private static final double TALL = 22;

    private final RollWindow window;
    private Phrase drawn;
    private long drawnWindow = -1;

    Overview(Look look, PhraseDesk desk, RollWindow window) {
        super(look);
        this.desk = desk;
        this.window = window;
        setId("overview");
        setMinHeight(TALL);
        setPrefHeight(TALL);
        setMaxHeight(TALL);
        Tips.set(this, "The whole phrase. Press or drag to go there.");
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::go);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::go);
    }

    private void go(MouseEvent event) {
        desk.phrase().ifPresent(phrase -> {
            double tick = event.getX() / Math.max(1, getWidth()) * phrase.length();
            window.scrollTime(tick - (window.fromTick() + window.ticks() / 2), phrase.length());
        });
        event.consume();
    }

    /** Draws a frame. */
    void draw(Phrase phrase) {
        if (phrase != drawn || window.version() != drawnWindow) {
            drawn = phrase;
            drawnWindow = window.version();
            repaint();
        }
        draw();
    }

    @Override
    protected void paint(Raster g, Theme theme) {
        Thumbnail.paint(g, theme, drawn);
        double unit = g.shownWidth() / Math.max(1, drawn.length());
        double left = window.fromTick() * unit;
        double wide = Math.min(g.shownWidth() - left, window.ticks() * unit);
        g.edge(left, 0, wide, g.shownHeight(), Raster.mixed(theme.raised, theme.brass, 1));
    }
}
