package harpel.app;

import harpel.chain.Branch;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectKind;
import harpel.effect.notes.ChordKeys;
import harpel.effect.route.Split;
import harpel.param.ListType;
import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.RowType;
import harpel.script.Script;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.geometry.Insets;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;

/** The controls of the selected stage or branch, one for every parameter, made from the descriptors. */
final class Inspector extends BorderPane {
    private final Session session;
    private final VBox content = new VBox(8);
    private final List<ParamTile<?>> tiles = new ArrayList<>();
    private final List<RowsEditor> rowEditors = new ArrayList<>();
    private StageAddress shown;
    private ParamSpec shownSpec;
    private MovesEditor moves;
    private ScriptEditor script;
    private ChordLearner chords;

    Inspector(Session session) {
        this.session = session;
        getStyleClass().add("inspector");
        content.setPadding(new Insets(10, 12, 12, 14));
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.setFocusTraversable(false);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        setCenter(scroll);
        session.selected().addListener((property, before, now) -> show());
        session.piece().addListener((property, before, now) -> show());
        show();
    }

    private void show() {
        StageAddress address = session.selected().get();
        Optional<Stage> stage = address == null ? Optional.empty() : session.stage(address);
        if (stage.isEmpty()) {
            shown = null;
            showNothing();
            return;
        }
        ParamSpec spec = stage.get().params().spec();
        if (!address.equals(shown) || spec != shownSpec) {
            boolean sameScript = address.equals(shown) && script != null && spec.has(Script.CODE);
            shown = address;
            shownSpec = spec;
            build(address, stage.get(), sameScript);
        }
        if (moves != null) {
            moves.show(stage.get());
        }
        if (script != null) {
            script.show(address, stage.get());
        }
        if (chords != null) {
            chords.show(address, stage.get());
        }
        ParamSet values = valuesOf(address, stage.get());
        for (ParamTile<?> tile : tiles) {
            tile.show(values);
            tile.showMovers(isBranch(address) ? List.of() : stage.get().moves().of(tile.param()));
        }
        for (RowsEditor editor : rowEditors) {
            editor.show(values);
        }
    }

    private void showNothing() {
        Label hint = new Label(
                "Select a stage to set it, or add one with “+ add effect”.\n\nPlay with the keys Z–M and Q–U of your"
                        + " computer, the drawn keys below, or a MIDI keyboard; Space plays the phrase.\n\nF1 lists every key.");
        hint.setWrapText(true);
        hint.getStyleClass().add("soft");
        content.getChildren().setAll(hint);
    }

    private static boolean isBranch(StageAddress address) {
        return address.way().get(address.way().size() - 1).branch() > 0;
    }

    private static ParamSet valuesOf(StageAddress address, Stage stage) {
        if (!isBranch(address)) {
            return stage.params();
        }
        int number = address.way().get(address.way().size() - 1).branch();
        return number <= stage.branches().size()
                ? stage.branches().get(number - 1).takes()
                : Split.TAKES.defaults();
    }

    private void build(StageAddress address, Stage stage, boolean sameScript) {
        tiles.clear();
        moves = null;
        chords = null;
        // The text being written is not taken from under the hand when it declares another control.
        ScriptEditor scripts = sameScript ? script : new ScriptEditor(session);
        script = null;
        rowEditors.clear();
        boolean branch = isBranch(address);
        Label name = new Label(branch ? "Branch" : stage.name());
        name.getStyleClass().add("part-title");
        Label does = new Label(
                branch ? "which notes it takes" : stage.isKnown() ? stage.kind().does() : "not known to this version");
        does.getStyleClass().add("soft");
        does.setWrapText(true);
        VBox head = new VBox(0, name, does);
        if (sameScript) {
            content.getChildren().removeIf(node -> node != scripts);
            content.getChildren().add(0, head);
        } else {
            content.getChildren().setAll(head);
        }
        if (!branch && stage.isKnown()) {
            content.getChildren().add(1, PresetMenu.ofStage(session, address, stage));
        }
        ParamSpec spec = branch ? Split.TAKES : stage.params().spec();
        GridPane grid = twoColumns();
        for (Param<?> param : spec.params()) {
            if (param.type() instanceof ListType<?> list && list.item() instanceof RowType) {
                RowsEditor editor = rows(param);
                rowEditors.add(editor);
            } else if (param == Script.CODE) {
                script = scripts;
                if (!sameScript) {
                    content.getChildren().add(scripts);
                }
            } else if (param != EffectKind.ON) {
                ParamTile<?> tile = tile(param);
                grid.add(tile, tiles.size() % 2, tiles.size() / 2);
                tiles.add(tile);
            }
        }
        content.getChildren().add(grid);
        if (!branch && spec.has(ChordKeys.KEYS)) {
            chords = new ChordLearner(session);
            content.getChildren().add(chords);
        }
        content.getChildren().addAll(rowEditors);
        if (!branch && stage.isKnown() && !stage.kind().branches()) {
            moves = new MovesEditor(session, (changed, done) -> {
                session.editStage("Move controls", address + " move", address, one -> one.withMoves(changed));
                if (done) {
                    session.endGesture();
                }
            });
            content.getChildren().add(moves);
        }
        content.getChildren().add(actions(address, stage, branch));
    }

    /** Two columns of the same width, for tiles. */
    static GridPane twoColumns() {
        GridPane grid = new GridPane();
        grid.setHgap(6);
        grid.setVgap(6);
        for (int i = 0; i < 2; i++) {
            ColumnConstraints half = new ColumnConstraints();
            half.setPercentWidth(50);
            grid.getColumnConstraints().add(half);
        }
        return grid;
    }

    private FlowPane actions(StageAddress address, Stage stage, boolean branch) {
        FlowPane pane = new FlowPane(6, 6);
        if (branch) {
            int number = address.way().get(address.way().size() - 1).branch();
            Button remove = button(
                    "Remove branch",
                    "remove-branch",
                    "Remove this branch and its stages",
                    () -> session.editStage(
                            "Remove branch",
                            "",
                            address,
                            one -> one.withBranches(without(one.branches(), number - 1))));
            remove.setDisable(stage.branches().size() < 2);
            pane.getChildren().add(remove);
            return pane;
        }
        if (stage.isKnown() && stage.kind().branches()) {
            pane.getChildren()
                    .add(button(
                            "Add branch",
                            "add-branch",
                            "Add a dry branch",
                            () -> session.editStage(
                                    "Add branch",
                                    "",
                                    address,
                                    one -> one.branches().size() < Split.MOST_BRANCHES
                                            ? one.withBranches(with(one.branches()))
                                            : one)));
        }
        if (stage.isKnown() && !stage.kind().action().isEmpty()) {
            String action = stage.kind().action();
            pane.getChildren()
                    .add(button(
                            action,
                            action.toLowerCase(java.util.Locale.ROOT).replace(' ', '-'),
                            action + ": the effect’s own action, at once",
                            () -> session.act(address)));
        }
        pane.getChildren()
                .add(button(
                        "Duplicate",
                        "duplicate",
                        "Put the same stage after it  (Ctrl+D)",
                        () -> StageActions.duplicate(session)));
        pane.getChildren()
                .add(button("Remove", "remove", "Remove the stage  (Ctrl+Delete)", () -> StageActions.remove(session)));
        return pane;
    }

    /** Shows what has changed since the last frame without an edit: what a script says, where movers stand. */
    void draw() {
        if (shown == null) {
            return;
        }
        if (script != null) {
            script.draw();
        }
        if (chords != null) {
            chords.draw();
        }
        ParamSet moved = session.traces().moved(shown.toString());
        for (ParamTile<?> tile : tiles) {
            tile.showMoved(moved);
        }
    }

    private static List<Branch> without(List<Branch> branches, int place) {
        List<Branch> left = new ArrayList<>(branches);
        left.remove(place);
        return left;
    }

    private static List<Branch> with(List<Branch> branches) {
        List<Branch> more = new ArrayList<>(branches);
        more.add(Branch.DRY);
        return more;
    }

    private static Button button(String text, String id, String tip, Runnable action) {
        Button button = new Button(text);
        button.setId(id);
        button.setTooltip(new Tooltip(tip));
        button.setOnAction(event -> action.run());
        return button;
    }

    private <T> ParamTile<T> tile(Param<T> param) {
        return new ParamTile<>(param, (tile, done) -> change(param, tile.plain(), done));
    }

    @SuppressWarnings("unchecked") // a list of rows is a List<ParamSet>
    private RowsEditor rows(Param<?> param) {
        Param<List<ParamSet>> rows = (Param<List<ParamSet>>) param;
        return new RowsEditor(rows, (list, done) -> change(rows, rows.type().write(list), done));
    }

    private void change(Param<?> param, Object plain, boolean done) {
        StageAddress address = shown;
        String gesture = address + " " + param.id();
        try {
            session.editStage(
                    "Set " + param.label().toLowerCase(java.util.Locale.ROOT),
                    gesture,
                    address,
                    stage -> isBranch(address)
                            ? withTakes(stage, address, values -> values.withPlain(param, plain))
                            : stage.withParams(stage.params().withPlain(param, plain)));
        } catch (ParamException e) {
            session.say(e.getMessage());
        }
        if (done) {
            session.endGesture();
        }
    }

    private static Stage withTakes(Stage stage, StageAddress address, UnaryOperator<ParamSet> change) {
        int place = address.way().get(address.way().size() - 1).branch() - 1;
        List<Branch> branches = new ArrayList<>(stage.branches());
        Branch branch = branches.get(place);
        branches.set(place, new Branch(change.apply(branch.takes()), branch.chain()));
        return stage.withBranches(branches);
    }
}
