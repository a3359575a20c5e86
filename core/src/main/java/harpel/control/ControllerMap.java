package harpel.control;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What the notes and controllers of a device are: pads in rows, knobs, and how lights are told.
 *
 * @param pads null for a device without any
 * @param knobs in order; the first moves the first lever
 * @param lights null for a device whose pads have none
 * @param learnt notes that were learnt for pads of the Play view, by note
 * @param unknown what a newer version wrote
 */
public record ControllerMap(
        String name,
        Grid pads,
        List<Knob> knobs,
        Lights lights,
        Map<Integer, Integer> learnt,
        Map<String, Object> unknown) {
    public static final int NOTES = 128;

    /**
     * Pads in rows, counted from the top left.
     *
     * @param first the note of the pad at the lower left
     * @param step from a pad to the one above it
     */
    public record Grid(int columns, int rows, int first, int step) {
        public Grid {
            int last = first + (rows - 1) * step + columns - 1;
            if (columns < 1 || rows < 1 || columns > 16 || rows > 16 || step < columns || first < 0 || last >= NOTES) {
                throw new IllegalArgumentException(
                        "pads lie in 1–16 columns and rows on notes 0–127, a row at least as many"
                                + " notes above the one below as it has pads, but were " + columns + " × " + rows
                                + " from note "
                                + first + ", " + step + " from row to row");
            }
        }

        public int note(int column, int row) {
            return first + (rows - 1 - row) * step + column;
        }

        /** Which pad a note is, row by row from the top left; empty for none. */
        public Optional<Cell> cell(int note) {
            int up = Math.floorDiv(note - first, step);
            int column = Math.floorMod(note - first, step);
            return up >= 0 && up < rows && column < columns
                    ? Optional.of(new Cell(column, rows - 1 - up))
                    : Optional.empty();
        }
    }

    /** A pad, its column and row counted from the top left, 0 the first. */
    public record Cell(int column, int row) {}

    /**
     * A knob.
     *
     * @param number of its controller, 0–127; of an NRPN its number, 0–16383
     */
    public record Knob(Kind kind, int number) {
        /** How it says where it stands. */
        public enum Kind {
            /** 0–127 on one controller. */
            ABSOLUTE,
            /** How far it was turned: 1–63 up, 127–65 down (two's complement of seven bits; common practice). */
            RELATIVE,
            /** Fourteen bits on controllers n and n + 32 (MIDI 1.0, controllers 0–31 and their low bytes). */
            FINE,
            /** Fourteen bits as a non-registered parameter: 99 and 98, then 6 and 38 (MIDI 1.0). */
            NRPN
        }

        public Knob {
            int most = kind == Kind.NRPN ? 16_383 : kind == Kind.FINE ? 31 : 127;
            if (number < 0 || number > most) {
                throw new IllegalArgumentException(
                        "a knob of that kind has a number of 0–" + most + " but it was " + number);
            }
        }
    }

    /**
     * How a pad is lit: by a note-on of its own note, with the colour in the velocity or the channel.
     *
     * @param byChannel whether the colour is the channel; else the velocity
     * @param colours the numbers of {@link Light}s, in their order; 0–127, or channels 1–16
     */
    public record Lights(boolean byChannel, List<Integer> colours) {
        public Lights {
            colours = List.copyOf(colours);
            if (colours.size() != Light.values().length) {
                throw new IllegalArgumentException(
                        "there are " + Light.values().length + " lights but colours for " + colours.size());
            }
        }
    }

    public ControllerMap {
        knobs = List.copyOf(knobs);
        learnt = Collections.unmodifiableMap(new LinkedHashMap<>(learnt));
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
    }

    /** With a note that plays a pad of the Play view, 0 the first; what it played before it plays no more. */
    public ControllerMap withLearnt(int note, int pad) {
        Map<Integer, Integer> more = new LinkedHashMap<>(learnt);
        more.values().removeIf(at -> at == pad);
        more.put(note, pad);
        return new ControllerMap(name, pads, knobs, lights, more, unknown);
    }
}
