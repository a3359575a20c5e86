package harpel.effect.notes;

import com.google.auto.service.AutoService;
import harpel.effect.Beyond;
import harpel.effect.Effect;
import harpel.effect.EffectKind;
import harpel.effect.Trait;
import harpel.param.ChoiceType;
import harpel.param.FlagType;
import harpel.param.IntType;
import harpel.param.IntervalType;
import harpel.param.ListType;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.RowType;
import harpel.param.TimeType;
import harpel.theory.Interval;
import harpel.time.TimeValue;
import java.util.List;
import java.util.Set;

/** Marbles that run over a board and sound where they meet. */
@AutoService(EffectKind.class)
public final class Carom extends EffectKind {
    private static final int LARGEST = 16;

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

    /** How a marble goes on. */
    public enum Path {
        STRAIGHT_BOUNCE,
        WRAP,
        RANDOM_TURNS,
        INWARD_SPIRAL,
        RETRACE
    }

    /** All marbles turn this way while it is set. */
    public enum Nudge {
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
    public static final Param<Path> PATH = Param.of(
            "path",
            ChoiceType.of(Path.class),
            Path.STRAIGHT_BOUNCE,
            "straight-bounce: thrown back by the walls; wrap: comes in again at the other side; random-turns: one step in two turns"
                    + " left or right; inward-spiral: clockwise, then anew; retrace: back the way it came.");
    public static final Param<Boolean> MUTE = Param.of("mute", FlagType.FLAG, false, "It runs without a sound.");
    public static final Param<Integer> NOTE = Param.of(
            "note",
            IntType.of(0, 127, "").orWord("by-place"),
            -1,
            "The note it sounds: its place on the board, or one of its own, as for drums.");
    public static final Param<Integer> VELOCITY =
            Param.of("velocity", IntType.of(1, 127, ""), 90, "How loud it sounds.");

    public static final ParamSpec MARBLE = ParamSpec.of(COLUMN, ROW, DIRECTION, PACE, PATH, MUTE, NOTE, VELOCITY);
    public static final ParamSpec PEG = ParamSpec.of(COLUMN, ROW);

    public static final Param<Integer> SIZE =
            Param.of("size", IntType.of(4, LARGEST, "cells"), 8, "Columns and rows of the board.");
    public static final Param<List<ParamSet>> MARBLES = Param.of(
            "marbles",
            new ListType<>(new RowType(MARBLE), 16),
            List.of(
                    MARBLE.defaults().with(ROW, 2),
                    MARBLE.defaults().with(COLUMN, 4).with(DIRECTION, Direction.UP)),
            "Each is launched from its cell.");
    public static final Param<List<ParamSet>> PEGS = Param.of(
            "pegs",
            new ListType<>(new RowType(PEG), 64),
            List.of(),
            "Cells where a peg stands: a marble that enters sounds.");
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
    public static final Param<Integer> ROOT =
            Param.of("root", IntType.ofPitch(), 48, "The note of column 1 and row 1, until a key is played.");
    public static final Param<Integer> ROWS_PER_OCTAVE = Param.of(
            "rows-per-octave",
            IntType.of(1, LARGEST, "rows"),
            2,
            "So many rows up the same column is an octave higher.");
    public static final Param<TimeValue> LENGTH =
            Param.of("length", TimeType.TIME, TimeValue.ofNote("1/16"), "How long a hit lasts.");
    public static final Param<List<Interval>> COMPANIONS = Param.of(
            "companions",
            new ListType<>(new IntervalType(-24, 24), 4),
            List.of(),
            "Notes added to each hit, so far from it.");
    public static final Param<Nudge> NUDGE = Param.of(
            "nudge",
            ChoiceType.of(Nudge.class),
            Nudge.OFF,
            "All marbles turn this way while it is set, and resume their own when it is off.");
    public static final Param<Integer> PAD_LOWEST =
            Param.of("pad-lowest", IntType.ofPitch(), 36, "With keys pads: the note of the pad in column 1 and row 1.");
    public static final Param<Integer> PAD_ROW = Param.of(
            "pad-row", IntType.of(1, 16, ""), 8, "With keys pads: how many notes higher the next row of pads is.");
    public static final Param<Direction> PAD_DIRECTION = Param.of(
            "pad-direction", ChoiceType.of(Direction.class), Direction.UP, "Which way a pad launches its marble.");
    public static final Param<TimeValue> PAD_PACE =
            Param.of("pad-pace", TimeType.TIME, TimeValue.ofNote("1/8"), "The pace of a marble launched by a pad.");

    public Carom() {
        super(
                "carom",
                "Carom",
                Family.NOTES,
                "runs marbles over a board that sound where they meet",
                SIZE,
                MARBLES,
                PEGS,
                START,
                KEYS,
                ROOT,
                ROWS_PER_OCTAVE,
                LENGTH,
                COMPANIONS,
                NUDGE,
                PAD_LOWEST,
                PAD_ROW,
                PAD_DIRECTION,
                PAD_PACE,
                Beyond.PARAM,
                SEED);
    }

    @Override
    protected Set<Trait> traits() {
        return Set.of(Trait.MAKES_A_PATTERN, Trait.PLAYS_BY_ITSELF, Trait.LEAVES_THE_KEY);
    }

    @Override
    public Effect create() {
        return new CaromRun();
    }

    @Override
    public String action() {
        return "Launch anew";
    }

    @Override
    public String alsoFoundBy() {
        return "board marbles pads";
    }

    @Override
    public String describe(ParamSet values) {
        int marbles = values.get(MARBLES).size();
        int pegs = values.get(PEGS).size();
        return values.get(SIZE) + " × " + values.get(SIZE) + " · " + marbles + (marbles == 1 ? " marble" : " marbles")
                + (pegs == 0 ? "" : " · " + pegs + (pegs == 1 ? " peg" : " pegs"));
    }

    @Override
    public String notes() {
        return "A marble that enters a cell where a peg or another marble is sounds; of two marbles that meet both sound, also when"
                + " they would change places. All marbles that are due move at once. By place a column is a degree of the key above the"
                + " root and every `rows-per-octave` rows an octave. A marble or peg outside the board is left out. The same marbles"
                + " launched at the same place of the piece make the same music.";
    }
}
