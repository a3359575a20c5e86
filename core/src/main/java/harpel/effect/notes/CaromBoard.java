package harpel.effect.notes;

import harpel.effect.notes.Carom.Edges;
import harpel.effect.notes.Carom.Thing;
import harpel.param.ParamSet;
import java.util.ArrayList;
import java.util.List;

/** What stands on a board, and how a marble rolls over it. Columns and rows are counted from 0, rows upwards. */
public final class CaromBoard {
    private final int size;
    private final boolean wraps;
    private final ParamSet[] cells;

    /** A marble in its cell, and where it rolls. */
    public record Rolling(int column, int row, int right, int up) {}

    public CaromBoard(ParamSet values) {
        size = values.get(Carom.SIZE);
        wraps = values.get(Carom.EDGES) == Edges.WRAP;
        cells = new ParamSet[size * size];
        for (ParamSet cell : values.get(Carom.CELLS)) {
            if (has(cell)) {
                cells[(cell.get(Carom.ROW) - 1) * size + cell.get(Carom.COLUMN) - 1] = cell;
            }
        }
    }

    public int size() {
        return size;
    }

    /** Whether something placed there lies on the board. */
    public boolean has(ParamSet placed) {
        return placed.get(Carom.COLUMN) <= size && placed.get(Carom.ROW) <= size;
    }

    /** What stands in a cell, or null. */
    public Thing thing(int column, int row) {
        ParamSet cell = cells[row * size + column];
        return cell == null ? null : cell.get(Carom.IS);
    }

    /** The chance in percent that a gate lets a marble through. */
    public int chance(int column, int row) {
        return cells[row * size + column].get(Carom.CHANCE);
    }

    /** A marble as it is launched. */
    public static Rolling launched(ParamSet marble) {
        Carom.Direction direction = marble.get(Carom.DIRECTION);
        return new Rolling(marble.get(Carom.COLUMN) - 1, marble.get(Carom.ROW) - 1, direction.right(), direction.up());
    }

    /** One cell on; at an edge it is thrown back or comes in at the other side. Not yet turned by what stands there. */
    public Rolling rolled(Rolling marble) {
        if (wraps) {
            return new Rolling(
                    Math.floorMod(marble.column + marble.right, size),
                    Math.floorMod(marble.row + marble.up, size),
                    marble.right,
                    marble.up);
        }
        int right = outside(marble.column + marble.right) ? -marble.right : marble.right;
        int up = outside(marble.row + marble.up) ? -marble.up : marble.up;
        return new Rolling(marble.column + right, marble.row + up, right, up);
    }

    /** One cell that way, coming in again at the other side; its own way stays. */
    public Rolling tilted(Rolling marble, Carom.Direction tilt) {
        return new Rolling(
                Math.floorMod(marble.column + tilt.right(), size),
                Math.floorMod(marble.row + tilt.up(), size),
                marble.right,
                marble.up);
    }

    private boolean outside(int place) {
        return place < 0 || place >= size;
    }

    /**
     * As what stands in its cell turns it.
     *
     * @param open whether a gate lets it through
     */
    public Rolling turned(Rolling marble, boolean open) {
        Thing thing = thing(marble.column, marble.row);
        if (thing == null || thing == Thing.BELL || thing == Thing.GATE && open) {
            return marble;
        }
        boolean slanting = marble.right != 0 && marble.up != 0;
        boolean back = slanting || thing == Thing.GATE || thing == Thing.SPRING;
        int lean = back ? 0 : thing == Thing.MIRROR_RISING ? 1 : -1;
        return back
                ? new Rolling(marble.column, marble.row, -marble.right, -marble.up)
                : new Rolling(marble.column, marble.row, lean * marble.up, lean * marble.right);
    }

    /** The way of a marble if all gates are open: every cell it enters, at most so many; it ends where it begins anew. */
    public List<Rolling> way(ParamSet marble, int most) {
        List<Rolling> way = new ArrayList<>();
        if (has(marble)) {
            Rolling at = launched(marble);
            way.add(at);
            for (int i = 0; i < most; i++) {
                at = turned(rolled(at), true);
                boolean round = way.contains(at);
                way.add(at);
                if (round) {
                    break;
                }
            }
        }
        return way;
    }
}
