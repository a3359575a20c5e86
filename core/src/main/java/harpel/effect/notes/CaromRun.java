package harpel.effect.notes;

import harpel.effect.Beyond;
import harpel.effect.Emitter;
import harpel.effect.Generator;
import harpel.effect.StepClock;
import harpel.effect.notes.Carom.Keys;
import harpel.effect.notes.Carom.Thing;
import harpel.effect.notes.Carom.Tilt;
import harpel.effect.notes.CaromBoard.Rolling;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.param.ParamSet;
import harpel.theory.Pitch;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeValue;
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
        Rolling at;
        Rolling before;
        /** It moves for the first time a step after this. */
        long launchedAt = -1;

        boolean moved;
        boolean hit;

        Marble(ParamSet launch, NoteStart pad) {
            this.launch = launch;
            this.pad = pad;
            at = CaromBoard.launched(launch);
        }

        boolean isWhere(Rolling other) {
            return at.column() == other.column() && at.row() == other.row();
        }
    }

    private final List<Marble> marbles = new ArrayList<>();
    private List<ParamSet> launched = List.of();
    private CaromBoard board;
    /** Where the first key was pressed, from which steps are counted where it waits for one. */
    private long keyTick;

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
            keyTick = tick;
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
                // Its steps may lie on another grid now, or in time that went by while it did not play.
                lay(before, tick);
                marbles.add(place++, before);
            } else if (board.has(launch)) {
                Marble marble = new Marble(launch, null);
                marble.launchedAt = tick;
                lay(marble, tick);
                marbles.add(place++, marble);
            }
        }
    }

    @Override
    protected void layClocks(long tick) {
        int before = board == null ? 0 : board.size();
        board = new CaromBoard(values());
        if (before != board.size() || !launched.equals(values().get(Carom.MARBLES))) {
            marbles.removeIf(marble -> !board.has(marble.launch));
            if (before != board.size()) {
                // Where a marble has come to may lie outside now.
                marbles.forEach(marble -> marble.at = CaromBoard.launched(marble.launch));
            }
            launch(tick, before == board.size() ? List.copyOf(marbles) : List.of());
        } else {
            marbles.forEach(marble -> lay(marble, tick));
        }
    }

    private void lay(Marble marble, long tick) {
        TimeValue pace = marble.launch.get(Carom.PACE);
        marble.clock.lay(
                waitsForKey()
                        ? StepGrid.from(keyTick, context().time(), pace, 50)
                        : StepGrid.ofPiece(context().time(), pace, 50),
                tick == marble.launchedAt ? tick + 1 : tick);
    }

    @Override
    public void start(NoteStart note, Emitter out) {
        super.start(note, out);
        if (values().get(Carom.KEYS) == Keys.PADS) {
            int pad = note.pitch() - values().get(Carom.PAD_LOWEST);
            int padRow = values().get(Carom.PAD_ROW);
            int column = Math.floorMod(pad, padRow);
            int row = Math.floorDiv(pad, padRow);
            if (row >= 0 && row < board.size() && column < board.size()) {
                Marble marble = new Marble(
                        Carom.MARBLE
                                .defaults()
                                .with(Carom.COLUMN, column + 1)
                                .with(Carom.ROW, row + 1)
                                .with(Carom.DIRECTION, values().get(Carom.PAD_DIRECTION))
                                .with(Carom.PACE, values().get(Carom.PAD_PACE))
                                .with(Carom.VELOCITY, note.velocity()),
                        note);
                marble.launchedAt = out.tick();
                lay(marble, out.tick());
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
                marble.before = marble.at;
                move(marble, out);
                marble.clock.advance();
            }
        }
        for (int i = 0; i < marbles.size(); i++) {
            Marble marble = marbles.get(i);
            if (marble.moved) {
                meet(marble);
                context().step(i, marble.at.row() * board.size() + marble.at.column());
            }
        }
        for (Marble marble : marbles) {
            if (marble.hit && !marble.launch.get(Carom.MUTE)) {
                sound(marble, out);
            }
        }
    }

    private void move(Marble marble, Emitter out) {
        Tilt tilt = values().get(Carom.TILT);
        if (tilt != Tilt.OFF) {
            marble.at = board.tilted(marble.at, tilt.direction());
            return;
        }
        Rolling rolled = board.rolled(marble.at);
        boolean gate = board.thing(rolled.column(), rolled.row()) == Thing.GATE;
        marble.at = board.turned(rolled, gate && out.chance().percent(board.chance(rolled.column(), rolled.row())));
    }

    private void meet(Marble marble) {
        marble.hit |= board.thing(marble.at.column(), marble.at.row()) == Thing.BELL;
        for (Marble other : marbles) {
            boolean swapped = other.moved && marble.isWhere(other.before) && other.isWhere(marble.before);
            if (other != marble && (marble.isWhere(other.at) || swapped)) {
                marble.hit = true;
                other.hit = true;
            }
        }
    }

    private void sound(Marble marble, Emitter out) {
        int own = marble.launch.get(Carom.NOTE);
        int pitch = own >= 0 ? own : byPlace(marble);
        int fitted = values().get(Beyond.PARAM).fit(pitch, out);
        if (Pitch.inRange(fitted)) {
            double velocity = marble.launch.get(Carom.VELOCITY);
            NoteStart note = marble.pad == null
                    ? make(out.tick(), fitted, velocity)
                    : marble.pad.derive(out.tick(), fitted, velocity);
            out.start(note);
            long end = context().time().after(out.tick(), values().get(Carom.LENGTH), 1);
            out.end(note, end, NoteEnd.PLAIN_RELEASE);
        }
    }

    private int byPlace(Marble marble) {
        int root = root(Carom.ROOT, Carom.LOWEST_ROOT, values().get(Carom.KEYS) == Keys.ROOT);
        return Carom.byPlace(values(), root, context().key(), marble.at.column(), marble.at.row());
    }

    /** Puts all marbles back where they are launched. */
    @Override
    public void act(Emitter out) {
        launch(out.tick(), List.of());
    }
}
