package harpel.app.editor;

import harpel.effect.notes.Carom;
import harpel.effect.notes.Carom.Direction;
import harpel.effect.notes.Carom.Thing;
import harpel.param.Param;
import harpel.param.ParamSet;
import java.util.ArrayList;
import java.util.List;

/** What stands on a marble run's board, by its cells, and what a hand does to it. Columns and rows are counted from 1. */
final class BoardLists {
    private final StageEditor editor;

    BoardLists(StageEditor editor) {
        this.editor = editor;
    }

    /** The place in its list of what stands in a cell, or -1. */
    int at(Param<List<ParamSet>> list, int column, int row) {
        List<ParamSet> all = editor.get(list);
        // Of several in one cell the last counts.
        for (int i = all.size() - 1; i >= 0; i--) {
            if (all.get(i).get(Carom.COLUMN) == column && all.get(i).get(Carom.ROW) == row) {
                return i;
            }
        }
        return -1;
    }

    boolean isEmpty(int column, int row) {
        return at(Carom.MARBLES, column, row) < 0 && at(Carom.CELLS, column, row) < 0;
    }

    /**
     * Changes one of a list.
     *
     * @param at its place; -1 adds one
     * @param to null takes it away
     * @param done whether the hand has let go
     */
    void put(Param<List<ParamSet>> list, int at, ParamSet to, boolean done) {
        List<ParamSet> changed = new ArrayList<>(editor.get(list));
        if (to == null) {
            changed.remove(at);
        } else if (at < 0) {
            changed.add(to);
        } else {
            changed.set(at, to);
        }
        editor.set(list, List.copyOf(changed), done);
    }

    void takeOff(int column, int row) {
        int marble = at(Carom.MARBLES, column, row);
        int cell = at(Carom.CELLS, column, row);
        if (marble >= 0) {
            put(Carom.MARBLES, marble, null, true);
        } else if (cell >= 0) {
            put(Carom.CELLS, cell, null, true);
        }
    }

    /** Turns a marble or a mirror; opens a gate further. */
    void turn(int column, int row, int by) {
        int marble = at(Carom.MARBLES, column, row);
        int cell = at(Carom.CELLS, column, row);
        if (marble >= 0) {
            ParamSet turned = editor.get(Carom.MARBLES).get(marble);
            Direction[] all = Direction.values();
            Direction next = all[Math.floorMod(turned.get(Carom.DIRECTION).ordinal() + by, all.length)];
            put(Carom.MARBLES, marble, turned.with(Carom.DIRECTION, next), true);
        } else if (cell >= 0) {
            ParamSet thing = editor.get(Carom.CELLS).get(cell);
            ParamSet turned = switch (thing.get(Carom.IS)) {
                case MIRROR_RISING -> thing.with(Carom.IS, Thing.MIRROR_FALLING);
                case MIRROR_FALLING -> thing.with(Carom.IS, Thing.MIRROR_RISING);
                case GATE -> thing.with(Carom.CHANCE, Math.floorMod(thing.get(Carom.CHANCE) + 10 * by, 110));
                // Bells and springs are the same from all sides.
                case BELL, SPRING -> thing;
            };
            if (turned != thing) {
                put(Carom.CELLS, cell, turned, true);
            }
        }
    }

    /** Moves what stands in a cell, a marble before a thing, unless another of its kind stands where it would come. */
    boolean move(int fromColumn, int fromRow, int column, int row) {
        Param<List<ParamSet>> what = at(Carom.MARBLES, fromColumn, fromRow) >= 0 ? Carom.MARBLES : Carom.CELLS;
        int at = at(what, fromColumn, fromRow);
        if (at < 0 || at(what, column, row) >= 0) {
            return false;
        }
        ParamSet moved = editor.get(what).get(at).with(Carom.COLUMN, column).with(Carom.ROW, row);
        put(what, at, moved, false);
        return true;
    }
}
