package harpel.app.ui.room;

import harpel.app.ui.Space;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * A list that is scrolled up and down, whose rows are made when they come near what is seen of it: a piece may have a thousand parts,
 * and a row of many controls costs the window milliseconds.
 *
 * @param <T> the rows
 */
public final class SeenRows<T extends Region> {
    /** So many are made at once, which is more than a window shows of most pieces. */
    private static final int FIRST = 16;

    private static final double USUAL_HEIGHT = 28;

    private final VBox column = new VBox(Space.TIGHT);
    private final Scrolling scroll = new Scrolling(column);
    private final Function<String, T> maker;
    private final Map<String, T> made = new HashMap<>();
    private List<String> ids = List.of();
    private boolean asked;

    /** @param maker makes the row of an id */
    public SeenRows(Function<String, T> maker) {
        this.maker = maker;
        scroll.vvalueProperty().addListener((property, before, now) -> askForSeen());
        scroll.viewportBoundsProperty().addListener((property, before, now) -> askForSeen());
        column.heightProperty().addListener((property, before, now) -> askForSeen());
    }

    /** What scrolls. */
    public Scrolling node() {
        return scroll;
    }

    /** Which rows there are, in order. Those that stay keep the keyboard. */
    public void show(List<String> wanted) {
        ids = List.copyOf(wanted);
        made.keySet().retainAll(ids);
        ids.stream().limit(FIRST).forEach(id -> made.computeIfAbsent(id, maker));
        List<Region> rows = new ArrayList<>();
        for (String id : ids) {
            rows.add(made.containsKey(id) ? made.get(id) : new Unseen());
        }
        if (!same(rows)) {
            column.getChildren().setAll(rows);
        }
        askForSeen();
    }

    /** Keeps the place of a row that is not made. */
    private static final class Unseen extends Region {
        Unseen() {
            setMinHeight(USUAL_HEIGHT);
        }
    }

    private boolean same(List<Region> rows) {
        List<Node> now = column.getChildren();
        if (now.size() != rows.size()) {
            return false;
        }
        for (int i = 0; i < rows.size(); i++) {
            if (now.get(i) != rows.get(i) && !(now.get(i) instanceof Unseen && rows.get(i) instanceof Unseen)) {
                return false;
            }
        }
        return true;
    }

    /** The rows that are made. */
    public Collection<T> made() {
        return made.values();
    }

    /** The row of an id, which is made now where it was not; null where there is none. */
    public T row(String id) {
        int at = ids.indexOf(id);
        if (at < 0) {
            return null;
        }
        T row = made.computeIfAbsent(id, maker);
        if (column.getChildren().get(at) != row) {
            column.getChildren().set(at, row);
        }
        return row;
    }

    /** The row that is so many after another; null where there is none. */
    public T beside(String id, int by) {
        int at = ids.indexOf(id) + by;
        return at >= 0 && at < ids.size() ? row(ids.get(at)) : null;
    }

    /** Scrolls so far that a row is seen. */
    public void reveal(String id) {
        T row = row(id);
        if (row != null) {
            scroll.reveal(row);
        }
    }

    /** Not while nodes are being placed. */
    private void askForSeen() {
        if (!asked && made.size() < ids.size()) {
            asked = true;
            Platform.runLater(() -> {
                asked = false;
                makeSeen();
            });
        }
    }

    private void makeSeen() {
        Bounds view = scroll.getViewportBounds();
        double over = Math.max(0, column.getHeight() - view.getHeight());
        double top = scroll.getVvalue() * over;
        for (int i = 0; i < ids.size(); i++) {
            Bounds place = column.getChildren().get(i).getBoundsInParent();
            if (place.getMaxY() > top - view.getHeight() && place.getMinY() < top + 2 * view.getHeight()) {
                row(ids.get(i));
            }
        }
    }
}
