package harpel.offline;

import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.event.Events;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** Cuts the second of two rounds out of what was played, and lays it where the first was. */
final class SecondRound {
    private SecondRound() {}

    /**
     * The second round. A note that began in the first and sounds on begins where the round does; one that sounds over the end of the
     * second ends there.
     *
     * @param played both rounds, in the order of events
     * @param from where the first begins
     * @param end where the first ends and the second begins
     */
    static List<Event> of(List<Event> played, long from, long end) {
        long by = end - from;
        long secondEnd = end + by;
        Map<NoteStart, NoteStart> sounding = new IdentityHashMap<>();
        List<Event> round = new ArrayList<>();
        long arrival = 0;
        for (Event event : played) {
            if (event instanceof NoteStart note) {
                long tick = Math.max(end, note.tick());
                if (tick < secondEnd) {
                    sounding.put(
                            note,
                            NoteStart.played(tick - by, arrival++, note.channel(), note.pitch(), note.velocity()));
                }
            } else if (event instanceof NoteEnd over) {
                NoteStart start = sounding.remove(over.start());
                if (start != null && over.tick() > end) {
                    long tick = Math.min(secondEnd, over.tick()) - by;
                    round.add(start.lasting(tick - start.tick()));
                    round.add(new NoteEnd(tick, start, over.releaseVelocity()));
                }
            } else if (event instanceof Message message && event.tick() >= end && event.tick() < secondEnd) {
                round.add(message.at(message.tick() - by, arrival++));
            }
        }
        round.sort(EventOrder.INSTANCE);
        return round;
    }

    /** An input that comes twice, the second time where the first ends; what would last past the end of a round ends there. */
    static List<Event> twice(List<Event> input, long from, long end) {
        List<Event> once = new ArrayList<>();
        for (Event event : input) {
            if (event instanceof NoteEnd over) {
                if (over.start().tick() < end) {
                    once.add(new NoteEnd(Math.min(end, over.tick()), over.start(), over.releaseVelocity()));
                }
            } else if (event.tick() < end) {
                once.add(event);
            }
        }
        List<Event> both = new ArrayList<>(Events.moved(once, 0));
        both.addAll(Events.moved(once, end - from));
        both.sort(EventOrder.INSTANCE);
        return both;
    }
}
