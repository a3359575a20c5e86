package harpel.app.inspector;

import harpel.app.chain.PresetMenu;
import harpel.app.draw.StepRow;
import harpel.app.editor.Around;
import harpel.app.editor.ScriptEditor;
import harpel.app.editor.StageEditor;
import harpel.app.help.HelpPicture;
import harpel.app.help.HelpSheet;
import harpel.app.session.Session;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Columns;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.app.ui.room.OnlyShown;
import harpel.app.ui.room.Scrolling;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.Beyond;
import harpel.effect.EffectKind;
import harpel.effect.route.Split;
import harpel.move.Moves;
import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.ParamType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import harpel.script.Script;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.Window;

/** The controls of the selected stage or branch, one for every parameter, made from the descriptors. */
public final class Inspector extends BorderPane {
    private static final Set<Param<?>> COMMON =
            Set.of(EffectKind.SEED, EffectKind.LABEL, EffectKind.CHANNEL, Beyond.PARAM);

    private final Session session;
    private final Around around;
    private final VBox content = new VBox(Space.GAP);
    private final Scrolling scroll = new Scrolling(content);
    private final List<ParamTile<?>> tiles = new ArrayList<>();
    private final List<RowsEditor> rowEditors = new ArrayList<>();
    private StageAddress shown;
    private ParamSpec shownSpec;
    private MovesEditor moves;
    private HelpPicture picture;
    private ScriptEditor script;
    private StageEditor editor;
    private Button openLarge;
    private final LargePage large;
    /** Stands where the editor would stand. */
    private final Label elsewhere = new Label("The editor lies large over the rows.");

    private final List<StepRow<?>> stepRows = new ArrayList<>();
    private final List<Consumer<ParamSet>> stepRowShows = new ArrayList<>();

    public Inspector(Session session, Around around) {
        this.session = session;
        this.around = around;
        getStyleClass().add("inspector");
        large = new LargePage(() -> session.look().large().set(false));
        elsewhere.getStyleClass().add("soft");
        session.look().large().addListener((property, before, now) -> layLarge());
        content.setPadding(new Insets(Space.ROOM, Space.EDGE, Space.EDGE, Space.EDGE));
        setCenter(scroll);
        session.selection().selected().addListener((property, before, now) -> show());
        session.document().piece().addListener((property, before, now) -> show());
        session.levers().picking().addListener((property, before, now) -> showPickable());
        show();
    }

    private void show() {
        StageAddress address = session.selection().selected().get();
        Optional<Stage> stage =
                address == null ? Optional.empty() : session.selection().stage(address);
        if (stage.isEmpty()) {
            shown = null;
            session.look().large().set(false);
            showNothing();
            return;
        }
        ParamSpec spec = stage.get().params().spec();
        if (!address.equals(shown) || spec != shownSpec) {
            boolean sameScript = address.equals(shown) && script != null && spec.has(Script.CODE);
            shown = address;
            shownSpec = spec;
            build(address, stage.get(), sameScript);
            if (!sameScript) {
                scroll.setVvalue(0);
            }
        }
        if (picture != null) {
            picture.show(session.document().piece().get(), stage.get());
        }
        if (moves != null) {
            moves.show(stage.get());
        }
        if (script != null) {
            script.show(address, stage.get());
        }
        if (editor != null) {
            editor.show(address, stage.get());
        }
        ParamSet values = valuesOf(address, stage.get());
        for (ParamTile<?> tile : tiles) {
            tile.show(values);
            tile.showMovers(isBranch(address) ? List.of() : stage.get().moves().of(tile.param()));
        }
        for (RowsEditor rows : rowEditors) {
            rows.show(values);
        }
        stepRowShows.forEach(one -> one.accept(values));
        showPickable();
        layLarge();
    }

    /** Whether the selected stage has an editor that can be opened large. */
    public boolean hasEditor() {
        return drawn() != null;
    }

    /** What is opened large: the editor, a script, or else what moves the controls. */
    private Region drawn() {
        if (shown == null) {
            // What is left of the stage before is nothing to open.
            return null;
        }
        return editor != null ? editor : script != null ? script : moves;
    }

    /** Has the editor lie large over the rows, or among the controls. */
    private void layLarge() {
        Region drawn = drawn();
        boolean over = session.look().large().get() && drawn != null;
        if (!over) {
            session.look().large().set(false);
        }
        if (over) {
            int place = content.getChildren().indexOf(drawn);
            if (place >= 0) {
                content.getChildren().set(place, elsewhere);
            }
            large.show(session.selection().stage(shown).map(Stage::name).orElse(""), drawn);
        } else if (drawn != null && large.holds(drawn)) {
            large.release();
            content.getChildren().set(content.getChildren().indexOf(elsewhere), drawn);
        }
        if (openLarge != null) {
            openLarge.setVisible(!over);
            openLarge.setManaged(!over);
        }
    }

    /** The editor as it lies over the rows. */
    public Region large() {
        return large;
    }

    private void showNothing() {
        Label hint = new Label(
                "Select a stage to set it, or add one with “+ add effect”.\n\nPlay with the keys Z–M and Q–I of your"
                        + " computer, the drawn keys below, or a MIDI keyboard; Space plays the phrase.\n\nF1 lists every key.");
        hint.setWrapText(true);
        hint.getStyleClass().add("soft");
        content.getChildren().setAll(hint);
    }

    private static boolean isBranch(StageAddress address) {
        return address.branch() > 0;
    }

    private static ParamSet valuesOf(StageAddress address, Stage stage) {
        if (!isBranch(address)) {
            return stage.params();
        }
        int number = address.branch();
        return number <= stage.branches().size()
                ? stage.branches().get(number - 1).takes()
                : Split.TAKES.defaults();
    }

    /** The name, and the way to the page of what is selected. */
    private HBox title(Label name, Stage stage, boolean branch) {
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox title = new HBox(Space.GAP, name, space);
        title.setAlignment(Pos.CENTER_LEFT);
        if (!branch && stage.isKnown()) {
            Button help = Buttons.small(
                    "?",
                    "help",
                    "What it does and each of its controls, in words",
                    () -> help(getScene().getWindow()));
            help.setAccessibleText("Help for " + stage.name());
            title.getChildren().add(help);
        }
        return title;
    }

    /**
     * Shows the page of the selected stage's effect.
     *
     * @param owner the window it lies over; the controls may be folded away
     */
    public void help(Window owner) {
        StageAddress address = session.selection().selected().get();
        if (address != null) {
            session.selection()
                    .stage(address)
                    .filter(Stage::isKnown)
                    .ifPresent(stage -> HelpSheet.show(
                            owner,
                            session.look(),
                            stage,
                            preset -> PresetMenu.use(session.selection(), address, preset)));
        }
    }

    private void build(StageAddress address, Stage stage, boolean sameScript) {
        tiles.clear();
        moves = null;
        editor = null;
        openLarge = null;
        large.release();
        stepRows.clear();
        stepRowShows.clear();
        // The text being written is not taken from under the hand when it declares another control.
        ScriptEditor scripts = sameScript ? script : null;
        script = null;
        rowEditors.clear();
        boolean branch = isBranch(address);
        Label name = new Label(branch ? "Branch" : stage.name());
        name.getStyleClass().add("part-title");
        Label does = new Label(
                branch
                        ? "which notes it takes"
                        : stage.isKnown() ? stage.kind().words().does() : "not known to this version");
        does.getStyleClass().add("soft");
        does.setWrapText(true);
        VBox head = new VBox(0, title(name, stage, branch), does);
        picture = null;
        if (!branch && stage.isKnown() && !(stage.kind() instanceof Script)) {
            picture = new HelpPicture(session.look());
            Label seen = new Label();
            seen.getStyleClass().add("soft");
            seen.setWrapText(true);
            seen.textProperty().bind(picture.words());
            VBox.setMargin(picture, new Insets(Space.CLOSE, 0, 0, 0));
            head.getChildren().addAll(picture, seen);
        }
        if (sameScript) {
            // While it lies large over the rows something else stands in its place.
            content.getChildren().removeIf(node -> node != scripts && node != elsewhere);
            content.getChildren().add(0, head);
        } else {
            content.getChildren().setAll(head);
        }
        if (!branch && stage.isKnown()) {
            content.getChildren()
                    .add(
                            1,
                            PresetMenu.ofStage(
                                    session.selection(), session.look(), session.messages(), address, stage));
        }
        ParamSpec spec = branch ? Split.TAKES : stage.params().spec();
        GridPane grid = Columns.two();
        GridPane common = Columns.two();
        if (!branch) {
            editor = StageEditor.of(around, stage, this::set).orElse(null);
        }
        if (editor != null) {
            openLarge = Buttons.button(
                    "Open large",
                    "open-large",
                    "The editor over the rows, as large as there is room  (F7, or double-click the" + " stage)",
                    () -> session.look().large().set(true));
            openLarge.getStyleClass().add("tiny");
            content.getChildren().addAll(editor, openLarge);
        }
        Set<Param<?>> drawn = editor == null ? Set.of() : editor.instead(spec);
        for (Param<?> param : spec.params()) {
            if (drawn.contains(param)) {
                continue;
            }
            if (param.type() instanceof ListType<?> list && list.item() instanceof RowType) {
                RowsEditor editor = rows(param);
                rowEditors.add(editor);
            } else if (param.type() instanceof ListType<?> list && hasBar(list.item())) {
                stepRows.add(stepRow(param));
            } else if (param == Script.CODE) {
                script = scripts == null
                        ? new ScriptEditor(session.document(), session.selection(), session.transport())
                        : scripts;
                if (!sameScript) {
                    content.getChildren().add(script);
                }
            } else if (param != EffectKind.ON) {
                ParamTile<?> tile = tile(param);
                GridPane where = COMMON.contains(param) ? common : grid;
                int place = where.getChildren().size();
                where.add(tile, place % 2, place / 2);
                tiles.add(tile);
            }
        }
        content.getChildren().add(grid);
        content.getChildren().addAll(stepRows);
        content.getChildren().addAll(rowEditors);
        addCommon(common);
        if (!branch && stage.isKnown() && !stage.kind().nature().branches()) {
            moves = new MovesEditor(
                    session.document(),
                    session.look(),
                    session.transport(),
                    session.messages(),
                    (changed, done) -> {
                        session.selection()
                                .editStage("Move controls", address + " move", address, one -> one.withMoves(changed));
                        if (done) {
                            session.document().endGesture();
                        }
                    },
                    edit -> session.selection().editStage("Move controls", "", address, edit));
            content.getChildren().add(moves);
        }
        content.getChildren()
                .add(
                        branch
                                ? StageButtons.ofBranch(session.selection(), address, stage)
                                : StageButtons.of(
                                        session.selection(),
                                        session.look(),
                                        session.transport(),
                                        session.keeping(),
                                        address,
                                        stage));
    }

    /** What every effect has lies folded under what is its own. */
    private void addCommon(GridPane common) {
        if (common.getChildren().isEmpty()) {
            return;
        }
        String names = common.getChildren().stream()
                .map(node -> ((ParamTile<?>) node).param().label())
                .collect(Collectors.joining(", "))
                .toLowerCase(Locale.ROOT);
        Button fold = Buttons.button("", "common", "Settings that every effect has: " + names, () -> {});
        fold.getStyleClass().add("tiny");
        Runnable show = () -> {
            boolean open = session.look().commonOpen().get();
            fold.setText((open ? "▾ " : "▸ ") + names);
            common.setManaged(open);
            common.setVisible(open);
        };
        fold.setOnAction(event -> {
            session.look().commonOpen().set(!session.look().commonOpen().get());
            show.run();
        });
        show.run();
        VBox group = new VBox(content.getSpacing(), fold, common);
        OnlyShown.in(group);
        content.getChildren().add(group);
    }

    /** Gives the keyboard to the first control of the selected stage: what is drawn first, else the first value. */
    public void focusFirst() {
        if (session.look().large().get()) {
            large.focus();
            return;
        }
        Node first = content.lookup(".drawing");
        if (first == null && !tiles.isEmpty()) {
            first = tiles.get(0);
        }
        if (first != null) {
            first.requestFocus();
        }
    }

    /** Gives the keyboard to the control of a parameter of the selected stage. */
    public void focusControl(String param) {
        Node control = content.lookup("#param-" + param);
        if (control != null) {
            control.requestFocus();
        } else {
            focusFirst();
        }
    }

    /** Shows what has changed since the last frame without an edit: what a script says, where movers stand. */
    public void draw() {
        if (picture != null) {
            picture.draw();
        }
        if (shown == null) {
            return;
        }
        if (script != null) {
            script.draw();
        }
        if (editor != null) {
            editor.draw();
        }
        if (moves != null) {
            moves.draw();
        }
        stepRows.forEach(StepRow::draw);
        String place = shown.toString();
        Stage stage = session.selection().stage(shown).filter(Stage::isKnown).orElse(null);
        ParamSet moved = stage == null || isBranch(shown)
                ? null
                : session.transport().valuesNow(session.document().piece().get(), shown, stage);
        boolean on = stage == null || stage.on();
        for (ParamTile<?> tile : tiles) {
            tile.showMoved(moved);
            tile.showInForce(
                    on
                            ? session.transport()
                                    .traces()
                                    .inForce(place, tile.param().id())
                            : null);
        }
    }

    private <T> ParamTile<T> tile(Param<T> param) {
        ParamTile<T> tile = new ParamTile<>(
                param,
                (changed, done) -> change(param, changed.plain(), done),
                session.document()::spelling,
                session::say);
        Routing.offer(tile, session.document(), session.selection(), session.transport());
        if (param.type() instanceof IntType type && type.pitch()) {
            tile.name(shown -> Words.withDrum(session.selection(), shown));
        }
        tile.onPick(() -> session.levers().picked(shown, param));
        return tile;
    }

    private void showPickable() {
        boolean any = !session.levers().picking().get().isEmpty() && shown != null && !isBranch(shown);
        for (ParamTile<?> tile : tiles) {
            tile.showPickable(any
                    && session.selection()
                            .stage(shown)
                            .filter(stage -> stage.isKnown() && Moves.canMove(stage.kind(), tile.param()))
                            .isPresent());
        }
    }

    @SuppressWarnings("unchecked") // a list of rows is a List<ParamSet>
    private RowsEditor rows(Param<?> param) {
        Param<List<ParamSet>> rows = (Param<List<ParamSet>>) param;
        return new RowsEditor(
                session.document(),
                session.selection(),
                session.transport(),
                session.messages(),
                rows,
                (list, done) -> change(rows, rows.type().write(list), done));
    }

    private static <T> boolean hasBar(ParamType<T> type) {
        try {
            type.atFraction(0);
            return true;
        } catch (UnsupportedOperationException e) {
            return false;
        }
    }

    /** A list of values of which each has a place on a bar, as a row of steps. */
    @SuppressWarnings("unchecked") // a list's values are a List
    private <T> StepRow<T> stepRow(Param<?> param) {
        Param<List<T>> list = (Param<List<T>>) param;
        ListType<T> type = (ListType<T>) list.type();
        T fresh = type.fresh(list.defaultValue());
        StepRow<T> row = new StepRow<>(
                session.look(),
                session.messages(),
                "param-" + param.id(),
                param.label(),
                type.item(),
                fresh,
                type.most(),
                40,
                (values, done) -> set(list, values, done));
        stepRowShows.add(values -> row.show(values.get(list)));
        return row;
    }

    private <T> void set(Param<T> param, T value, boolean done) {
        change(param, param.type().write(value), done);
    }

    private void change(Param<?> param, Object plain, boolean done) {
        StageAddress address = shown;
        String gesture = address + " " + param.id();
        try {
            session.selection()
                    .editStage(
                            "Set " + param.label().toLowerCase(java.util.Locale.ROOT),
                            gesture,
                            address,
                            stage -> isBranch(address)
                                    ? stage.withTakes(address.branch(), values -> values.withPlain(param, plain))
                                    : stage.withParams(stage.kind()
                                            .completed(
                                                    stage.params().withPlain(param, plain),
                                                    param,
                                                    session.document()
                                                            .piece()
                                                            .get()
                                                            .key())));
        } catch (ParamException e) {
            session.say(e.getMessage());
        }
        if (done) {
            session.document().endGesture();
        }
    }
}
