package harpel.app.perform;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import java.util.OptionalDouble;

/** The tempo of taps: a quarter is as long as the middle one of the last spans between them. */
final class TapTempo {
    private static final long PAUSE_NANOS = 2_500_000_000L;
    private static final int MOST = 8;
    private static final int FEWEST = 2;
    private static final double SLOWEST = 20;
    private static final double FASTEST = 400;

    private final Deque<Long> spans = new ArrayDeque<>();
    private long last = Long.MIN_VALUE;

    /** Taps at a moment; the tempo, to a tenth, once that can be told. After a pause of 2.5 s it begins anew. */
    OptionalDouble tap(long nanos) {
        boolean goesOn = last != Long.MIN_VALUE && nanos - last <= PAUSE_NANOS && nanos > last;
        if (goesOn) {
            spans.addLast(nanos - last);
            if (spans.size() > MOST) {
                spans.removeFirst();
            }
        } else {
            spans.clear();
        }
        last = nanos;
        if (spans.size() < FEWEST) {
            return OptionalDouble.empty();
        }
        List<Long> sorted = new ArrayList<>(spans);
        Collections.sort(sorted);
        int half = sorted.size() / 2;
        double middle = sorted.size() % 2 == 1 ? sorted.get(half) : (sorted.get(half - 1) + sorted.get(half)) / 2.0;
        double bpm = Math.round(60e9 / middle * 10) / 10.0;
        return OptionalDouble.of(Math.max(SLOWEST, Math.min(FASTEST, bpm)));
    }
}
