package harpel.print;

import harpel.event.Event;
import harpel.event.Events;
import harpel.event.Message;
import harpel.event.NoteStart;
import harpel.format.midi.SmfWriter;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.piece.Part;
import harpel.piece.Piece;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/**
 * What came of a print.
 *
 * @param events what each part sent, at its place in the piece
 * @param endTick where the last of it ends; the end that was asked for, or later
 * @param losses what was lost on the way
 */
public record Printed(PrintOrder order, Map<String, List<Event>> events, long endTick, List<Losses.Loss> losses) {
    /** How many notes there are in all. */
    public long count() {
        return events.values().stream()
                .flatMap(List::stream)
                .filter(NoteStart.class::isInstance)
                .count();
    }

    /**
     * What one part sent as a ready phrase that says how it came to be. It is as long as was asked for, so that it loops as what was
     * printed does; where something rings on, as many whole bars longer.
     *
     * @param into the piece it is for, where its id is free
     */
    public Phrase phrase(String part, Piece into) {
        long end =
                endTick == order.to() ? endTick : order.piece().time().meter().barLineAtOrAfter(endTick);
        long length = end - order.from();
        List<Message> messages = events.get(part).stream()
                .filter(Message.class::isInstance)
                .map(event -> ((Message) event).at(event.tick() - order.from(), event.arrival()))
                .filter(message -> message.tick() < length)
                .toList();
        Part one = order.piece().part(part).orElseThrow();
        String of = order.piece().phrase(one.phrase()).map(Phrase::name).orElse(one.name());
        String id = into.freePhraseId(Phrase.idFor(of + " printed 1"));
        // The number first: it tells them apart where there is little room.
        String name = "Printed " + id.replaceFirst(".*-(?=\\d+$)", "") + ", " + of;
        return new Phrase(
                id,
                name,
                length,
                Notes.heard(events.get(part), order.from(), order.from() + length),
                messages,
                true,
                Provenance.origin(order, one),
                Map.of());
    }

    /** All that was sent, to be written to a file. */
    public PrintedNotes notes(Collection<String> parts) {
        List<SmfWriter.Track> tracks = new ArrayList<>();
        List<Part> whose =
                parts.stream().map(id -> order.piece().part(id).orElseThrow()).toList();
        for (Part part : whose) {
            SmfWriter.Track track = track(part.name(), events.get(part.id()));
            tracks.add(new SmfWriter.Track(track.name(), sound(part, track.events()), track.events()));
        }
        return toWrite(tracks, whose);
    }

    /** On each channel that is used: single notes with an expression of their own use several. */
    private static List<Message> sound(Part part, List<? extends Event> sent) {
        TreeSet<Integer> channels = new TreeSet<>(List.of(part.channel()));
        for (Event event : sent) {
            if (event instanceof NoteStart note) {
                channels.add(note.channel());
            }
        }
        return channels.stream()
                .flatMap(channel -> part.sounds(channel).stream())
                .toList();
    }

    /** The same of every part. */
    public PrintedNotes allNotes() {
        return notes(events.keySet());
    }

    /** Events of the same stretch of the piece, such as what left one stage of a part. */
    public PrintedNotes notes(String part, String name, List<Event> some) {
        return toWrite(
                List.of(track(name, some)), List.of(order.piece().part(part).orElseThrow()));
    }

    private SmfWriter.Track track(String name, List<Event> sent) {
        return new SmfWriter.Track(name, Events.moved(sent, -order.from()));
    }

    private PrintedNotes toWrite(List<SmfWriter.Track> tracks, List<Part> parts) {
        Piece piece = order.piece();
        return new PrintedNotes(
                piece.time().since(order.from()),
                SmfWriter.about(piece, order.from(), endTick),
                tracks,
                parts,
                endTick - order.from());
    }
}
