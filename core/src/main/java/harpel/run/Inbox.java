package harpel.run;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.time.Ticks;
import java.util.List;

/** What has been sent to a place from several sides and waits for its turn, in the order of events. Owned by the renderer. */
final class Inbox {
    private final EventBuffer waiting = new EventBuffer();
    private final EventBuffer taken = new EventBuffer();
    private boolean sorted = true;

    void add(Event event) {
        int size = waiting.size();
        sorted &= size == 0 || EventOrder.INSTANCE.compare(waiting.get(size - 1), event) <= 0;
        waiting.add(event);
    }

    private void sort() {
        if (!sorted) {
            waiting.sortAll();
            sorted = true;
        }
    }

    /** Takes out what lies before {@code to}, and what lies at {@code done} where no time passes. */
    List<Event> take(long done, long to) {
        sort();
        taken.clear();
        long end = Math.max(to, done + 1);
        int count = 0;
        while (count < waiting.size() && waiting.get(count).tick() < end) {
            taken.add(waiting.get(count++));
        }
        waiting.removeFirst(count);
        return taken;
    }

    /** What waits, in order. */
    List<Event> waiting() {
        sort();
        return waiting;
    }

    long nextTick() {
        sort();
        return waiting.isEmpty() ? Ticks.NEVER : waiting.get(0).tick();
    }

    boolean isEmpty() {
        return waiting.isEmpty();
    }

    void clear() {
        waiting.clear();
        sorted = true;
    }
}
