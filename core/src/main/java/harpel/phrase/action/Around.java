package harpel.phrase.action;

import harpel.phrase.Note;
import harpel.theory.Key;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;

/** The piece around a phrase, which is taken as beginning at tick 0. */
public record Around(Key key, TimeMap time) {
    /** What a hand strikes together; as long as Strum gathers at first. */
    private static final long TOGETHER_MILLIS = 25;

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

    /** Notes in the order of their starts as chords: what begins within a hand's time of the first is struck together. */
    List<List<Note>> chords(List<Note> notes) {
        List<List<Note>> chords = new ArrayList<>();
        for (Note note : notes) {
            List<Note> last = chords.isEmpty() ? List.of() : chords.get(chords.size() - 1);
            if (last.isEmpty() || millis(last.get(0).tick(), note.tick()) > TOGETHER_MILLIS) {
                last = new ArrayList<>();
                chords.add(last);
            }
            last.add(note);
        }
        return chords;
    }

    double barsIn(long ticks) {
        return ticks / (double) time.meter().at(0).barTicks();
    }
}
