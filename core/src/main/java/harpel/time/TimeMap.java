package harpel.time;

/** The tempo and the meter of a piece: all that turns note values, bars and seconds into ticks. */
public record TimeMap(TempoMap tempo, MeterMap meter) {
    public static final TimeMap DEFAULT = new TimeMap(TempoMap.of(120), MeterMap.FOUR_FOUR);

    /** The same, counted from a tick on. */
    public TimeMap since(long tick) {
        return tick == 0 ? this : new TimeMap(tempo.since(tick), meter.since(tick));
    }

    /** The same where a stretch comes round: all that lies behind it is that stretch again and again, and begins with a bar. */
    public TimeMap goingRound(Round round) {
        return new TimeMap(tempo.goingRound(round), meter.goingRound(round));
    }

    /** The tick that lies a length of time after {@code startTick}, taken {@code times} times, rounded once. */
    public long after(long startTick, TimeValue length, double times) {
        if (length instanceof TimeValue.Millis ms) {
            double nanos = tempo.nanosAt(startTick) + times * ms.amount() * 1e6;
            return Ticks.round(tempo.ticksAt(nanos));
        }
        return startTick + Ticks.round(times * length.ticksAt(startTick, this));
    }
}
