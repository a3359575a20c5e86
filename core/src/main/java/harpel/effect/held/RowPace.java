package harpel.effect.held;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.music.TimeType;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.List;
import java.util.Map;

/**
 * How fast a row of steps goes: so many of its own steps to a step of the stage, or a length of its own.
 *
 * @param own null where it goes by the stage's steps
 */
public record RowPace(int timesOfStage, int perOfStage, TimeValue own) {
    public static final RowPace SAME = new RowPace(1, 1, null);

    /** Lengths are compared in so many parts of a tick. */
    static final int FINE = 16;

    /** How many steps of its own, over {@link #per}, a step of the stage takes. */
    double times(TimeValue pace, TimeMap time) {
        return own == null ? timesOfStage : pace.ticksAt(0, time);
    }

    double per(TimeMap time) {
        return own == null ? perOfStage : own.ticksAt(0, time);
    }

    /** Whether it must be counted in time, since the stage's steps are not of one length. */
    boolean byTicks(TimeValue pace) {
        return own != null && !(pace instanceof TimeValue.Note);
    }

    /** Written as {@code x1/2} or as a note value. */
    public record Type() implements ParamType<RowPace> {
        static final Type PACE = new Type();
        /** 0.33 is a third, and 0.67 two. */
        private static final double NEARLY = 0.005;

        private static final List<RowPace> KNOWN = List.of(
                new RowPace(1, 4, null),
                new RowPace(1, 3, null),
                new RowPace(1, 2, null),
                new RowPace(2, 3, null),
                new RowPace(3, 4, null),
                SAME,
                new RowPace(4, 3, null),
                new RowPace(3, 2, null),
                new RowPace(2, 1, null),
                new RowPace(3, 1, null),
                new RowPace(4, 1, null));

        @Override
        public RowPace read(Object plain) {
            for (RowPace known : KNOWN) {
                if (write(known).equals(plain)) {
                    return known;
                }
            }
            if (plain instanceof String text && text.startsWith("x")) {
                throw new ParamException("must be " + range() + " but was \"" + text + "\"");
            }
            return note(TimeType.TIME.read(plain));
        }

        @Override
        public RowPace parse(String typed) {
            String bare = typed.strip().replace('×', 'x').replace(',', '.').replace(" ", "");
            if (bare.startsWith("x") || bare.matches("\\d+(\\.\\d+)?")) {
                return times(bare.replace("x", ""), typed);
            }
            // 3/2 is no note value that anyone writes; 3/4 is one.
            return KNOWN.stream()
                    .filter(known -> known.timesOfStage > 1 && write(known).equals("x" + bare))
                    .filter(known -> known.perOfStage < 4)
                    .findFirst()
                    .orElseGet(() -> note(TimeType.TIME.parse(typed)));
        }

        /** So many times as fast: "3/2", or "1.5". */
        private RowPace times(String text, String typed) {
            for (RowPace known : KNOWN) {
                double exact = (double) known.timesOfStage / known.perOfStage;
                boolean decimal = text.matches("\\d+(\\.\\d+)?") && Math.abs(Double.parseDouble(text) - exact) < NEARLY;
                if (decimal || write(known).equals("x" + text)) {
                    return known;
                }
            }
            throw new ParamException("must be " + range() + " but was \"" + typed + "\"");
        }

        private RowPace note(TimeValue value) {
            if (value instanceof TimeValue.Note) {
                return new RowPace(1, 1, value);
            }
            throw new ParamException("must be " + range() + " but was \"" + value + "\"");
        }

        @Override
        public Object write(RowPace value) {
            if (value.own != null) {
                return TimeType.TIME.write(value.own);
            }
            return "x" + value.timesOfStage + (value.perOfStage == 1 ? "" : "/" + value.perOfStage);
        }

        @Override
        public Map<String, Object> schema() {
            return Map.of(
                    "anyOf",
                    List.of(
                            Map.of("enum", KNOWN.stream().map(this::write).toList()),
                            Map.of("type", "string", "pattern", "^[0-9]{1,3}/[0-9]{1,3}[dt]?$")));
        }

        @Override
        public String show(RowPace value) {
            return value.own == null ? write(value).toString().replace('x', '×') : TimeType.TIME.show(value.own);
        }

        @Override
        public String range() {
            return String.join(
                            ", ",
                            KNOWN.stream()
                                    .map(known -> "\"" + write(known) + "\"")
                                    .toList())
                    + " of the stage's pace, as 3/2, ×3/2 or 1.5, or a note value 4/1 to 1/64 such as \"1/8d\"";
        }

        @Override
        public double fraction(RowPace value) {
            return value.own == null ? KNOWN.indexOf(value) / (KNOWN.size() - 1.0) : Double.NaN;
        }

        @Override
        public RowPace atFraction(double fraction) {
            return KNOWN.get((int) Math.round(Math.max(0, Math.min(1, fraction)) * (KNOWN.size() - 1)));
        }

        @Override
        public RowPace moved(RowPace value, double offset) {
            return value.own == null ? atFraction(fraction(value) + offset) : value;
        }

        @Override
        public RowPace step(RowPace value, int direction, boolean fine) {
            return value.own == null
                    ? KNOWN.get(Math.max(0, Math.min(KNOWN.size() - 1, KNOWN.indexOf(value) + direction)))
                    : new RowPace(1, 1, TimeType.TIME.step(value.own, direction, fine));
        }
    }
}
