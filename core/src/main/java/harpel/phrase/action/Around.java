package harpel.phrase.action;

import harpel.theory.Key;
import harpel.time.TimeMap;

/** The piece around a phrase, which is taken as beginning at tick 0. */
public record Around(Key key, TimeMap time) {
    long barOf(long tick) {
        return time.meter().barAt(tick);
    }

    long barLineAtOrBefore(long tick) {
        return time.meter().tickOfBar(barOf(tick));
    }

    long barLineAtOrAfter(long tick) {
        return time.meter().barLineAtOrAfter(tick);
    }

    long millis(long fromTick, long toTick) {
        double nanos = time.tempo().nanosAt(toTick) - time.tempo().nanosAt(fromTick);
        return Math.round(Math.abs(nanos) / 1e6);
    }

    double barsIn(long ticks) {
        return ticks / (double) time.meter().at(0).barTicks();
    }
}
