package harpel.piece.perform;

import harpel.time.MeterMap;

/**
 * When something that is asked for on stage is done.
 *
 * @param bars 0 at once, -1 at the next beat, else at the next bar line that begins a group of so many bars, counted from the first
 */
public record When(int bars) {
    public static final When NOW = new When(0);
    public static final When BEAT = new When(-1);
    public static final When BAR = new When(1);
    public static final int MOST_BARS = 64;

    public When {
        if (bars < -1 || bars > MOST_BARS) {
            throw new IllegalArgumentException(
                    "it is done now, at the next beat, or every 1–" + MOST_BARS + " bars, but was to be at " + bars);
        }
    }

    /** Reads what {@link #toString} writes: now, beat, bar, or a number of bars. */
    public static When parse(String text) {
        String bare = text.strip().replaceAll("\\s*bars$", "");
        return switch (bare) {
            case "now" -> NOW;
            case "beat" -> BEAT;
            case "bar" -> BAR;
            default -> {
                if (!bare.matches("[1-9]\\d?")) {
                    throw new IllegalArgumentException(
                            "when is now, beat, bar or a number of bars such as 4, but was \"" + text + "\"");
                }
                yield new When(Integer.parseInt(bare));
            }
        };
    }

    /** The first tick at or after one at which it is done. */
    public long due(MeterMap meter, long tick) {
        if (bars == 0) {
            return tick;
        }
        long bar = meter.barAt(tick);
        if (bars < 0) {
            long begin = meter.tickOfBar(bar);
            long beat = meter.at(tick).beatTicks();
            return begin - Math.floorDiv(begin - tick, beat) * beat;
        }
        long line = meter.tickOfBar(bar) == tick ? bar : bar + 1;
        return meter.tickOfBar(-Math.floorDiv(-line, bars) * bars);
    }

    /** "at once", "at the next beat", "at the next bar", "every 4 bars". */
    public String shown() {
        return switch (bars) {
            case 0 -> "at once";
            case -1 -> "at the next beat";
            case 1 -> "at the next bar";
            default -> "every " + bars + " bars";
        };
    }

    @Override
    public String toString() {
        return switch (bars) {
            case 0 -> "now";
            case -1 -> "beat";
            case 1 -> "bar";
            default -> String.valueOf(bars);
        };
    }
}
