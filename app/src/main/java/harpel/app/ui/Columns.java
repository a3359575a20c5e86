package harpel.app.ui;

import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;

/** Tiles beside one another. */
public final class Columns {
    private static final double GAP = 6;

    private Columns() {}

    /** Two columns of the same width. */
    public static GridPane two() {
        GridPane grid = new GridPane();
        grid.setHgap(GAP);
        grid.setVgap(GAP);
        for (int i = 0; i < 2; i++) {
            ColumnConstraints half = new ColumnConstraints();
            half.setPercentWidth(50);
            grid.getColumnConstraints().add(half);
        }
        return grid;
    }
}
