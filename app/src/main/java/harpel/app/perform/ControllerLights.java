package harpel.app.perform;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.perform.ControllerDesk.Hands;
import harpel.app.transport.Transport;
import harpel.control.ControllerMap.Cell;
import harpel.control.ControllerMap.Grid;
import harpel.control.Light;
import harpel.effect.notes.Carom;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.perform.Pad;

/** What the lights of a controller say of what its pads are. Interface thread. */
final class ControllerLights {
    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Performing performing;
    private final ControllerDesk desk;
    private final Grid grid;

    ControllerLights(
            Document document,
            Selection selection,
            Transport transport,
            Performing performing,
            ControllerDesk desk,
            Grid grid) {
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.performing = performing;
        this.desk = desk;
        this.grid = grid;
    }

    private Piece piece() {
        return document.piece().get();
    }

    /** Row by row from the top left. */
    Light[] all() {
        Light[] all = new Light[grid.columns() * grid.rows()];
        for (int column = 0; column < grid.columns(); column++) {
            for (int row = 0; row < grid.rows(); row++) {
                all[row * grid.columns() + column] = row == 0 ? leading(column) : light(new Cell(column, row));
            }
        }
        if (desk.hands() == Hands.BOARD) {
            rolling(all);
        }
        return all;
    }

    private Light leading(int column) {
        return column >= Hands.values().length
                ? Light.OFF
                : Hands.values()[column] == desk.hands() ? Light.ON : Light.LEADS;
    }

    private Light light(Cell cell) {
        return switch (desk.hands()) {
            case PADS -> desk.padAt(cell).flatMap(piece()::pad).map(this::light).orElse(Light.OFF);
            case PARTS -> desk.part(cell).map(part -> light(part, cell.row())).orElse(Light.OFF);
            case KEYS -> {
                int pitch = desk.pitch(cell);
                boolean root = Math.floorMod(pitch - piece().key().root(), 12) == 0;
                yield desk.isDown(pitch)
                        ? Light.MOVES
                        : root ? Light.ON : piece().key().contains(pitch) ? Light.THERE : Light.OFF;
            }
            case BOARD -> onBoard(cell);
        };
    }

    private Light light(Pad pad) {
        return performing.waitsFor(pad).isPresent()
                ? Light.WAITS
                : performing.isHeld(pad) ? Light.MOVES : pad.isOn(piece()) ? Light.ON : Light.THERE;
    }

    private Light light(Part part, int row) {
        return switch (row) {
            case 1 -> part.mix().mute() ? Light.THERE : Light.ON;
            case 2 -> part.mix().solo() ? Light.ON : Light.THERE;
            case 3 -> part.id().equals(selection.partId().get()) ? Light.ON : Light.THERE;
            default -> Light.OFF;
        };
    }

    private Light onBoard(Cell cell) {
        int column = cell.column() + 1;
        int row = grid.rows() - cell.row();
        return desk.board()
                .flatMap(selection::stage)
                .map(stage -> {
                    boolean marble = stage.params().get(Carom.MARBLES).stream()
                            .anyMatch(one -> one.get(Carom.COLUMN) == column && one.get(Carom.ROW) == row);
                    boolean thing = stage.params().get(Carom.CELLS).stream()
                            .anyMatch(one -> one.get(Carom.COLUMN) == column && one.get(Carom.ROW) == row);
                    return marble ? Light.ON : thing ? Light.THERE : Light.OFF;
                })
                .orElse(Light.OFF);
    }

    private void rolling(Light[] all) {
        desk.board().ifPresent(address -> {
            int size = selection.stage(address).orElseThrow().params().get(Carom.SIZE);
            for (int place : transport.traces().steps(address.toString())) {
                int column = Math.floorMod(place, size);
                int row = grid.rows() - 1 - Math.floorDiv(place, size);
                if (place >= 0 && column < grid.columns() && row > 0 && row < grid.rows()) {
                    all[row * grid.columns() + column] = Light.MOVES;
                }
            }
        });
    }
}
