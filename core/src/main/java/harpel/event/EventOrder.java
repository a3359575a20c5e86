package harpel.event;

import java.util.Comparator;

/** The one order of events: tick; ends, then messages, then starts; order of arrival; low to high pitch; channel. */
public final class EventOrder implements Comparator<Event> {
    public static final EventOrder INSTANCE = new EventOrder();

    /** Messages of one arrival keep the order in which they were made. */
    private static final int MESSAGES = 1;

    private EventOrder() {}

    @Override
    public int compare(Event a, Event b) {
        int byTick = Long.compare(a.tick(), b.tick());
        return byTick != 0 ? byTick : compareAtOneTick(a, b);
    }

    int compareAtOneTick(Event a, Event b) {
        if (a.rank() != b.rank()) {
            return a.rank() - b.rank();
        }
        int byArrival = Long.compare(a.arrival(), b.arrival());
        if (byArrival != 0) {
            return byArrival;
        }
        int byPitch = a.pitchOrder() - b.pitchOrder();
        return byPitch != 0 || a.rank() == MESSAGES ? byPitch : a.channel() - b.channel();
    }
}
