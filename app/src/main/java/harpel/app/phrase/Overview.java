package harpel.app.phrase;

import harpel.app.draw.Raster;
import harpel.app.session.Session;
import harpel.app.session.Theme;
import harpel.app.ui.Tips;
import harpel.phrase.Phrase;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;

/** The whole phrase in little, with a frame around what the roll shows; drag in it to go there. */
final class Overview extends Region {
    private static final double TALL = 22;

    private final Session session;
    private final RollWindow window;
    private final Raster field = new Raster();
    private Phrase drawn;
    private long drawnWindow = -1;
    private Theme drawnIn;
    private double fitted;

    Overview(Session session, RollWindow window) {
        this.session = session;
        this.window = window;
        setId("overview");
        getChildren().add(field);
        setMinHeight(TALL);
        setPrefHeight(TALL);
        setMaxHeight(TALL);
        Tips.set(this, "The whole phrase. Press or drag to go there.");
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::go);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::go);
    }

    private void go(MouseEvent event) {
        session.desk().phrase().ifPresent(phrase -> {
            double tick = event.getX() / Math.max(1, getWidth()) * phrase.length();
            window.scrollTime(tick - (window.fromTick() + window.ticks() / 2), phrase.length());
        });
        event.consume();
    }

    @Override
    protected void layoutChildren() {
        fitted = 0;
    }

    void draw() {
        Theme theme = session.look().theme().get();
        Phrase phrase = session.desk().phrase().orElse(null);
        double size = session.look().size().get();
        if (phrase == null
                || fitted == size && phrase == drawn && theme == drawnIn && window.version() == drawnWindow) {
            return;
        }
        fitted = size;
        field.fit(getWidth(), getHeight(), size);
        drawn = phrase;
        drawnIn = theme;
        drawnWindow = window.version();
        Thumbnail.paint(field, theme, phrase);
        double unit = field.shownWidth() / Math.max(1, phrase.length());
        double left = window.fromTick() * unit;
        double wide = Math.min(field.shownWidth() - left, window.ticks() * unit);
        field.edge(left, 0, wide, field.shownHeight(), Raster.mixed(theme.raised, theme.brass, 1));
        field.end();
    }
}
