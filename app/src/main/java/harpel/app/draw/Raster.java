package harpel.app.draw;

import java.nio.IntBuffer;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.Map;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;

/**
 * A picture of plain rectangles that is drawn anew each frame, such as a trace: filled by our own code on the pixels of the screen, which
 * costs a fraction of what drawing operations do where software draws. Interface thread.
 */
public final class Raster extends Region {
    private static final int SHADES = 100;

    /** Opaque colours mixed of two, by hundredths of the second; made once. */
    private static final Map<Color, Map<Color, int[]>> MIXED = new IdentityHashMap<>();

    private final ImageView view = new ImageView();
    private int[] pixels = {};
    private PixelBuffer<IntBuffer> buffer;
    private int wide;
    private int high;
    private double size = 1;

    public Raster() {
        setManaged(false);
        setMouseTransparent(true);
        view.setSmooth(false);
        getChildren().add(view);
    }

    /** @param newSize how much larger everything is shown, 1 being as designed */
    public void fit(double width, double height, double newSize) {
        size = newSize;
        int newWide = (int) Math.max(1, Math.ceil(width * size));
        int newHigh = (int) Math.max(1, Math.ceil(height * size));
        if (newWide != wide || newHigh != high || buffer == null) {
            wide = newWide;
            high = newHigh;
            pixels = new int[wide * high];
            buffer = new PixelBuffer<>(wide, high, IntBuffer.wrap(pixels), PixelFormat.getIntArgbPreInstance());
            view.setImage(new WritableImage(buffer));
        }
        view.setFitWidth(wide / size);
        view.setFitHeight(high / size);
        resize(wide / size, high / size);
    }

    /** How many pixels of the screen it is high. */
    public int pixelsHigh() {
        return high;
    }

    public double shownWidth() {
        return wide / size;
    }

    public double shownHeight() {
        return high / size;
    }

    /** Fills all with one colour of {@link #mixed}. */
    public void begin(int colour) {
        Arrays.fill(pixels, colour);
    }

    /** Fills a rectangle, in the units of the window, on whole pixels. */
    public void fill(double x, double y, double width, double height, int colour) {
        int left = (int) Math.max(0, Math.round(x * size));
        int right = (int) Math.min(wide, Math.round((x + width) * size));
        int top = (int) Math.max(0, Math.round(y * size));
        int bottom = (int) Math.min(high, Math.round((y + height) * size));
        if (left >= right) {
            return;
        }
        for (int row = top; row < bottom; row++) {
            Arrays.fill(pixels, row * wide + left, row * wide + right, colour);
        }
    }

    /** The edge of a rectangle, one pixel thick. */
    public void edge(double x, double y, double width, double height, int colour) {
        fill(x, y, width, 1, colour);
        fill(x, y + height - 1, width, 1, colour);
        fill(x, y, 1, height, colour);
        fill(x + width - 1, y, 1, height, colour);
    }

    /** Shows what was filled. */
    public void end() {
        buffer.updateBuffer(filled -> null);
    }

    /** A colour over a ground, so strong, 0–1, as an opaque pixel. */
    public static int mixed(Color ground, Color colour, double strength) {
        Map<Color, int[]> over = MIXED.get(ground);
        int[] shades = over == null ? null : over.get(colour);
        if (shades == null) {
            shades = shades(ground, colour);
            MIXED.computeIfAbsent(ground, one -> new IdentityHashMap<>()).put(colour, shades);
        }
        return shades[(int) Math.round(SHADES * Drawing.clamp(strength, 0, 1))];
    }

    private static int[] shades(Color ground, Color colour) {
        int[] shades = new int[SHADES + 1];
        for (int i = 0; i <= SHADES; i++) {
            Color mixed = ground.interpolate(colour, i / (double) SHADES);
            shades[i] = 0xFF000000
                    | (int) Math.round(mixed.getRed() * 255) << 16
                    | (int) Math.round(mixed.getGreen() * 255) << 8
                    | (int) Math.round(mixed.getBlue() * 255);
        }
        return shades;
    }
}
