package harpel.piece;

import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import java.util.ArrayList;
import java.util.List;

/**
 * Written music: notes and other messages.
 *
 * @param lengthTicks where it ends or loops
 */
public record Phrase(String name, long lengthTicks, List<Note> notes, List<Message> messages) {
    public Phrase {
        notes = List.copyOf(notes);
        messages = List.copyOf(messages);
        for (Note note : notes) {
            if (note.tick() >= lengthTicks) {
                throw new IllegalArgumentException("phrase \"" + name + "\" ends at tick " + lengthTicks
                        + " but has a note at " + note.tick() + "; make it longer");
            }
        }
    }

    /** The same music on one channel, as a part hears it; system messages stay as they are. */
    public Phrase onChannel(int channel) {
        return new Phrase(
                name,
                lengthTicks,
                notes.stream().map(note -> note.onChannel(channel)).toList(),
                messages.stream().map(message -> message.onChannel(channel)).toList());
    }

    /**
     * Its events from {@code fromTick} to before {@code toTick} of the phrase, moved by {@code shiftTicks}, in no order yet. A note
     * that would last past the end of the phrase ends there.
     *
     * @param firstArrival arrival numbers are counted from here
     */
    public List<Event> events(long shiftTicks, long firstArrival) {
        List<Event> events = new ArrayList<>(2 * notes.size() + messages.size());
        long arrival = firstArrival;
        for (Message message : messages) {
            events.add(new Message(message.tick() + shiftTicks, arrival++, message.bytes()));
        }
        for (Note note : notes) {
            NoteStart start = NoteStart.played(
                    note.tick() + shiftTicks, arrival++, note.channel(), note.pitch(), note.velocity());
            events.add(start);
            events.add(new NoteEnd(shiftTicks + Math.min(lengthTicks, note.endTick()), start, note.releaseVelocity()));
        }
        return events;
    }
}
