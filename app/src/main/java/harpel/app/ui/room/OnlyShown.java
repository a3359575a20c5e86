package harpel.app.ui.room;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.Pane;

/** Takes nodes that are hidden out of their pane: whatever is in the window costs time at each frame, seen or not. */
public final class OnlyShown {
    private OnlyShown() {}

    /** From now on the pane has only those of its children that are visible, each in its place among the others. */
    public static void in(Pane pane) {
        List<Node> all = List.copyOf(pane.getChildren());
        for (Node node : all) {
            node.visibleProperty().addListener((property, before, now) -> {
                if (now) {
                    int place = (int) all.subList(0, all.indexOf(node)).stream()
                            .filter(Node::isVisible)
                            .count();
                    pane.getChildren().add(place, node);
                } else {
                    pane.getChildren().remove(node);
                }
            });
        }
        pane.getChildren().removeIf(node -> !node.isVisible());
    }
}
