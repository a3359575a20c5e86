package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.look.Theme;
import harpel.app.ui.Buttons;
import harpel.app.ui.Columns;
import harpel.app.ui.Held;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.effect.notes.Carom;
import harpel.effect.notes.Carom.Direction;
import harpel.effect.notes.Carom.Thing;
import harpel.effect.notes.Carom.Tilt;
import harpel.effect.notes.CaromBoard;
import harpel.effect.notes.CaromBoard.Rolling;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.piece.Piece;
import harpel.theory.Key;
import harpel.theory.Pitch;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/**
 * The marble run: what is in hand is put on a cell by pressing it, what stands there is turned by pressing and moved by dragging, and a
 * marble's way is drawn faintly before it rolls.
 */
public final class BoardEditor extends StageEditor {
    private static final double TALL = 268;
    /** On stage it takes what room there is, from here on. */
    private static final double LEAST = 150;

    private static final double BELOW = 50;
    /** Cells from so wide and tall on have their notes written in them. */
    private static final double NAMED = 36;

    private static final List<Param<?>> ON_STAGE = List.of(Carom.PACE, Carom.DIRECTION, Carom.NOTE, Carom.MUTE);
    private static final Map<Tilt, String> TILTS =
            Map.of(Tilt.LEFT, "left", Tilt.RIGHT, "right", Tilt.UP, "up", Tilt.DOWN, "down");

    /** So many cells of a marble's way are drawn. */
    private static final int WAY = 64;

    /** What can be put on a cell; marbles are no things. */
    private enum Hand {
        MARBLE("Marble", null),
        BELL("Bell", Thing.BELL),
        MIRROR("Mirror", Thing.MIRROR_RISING),
        GATE("Gate", Thing.GATE),
        SPRING("Spring", Thing.SPRING);

        private final String label;
        private final Thing thing;

        Hand(String label, Thing thing) {
            this.label = label;
            this.thing = thing;
        }
    }

    private final Board board;
    private final BoardLists lists = new BoardLists(this);
    private final FlowPane hands = new FlowPane(Space.TIGHT, Space.TIGHT);
    private final Label words = words("board-words");
    private final GridPane tiles = Columns.two();
    /** On stage: what can be set of a marble, or tilts the board; always as high. */
    private final StackPane below = new StackPane();

    private final GridPane onStage = Columns.of(ON_STAGE.size());
    private final HBox tilts = new HBox(Space.TIGHT);
    private final List<ParamTile<?>> marbleTiles = new ArrayList<>();
    private final ParamTile<Integer> chance;
    private Hand hand = Hand.BELL;
    private boolean playing;
    private CaromBoard run;
    private List<List<Rolling>> ways = List.of();

    public BoardEditor(Around around, Edit edit) {
        super(around, edit);
        board = new Board(around);
        for (Hand one : Hand.values()) {
            ToggleButton button = Buttons.toggle(
                    one.label,
                    "hand-" + one.label.toLowerCase(java.util.Locale.ROOT),
                    "Press a cell to put a " + one.label.toLowerCase(java.util.Locale.ROOT) + " there  ("
                            + (one.ordinal() + 1) + " on the board)",
                    on -> take(one));
            hands.getChildren().add(button);
        }
        for (Param<?> param : List.of(Carom.PACE, Carom.DIRECTION, Carom.NOTE, Carom.VELOCITY, Carom.MUTE)) {
            ParamTile<?> tile = new ParamTile<>(
                    param,
                    (changed, done) -> {
                        int at = lists.at(Carom.MARBLES, board.column, board.row);
                        if (at >= 0) {
                            lists.put(
                                    Carom.MARBLES,
                                    at,
                                    get(Carom.MARBLES).get(at).withPlain(param, changed.plain()),
                                    done);
                        }
                    },
                    around::spelling,
                    around::say);
            tile.setId("marble-" + param.id());
            marbleTiles.add(tile);
            if (ON_STAGE.contains(param)) {
                onStage.add(tile, ON_STAGE.indexOf(param), 0);
            }
        }
        chance = new ParamTile<>(
                Carom.CHANCE,
                (changed, done) -> {
                    int at = lists.at(Carom.CELLS, board.column, board.row);
                    if (at >= 0) {
                        lists.put(
                                Carom.CELLS,
                                at,
                                get(Carom.CELLS).get(at).withPlain(Carom.CHANCE, changed.plain()),
                                done);
                    }
                },
                around::spelling,
                around::say);
        chance.setId("gate-chance");
        getChildren().addAll(hands, board, words, tiles);
        take(hand);
    }

    @Override
    public Set<Param<?>> instead(ParamSpec spec) {
        return Set.of(Carom.MARBLES, Carom.CELLS);
    }

    /**
     * As it is played on stage: marbles are in hand, pressing a cell launches one, pressing a marble picks it; the notes are written in
     * the cells, and the board is tilted by holding what says so. It fills the room there is, and what lies beside what can be taken
     * in hand.
     */
    public void onStage(HBox beside) {
        playing = true;
        take(Hand.MARBLE);
        board.fill(LEAST);
        VBox.setVgrow(this, Priority.ALWAYS);
        tilts.setAlignment(Pos.CENTER_LEFT);
        Label all = words("tilt-words");
        all.setText("all roll, while held:");
        tilts.getChildren().setAll(all);
        for (Tilt tilt : List.of(Tilt.LEFT, Tilt.DOWN, Tilt.UP, Tilt.RIGHT)) {
            tilts.getChildren().add(tilt(tilt));
        }
        below.setMinHeight(BELOW);
        below.setPrefHeight(BELOW);
        beside.getChildren().add(hands);
        HBox.setHgrow(hands, Priority.ALWAYS);
        getChildren().setAll(beside, board, words, below);
    }

    private Label tilt(Tilt tilt) {
        Label button = new Label(TILTS.get(tilt));
        button.setId("tilt-" + TILTS.get(tilt));
        button.getStyleClass().add("hold");
        button.setAccessibleRole(AccessibleRole.BUTTON);
        Tips.set(
                button,
                "All marbles roll " + TILTS.get(tilt)
                        + " while this is held, by mouse or by Enter, and resume their own way after");
        Held.on(
                button,
                () -> around().performing().tilt(address(), tilt),
                () -> around().performing().level(address()));
        return button;
    }

    private void take(Hand one) {
        hand = one;
        for (Hand each : Hand.values()) {
            ((ToggleButton) hands.getChildren().get(each.ordinal())).setSelected(each == one);
        }
    }

    @Override
    public void show() {
        run = new CaromBoard(stage().params());
        ways = get(Carom.MARBLES).stream().map(marble -> run.way(marble, WAY)).toList();
        board.say();
    }

    @Override
    public void draw() {
        board.follow();
        board.draw();
    }

    /** Puts what is in hand on an empty cell. */
    private void place(int column, int row) {
        if (hand.thing != null) {
            lists.put(Carom.CELLS, -1, Carom.cell(column, row, hand.thing), true);
        } else if (get(Carom.MARBLES).size() < Carom.MOST_MARBLES) {
            ParamSet marble = Carom.MARBLE.defaults().with(Carom.COLUMN, column).with(Carom.ROW, row);
            lists.put(Carom.MARBLES, -1, marble, true);
        } else {
            around().say("At most " + Carom.MOST_MARBLES + " marbles roll on the board.");
        }
    }

    private final class Board extends Drawing {
        private int column = 1;
        private int row = 1;
        private int fromColumn;
        private int fromRow;
        private boolean held;
        private boolean fresh;
        private boolean moved;
        private List<Integer> running = List.of();
        /** That of the piece where it stands. */
        private Key key;

        Board(Around around) {
            super(around.look(), "carom-board", TALL);
            key = keyNow();
            addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
            addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
            addEventHandler(MouseEvent.MOUSE_RELEASED, this::released);
            addEventHandler(MouseEvent.MOUSE_MOVED, this::point);
            addEventHandler(MouseEvent.MOUSE_EXITED, event -> words.setText(told(column, row)));
            tip(
                    this,
                    "Press an empty cell to put there what is chosen above; drag on from a new marble to launch it that way. Press a marble"
                            + " to pick it: its pace, way, note and mute stand beside it. Press another thing to turn it, drag what stands to"
                            + " move it, right-click to take it off.\nArrows go over the board, 1–5 choose, Enter puts or turns, Page Up and"
                            + " Page Down turn, Delete takes off.");
        }

        private int size() {
            return get(Carom.SIZE);
        }

        private void aim(MouseEvent event) {
            column = column(event);
            row = row(event);
        }

        private int column(MouseEvent event) {
            return 1 + (int) clamp(Math.floor(across(event) * size()), 0, size() - 1.0);
        }

        private int row(MouseEvent event) {
            return 1 + (int) clamp(Math.floor(up(event) * size()), 0, size() - 1.0);
        }

        private void pressed(MouseEvent event) {
            aim(event);
            fromColumn = column;
            fromRow = row;
            moved = false;
            fresh = false;
            held = false;
            if (event.getButton() == MouseButton.SECONDARY) {
                lists.takeOff(column, row);
            } else if (lists.isEmpty(column, row)) {
                place(column, row);
                fresh = true;
            } else {
                held = true;
            }
            say();
        }

        private void dragged(MouseEvent event) {
            int beforeColumn = column;
            int beforeRow = row;
            aim(event);
            boolean other = column != beforeColumn || row != beforeRow;
            if (fresh && hand == Hand.MARBLE) {
                point();
            } else if (held && other) {
                move(beforeColumn, beforeRow);
            }
            event.consume();
        }

        /** A new marble rolls towards where the hand drags. */
        private void point() {
            int right = Integer.signum(column - fromColumn);
            int up = Integer.signum(row - fromRow);
            column = fromColumn;
            row = fromRow;
            int at = lists.at(Carom.MARBLES, fromColumn, fromRow);
            for (Direction direction : Direction.values()) {
                if (at >= 0 && direction.right() == right && direction.up() == up) {
                    lists.put(Carom.MARBLES, at, get(Carom.MARBLES).get(at).with(Carom.DIRECTION, direction), false);
                }
            }
            say();
        }

        private void move(int beforeColumn, int beforeRow) {
            if (lists.move(beforeColumn, beforeRow, column, row)) {
                moved = true;
            } else {
                column = beforeColumn;
                row = beforeRow;
            }
            say();
        }

        private void released(MouseEvent event) {
            // A marble is only picked: what it is set to stands beside it.
            if (held && !moved && lists.at(Carom.MARBLES, column, row) < 0) {
                lists.turn(column, row, 1);
            }
            held = false;
            fresh = false;
            around().document().endGesture();
        }

        /** On the timeline the one that holds now. */
        private Key keyNow() {
            Piece piece = around().document().piece().get();
            return piece.timeline() ? piece.keyAt(around().timeline().now()) : piece.key();
        }

        void follow() {
            List<Integer> all = around().transport().traces().steps(address().toString());
            // One that was taken off is gone, wherever it was last.
            List<Integer> now =
                    all.subList(0, Math.min(all.size(), get(Carom.MARBLES).size()));
            Key keyNow = keyNow();
            if (!keyNow.equals(key)) {
                key = keyNow;
                say();
            }
            if (!now.equals(running)) {
                running = List.copyOf(now);
                repaint();
            }
        }

        void say() {
            column = Math.min(column, size());
            row = Math.min(row, size());
            words.setText(told(column, row));
            setAccessibleText("Board. " + words.getText());
            showTiles(lists.at(Carom.CELLS, column, row), lists.at(Carom.MARBLES, column, row));
            repaint();
        }

        private String told(int atColumn, int atRow) {
            int cell = lists.at(Carom.CELLS, atColumn, atRow);
            int marble = lists.at(Carom.MARBLES, atColumn, atRow);
            String what = marble >= 0
                    ? "a marble rolling "
                            + Carom.DIRECTION.show(get(Carom.MARBLES).get(marble)) + " at "
                            + Carom.PACE.show(get(Carom.MARBLES).get(marble))
                    : cell >= 0 ? name(get(Carom.CELLS).get(cell)) : "empty";
            return "Column " + atColumn + ", row " + atRow + " (" + note(atColumn, atRow) + "): " + what + ".";
        }

        /** What a marble that enters a cell sounds there, by its place. */
        private String note(int atColumn, int atRow) {
            int pitch = Carom.byPlace(stage().params(), key, atColumn - 1, atRow - 1);
            return pitch >= 0 && pitch <= 127 ? Pitch.shown(pitch, around().spelling()) : "beyond all notes";
        }

        /** The cell that is pointed at is told before it is pressed. */
        private void point(MouseEvent event) {
            int pointedColumn = column(event);
            int pointedRow = row(event);
            words.setText(told(pointedColumn, pointedRow));
        }

        private static String name(ParamSet cell) {
            return switch (cell.get(Carom.IS)) {
                case BELL -> "a bell";
                case MIRROR_RISING -> "a mirror leaning to the right";
                case MIRROR_FALLING -> "a mirror leaning to the left";
                case GATE -> "a gate that lets through " + Carom.CHANCE.show(cell);
                case SPRING -> "a spring";
            };
        }

        /** What can be set of what stands in the chosen cell. */
        private void showTiles(int cell, int marble) {
            Node wantedBelow = marble >= 0 ? onStage : tilts;
            if (playing && !below.getChildren().contains(wantedBelow)) {
                below.getChildren().setAll(wantedBelow);
            }
            List<ParamTile<?>> wanted = marble >= 0
                    ? marbleTiles
                    : cell >= 0 && get(Carom.CELLS).get(cell).get(Carom.IS) == Thing.GATE ? List.of(chance) : List.of();
            if (!playing && !tiles.getChildren().equals(wanted)) {
                tiles.getChildren().clear();
                for (int i = 0; i < wanted.size(); i++) {
                    tiles.add(wanted.get(i), i % 2, i / 2);
                }
            }
            if (marble >= 0) {
                marbleTiles.forEach(tile -> tile.show(get(Carom.MARBLES).get(marble)));
            } else if (cell >= 0) {
                chance.show(get(Carom.CELLS).get(cell));
            }
        }

        @Override
        public void wheel(boolean up, boolean fine) {
            lists.turn(column, row, up ? -1 : 1);
            say();
        }

        @Override
        public boolean key(KeyEvent event) {
            if (event.getCode().isDigitKey() && event.getText().matches("[1-5]")) {
                take(Hand.values()[event.getText().charAt(0) - '1']);
                return true;
            }
            switch (event.getCode()) {
                case LEFT -> column = Math.max(1, column - 1);
                case RIGHT -> column = Math.min(size(), column + 1);
                case UP -> row = Math.min(size(), row + 1);
                case DOWN -> row = Math.max(1, row - 1);
                case ENTER -> {
                    if (lists.isEmpty(column, row)) {
                        place(column, row);
                    } else {
                        lists.turn(column, row, 1);
                    }
                }
                case PAGE_UP -> lists.turn(column, row, -1);
                case PAGE_DOWN -> lists.turn(column, row, 1);
                case DELETE, BACK_SPACE -> lists.takeOff(column, row);
                default -> {
                    return false;
                }
            }
            say();
            return true;
        }

        @Override
        public void paint(GraphicsContext g, Theme theme, double width, double height) {
            double wide = width / size();
            double tall = height / size();
            g.setFill(faint(theme.rule, 0.35));
            g.fillRect(0, 0, width, height);
            g.setStroke(theme.raised);
            for (int i = 1; i < size(); i++) {
                g.strokeLine(i * wide, 0, i * wide, height);
                g.strokeLine(0, i * tall, width, i * tall);
            }
            if (Math.min(wide, tall) >= NAMED) {
                g.setFill(faint(theme.soft, 0.8));
                for (int i = 0; i < size() * size(); i++) {
                    g.fillText(
                            note(i % size() + 1, i / size() + 1),
                            i % size() * wide + 3,
                            height - i / size() * tall - 3);
                }
            }
            BoardPicture picture = new BoardPicture(g, theme, wide, tall, height);
            for (int i = 0; i < ways.size(); i++) {
                ParamSet marble = get(Carom.MARBLES).get(i);
                picture.way(ways.get(i), marble.get(Carom.COLUMN) == column && marble.get(Carom.ROW) == row);
            }
            get(Carom.CELLS).stream().filter(run::has).forEach(picture::thing);
            get(Carom.MARBLES).stream().filter(run::has).forEach(picture::launch);
            for (int cell : running) {
                if (cell >= 0 && cell < size() * size()) {
                    picture.rolling(cell % size() + 1, cell / size() + 1);
                }
            }
            g.setStroke(isFocused() ? theme.brassText : faint(theme.soft, 0.7));
            g.strokeRect((column - 1) * wide + 1, height - row * tall + 1, wide - 2, tall - 2);
        }
    }
}
