package harpel.app.ui;

import java.util.function.Supplier;
import javafx.geometry.Bounds;
import javafx.geometry.Rectangle2D;
import javafx.scene.Node;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import javafx.stage.PopupWindow;
import javafx.stage.Screen;
import javafx.stage.Window;

/**
 * What a control is for, said when it is pointed at and to a screen reader. One small window serves all of them and takes its words from
 * the control the pointer has come to: a window for each would cost more than the controls themselves.
 */
public final class Tips {
    private static final double WIDTH = 360;

    /** What is drawn in is larger than this. */
    private static final double LARGE = 120;

    /** What the tip speaks of. */
    private static Node pointed;

    private Tips() {}

    /** Made when the first words are said, which no start waits for. */
    private static final class Shared {
        static final Tooltip TIP = new Tooltip();

        static {
            TIP.setWrapText(true);
            TIP.setMaxWidth(WIDTH);
            TIP.setOnShown(event -> beside());
        }
    }

    /** Says what a node is for, in place of what was said before. Interface thread. */
    public static void set(Node node, String words) {
        node.setAccessibleHelp(words);
        set(node, () -> words);
    }

    /** The same with words that are made when they are wanted. */
    public static void set(Node node, Supplier<String> words) {
        Object before = node.getProperties().put(Tips.class, words);
        if (before == null) {
            node.addEventHandler(MouseEvent.MOUSE_ENTERED, event -> say(node));
        }
    }

    /** Text never lies over what is worked in: that of something large stands beside it, and none beside an open list. */
    private static void beside() {
        Tooltip tip = Shared.TIP;
        boolean list = Window.getWindows().stream()
                .anyMatch(window -> window instanceof PopupWindow && window != tip && window.isShowing());
        if (list) {
            tip.hide();
            return;
        }
        Bounds at = pointed == null ? null : pointed.localToScreen(pointed.getBoundsInLocal());
        if (at == null || at.getHeight() < LARGE || at.getWidth() < LARGE) {
            return;
        }
        Rectangle2D screen =
                Screen.getScreensForRectangle(at.getMinX(), at.getMinY(), at.getWidth(), at.getHeight()).stream()
                        .findFirst()
                        .orElse(Screen.getPrimary())
                        .getVisualBounds();
        if (at.getMaxX() + tip.getWidth() <= screen.getMaxX()) {
            tip.setX(at.getMaxX());
        } else if (at.getMinX() - tip.getWidth() >= screen.getMinX()) {
            tip.setX(at.getMinX() - tip.getWidth());
        } else if (at.getMaxY() + tip.getHeight() <= screen.getMaxY()) {
            tip.setY(at.getMaxY());
        } else if (at.getMinY() - tip.getHeight() >= screen.getMinY()) {
            tip.setY(at.getMinY() - tip.getHeight());
        }
    }

    @SuppressWarnings("unchecked") // what is kept under the key is what set puts there
    private static void say(Node node) {
        pointed = node;
        Shared.TIP.setText(((Supplier<String>) node.getProperties().get(Tips.class)).get());
        if (node.getProperties().put(Shared.class, true) == null) {
            Tooltip.install(node, Shared.TIP);
        }
    }
}
