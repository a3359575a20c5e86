package harpel.event;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** What is done with whole lists of events. */
public final class Events {
    private Events() {}

    /**
     * The same events as new ones, so many ticks later, or earlier where it is less than nought. They count as played in the order of the
     * list; an end whose start is not among them is left out.
     *
     * @param events in their order
     */
    public static List<Event> moved(List<? extends Event> events, long by) {
        Map<NoteStart, NoteStart> starts = new IdentityHashMap<>();
        List<Event> moved = new ArrayList<>(events.size());
        for (Event event : events) {
            long tick = event.tick() + by;
            if (event instanceof NoteStart note) {
                NoteStart start = NoteStart.played(tick, moved.size(), note.channel(), note.pitch(), note.velocity());
                starts.put(note, start);
                moved.add(start.lasting(note.lasts()));
            } else if (event instanceof NoteEnd end) {
                NoteStart start = starts.get(end.start());
                if (start != null) {
                    moved.add(new NoteEnd(tick, start, end.releaseVelocity()));
                }
            } else {
                moved.add(((Message) event).at(tick, moved.size()));
            }
        }
        moved.sort(EventOrder.INSTANCE);
        return moved;
    }
}
