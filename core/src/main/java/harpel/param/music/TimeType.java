package harpel.param.music;

import harpel.param.ParamException;
import harpel.param.ParamType;
import harpel.param.Plain;
import harpel.time.TimeValue;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A note value, or a free time in ms, beats or bars up to {@code longestMs}, {@code longestBeats} and {@code longestBars}.
 *
 * @param longestBars 0 where it is not given in bars
 */
public record TimeType(double longestMs, double longestBeats, double longestBars, boolean ticks)
        implements ParamType<TimeValue> {
    public static final TimeType TIME = new TimeType(20_000, 64, 0, false);
    /** As {@link #TIME}, or a number of ticks. */
    public static final TimeType TIME_OR_TICKS = new TimeType(20_000, 64, 0, true);
    /** As {@link #TIME}, or up to 64 bars. */
    public static final TimeType LOOP = new TimeType(20_000, 64, 64, false);

    private static final double QUARTERS_A_BAR = 4;

    private static final long LONGEST_TICKS = 64L * harpel.time.Ticks.PER_QUARTER;

    /** The values that steps and the bar go through. */
    private static final List<TimeValue> LADDER = List.of(
                    "1/64t", "1/64", "1/32t", "1/64d", "1/32", "1/16t", "1/32d", "1/16", "1/8t", "1/16d", "1/8", "1/4t",
                    "1/8d", "1/4", "1/2t", "1/4d", "1/2", "1/2d", "1/1", "1/1d", "2/1", "3/1", "4/1")
            .stream()
            .map(TimeValue::ofNote)
            .toList();

    @Override
    public TimeValue read(Object plain) {
        if (!(plain instanceof String text)) {
            throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
        }
        TimeValue value = TimeValue.parse(text);
        boolean fits = value instanceof TimeValue.Millis ms && ms.amount() >= 1 && ms.amount() <= longestMs
                || value instanceof TimeValue.Beats beats && beats.amount() >= 0.01 && beats.amount() <= longestBeats
                || value instanceof TimeValue.Bars bars && bars.amount() >= 0.01 && bars.amount() <= longestBars
                || ticks
                        && value instanceof TimeValue.Count count
                        && count.amount() >= 1
                        && count.amount() <= LONGEST_TICKS
                || value instanceof TimeValue.Note;
        if (!fits) {
            throw new ParamException("must be " + range() + " but was " + Plain.quote(plain));
        }
        return value;
    }

    @Override
    public Object write(TimeValue value) {
        return value.toString();
    }

    @Override
    public Map<String, Object> schema() {
        Map<String, Object> schema = new LinkedHashMap<>();
        schema.put("type", "string");
        schema.put(
                "pattern",
                "^([0-9]{1,3}/[0-9]{1,3}[dt]?|[0-9]+(\\.[0-9]+)? *(ms|beats?" + (longestBars > 0 ? "|bars?" : "")
                        + (ticks ? "|ticks?" : "") + "))$");
        return schema;
    }

    @Override
    public String show(TimeValue value) {
        return value.toString();
    }

    @Override
    public String range() {
        return "a note value 4/1 to 1/64 such as \"1/8d\", or \"1 ms\" to \"" + Plain.number(longestMs)
                + " ms\", or \"0.01 beat\" to \"" + Plain.number(longestBeats) + " beats\""
                + (longestBars > 0 ? ", or \"0.01 bar\" to \"" + Plain.number(longestBars) + " bars\"" : "")
                + (ticks ? ", or \"1 tick\" and more" : "");
    }

    @Override
    public double fraction(TimeValue value) {
        if (value instanceof TimeValue.Millis ms) {
            return Math.log(ms.amount()) / Math.log(longestMs);
        }
        double quarters = quarters(value);
        int place = 0;
        while (place < LADDER.size() - 1 && quarters(LADDER.get(place)) < quarters) {
            place++;
        }
        return place / (double) (LADDER.size() - 1);
    }

    @Override
    public TimeValue atFraction(double fraction) {
        return LADDER.get((int) Math.round(Math.max(0, Math.min(1, fraction)) * (LADDER.size() - 1)));
    }

    /** Free times keep their unit: the whole range is the ladder's from shortest to longest, taken in equal ratios. */
    @Override
    public TimeValue moved(TimeValue value, double offset) {
        double ratio = Math.pow(quarters(LADDER.get(LADDER.size() - 1)) / quarters(LADDER.get(0)), offset);
        if (offset == 0) {
            return value;
        }
        if (value instanceof TimeValue.Millis ms) {
            return new TimeValue.Millis(tidy(Math.max(1, Math.min(longestMs, ms.amount() * ratio))));
        }
        if (value instanceof TimeValue.Beats beats) {
            return new TimeValue.Beats(tidy(Math.max(0.01, Math.min(longestBeats, beats.amount() * ratio))));
        }
        if (value instanceof TimeValue.Bars bars) {
            return new TimeValue.Bars(tidy(Math.max(0.01, Math.min(longestBars, bars.amount() * ratio))));
        }
        if (value instanceof TimeValue.Count count) {
            return new TimeValue.Count(Math.max(1, Math.min(LONGEST_TICKS, Math.round(count.amount() * ratio))));
        }
        return atFraction(fraction(value) + offset);
    }

    @Override
    public TimeValue between(TimeValue from, TimeValue to, double way, double offset) {
        if (from instanceof TimeValue.Millis a && to instanceof TimeValue.Millis b) {
            return moved(new TimeValue.Millis(tidy(a.amount() + (b.amount() - a.amount()) * way)), offset);
        }
        if (from instanceof TimeValue.Beats a && to instanceof TimeValue.Beats b) {
            return moved(new TimeValue.Beats(tidy(a.amount() + (b.amount() - a.amount()) * way)), offset);
        }
        return from instanceof TimeValue.Note && to instanceof TimeValue.Note
                ? atFraction(fraction(from) + (fraction(to) - fraction(from)) * way + offset)
                : moved(from, offset);
    }

    private static double tidy(double amount) {
        return Math.round(amount * 1000) / 1000.0;
    }

    @Override
    public TimeValue step(TimeValue value, int direction, boolean fine) {
        if (value instanceof TimeValue.Millis ms) {
            return new TimeValue.Millis(Math.max(1, Math.min(longestMs, ms.amount() + direction * (fine ? 1 : 10))));
        }
        if (value instanceof TimeValue.Count count) {
            long moved = count.amount() + direction * (fine ? 1L : 10L);
            return new TimeValue.Count(Math.max(1, Math.min(LONGEST_TICKS, moved)));
        }
        if (value instanceof TimeValue.Bars bars) {
            double moved = bars.amount() + direction * (fine ? 0.25 : 1);
            return new TimeValue.Bars(Math.max(0.25, Math.min(longestBars, moved)));
        }
        if (value instanceof TimeValue.Beats beats) {
            double moved = Math.round((beats.amount() + direction * (fine ? 0.01 : 0.25)) * 100) / 100.0;
            return new TimeValue.Beats(Math.max(0.01, Math.min(longestBeats, moved)));
        }
        int place = LADDER.indexOf(value);
        if (place < 0) {
            return atFraction(fraction(value));
        }
        return LADDER.get(Math.max(0, Math.min(LADDER.size() - 1, place + direction)));
    }

    private static double quarters(TimeValue value) {
        if (value instanceof TimeValue.Count count) {
            return count.amount() / (double) harpel.time.Ticks.PER_QUARTER;
        }
        if (value instanceof TimeValue.Bars bars) {
            // But for the meter, which is not known here.
            return bars.amount() * QUARTERS_A_BAR;
        }
        return value instanceof TimeValue.Note note ? note.value().quarters() : ((TimeValue.Beats) value).amount();
    }
}
