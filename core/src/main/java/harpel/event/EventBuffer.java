package harpel.event;

import java.util.AbstractList;
import java.util.Arrays;

/** Events in order, kept from cycle to cycle so that nothing is allocated for the list itself. One writer. */
public final class EventBuffer extends AbstractList<Event> {
    /** So many are put in order by moving each to its place. */
    private static final int FEW = 24;

    private Event[] events = new Event[64];
    private int size;

    @Override
    public Event get(int index) {
        return events[index];
    }

    @Override
    public int size() {
        return size;
    }

    @Override
    public boolean add(Event event) {
        if (size == events.length) {
            events = Arrays.copyOf(events, size * 2);
        }
        events[size++] = event;
        return true;
    }

    @Override
    public Event set(int index, Event event) {
        Event before = events[index];
        events[index] = event;
        return before;
    }

    @Override
    public void clear() {
        Arrays.fill(events, 0, size, null);
        size = 0;
    }

    /** Takes out the first {@code count} events. */
    public void removeFirst(int count) {
        if (count > 0) {
            System.arraycopy(events, count, events, 0, size - count);
            Arrays.fill(events, size - count, size, null);
            size -= count;
        }
    }

    /** Puts the events from {@code first} on, all of one tick, into order; equals keep theirs. */
    public void sortTick(int first) {
        if (size - first > FEW) {
            Arrays.sort(events, first, size, EventOrder.INSTANCE::compareAtOneTick);
            return;
        }
        for (int i = first + 1; i < size; i++) {
            Event event = events[i];
            int j = i;
            while (j > first && EventOrder.INSTANCE.compareAtOneTick(events[j - 1], event) > 0) {
                events[j] = events[j - 1];
                j--;
            }
            events[j] = event;
        }
    }

    /** Puts all events into order; equals keep theirs. */
    public void sortAll() {
        if (size > 1) {
            Arrays.sort(events, 0, size, EventOrder.INSTANCE);
        }
    }
}
