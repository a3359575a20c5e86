package harpel.app;

import java.lang.ref.WeakReference;
import java.util.List;
import java.util.Map;
import java.util.WeakHashMap;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.Parent;

/** The areas of the window, through which F6 goes round: each gives the keyboard back to what had it there last. */
final class Areas {
    private final Map<Node, WeakReference<Node>> last = new WeakHashMap<>();

    /**
     * Gives the keyboard to the next area, or with −1 to the one before.
     *
     * @param all the areas in their order; null, or in no window, for one that is not shown
     * @param begin gives the keyboard to what is first in an area; where it has nothing of its own, to the first control there is
     */
    void go(List<? extends Node> all, int by, Consumer<Node> begin) {
        List<? extends Node> there = all.stream()
                .filter(area -> area != null && area.getScene() != null)
                .toList();
        if (there.isEmpty()) {
            return;
        }
        Node owner = there.get(0).getScene().getFocusOwner();
        int now = -1;
        for (int i = 0; i < there.size(); i++) {
            now = owner != null && isIn(owner, there.get(i)) ? i : now;
        }
        if (now >= 0) {
            last.put(there.get(now), new WeakReference<>(owner));
        }
        // One that has nothing for the keyboard is passed by.
        for (int tries = 1; tries <= there.size(); tries++) {
            Node area = there.get(Math.floorMod(now + by * tries, there.size()));
            if (give(area, begin)) {
                return;
            }
        }
    }

    private boolean give(Node area, Consumer<Node> begin) {
        WeakReference<Node> kept = last.get(area);
        Node before = kept == null ? null : kept.get();
        if (before != null && before.getScene() == area.getScene() && isIn(before, area) && takesKeys(before)) {
            before.requestFocus();
            return true;
        }
        begin.accept(area);
        if (area.getScene().getFocusOwner() != null && isIn(area.getScene().getFocusOwner(), area)) {
            return true;
        }
        Node first = controls(area).findFirst().orElse(null);
        if (first != null) {
            first.requestFocus();
        }
        return first != null;
    }

    private static Stream<Node> controls(Node node) {
        if (!node.isVisible() || node.isDisabled()) {
            return Stream.empty();
        }
        Stream<Node> inside = node instanceof Parent parent
                ? parent.getChildrenUnmodifiable().stream().flatMap(Areas::controls)
                : Stream.empty();
        return Stream.concat(takesKeys(node) ? Stream.of(node) : Stream.empty(), inside);
    }

    private static boolean takesKeys(Node node) {
        boolean shown = true;
        for (Node at = node; at != null; at = at.getParent()) {
            shown &= at.isVisible();
        }
        return shown && node.isFocusTraversable() && !node.isDisabled();
    }

    private static boolean isIn(Node node, Node area) {
        Node at = node;
        while (at != null && at != area) {
            at = at.getParent();
        }
        return at == area;
    }
}
