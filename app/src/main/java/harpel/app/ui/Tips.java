package harpel.app.ui;

import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;

/**
 * What a control is for, said when it is pointed at and to a screen reader. One small window serves all of them and takes its words from
 * the control the pointer has come to: a window for each would cost more than the controls themselves.
 */
public final class Tips {
    private static final double WIDTH = 360;

    private Tips() {}

    /** Made when the first words are said, which no start waits for. */
    private static final class Shared {
        static final Tooltip TIP = new Tooltip();

        static {
            TIP.setWrapText(true);
            TIP.setMaxWidth(WIDTH);
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

    @SuppressWarnings("unchecked") // what is kept under the key is what set puts there
    private static void say(Node node) {
        Shared.TIP.setText(((Supplier<String>) node.getProperties().get(Tips.class)).get());
        if (node.getProperties().put(Shared.class, true) == null) {
            Tooltip.install(node, Shared.TIP);
        }
    }
}
