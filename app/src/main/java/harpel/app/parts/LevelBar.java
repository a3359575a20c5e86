package harpel.app.parts;

import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;

/** A bar that shows how loud something is, in dB; drawn anew only when that is seen. */
final class LevelBar extends Pane {
    private static final double LOWEST_DB = -60;
    /** Nothing finer is drawn. */
    private static final int STEPS = 60;

    private final Region bar = new Region();
    private int shown;

    LevelBar() {
        getStyleClass().add("level-ground");
        bar.getStyleClass().add("level-bar");
        getChildren().add(bar);
        // What shows how loud it is says nothing about how wide it should be.
        setMinWidth(0);
        setPrefWidth(0);
    }

    /** @param db against full scale, −∞ for silence */
    void show(double db) {
        int now = (int) Math.ceil(Math.max(0, Math.min(1, 1 - db / LOWEST_DB)) * STEPS);
        if (now != shown) {
            shown = now;
            requestLayout();
        }
    }

    /** How far it reaches, 0–1. */
    double share() {
        return shown / (double) STEPS;
    }

    @Override
    protected void layoutChildren() {
        bar.resizeRelocate(0, 0, getWidth() * share(), getHeight());
    }
}
