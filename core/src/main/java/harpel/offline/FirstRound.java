package harpel.offline;

import harpel.event.Event;
import harpel.event.EventBuffer;
import harpel.event.EventOrder;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.run.SoundRun;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** The first round of what was played, with what began past its end laid over its beginning. */
final class FirstRound {
    private FirstRound() {}

    /**
     * The round. A note that sounds past the end is cut there, as a loop cuts it; one that begins past it begins as far behind the
     * beginning. Where two come to lie on one pitch, the later strikes again.
     *
     * @param played the round and what rang out behind it, in the order of events
     * @param from where it begins
     * @param end where it ends
     */
    static List<Event> of(List<Event> played, long from, long end) {
        Map<NoteStart, NoteStart> sounding = new IdentityHashMap<>();
        List<Event> round = new ArrayList<>();
        long arrival = 0;
        for (Event event : played) {
            if (event instanceof NoteStart note) {
                sounding.put(
                        note,
                        NoteStart.played(
                                laid(note.tick(), from, end),
                                arrival++,
                                note.channel(),
                                note.pitch(),
                                note.velocity()));
            } else if (event instanceof NoteEnd over) {
                NoteStart start = sounding.remove(over.start());
                long length = over.tick() - over.start().tick();
                long tick = Math.min(end, start.tick() + length);
                round.add(start.lasting(tick - start.tick()));
                round.add(new NoteEnd(tick, start, over.releaseVelocity()));
            } else if (event instanceof Message && event.tick() < end) {
                round.add(((Message) event).at(event.tick(), arrival++));
            }
        }
        round.sort(EventOrder.INSTANCE);
        EventBuffer voices = new EventBuffer();
        new SoundRun().process(round, voices);
        return List.copyOf(voices);
    }

    private static long laid(long tick, long from, long end) {
        return tick < end ? tick : from + (tick - from) % (end - from);
    }
}
