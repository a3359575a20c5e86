package harpel.app;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Rectangle2D;
import javafx.stage.Screen;
import javafx.stage.Stage;

/**
 * Where the window is and how large, on the screen: it opens within one, where it was last.
 *
 * @param bounds as it is when it is not maximised
 */
record WindowPlace(Rectangle2D bounds, boolean maximised) {
    private static final String LARGE = "large";

    /** As it is kept: "x y width height", with "large" behind it when it fills the screen. */
    String text() {
        return Math.round(bounds.getMinX()) + " " + Math.round(bounds.getMinY()) + " " + Math.round(bounds.getWidth())
                + " " + Math.round(bounds.getHeight()) + (maximised ? " " + LARGE : "");
    }

    /** What a text says; nothing where it is no place. */
    static Optional<WindowPlace> parse(String text) {
        if (!text.matches("-?\\d{1,5} -?\\d{1,5} \\d{3,5} \\d{3,5}( " + LARGE + ")?")) {
            return Optional.empty();
        }
        String[] words = text.split(" ");
        return Optional.of(new WindowPlace(
                new Rectangle2D(
                        Integer.parseInt(words[0]),
                        Integer.parseInt(words[1]),
                        Integer.parseInt(words[2]),
                        Integer.parseInt(words[3])),
                words.length == 5));
    }

    /** The nearest place within the one of those screens that shows most of it; the first where none shows any. */
    static Rectangle2D within(Rectangle2D wanted, List<Rectangle2D> screens) {
        Rectangle2D screen = screens.stream()
                .max(Comparator.comparingDouble(one -> shared(one, wanted)))
                .orElse(wanted);
        double wide = Math.min(wanted.getWidth(), screen.getWidth());
        double high = Math.min(wanted.getHeight(), screen.getHeight());
        double x = Math.max(screen.getMinX(), Math.min(wanted.getMinX(), screen.getMaxX() - wide));
        double y = Math.max(screen.getMinY(), Math.min(wanted.getMinY(), screen.getMaxY() - high));
        return new Rectangle2D(x, y, wide, high);
    }

    private static double shared(Rectangle2D one, Rectangle2D other) {
        double wide = Math.min(one.getMaxX(), other.getMaxX()) - Math.max(one.getMinX(), other.getMinX());
        double high = Math.min(one.getMaxY(), other.getMaxY()) - Math.max(one.getMinY(), other.getMinY());
        return wide <= 0 || high <= 0 ? 0 : wide * high;
    }

    /** In the middle of the first screen, at most as large as that. */
    static WindowPlace inTheMiddle(double wide, double high) {
        Rectangle2D screen = Screen.getPrimary().getVisualBounds();
        return new WindowPlace(
                new Rectangle2D(
                        screen.getMinX() + (screen.getWidth() - wide) / 2,
                        screen.getMinY() + (screen.getHeight() - high) / 2,
                        wide,
                        high),
                false);
    }

    /** Puts a window there before it is shown. */
    void place(Stage stage) {
        Rectangle2D at = within(
                bounds,
                Screen.getScreens().stream().map(Screen::getVisualBounds).toList());
        stage.setX(at.getMinX());
        stage.setY(at.getMinY());
        stage.setWidth(at.getWidth());
        stage.setHeight(at.getHeight());
        stage.setMaximized(maximised);
    }

    /** Where a window is now. */
    static WindowPlace of(Stage stage, WindowPlace before) {
        boolean large = stage.isMaximized() || stage.isFullScreen() || stage.isIconified();
        return large
                ? new WindowPlace(before.bounds, stage.isMaximized())
                : new WindowPlace(
                        new Rectangle2D(stage.getX(), stage.getY(), stage.getWidth(), stage.getHeight()), false);
    }
}
