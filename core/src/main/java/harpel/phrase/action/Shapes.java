package harpel.phrase.action;

import harpel.phrase.Note;
import harpel.phrase.Notes;
import harpel.phrase.Phrase;
import harpel.time.Ticks;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What makes more notes of some, fewer, or another length of the phrase. */
public final class Shapes {
    private Shapes() {}

    /** Every note that sounds across a tick becomes two. */
    public static Edited cutAt(Phrase phrase, Set<Integer> picked, long tick) {
        List<Note> shorter = new ArrayList<>();
        List<Note> rests = new ArrayList<>();
        for (Note note : Edited.meant(phrase, picked)) {
            if (note.tick() < tick && note.endTick() > tick && tick < phrase.length()) {
                shorter.add(note.withLength(tick - note.tick()));
                rests.add(note.withId(Note.NEW).withTick(tick).withLength(note.endTick() - tick));
            }
        }
        if (shorter.isEmpty()) {
            return Edited.nothing(phrase, picked, "No note sounds across that place.");
        }
        Notes before = phrase.notes();
        Notes after = before.withAll(shorter).plusAll(rests);
        Edited added = Edited.added(phrase, after, before, Edited.notes(shorter.size()) + " cut in two");
        Set<Integer> both = new LinkedHashSet<>(added.picked());
        shorter.forEach(note -> both.add(note.id()));
        return new Edited(added.phrase(), both, added.said());
    }

    /** Notes of one pitch that touch become one, with the velocity and traits of the first: a cut that is joined gives the old note back. */
    public static Edited join(Phrase phrase, Set<Integer> picked) {
        Map<Integer, Note> last = new HashMap<>();
        Map<Integer, Note> longer = new HashMap<>();
        Set<Integer> gone = new LinkedHashSet<>();
        for (Note note : Edited.meant(phrase, picked)) {
            Note before = last.get(note.pitch());
            if (before != null && before.endTick() == note.tick()) {
                Note joined = before.withLength(before.length() + note.length());
                longer.put(joined.id(), joined);
                gone.add(note.id());
                last.put(note.pitch(), joined);
            } else {
                last.put(note.pitch(), note);
            }
        }
        if (gone.isEmpty()) {
            return Edited.nothing(phrase, picked, "No two notes of one pitch touch.");
        }
        Set<Integer> left = new LinkedHashSet<>(picked);
        left.removeAll(gone);
        return new Edited(
                phrase.withNotes(phrase.notes().withAll(longer.values()).minusAll(gone)),
                left,
                Edited.notes(gone.size() + longer.size()) + " joined into " + longer.size());
    }

    /** The notes again and again to the phrase's end, each time after as many whole beats as they take. */
    public static Edited fill(Phrase phrase, Set<Integer> picked, Around around) {
        List<Note> notes = Edited.meant(phrase, picked);
        if (notes.isEmpty()) {
            return Edited.nothing(phrase, picked, "There is no note to repeat.");
        }
        long first = notes.get(0).tick();
        long beat = around.time().meter().at(first).beatTicks();
        long begin = first - Math.floorMod(first - around.barLineAtOrBefore(first), beat);
        long end = notes.stream().mapToLong(Note::endTick).max().orElse(begin);
        long period = Math.max(1, -Math.floorDiv(begin - end, beat)) * beat;
        List<Note> more = new ArrayList<>();
        for (long by = period; first + by < phrase.length(); by += period) {
            for (Note note : notes) {
                if (note.tick() + by < phrase.length()) {
                    more.add(note.withId(Note.NEW).withTick(note.tick() + by));
                }
            }
        }
        Notes after = phrase.notes().plusAll(more);
        Edited added = Edited.added(phrase, after, phrase.notes(), Edited.notes(more.size()) + " more, to the end");
        Set<Integer> all = new LinkedHashSet<>(added.picked());
        notes.forEach(note -> all.add(note.id()));
        return new Edited(added.phrase(), all, added.said());
    }

    /** The phrase from the bar of its first note to the end of the bar of its last. */
    public static Edited trim(Phrase phrase, Set<Integer> picked, Around around) {
        if (phrase.notes().isEmpty()) {
            return Edited.nothing(phrase, picked, "There is no note to trim to.");
        }
        long from = around.barLineAtOrBefore(phrase.notes().get(0).tick());
        long last = phrase.notes().stream()
                .mapToLong(note -> Math.min(phrase.length(), note.endTick()))
                .max()
                .orElse(0);
        long to = Math.min(Math.max(phrase.length(), from + 1), around.barLineAtOrAfter(last));
        List<Note> moved = phrase.notes().stream()
                .map(note -> note.withTick(note.tick() - from))
                .toList();
        Phrase after = phrase.withNotes(phrase.notes().withAll(moved))
                .withMessages(phrase.messages().stream()
                        .filter(message -> message.tick() >= from && message.tick() < to)
                        .map(message -> message.at(message.tick() - from, message.arrival()))
                        .toList())
                .withLength(to - from);
        boolean same = after.length() == phrase.length() && from == 0;
        return new Edited(after, picked, same ? "It is as short as its notes." : "Trimmed to " + bars(after, around));
    }

    /** The phrase twice. */
    public static Edited twice(Phrase phrase, Set<Integer> picked, Around around) {
        long length = phrase.length();
        List<Note> more = phrase.notes().stream()
                .map(note -> note.withId(Note.NEW).withTick(note.tick() + length))
                .toList();
        Phrase longer = phrase.withLength(2 * length);
        List<harpel.event.Message> messages = new ArrayList<>(phrase.messages());
        phrase.messages().forEach(message -> messages.add(message.at(message.tick() + length, message.arrival())));
        Edited added =
                Edited.added(longer.withMessages(messages), phrase.notes().plusAll(more), phrase.notes(), "");
        return new Edited(added.phrase(), picked, "Twice as long now, " + bars(longer, around));
    }

    /** Another length; notes that start past it are taken out. */
    public static Edited length(Phrase phrase, Set<Integer> picked, long length, Around around) {
        Set<Integer> gone = new LinkedHashSet<>();
        phrase.notes()
                .subList(phrase.notes().indexAtOrAfter(length), phrase.notes().size())
                .forEach(note -> gone.add(note.id()));
        Set<Integer> left = new LinkedHashSet<>(picked);
        left.removeAll(gone);
        Phrase after = phrase.withNotes(phrase.notes().minusAll(gone))
                .withMessages(phrase.messages().stream()
                        .filter(message -> message.tick() < length)
                        .toList())
                .withLength(length);
        return new Edited(
                after,
                left,
                "The phrase ends after " + bars(after, around)
                        + (gone.isEmpty() ? "" : "; " + Edited.notes(gone.size()) + " past it taken out"));
    }

    private static String bars(Phrase phrase, Around around) {
        return Ticks.bars(phrase.length(), around.time().meter().at(0).barTicks());
    }

    public static Edited remove(Phrase phrase, Set<Integer> picked) {
        return new Edited(
                phrase.withNotes(phrase.notes().minusAll(picked)), Set.of(), Edited.notes(picked.size()) + " removed");
    }

    /**
     * Notes put in at a tick, as far as they lie within the phrase; they are picked then.
     *
     * @param notes counted from tick 0
     */
    public static Edited paste(Phrase phrase, List<Note> notes, long at) {
        List<Note> fresh = notes.stream()
                .filter(note -> note.tick() + at < phrase.length())
                .map(note -> note.withId(Note.NEW).withTick(note.tick() + at))
                .toList();
        int past = notes.size() - fresh.size();
        return Edited.added(
                phrase,
                phrase.notes().plusAll(fresh),
                phrase.notes(),
                Edited.notes(fresh.size()) + " pasted" + (past == 0 ? "" : "; " + past + " lay past the phrase’s end"));
    }
}
