package harpel.event;

import java.util.Comparator;

/** The one order of events: tick; ends, then messages, then starts; order of arrival; low to high pitch; channel. */
public final class EventOrder implements Comparator<Event> {
    public static final EventOrder INSTANCE = new EventOrder();

    private EventOrder() {}

    @Override
    public int compare(Event a, Event b) {
        return a.tick() != b.tick() ? a.tick() < b.tick() ? -1 : 1 : compareAtOneTick(a, b);
    }

    int compareAtOneTick(Event a, Event b) {
        if (a.rank() != b.rank()) {
            return a.rank() - b.rank();
        }
        if (a.arrival() != b.arrival()) {
            return a.arrival() < b.arrival() ? -1 : 1;
        }
        return a.pitchOrder() - b.pitchOrder();
    }
}
