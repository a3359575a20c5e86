package harpel.app.inspector;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Columns;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import harpel.piece.Routes;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Edits a parameter that is a list of little sets of parameters, such as voices or the steps of a pattern. */
final class RowsEditor extends VBox {
    private final Param<List<ParamSet>> param;
    private final ParamSpec spec;
    private final ListType<ParamSet> type;
    private final int most;
    private final BiConsumer<List<ParamSet>, Boolean> change;
    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Messages messages;
    private final VBox list = new VBox(Space.TIGHT);
    private List<ParamSet> rows = List.of();
    private final Map<Integer, Button> heads = new HashMap<>();
    private int open = -1;

    RowsEditor(
            Document document,
            Selection selection,
            Transport transport,
            Messages messages,
            Param<List<ParamSet>> param,
            BiConsumer<List<ParamSet>, Boolean> change) {
        super(Space.TIGHT);
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.messages = messages;
        this.param = param;
        this.change = change;
        this.type = listType(param);
        this.spec = ((RowType) type.item()).spec();
        this.most = type.most();
        setId("param-" + param.id());
        Label name = new Label(param.label());
        name.getStyleClass().add("tile-name");
        Tips.set(name, param.help());
        Button add = Buttons.button("+ add", "add-row-" + param.id(), "Add one, at most " + most, this::add);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        getChildren().addAll(new HBox(Space.CLOSE, name, space, add), list);
    }

    @SuppressWarnings("unchecked") // its values are lists of sets, and so is its type
    private static ListType<ParamSet> listType(Param<List<ParamSet>> param) {
        return (ListType<ParamSet>) param.type();
    }

    private void add() {
        if (rows.size() < most) {
            List<ParamSet> longer = new ArrayList<>(rows);
            longer.add(type.next(rows, param.defaultValue()));
            open = rows.size();
            change.accept(longer, true);
        }
    }

    void show(ParamSet values) {
        // A list that is shown already is not built anew under a hand that is on one of its controls.
        if (rows.equals(values.get(param)) && list.getChildren().size() == rows.size()) {
            return;
        }
        rows = values.get(param);
        list.getChildren().clear();
        for (int i = 0; i < rows.size(); i++) {
            list.getChildren().add(row(i));
        }
    }

    /** "2  +2 degrees · chance 50 %", as the row is now. */
    private String heading(int number) {
        return (number + 1) + "  "
                + new RowType(spec).show(Routes.named(document.piece().get(), rows.get(number)), document.spelling());
    }

    private VBox row(int number) {
        Button head = Buttons.button(
                heading(number), "row-" + param.id() + "-" + (number + 1), "Show what it is set to", () -> {
                    open = open == number ? -1 : number;
                    for (int i = 0; i < rows.size(); i++) {
                        list.getChildren().set(i, row(i));
                    }
                });
        head.getStyleClass().add("row-head");
        heads.put(number, head);
        head.setMinWidth(0);
        head.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(head, Priority.ALWAYS);
        String row = param.label() + " " + (number + 1);
        Button remove = Buttons.remove("remove-row-" + param.id() + "-" + (number + 1), row, () -> {
            List<ParamSet> shorter = new ArrayList<>(rows);
            shorter.remove(number);
            change.accept(shorter, true);
        });
        remove.getStyleClass().add("row-remove");
        VBox box = new VBox(Space.TIGHT, new HBox(Space.TIGHT, head, remove));
        if (open == number) {
            GridPane tiles = Columns.two();
            for (int i = 0; i < spec.params().size(); i++) {
                tiles.add(tile(spec.params().get(i), number), i % 2, i / 2);
            }
            box.getChildren().add(tiles);
        }
        return box;
    }

    private <T> ParamTile<T> tile(Param<T> one, int number) {
        ParamTile<T> tile = new ParamTile<>(
                one,
                (changed, done) -> {
                    List<ParamSet> edited = new ArrayList<>(rows);
                    edited.set(number, rows.get(number).withPlain(one, changed.plain()));
                    // The row keeps its controls while a hand is on one of them.
                    rows = edited;
                    changed.show(rows.get(number));
                    heads.get(number).setText(heading(number));
                    change.accept(edited, done);
                },
                document::spelling,
                messages::say);
        Routing.offer(tile, document, selection, transport);
        tile.show(rows.get(number));
        return tile;
    }
}
