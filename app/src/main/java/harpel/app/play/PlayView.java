package harpel.app.play;

import harpel.app.editor.Around;
import harpel.app.editor.BoardEditor;
import harpel.app.editor.StageEditor;
import harpel.app.session.Session;
import harpel.app.transport.Places;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.param.Param;
import harpel.piece.Part;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Pad;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.RowConstraints;
import javafx.scene.layout.VBox;

/** The Play view: moments and parts above; levers, pads and a board below. */
public final class PlayView extends BorderPane {
    private static final PseudoClass CHOSEN = PseudoClass.getPseudoClass("on");
    private static final int COLUMNS = 4;
    private static final double RIGHT = 340;
    private static final double LEVERS_WORDS = 380;
    private static final double PART_LEAST = 122;
    private static final double PART_MOST = 190;

    private static final int LOOK_EVERY = 60;

    private final Session session;
    private final Around around;
    private final MomentsRow moments;
    private final ControllerStrip strip;
    private final HBox strings = new HBox(Space.TIGHT);
    private final Map<String, LeverString> levers = new LinkedHashMap<>();
    private final Label noLever = new Label(
            "A lever moves any number of controls, each by its own amount: make one, then let it move controls in the Chain view.");
    private final List<PadTile> pads = new ArrayList<>();
    private final Label page = new Label();
    private final ToggleButton setUp;
    private final PadSetup setup;
    private final Scrolling setUpScroll;
    private final VBox right = new VBox(Space.GAP);
    private final HBox parts = new HBox(Space.CLOSE);
    private HBox middle;
    private StageEditor board;
    private StageAddress boardAt;
    /** What the rows of the parts say; they are not made anew for a lever that moves. */
    private List<Object> shownParts = List.of();

    private int shownPage;
    private int chosen = -1;
    private Piece drawn;
    private int drawnChanges = -1;
    private int frame;

    public PlayView(Session session, Around around) {
        this.session = session;
        this.around = around;
        getStyleClass().add("phrase-view");
        setId("play-view");
        ToggleButton write = Buttons.toggle(
                "Write moves",
                "play-write",
                "While the timeline plays, what is done here becomes points of its lanes; one undo  (Ctrl+Alt+W)",
                on -> session.writing().toggle());
        session.writing().armed().addListener((property, before, now) -> write.setSelected(now));
        setUp = Buttons.toggle(
                "set up pads",
                "set-up-pads",
                "Pressing a pad says what it does, in place of doing it",
                on -> setUp(on ? 0 : -1));
        moments = new MomentsRow(
                session.document(), session.timeline(), session.performing(), session.messages(), write, setUp);
        moments.setPadding(new Insets(Space.ROOM, Space.WIDE, Space.GAP, Space.WIDE));
        setTop(new VBox(moments, partsRow()));
        setup = new PadSetup(
                session.document(), session.selection(), session.transport(), session.messages(), () -> setUp(-1));
        setUpScroll = new Scrolling(setup);
        middle = middle();
        setCenter(middle);
        strip = new ControllerStrip(session.transport(), session.controller(), session.simulated());
        setBottom(strip);
        session.document().piece().addListener((property, before, now) -> drawn = null);
        session.performing().changes().addListener((property, before, now) -> drawnChanges = -1);
        session.selection().partId().addListener((property, before, now) -> drawn = null);
        session.levers().learnt().addListener((property, before, now) -> drawn = null);
    }

    private ScrollPane partsRow() {
        parts.setId("play-parts");
        parts.setPadding(new Insets(0, Space.WIDE, 0, Space.WIDE));
        ScrollPane row = new ScrollPane(parts);
        row.setFitToWidth(true);
        row.setFocusTraversable(false);
        row.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        return row;
    }

    private HBox middle() {
        Button add = Buttons.small(
                "+ lever",
                "play-add-lever",
                "A named control that moves any number of parameters, each by its own amount",
                session.levers()::add);
        noLever.getStyleClass().add("soft");
        noLever.setWrapText(true);
        noLever.setMaxWidth(LEVERS_WORDS);
        strings.setAlignment(Pos.TOP_LEFT);
        ScrollPane scroll = new ScrollPane(strings);
        scroll.setFitToHeight(true);
        scroll.setFitToWidth(true);
        scroll.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox left = new VBox(Space.CLOSE, head("Levers", add), scroll);
        HBox.setHgrow(left, Priority.ALWAYS);
        left.setMinWidth(200);
        left.setPrefWidth(430);
        GridPane grid = new GridPane();
        grid.setHgap(Space.GAP);
        grid.setVgap(Space.GAP);
        for (int i = 0; i < COLUMNS; i++) {
            ColumnConstraints column = new ColumnConstraints();
            column.setPercentWidth(100.0 / COLUMNS);
            grid.getColumnConstraints().add(column);
            RowConstraints row = new RowConstraints();
            row.setPercentHeight(100.0 / COLUMNS);
            grid.getRowConstraints().add(row);
        }
        for (int i = 0; i < Pad.PAGE; i++) {
            PadTile pad = new PadTile(
                    session.document(), session.timeline(), session.controller(), session.performing(), i, this::setUp);
            pads.add(pad);
            // All of them are one stop of Tab; arrows go among them.
            pad.setFocusTraversable(pads.size() == 1);
            pad.focusedProperty().addListener((property, before, now) -> {
                if (now) {
                    pads.forEach(one -> one.setFocusTraversable(one == pad));
                }
            });
            grid.add(pad, i % COLUMNS, i / COLUMNS);
        }
        grid.addEventHandler(KeyEvent.KEY_PRESSED, this::walk);
        VBox.setVgrow(grid, Priority.ALWAYS);
        page.getStyleClass().add("soft");
        HBox head = head(
                "Pads",
                page,
                Buttons.small("‹", "pads-before", "The page of pads before", () -> turn(-1)),
                Buttons.small("›", "pads-next", "The next page of pads", () -> turn(1)));
        VBox pad = new VBox(Space.CLOSE, head, grid);
        pad.setMinWidth(330);
        pad.setPrefWidth(400);
        HBox.setHgrow(pad, Priority.SOMETIMES);
        right.setMinWidth(RIGHT);
        right.setPrefWidth(RIGHT);
        right.setMaxWidth(RIGHT);
        HBox middle = new HBox(Space.WIDE, left, pad, right);
        middle.setPadding(new Insets(Space.CLOSE, Space.WIDE, Space.GAP, Space.WIDE));
        return middle;
    }

    private static HBox head(String words, Node... beside) {
        Label name = new Label(words);
        name.getStyleClass().add("part-title");
        name.setMinWidth(Region.USE_PREF_SIZE);
        HBox head = new HBox(Space.GAP, name);
        head.getChildren().addAll(beside);
        head.setAlignment(Pos.CENTER_LEFT);
        return head;
    }

    private Piece piece() {
        return session.document().piece().get();
    }

    private void turn(int by) {
        shownPage = Math.floorMod(shownPage + by, Pad.PAGES);
        drawn = null;
    }

    /** Says what a pad does; with -1 pads are played again. */
    private void setUp(int at) {
        chosen = at;
        setUp.setSelected(at >= 0);
        if (at >= 0) {
            setup.show(at);
        }
        drawn = null;
    }

    /** The arrow keys go from pad to pad. */
    private void walk(KeyEvent event) {
        int from = pads.indexOf(getScene().getFocusOwner());
        int by = switch (event.getCode()) {
            case LEFT -> -1;
            case RIGHT -> 1;
            case UP -> -COLUMNS;
            case DOWN -> COLUMNS;
            default -> 0;
        };
        if (from >= 0 && by != 0 && !event.isShortcutDown() && !event.isAltDown()) {
            pads.get(Math.floorMod(from + by, pads.size())).requestFocus();
            event.consume();
        } else if (from >= 0 && event.getCode() == KeyCode.PAGE_DOWN) {
            turn(1);
            event.consume();
        } else if (from >= 0 && event.getCode() == KeyCode.PAGE_UP) {
            turn(-1);
            event.consume();
        }
    }

    /** The keyboard comes to the first pad. */
    public void focusPads() {
        pads.get(0).requestFocus();
    }

    private void show() {
        Piece piece = piece();
        moments.show();
        List<String> names = piece.levers().stream().map(Lever::name).toList();
        if (!names.equals(List.copyOf(levers.keySet())) || strings.getChildren().isEmpty()) {
            levers.clear();
            names.forEach(name -> levers.put(
                    name,
                    new LeverString(
                            session.document(),
                            session.transport(),
                            session.levers(),
                            session.timeline(),
                            session.controller(),
                            session.messages(),
                            name)));
            strings.getChildren().setAll(levers.isEmpty() ? List.of(noLever) : levers.values());
        }
        levers.values().forEach(LeverString::show);
        pads.forEach(pad -> pad.show(shownPage, chosen >= 0, chosen));
        page.setText("page " + (shownPage + 1) + " of " + Pad.PAGES);
        if (chosen >= 0) {
            setup.show(chosen);
        }
        showRight(piece);
    }

    private void showRight(Piece piece) {
        List<Object> now = new ArrayList<>(List.of(session.selection().partId().get()));
        piece.parts().forEach(part -> now.add(List.of(part.id(), part.name(), part.mix())));
        if (!now.equals(shownParts)) {
            shownParts = now;
            parts.getChildren().setAll(piece.parts().stream().map(this::part).toList());
        }
        StageAddress at = Places.board(session.document(), session.selection()).orElse(null);
        boolean more = chosen >= 0 || at != null;
        if (more != middle.getChildren().contains(right)) {
            middle.getChildren().remove(right);
            if (more) {
                middle.getChildren().add(right);
            }
        }
        if (chosen >= 0) {
            if (!right.getChildren().contains(setUpScroll)) {
                right.getChildren().setAll(setUpScroll);
            }
            boardAt = null;
        } else if (at == null) {
            boardAt = null;
            board = null;
        } else {
            showBoard(at);
        }
    }

    private void showBoard(StageAddress at) {
        Stage stage = session.selection().stage(at).orElseThrow();
        if (!at.equals(boardAt) || board == null) {
            boardAt = at;
            BoardEditor editor = new BoardEditor(around, new StageEditor.Edit() {
                @Override
                public <T> void set(Param<T> param, T value, boolean done) {
                    session.selection()
                            .editStage(
                                    "Set " + param.label(),
                                    done ? "" : "board",
                                    boardAt,
                                    one -> one.with(param, value));
                }
            });
            editor.onStage(head(stage.name()));
            board = editor;
            right.getChildren().setAll(board);
        }
        board.show(at, stage);
    }

    private VBox part(Part part) {
        Button name = Buttons.button(
                part.name(),
                "play-part-" + part.id(),
                part.name() + ": the keys play it, and its board is shown",
                () -> session.selection().partId().set(part.id()));
        name.setMinWidth(0);
        name.getStyleClass().add("play-part");
        name.setMaxWidth(Double.MAX_VALUE);
        ToggleButton mute = Buttons.toggle(
                "mute",
                "play-mute-" + part.id(),
                "Not heard",
                on -> mix("Mute", part, on, part.mix().solo()));
        mute.setSelected(part.mix().mute());
        ToggleButton solo = Buttons.toggle(
                "solo",
                "play-solo-" + part.id(),
                "Only it, and others that are solo",
                on -> mix("Solo", part, part.mix().mute(), on));
        solo.setSelected(part.mix().solo());
        HBox buttons = new HBox(Space.TIGHT, mute, solo);
        for (ToggleButton each : List.of(mute, solo)) {
            HBox.setHgrow(each, Priority.ALWAYS);
            each.setMaxWidth(Double.MAX_VALUE);
        }
        VBox tile = new VBox(name, buttons);
        tile.setMinWidth(PART_LEAST);
        tile.setPrefWidth(PART_LEAST);
        tile.setMaxWidth(PART_MOST);
        HBox.setHgrow(tile, Priority.ALWAYS);
        tile.getStyleClass().addAll("play-part-row", "part-colour-" + part.mix().colour());
        tile.pseudoClassStateChanged(
                CHOSEN, part.id().equals(session.selection().partId().get()));
        return tile;
    }

    private void mix(String label, Part part, boolean mute, boolean solo) {
        session.document()
                .apply(PieceEdit.of(
                        label,
                        piece -> piece.withPart(
                                part.id(),
                                one -> one.withMix(one.mix().withMute(mute).withSolo(solo)))));
    }

    /** Draws a frame. */
    public void draw() {
        Piece piece = piece();
        int changes = session.performing().changes().get();
        if (piece != drawn || changes != drawnChanges) {
            drawn = piece;
            drawnChanges = changes;
            show();
        }
        if (frame++ % LOOK_EVERY == 0) {
            // Devices come and go.
            strip.show();
        }
        levers.values().forEach(LeverString::draw);
        if (chosen >= 0) {
            setup.draw();
        }
        if (board != null && boardAt != null) {
            board.draw();
        }
    }
}
