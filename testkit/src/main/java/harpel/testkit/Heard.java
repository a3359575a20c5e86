package harpel.testkit;

import harpel.event.Event;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/** A note that came out, in beats of a quarter. */
public record Heard(double beat, double length, int pitch, int velocity, int channel) {
    /** Pairs starts and ends; in the order of starts. */
    public static List<Heard> of(List<? extends Event> events) {
        Map<NoteStart, Integer> places = new IdentityHashMap<>();
        List<Heard> notes = new ArrayList<>();
        for (Event event : events) {
            if (event instanceof NoteStart note) {
                places.put(note, notes.size());
                notes.add(new Heard(beats(note.tick()), -1, note.pitch(), note.velocity(), note.channel() + 1));
            } else if (event instanceof NoteEnd end) {
                int place = places.remove(end.start());
                Heard open = notes.get(place);
                double length = beats(end.tick() - end.start().tick());
                notes.set(place, new Heard(open.beat, length, open.pitch, open.velocity, open.channel));
            }
        }
        if (!places.isEmpty()) {
            throw new AssertionError("notes without an end: " + places.keySet());
        }
        return notes;
    }

    private static double beats(long ticks) {
        return ticks / (double) Ticks.PER_QUARTER;
    }
}
