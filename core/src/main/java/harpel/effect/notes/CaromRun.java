package harpel.effect.notes;

import harpel.effect.Beyond;
import harpel.effect.Emitter;
import harpel.effect.Generator;
import harpel.effect.StepClock;
import harpel.effect.notes.Carom.Direction;
import harpel.effect.notes.Carom.Keys;
import harpel.effect.notes.Carom.Nudge;
import harpel.effect.notes.Carom.Path;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.theory.Interval;
import harpel.theory.Pitch;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.List;

/** A running board. Owned by whoever renders. */
final class CaromRun extends Generator {
    /** One marble on its way. Columns and rows are counted from 0. */
    private static final class Marble {
        final ParamSet launch;
        /** The pad that launched it; null for one of the board. */
        final NoteStart pad;

        final StepClock clock = new StepClock();
        int column;
        int row;
        int beforeColumn;
        int beforeRow;
        int right;
        int up;
        /** What is left of the board for a spiral. */
        int left;

        int bottom;
        int rightmost;
        int top;
        boolean moved;
        boolean hit;

        Marble(ParamSet launch, NoteStart pad, int size) {
            this.launch = launch;
            this.pad = pad;
            start(size);
        }

        void start(int size) {
            column = launch.get(Carom.COLUMN) - 1;
            row = launch.get(Carom.ROW) - 1;
            right = launch.get(Carom.DIRECTION).columns;
            up = launch.get(Carom.DIRECTION).rows;
            left = 0;
            bottom = 0;
            rightmost = size - 1;
            top = size - 1;
        }

        boolean isAt(int otherColumn, int otherRow) {
            return column == otherColumn && row == otherRow;
        }
    }

    private final List<Marble> marbles = new ArrayList<>();
    private List<ParamSet> launched = List.of();
    private int size;

    @Override
    protected boolean waitsForKey() {
        return values().get(Carom.START) == Carom.Start.KEY;
    }

    @Override
    protected boolean takesKeys() {
        return values().get(Carom.KEYS) != Keys.PASS;
    }

    @Override
    protected void firstKey(long tick) {
        if (waitsForKey() || !context().running()) {
            launch(tick, List.of());
        }
    }

    /** Puts the board's marbles where they are launched, except those that stay; each moves for the first time a step later. */
    private void launch(long tick, List<Marble> staying) {
        launched = values().get(Carom.MARBLES);
        marbles.removeIf(marble -> marble.pad == null);
        int place = 0;
        for (int i = 0; i < launched.size(); i++) {
            ParamSet launch = launched.get(i);
            Marble before = i < staying.size() ? staying.get(i) : null;
            if (before != null && before.launch.equals(launch)) {
                marbles.add(place++, before);
            } else if (fits(launch)) {
                Marble marble = new Marble(launch, null, size);
                lay(marble, tick + 1);
                marbles.add(place++, marble);
            }
        }
    }

    private boolean fits(ParamSet cell) {
        return cell.get(Carom.COLUMN) <= size && cell.get(Carom.ROW) <= size;
    }

    @Override
    protected void layClocks(long tick) {
        if (size != values().get(Carom.SIZE) || !launched.equals(values().get(Carom.MARBLES))) {
            boolean sameSize = size == values().get(Carom.SIZE);
            size = values().get(Carom.SIZE);
            marbles.removeIf(marble -> !fits(marble.launch));
            launch(tick, sameSize ? List.copyOf(marbles) : List.of());
        } else {
            marbles.forEach(marble -> lay(marble, tick));
        }
    }

    private void lay(Marble marble, long tick) {
        marble.clock.lay(StepGrid.ofPiece(context().time(), marble.launch.get(Carom.PACE), 50), tick);
    }

    @Override
    public void start(NoteStart note, Emitter out) {
        super.start(note, out);
        if (values().get(Carom.KEYS) == Keys.PADS) {
            int pad = note.pitch() - values().get(Carom.PAD_LOWEST);
            int padRow = values().get(Carom.PAD_ROW);
            int column = Math.floorMod(pad, padRow);
            int row = Math.floorDiv(pad, padRow);
            if (row >= 0 && row < size && column < size) {
                Marble marble = new Marble(
                        Carom.MARBLE
                                .defaults()
                                .with(Carom.COLUMN, column + 1)
                                .with(Carom.ROW, row + 1)
                                .with(Carom.DIRECTION, values().get(Carom.PAD_DIRECTION))
                                .with(Carom.PACE, values().get(Carom.PAD_PACE))
                                .with(Carom.VELOCITY, note.velocity()),
                        note,
                        size);
                lay(marble, out.tick() + 1);
                marbles.add(marble);
            }
        }
    }

    @Override
    public void end(NoteEnd end, Emitter out) {
        super.end(end, out);
        marbles.removeIf(marble -> marble.pad == end.start());
    }

    @Override
    public void stopGenerating(Emitter out) {
        super.stopGenerating(out);
        marbles.removeIf(marble -> marble.pad != null);
    }

    @Override
    protected long nextTick() {
        long next = Ticks.NEVER;
        for (Marble marble : marbles) {
            next = Math.min(next, marble.clock.tick());
        }
        return next;
    }

    @Override
    public void step(Emitter out) {
        for (Marble marble : marbles) {
            marble.hit = false;
            marble.moved = marble.clock.tick() == out.tick();
            if (marble.moved) {
                marble.beforeColumn = marble.column;
                marble.beforeRow = marble.row;
                move(marble, out);
                marble.clock.advance();
            }
        }
        for (int i = 0; i < marbles.size(); i++) {
            Marble marble = marbles.get(i);
            if (marble.moved) {
                meet(marble);
                context().step(i, marble.row * size + marble.column);
            }
        }
        for (Marble marble : marbles) {
            if (marble.hit && !marble.launch.get(Carom.MUTE)) {
                sound(marble, out);
            }
        }
    }

    private void meet(Marble marble) {
        for (ParamSet peg : values().get(Carom.PEGS)) {
            marble.hit |= marble.isAt(peg.get(Carom.COLUMN) - 1, peg.get(Carom.ROW) - 1);
        }
        for (Marble other : marbles) {
            boolean swapped = other.moved
                    && marble.isAt(other.beforeColumn, other.beforeRow)
                    && other.isAt(marble.beforeColumn, marble.beforeRow);
            if (other != marble && (marble.isAt(other.column, other.row) || swapped)) {
                marble.hit = true;
                other.hit = true;
            }
        }
    }

    private void move(Marble marble, Emitter out) {
        Nudge nudge = values().get(Carom.NUDGE);
        if (nudge != Nudge.OFF) {
            Direction direction = nudge.direction();
            wrap(marble, direction.columns, direction.rows);
            return;
        }
        Path path = marble.launch.get(Carom.PATH);
        switch (path) {
            case STRAIGHT_BOUNCE -> bounce(marble);
            case WRAP -> wrap(marble, marble.right, marble.up);
            case RETRACE -> {
                if (outside(marble.column + marble.right) || outside(marble.row + marble.up)) {
                    marble.right = -marble.right;
                    marble.up = -marble.up;
                }
                bounce(marble);
            }
            case RANDOM_TURNS -> {
                int turn = out.chance().below(4);
                if (turn < 2) {
                    turn(marble, turn == 0);
                }
                bounce(marble);
            }
            case INWARD_SPIRAL -> spiral(marble);
        }
    }

    private boolean outside(int place) {
        return place < 0 || place >= size;
    }

    private void wrap(Marble marble, int right, int up) {
        marble.column = Math.floorMod(marble.column + right, size);
        marble.row = Math.floorMod(marble.row + up, size);
    }

    private void bounce(Marble marble) {
        marble.right = outside(marble.column + marble.right) ? -marble.right : marble.right;
        marble.up = outside(marble.row + marble.up) ? -marble.up : marble.up;
        marble.column += marble.right;
        marble.row += marble.up;
    }

    private static void turn(Marble marble, boolean clockwise) {
        int right = marble.right;
        marble.right = clockwise ? marble.up : -marble.up;
        marble.up = clockwise ? -right : right;
    }

    /** Goes on within what is left of the board; at its edge the side just walked is spent and it turns clockwise. */
    private void spiral(Marble marble) {
        if (marble.right != 0 && marble.up != 0) {
            marble.right = 0;
        }
        if (!fitsSpiral(marble)) {
            spend(marble);
            turn(marble, true);
            if (!fitsSpiral(marble)) {
                marble.start(size);
                return;
            }
        }
        marble.column += marble.right;
        marble.row += marble.up;
    }

    private static boolean fitsSpiral(Marble marble) {
        int column = marble.column + marble.right;
        int row = marble.row + marble.up;
        return column >= marble.left && column <= marble.rightmost && row >= marble.bottom && row <= marble.top;
    }

    private static void spend(Marble marble) {
        if (marble.up > 0) {
            marble.left = marble.column + 1;
        } else if (marble.up < 0) {
            marble.rightmost = marble.column - 1;
        } else if (marble.right > 0) {
            marble.top = marble.row - 1;
        } else {
            marble.bottom = marble.row + 1;
        }
    }

    private void sound(Marble marble, Emitter out) {
        int own = marble.launch.get(Carom.NOTE);
        int pitch = own >= 0 ? own : byPlace(marble);
        double velocity = marble.launch.get(Carom.VELOCITY);
        soundOne(marble, pitch, velocity, out);
        for (Interval companion : values().get(Carom.COMPANIONS)) {
            soundOne(marble, companion.from(pitch, 1, context().key()), velocity, out);
        }
    }

    private int byPlace(Marble marble) {
        NoteStart key = values().get(Carom.KEYS) == Keys.ROOT ? lastKey() : null;
        int root = key == null ? values().get(Carom.ROOT) : key.pitch();
        return context().key().shift(root, marble.column) + 12 * (marble.row / values().get(Carom.ROWS_PER_OCTAVE));
    }

    private void soundOne(Marble marble, int pitch, double velocity, Emitter out) {
        int fitted = values().get(Beyond.PARAM) == Beyond.FOLD ? Pitch.fold(pitch) : pitch;
        if (Pitch.inRange(fitted)) {
            NoteStart note = marble.pad == null
                    ? make(out.tick(), fitted, velocity)
                    : marble.pad.derive(out.tick(), fitted, velocity);
            out.start(note);
            long end = context().time().after(out.tick(), values().get(Carom.LENGTH), 1);
            out.end(note, end, NoteEnd.PLAIN_RELEASE);
        }
    }

    /** Puts all marbles back where they are launched. */
    @Override
    public void act(Emitter out) {
        launch(out.tick(), List.of());
    }
}
