package harpel.app.ui;

import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;

/** Tiles beside one another. */
public final class Columns {
    private static final double GAP = 6;

    private Columns() {}

    /** Two columns of the same width. */
    public static GridPane two() {
        return of(2);
    }

    /** Columns of the same width. */
    public static GridPane of(int count) {
        GridPane grid = new GridPane();
        grid.setHgap(GAP);
        grid.setVgap(GAP);
        for (int i = 0; i < count; i++) {
            ColumnConstraints column = new ColumnConstraints();
            column.setPercentWidth(100.0 / count);
            grid.getColumnConstraints().add(column);
        }
        return grid;
    }
}
