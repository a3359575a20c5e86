package harpel.app.draw;

import harpel.app.look.Look;
import harpel.app.look.Theme;
import java.util.function.DoubleConsumer;

/** Whether what is painted is as it should be: in this theme and size, and of what there is now. Interface thread. */
final class Freshness {
    private boolean stale = true;
    private Theme paintedIn;
    /** The size for which it was laid out; 0 when it has to be anew. */
    private double fitted;

    void repaint() {
        stale = true;
    }

    void laidOut() {
        fitted = 0;
    }

    /**
     * Whether it is to be painted now, after which it is fresh.
     *
     * @param fit lays out what is painted on, for a size
     * @param seen whether there is anything to paint on
     */
    boolean due(Look look, DoubleConsumer fit, boolean seen) {
        double size = look.size().get();
        if (fitted != size) {
            fitted = size;
            fit.accept(size);
            stale = true;
        }
        Theme theme = look.theme().get();
        boolean due = (stale || theme != paintedIn) && seen;
        if (due) {
            stale = false;
            paintedIn = theme;
        }
        return due;
    }
}
