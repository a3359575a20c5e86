package harpel.app.draw;

import harpel.app.look.Look;
import harpel.app.look.Theme;
import javafx.scene.layout.Region;

/** A region that is filled by a {@link Raster}: painted anew when it is asked for, in another size, or in another theme. Interface thread. */
public abstract class Picture extends Region {
    private final Look look;
    private final Raster raster = new Raster();
    private final Freshness freshness = new Freshness();

    protected Picture(Look look) {
        this.look = look;
        getChildren().add(raster);
    }

    /** Paints all of it; what was there before is to be covered. */
    protected abstract void paint(Raster g, Theme theme);

    /** What is painted has changed; it is painted with the next frame. */
    public final void repaint() {
        freshness.repaint();
    }

    @Override
    protected void layoutChildren() {
        freshness.laidOut();
    }

    /** Paints if anything has changed; once a frame. */
    public final void draw() {
        if (freshness.due(look, size -> raster.fit(getWidth(), getHeight(), size), true)) {
            paint(raster, look.theme().get());
            raster.end();
        }
    }
}
