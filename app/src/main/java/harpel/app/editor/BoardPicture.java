package harpel.app.editor;

import static harpel.app.draw.Drawing.faint;

import harpel.app.look.Theme;
import harpel.effect.notes.Carom;
import harpel.effect.notes.Carom.Direction;
import harpel.effect.notes.CaromBoard.Rolling;
import harpel.param.ParamSet;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.shape.ArcType;

/**
 * What stands and rolls on the board of the marble run, drawn with plain lines. Columns and rows count from 1, from the lower left.
 *
 * @param wide how wide a cell is
 * @param tall how high a cell is
 * @param height of the whole board
 */
record BoardPicture(GraphicsContext g, Theme theme, double wide, double tall, double height) {
    /** The way a marble will take; that of the chosen one stands out. */
    void way(List<Rolling> way, boolean chosen) {
        g.setStroke(faint(chosen ? theme.brass : theme.ink, chosen ? 0.7 : 0.18));
        g.setLineWidth(chosen ? 2 : 1.5);
        for (int i = 1; i < way.size(); i++) {
            Rolling from = way.get(i - 1);
            Rolling to = way.get(i);
            // What comes in at the other side is not drawn across the board.
            if (Math.abs(to.column() - from.column()) <= 1 && Math.abs(to.row() - from.row()) <= 1) {
                g.strokeLine(x(from.column() + 1), y(from.row() + 1), x(to.column() + 1), y(to.row() + 1));
            }
        }
        g.setLineWidth(1);
    }

    /** A bell, mirror, gate or spring. */
    void thing(ParamSet cell) {
        double x = x(cell.get(Carom.COLUMN));
        double y = y(cell.get(Carom.ROW));
        double r = radius(0.3);
        g.setFill(theme.ink);
        g.setStroke(theme.ink);
        g.setLineWidth(2.5);
        switch (cell.get(Carom.IS)) {
            case BELL -> {
                g.fillArc(x - r, y - r, 2 * r, 2.4 * r, 0, 180, ArcType.ROUND);
                g.fillRect(x - r * 1.15, y + r * 0.2, r * 2.3, r * 0.25);
                g.fillOval(x - r * 0.22, y + r * 0.5, r * 0.44, r * 0.44);
            }
            case MIRROR_RISING -> g.strokeLine(x - r * 1.2, y + r * 1.2, x + r * 1.2, y - r * 1.2);
            case MIRROR_FALLING -> g.strokeLine(x - r * 1.2, y - r * 1.2, x + r * 1.2, y + r * 1.2);
            case GATE -> {
                // The wider it stands open, the more it lets through.
                double open = r * cell.get(Carom.CHANCE) / 100.0;
                g.strokeLine(x, y - r * 1.3, x, y - open);
                g.strokeLine(x, y + open, x, y + r * 1.3);
            }
            case SPRING -> {
                g.setLineWidth(1.5);
                for (int i = -2; i < 2; i++) {
                    double side = i % 2 == 0 ? 1 : -1;
                    g.strokeLine(x + side * r * 0.8, y + i * r * 0.55, x - side * r * 0.8, y + (i + 1) * r * 0.55);
                }
            }
        }
        g.setLineWidth(1);
    }

    /** Where a marble begins and which way it rolls. */
    void launch(ParamSet marble) {
        double x = x(marble.get(Carom.COLUMN));
        double y = y(marble.get(Carom.ROW));
        double r = radius(0.3);
        Direction direction = marble.get(Carom.DIRECTION);
        g.setStroke(faint(theme.brassText, marble.get(Carom.MUTE) ? 0.35 : 1));
        g.setLineWidth(2);
        g.strokeOval(x - r, y - r, 2 * r, 2 * r);
        double length = Math.hypot(direction.right(), direction.up());
        g.strokeLine(x, y, x + direction.right() / length * r * 1.5, y - direction.up() / length * r * 1.5);
        g.setLineWidth(1);
    }

    /** A marble on its way. */
    void rolling(int column, int row) {
        double r = radius(0.22);
        g.setFill(theme.brass);
        g.fillOval(x(column) - r, y(row) - r, 2 * r, 2 * r);
    }

    private double x(int column) {
        return (column - 0.5) * wide;
    }

    private double y(int row) {
        return height - (row - 0.5) * tall;
    }

    private double radius(double share) {
        return Math.min(wide, tall) * share;
    }
}
