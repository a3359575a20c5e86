package harpel.run;

import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import java.util.List;

/** Which note was the lowest held at each tick of the span being rendered. Owned by the renderer. */
final class HeldHistory {
    private final int[] count = new int[128];
    private long[] ticks = new long[16];
    private int[] lowest = new int[16];
    private int size;
    private int now = -1;

    /** Begins with notes that are held already. */
    void begin(List<NoteStart> notes) {
        clear();
        for (NoteStart note : notes) {
            count[note.pitch()]++;
            now = now < 0 ? note.pitch() : Math.min(now, note.pitch());
        }
    }

    /** Takes a span's input, in order, as far as it lies before {@code end}. */
    void take(List<Event> input, long end) {
        size = 0;
        note(Long.MIN_VALUE);
        for (int i = 0; i < input.size() && input.get(i).tick() < end; i++) {
            Event event = input.get(i);
            if (event instanceof NoteStart start) {
                count[start.pitch()]++;
                now = now < 0 ? start.pitch() : Math.min(now, start.pitch());
                note(event.tick());
            } else if (event instanceof NoteEnd ended && count[ended.start().pitch()] > 0) {
                count[ended.start().pitch()]--;
                while (now >= 0 && now < 128 && count[now] == 0) {
                    now = now == 127 ? -1 : now + 1;
                }
                note(event.tick());
            }
        }
    }

    private void note(long tick) {
        if (size > 0 && ticks[size - 1] == tick) {
            lowest[size - 1] = now;
            return;
        }
        if (size == ticks.length) {
            ticks = java.util.Arrays.copyOf(ticks, size * 2);
            lowest = java.util.Arrays.copyOf(lowest, size * 2);
        }
        ticks[size] = tick;
        lowest[size++] = now;
    }

    /** The lowest note held after the events of that tick, or -1. */
    int lowestAt(long tick) {
        int found = size == 0 ? now : -1;
        for (int i = 0; i < size && ticks[i] <= tick; i++) {
            found = lowest[i];
        }
        return found;
    }

    void clear() {
        java.util.Arrays.fill(count, 0);
        now = -1;
        size = 0;
    }
}
