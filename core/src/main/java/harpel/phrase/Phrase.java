package harpel.phrase;

import harpel.event.Message;
import harpel.param.Ids;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Written music: notes and other messages. It is heard on the channel of the part that hears it.
 *
 * @param id by which parts hear it; it stays when the phrase is renamed
 * @param length in ticks, where it ends or loops
 * @param messages controllers, bends, pressure, programs and system exclusive messages; their channel does not count
 * @param ready whether it is the result of a chain already: it is heard past the chain of the part that hears it
 * @param origin where it comes from
 * @param unknown what a newer version wrote and this one does not know
 */
@RecordBuilder
public record Phrase(
        String id,
        String name,
        long length,
        Notes notes,
        List<Message> messages,
        boolean ready,
        Origin origin,
        Map<String, Object> unknown)
        implements PhraseBuilder.With {
    public Phrase {
        if (!Ids.isOne(id)) {
            throw new IllegalArgumentException(
                    "a phrase's id is lower-case letters, digits and hyphens but was \"" + id + "\"");
        }
        messages = List.copyOf(messages);
        unknown = unknown.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(unknown));
        long last = notes.isEmpty() ? -1 : notes.get(notes.size() - 1).tick();
        if (last >= length) {
            throw new IllegalArgumentException("phrase \"" + name + "\" ends at tick " + length + " but has a note at "
                    + last + "; make it longer");
        }
    }

    /** A phrase whose id is made from its name. */
    public static Phrase of(String name, long length, List<Note> notes) {
        return new Phrase(idFor(name), name, length, Notes.of(notes), List.of(), false, Origin.DRAWN, Map.of());
    }

    /** How many notes there are that are played, on an average of many rounds. */
    public double expectedNotes() {
        double expected = 0;
        for (Note note : notes) {
            expected += note.traits().off() ? 0 : note.traits().chance() / 100.0;
        }
        return expected;
    }

    /** An id made from a name: "Harbour bells" is harbour-bells. */
    public static String idFor(String name) {
        String id = harpel.theory.Words.idFor(name);
        return id.isEmpty() ? "phrase" : id;
    }
}
