package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.session.Session;
import harpel.app.session.Theme;
import harpel.effect.notes.Carom;
import harpel.effect.notes.Carom.Direction;
import harpel.param.Param;
import harpel.param.ParamSet;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;

/** The board: pegs as squares, marbles where they are launched as rings with their direction, and running ones filled. */
final class BoardEditor extends StageEditor {
    private static final double TALL = 264;
    private static final int MOST_MARBLES = 16;
    private static final int MOST_PEGS = 64;

    private final Board board;
    private final Label words = words("board-words");

    public BoardEditor(Session session, Edit edit) {
        super(session, edit);
        board = new Board(session);
        getChildren().addAll(board, words);
    }

    @Override
    public void show() {
        board.say();
        board.repaint();
    }

    @Override
    public void draw() {
        board.follow();
        board.draw();
    }

    private static boolean isAt(ParamSet row, int column, int at) {
        return row.get(Carom.COLUMN) == column && row.get(Carom.ROW) == at;
    }

    private int indexAt(Param<List<ParamSet>> param, int column, int row) {
        List<ParamSet> all = get(param);
        for (int i = 0; i < all.size(); i++) {
            if (isAt(all.get(i), column, row)) {
                return i;
            }
        }
        return -1;
    }

    /** Takes away what is at a cell, or puts one there. */
    private void toggle(Param<List<ParamSet>> param, ParamSet fresh, int most, int column, int row) {
        List<ParamSet> changed = new ArrayList<>(get(param));
        int at = indexAt(param, column, row);
        if (at >= 0) {
            changed.remove(at);
        } else if (changed.size() < most) {
            changed.add(fresh.with(Carom.COLUMN, column).with(Carom.ROW, row));
        } else {
            session().say("At most " + most + " " + param.id() + " stand on the board.");
        }
        set(param, List.copyOf(changed), true);
    }

    private void peg(int column, int row) {
        toggle(Carom.PEGS, Carom.PEG.defaults(), MOST_PEGS, column, row);
    }

    private void marble(int column, int row) {
        toggle(Carom.MARBLES, Carom.MARBLE.defaults(), MOST_MARBLES, column, row);
    }

    private void change(int marble, ParamSet to, boolean done) {
        List<ParamSet> changed = new ArrayList<>(get(Carom.MARBLES));
        changed.set(marble, to);
        set(Carom.MARBLES, List.copyOf(changed), done);
    }

    private void turn(int column, int row, int by) {
        int at = indexAt(Carom.MARBLES, column, row);
        if (at >= 0) {
            ParamSet marble = get(Carom.MARBLES).get(at);
            Direction[] all = Direction.values();
            Direction next = all[Math.floorMod(marble.get(Carom.DIRECTION).ordinal() + by, all.length)];
            change(at, marble.with(Carom.DIRECTION, next), true);
        }
    }

    private final class Board extends Drawing {
        private int column = 1;
        private int row = 1;
        private int held = -1;
        private boolean moved;
        private List<Integer> running = List.of();

        Board(Session session) {
            super(session, "carom-board", TALL);
            addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
            addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
            addEventHandler(MouseEvent.MOUSE_RELEASED, this::released);
            tip(
                    this,
                    "Press an empty cell for a peg, with Shift for a marble; press a peg to take it away. Drag a marble to another"
                            + " cell, press it to turn it, Shift-press to take it away.\nArrows go over the board, Enter sets a peg,"
                            + " Insert a marble, Page Up and Page Down turn it, Delete takes away what is there.");
        }

        private int size() {
            return get(Carom.SIZE);
        }

        private void aim(MouseEvent event) {
            column = 1 + (int) clamp(Math.floor(across(event) * size()), 0, size() - 1.0);
            row = 1 + (int) clamp(Math.floor(up(event) * size()), 0, size() - 1.0);
        }

        private void pressed(MouseEvent event) {
            aim(event);
            moved = false;
            held = event.isShiftDown() || event.isSecondaryButtonDown() ? -1 : indexAt(Carom.MARBLES, column, row);
            if (event.isShiftDown()) {
                marble(column, row);
            } else if (held < 0) {
                peg(column, row);
            }
            say();
        }

        private void dragged(MouseEvent event) {
            int beforeColumn = column;
            int beforeRow = row;
            aim(event);
            boolean other = column != beforeColumn || row != beforeRow;
            if (held >= 0 && other && indexAt(Carom.MARBLES, column, row) < 0) {
                moved = true;
                ParamSet marble = get(Carom.MARBLES).get(held);
                change(held, marble.with(Carom.COLUMN, column).with(Carom.ROW, row), false);
            }
            event.consume();
        }

        private void released(MouseEvent event) {
            if (held >= 0 && !moved) {
                turn(column, row, 1);
            }
            held = -1;
            session().document().endGesture();
        }

        void follow() {
            List<Integer> now = session().transport().traces().steps(address().toString());
            if (!now.equals(running)) {
                running = now;
                repaint();
            }
        }

        void say() {
            column = Math.min(column, size());
            row = Math.min(row, size());
            boolean peg = indexAt(Carom.PEGS, column, row) >= 0;
            int marble = indexAt(Carom.MARBLES, column, row);
            String what = marble >= 0
                    ? "a marble going "
                            + Carom.DIRECTION.show(get(Carom.MARBLES).get(marble)) + " at "
                            + Carom.PACE.show(get(Carom.MARBLES).get(marble))
                    : peg ? "a peg" : "empty";
            words.setText("Column " + column + ", row " + row + ": " + what + ".");
            setAccessibleText("Board. " + words.getText());
            repaint();
        }

        @Override
        public void wheel(boolean up, boolean fine) {
            turn(column, row, up ? -1 : 1);
        }

        @Override
        public boolean key(KeyEvent event) {
            switch (event.getCode()) {
                case LEFT -> column = Math.max(1, column - 1);
                case RIGHT -> column = Math.min(size(), column + 1);
                case UP -> row = Math.min(size(), row + 1);
                case DOWN -> row = Math.max(1, row - 1);
                case ENTER -> peg(column, row);
                case INSERT -> marble(column, row);
                case PAGE_UP -> turn(column, row, -1);
                case PAGE_DOWN -> turn(column, row, 1);
                case DELETE, BACK_SPACE -> {
                    if (indexAt(Carom.MARBLES, column, row) >= 0) {
                        marble(column, row);
                    } else if (indexAt(Carom.PEGS, column, row) >= 0) {
                        peg(column, row);
                    }
                }
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
            for (int x = 0; x < size(); x++) {
                for (int y = 0; y < size(); y++) {
                    g.setFill(faint(theme.rule, (x + y) % 2 == 0 ? 0.55 : 0.3));
                    g.fillRect(x * wide + 0.5, y * tall + 0.5, wide - 1, tall - 1);
                }
            }
            for (ParamSet peg : get(Carom.PEGS)) {
                double x = (peg.get(Carom.COLUMN) - 0.5) * wide;
                double y = height - (peg.get(Carom.ROW) - 0.5) * tall;
                g.setFill(theme.ink);
                g.fillRect(x - wide * 0.22, y - tall * 0.22, wide * 0.44, tall * 0.44);
            }
            for (ParamSet marble : get(Carom.MARBLES)) {
                paintLaunch(g, theme, marble, wide, tall, height);
            }
            for (int cell : running) {
                if (cell >= 0) {
                    double x = (cell % size() + 0.5) * wide;
                    double y = height - (cell / size() + 0.5) * tall;
                    double r = Math.min(wide, tall) * 0.24;
                    g.setFill(theme.brass);
                    g.fillOval(x - r, y - r, 2 * r, 2 * r);
                }
            }
            g.setStroke(isFocused() ? theme.brassText : faint(theme.soft, 0.7));
            g.strokeRect((column - 1) * wide + 1, height - row * tall + 1, wide - 2, tall - 2);
        }

        private void paintLaunch(
                GraphicsContext g, Theme theme, ParamSet marble, double wide, double tall, double height) {
            double x = (marble.get(Carom.COLUMN) - 0.5) * wide;
            double y = height - (marble.get(Carom.ROW) - 0.5) * tall;
            double r = Math.min(wide, tall) * 0.32;
            Direction direction = marble.get(Carom.DIRECTION);
            g.setStroke(faint(theme.ink, marble.get(Carom.MUTE) ? 0.35 : 1));
            g.setLineWidth(1.5);
            g.strokeOval(x - r, y - r, 2 * r, 2 * r);
            double length = Math.hypot(direction.right(), direction.up());
            double toX = x + direction.right() / length * r * 1.5;
            double toY = y - direction.up() / length * r * 1.5;
            g.strokeLine(x, y, toX, toY);
            g.setLineWidth(1);
        }
    }
}
