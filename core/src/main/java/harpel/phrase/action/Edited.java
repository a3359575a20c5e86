package harpel.phrase.action;

import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * What an action gives.
 *
 * @param picked the ids of the notes that are picked after it
 * @param said in one line, what it did
 */
public record Edited(Phrase phrase, Set<Integer> picked, String said) {
    public Edited {
        picked = Set.copyOf(picked);
    }

    /** The picked notes in order, or all where none are. */
    public static List<Note> meant(Phrase phrase, Set<Integer> picked) {
        if (picked.isEmpty()) {
            return phrase.notes();
        }
        List<Note> notes = new ArrayList<>();
        picked.forEach(id -> phrase.notes().find(id).ifPresent(notes::add));
        notes.sort(Notes.ORDER);
        return notes;
    }

    /** Every note that is meant changed by itself; null leaves it as it is. */
    static Edited each(Phrase phrase, Set<Integer> picked, UnaryOperator<Note> change, String done, String kept) {
        List<Note> changed = new ArrayList<>();
        int left = 0;
        for (Note note : meant(phrase, picked)) {
            Note after = change.apply(note);
            if (after == null) {
                left++;
            } else if (!after.equals(note)) {
                changed.add(after);
            }
        }
        String said = notes(changed.size()) + " " + done + (left == 0 ? "" : "; " + left + " " + kept);
        return new Edited(phrase.withNotes(phrase.notes().withAll(changed)), picked, said);
    }

    /** Nothing done, and why. */
    static Edited nothing(Phrase phrase, Set<Integer> picked, String why) {
        return new Edited(phrase, picked, why);
    }

    /** With other notes more, which are picked then. */
    static Edited added(Phrase phrase, Notes after, Notes before, String said) {
        Set<Integer> fresh = new LinkedHashSet<>();
        for (Note note : after) {
            if (before.find(note.id()).isEmpty()) {
                fresh.add(note.id());
            }
        }
        return new Edited(phrase.withNotes(after), fresh, said);
    }

    static String notes(int count) {
        return count == 1 ? "1 note" : String.format(Locale.ROOT, "%,d notes", count);
    }
}
