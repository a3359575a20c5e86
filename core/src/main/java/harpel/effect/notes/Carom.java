package harpel.effect.notes;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectKind;
import harpel.effect.EffectNature;
import harpel.effect.EffectWords;
import harpel.effect.Family;
import harpel.effect.Root;
import harpel.effect.Trait;
import harpel.param.Param;
import harpel.param.ParamException;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.music.TimeType;
import harpel.param.type.ChoiceType;
import harpel.param.type.FlagType;
import harpel.param.type.IntType;
import harpel.param.type.ListType;
import harpel.param.type.RowType;
import harpel.theory.Key;
import harpel.time.TimeValue;
import java.util.List;

/** A marble run: marbles roll over a board whose bells sound and whose mirrors, gates and springs turn them. */
@AutoService(EffectKind.class)
public final class Carom extends EffectKind {
    private static final int LARGEST = 16;
    static final int LOWEST_ROOT = 48;

    /** Which way a marble goes; rows are counted upwards. */
    public enum Direction {
        UP(0, 1),
        UP_RIGHT(1, 1),
        RIGHT(1, 0),
        DOWN_RIGHT(1, -1),
        DOWN(0, -1),
        DOWN_LEFT(-1, -1),
        LEFT(-1, 0),
        UP_LEFT(-1, 1);

        final int columns;
        final int rows;

        Direction(int columns, int rows) {
            this.columns = columns;
            this.rows = rows;
        }

        /** Columns to the right at each move. */
        public int right() {
            return columns;
        }

        /** Rows up at each move. */
        public int up() {
            return rows;
        }
    }

    /** What becomes of a marble at the edge of the board. */
    public enum Edges {
        BOUNCE,
        WRAP
    }

    /** What stands on a cell. A rising mirror is /, a falling one \\. */
    public enum Thing {
        BELL,
        MIRROR_RISING,
        MIRROR_FALLING,
        GATE,
        SPRING
    }

    /** All marbles roll this way while it is set. */
    public enum Tilt {
        OFF,
        UP,
        RIGHT,
        DOWN,
        LEFT;

        Direction direction() {
            return Direction.valueOf(name());
        }
    }

    /** What makes it play. */
    public enum Start {
        TRANSPORT,
        KEY
    }

    /** What played keys do. */
    public enum Keys {
        ROOT,
        PADS,
        PASS
    }

    public static final Param<Integer> COLUMN = Param.of("column", IntType.of(1, LARGEST, ""), 1, "From the left.");
    public static final Param<Integer> ROW = Param.of("row", IntType.of(1, LARGEST, ""), 1, "From the bottom.");
    public static final Param<Direction> DIRECTION =
            Param.of("direction", ChoiceType.of(Direction.class), Direction.RIGHT, "Which way the marble is launched.");
    public static final Param<TimeValue> PACE =
            Param.of("pace", TimeType.TIME, TimeValue.ofNote("1/8"), "From one cell to the next.");
    public static final Param<Boolean> MUTE = Param.of("mute", FlagType.FLAG, false, "It runs without a sound.");
    public static final Param<Integer> NOTE = Param.of(
            "note",
            IntType.ofPitch().orWord("by-place"),
            -1,
            "The note it sounds: its place on the board, or one of its own, as for drums.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.of(1, 127, ""), 90, "How loud it sounds.");

    public static final Param<Thing> IS = Param.of(
            "is",
            ChoiceType.of(Thing.class),
            Thing.BELL,
            "bell: sounds, lets through; mirror-rising / and mirror-falling \\: turn a marble as light is turned; gate: lets through"
                    + " with a chance, else throws back; spring: throws back.");
    public static final Param<Integer> CHANCE =
            Param.of("chance", IntType.percent(0, 100), 50, "Of a gate: how often it lets a marble through.");

    public static final ParamSpec MARBLE = ParamSpec.of(COLUMN, ROW, DIRECTION, PACE, MUTE, NOTE, VELOCITY);
    public static final ParamSpec CELL = ParamSpec.of(COLUMN, ROW, IS, CHANCE);
    /** So many marbles at most. */
    public static final int MOST_MARBLES = 16;

    public static final Param<Integer> SIZE =
            Param.of("size", IntType.of(4, LARGEST, "cells"), 8, "Columns and rows of the board.");
    public static final Param<Edges> EDGES = Param.of(
            "edges",
            ChoiceType.of(Edges.class),
            Edges.BOUNCE,
            "bounce: the edges throw marbles back; wrap: they come in at the other side.");
    public static final Param<List<ParamSet>> MARBLES = Param.of(
            "marbles",
            new ListType<>(new RowType(MARBLE), MOST_MARBLES),
            List.of(
                    MARBLE.defaults().with(COLUMN, 2).with(ROW, 2),
                    MARBLE.defaults()
                            .with(COLUMN, 8)
                            .with(ROW, 4)
                            .with(DIRECTION, Direction.LEFT)
                            .with(PACE, TimeValue.ofNote("1/4"))
                            .with(VELOCITY, 70)),
            "Each is launched from its cell.");
    public static final Param<List<ParamSet>> CELLS = Param.of(
            "cells",
            new ListType<>(new RowType(CELL, Carom::check), LARGEST * LARGEST),
            List.of(
                    cell(5, 2, Thing.BELL),
                    cell(6, 2, Thing.MIRROR_RISING),
                    cell(6, 4, Thing.BELL),
                    cell(6, 6, Thing.MIRROR_FALLING),
                    cell(3, 6, Thing.BELL),
                    cell(2, 6, Thing.MIRROR_RISING),
                    cell(2, 4, Thing.BELL),
                    cell(2, 2, Thing.MIRROR_FALLING)),
            "What stands on the board: bells, mirrors, gates and springs, one in a cell.");
    public static final Param<Start> START = Param.of(
            "start",
            ChoiceType.of(Start.class),
            Start.TRANSPORT,
            "transport: it plays whenever the transport runs; key: while a key is held, launched anew by the first.");
    public static final Param<Keys> KEYS = Param.of(
            "keys",
            ChoiceType.of(Keys.class),
            Keys.ROOT,
            "root: the key becomes the root; pads: each key is a cell and launches a marble there while held; pass: keys pass by.");
    public static final Param<Integer> ROOT = Root.param(LOWEST_ROOT);
    public static final Param<Integer> ROWS_PER_OCTAVE = Param.of(
            "rows-per-octave",
            IntType.of(1, LARGEST, "rows"),
            4,
            "So many rows up the same column is an octave higher.");
    public static final Param<TimeValue> LENGTH =
            Param.of("length", TimeType.TIME, TimeValue.ofNote("1/16"), "How long a hit lasts.");
    public static final Param<Tilt> TILT = Param.of(
            "tilt",
            ChoiceType.of(Tilt.class),
            Tilt.OFF,
            "All marbles roll this way while it is set, and resume their own when it is off.");
    public static final Param<Integer> PAD_LOWEST =
            Param.of("pad-lowest", IntType.ofPitch(), 36, "With keys pads: the note of the pad in column 1 and row 1.");
    public static final Param<Integer> PAD_ROW = Param.of(
            "pad-row", IntType.of(1, 16, ""), 8, "With keys pads: how many notes higher the next row of pads is.");
    public static final Param<Direction> PAD_DIRECTION = Param.of(
            "pad-direction", ChoiceType.of(Direction.class), Direction.UP, "Which way a pad launches its marble.");
    public static final Param<TimeValue> PAD_PACE =
            Param.of("pad-pace", TimeType.TIME, TimeValue.ofNote("1/8"), "The pace of a marble launched by a pad.");

    private static final EffectWords WORDS = EffectWords.of(
                    "Carom", Family.NOTES, "rolls marbles over a board of bells and mirrors")
            .withFoundBy("board marbles pads bells mirrors")
            .withAction("Launch anew")
            .withSetting(Carom::describe)
            .withNotes(
                    "A marble that enters a cell where a bell or another marble is sounds; of two marbles that meet both sound, also when"
                            + " they would change places. All marbles that are due move at once. Mirrors, gates and springs turn a marble when it"
                            + " enters their cell; a mirror sends a slanting way back. While the board is tilted nothing turns them and they come in"
                            + " at the other side. By place a column is a degree of the scale above the root and every `rows-per-octave` rows an"
                            + " octave. Of several things in one cell the last counts; what lies outside the board is left out. The same board makes"
                            + " the same music.");
    private static final EffectNature NATURE =
            EffectNature.of(Trait.MAKES_A_PATTERN, Trait.PLAYS_BY_ITSELF, Trait.LEAVES_THE_KEY);

    public Carom() {
        super(
                "carom",
                WORDS,
                NATURE,
                MARBLES,
                CELLS,
                SIZE,
                EDGES,
                TILT,
                START,
                KEYS,
                ROOT,
                Root.SCALE,
                ROWS_PER_OCTAVE,
                LENGTH,
                PAD_LOWEST,
                PAD_ROW,
                PAD_DIRECTION,
                PAD_PACE,
                Beyond.PARAM,
                SEED);
    }

    private static void check(ParamSet cell) {
        if (cell.get(IS) != Thing.GATE && !cell.isDefault(CHANCE)) {
            throw new ParamException(CHANCE.id(), "belongs to a gate, not to a " + IS.show(cell));
        }
    }

    public static ParamSet cell(int column, int row, Thing thing) {
        return CELL.defaults().with(COLUMN, column).with(ROW, row).with(IS, thing);
    }

    /** The note of a cell above a root; column and row are counted from 0. It may lie beyond 0–127. */
    public static int byPlace(ParamSet values, int root, Key key, int column, int row) {
        return Root.key(values, root, key).shift(root, column) + 12 * (row / values.get(ROWS_PER_OCTAVE));
    }

    /** The same where no key that is played is the root. */
    public static int byPlace(ParamSet values, Key key, int column, int row) {
        return byPlace(values, Root.of(values, ROOT, LOWEST_ROOT, key), key, column, row);
    }

    @Override
    public Effect create() {
        return new CaromRun();
    }

    private static String describe(ParamSet values) {
        int bells = (int) values.get(CELLS).stream()
                .filter(cell -> cell.get(IS) == Thing.BELL)
                .count();
        return values.get(SIZE) + " × " + values.get(SIZE) + " · "
                + counted(values.get(MARBLES).size(), "marble") + " · " + counted(bells, "bell");
    }

    private static String counted(int count, String what) {
        return count + " " + what + (count == 1 ? "" : "s");
    }
}
