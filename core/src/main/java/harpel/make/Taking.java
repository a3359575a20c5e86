package harpel.make;

import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** What becomes of notes that were made. */
public enum Taking {
    /** They are added to those of the phrase. */
    ADDED,
    /** They take the place of the phrase's notes between the chosen pitches and bars; what lies outside is left as it is. */
    IN_PLACE,
    /** They take the place of all notes, and the phrase is as long as they are. */
    INSTEAD;

    /**
     * Where notes may be taken out and put in.
     *
     * @param lowest the lowest pitch
     * @param highest the highest pitch
     * @param from the first tick
     * @param to behind the last one
     */
    public record Range(int lowest, int highest, long from, long to) {
        boolean has(Note note) {
            return note.pitch() >= lowest && note.pitch() <= highest && note.tick() >= from && note.tick() < to;
        }
    }

    /**
     * A phrase with notes that were made.
     *
     * @param made from tick 0 on
     * @param length of what was made
     * @param range for {@link #IN_PLACE}
     */
    public Phrase into(Phrase phrase, List<Note> made, long length, Range range) {
        return switch (this) {
            case ADDED ->
                phrase.withLength(Math.max(phrase.length(), length))
                        .withNotes(phrase.notes().plusAll(made));
            case INSTEAD -> phrase.withNotes(Notes.EMPTY).withLength(length).withNotes(Notes.of(made));
            case IN_PLACE -> {
                Set<Integer> out = new HashSet<>();
                phrase.notes().stream().filter(range::has).forEach(note -> out.add(note.id()));
                List<Note> in = new ArrayList<>();
                for (Note note : made) {
                    if (range.has(note) && note.tick() < phrase.length()) {
                        in.add(note.withLength(Math.max(1, Math.min(note.length(), range.to - note.tick()))));
                    }
                }
                yield phrase.withNotes(phrase.notes().minusAll(out).plusAll(in));
            }
        };
    }
}
