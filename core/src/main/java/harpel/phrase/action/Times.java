package harpel.phrase.action;

import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.time.StepGrid;
import harpel.time.TimeValue;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What can be done to the places and lengths of notes. */
public final class Times {
    private Times() {}

    /**
     * Brings notes onto a grid. What is nearest to the phrase's end goes to its beginning, since it is the same place in a loop.
     *
     * @param strength how far of the way, 0–100 %
     * @param ends whether ends are brought onto it, too
     */
    public static Edited ontoGrid(
            Phrase phrase,
            Set<Integer> picked,
            TimeValue pace,
            double swingPercent,
            double strength,
            boolean ends,
            Around around) {
        StepGrid grid = StepGrid.ofPiece(around.time(), pace, swingPercent);
        List<Note> changed = new ArrayList<>();
        long furthest = 0;
        List<Note> notes = Edited.meant(phrase, picked);
        for (Note note : notes) {
            long tick = toward(note.tick(), nearest(grid, note.tick()), strength);
            long millis = around.millis(note.tick(), tick);
            long start = tick >= phrase.length() ? tick - phrase.length() : tick;
            long length = note.length();
            if (ends) {
                long end = toward(note.endTick(), nearest(grid, note.endTick()), strength);
                length = end > tick ? end - tick : length;
            }
            Note after = note.withTick(start).withLength(length);
            if (!after.equals(note)) {
                changed.add(after);
                furthest = Math.max(furthest, millis);
            }
        }
        String said = Edited.notes(notes.size()) + " onto " + pace + "; "
                + (changed.isEmpty()
                        ? "all lay there"
                        : changed.size() + " moved, the furthest by " + furthest + " ms");
        return new Edited(phrase.withNotes(phrase.notes().withAll(changed)), picked, said);
    }

    /** The step of a grid that is nearest; of two equally near the earlier. */
    public static long nearest(StepGrid grid, long tick) {
        long index = grid.indexAtOrAfter(tick);
        long after = grid.tickOf(index);
        long before = index == 0 ? after : grid.tickOf(index - 1);
        return tick - before <= after - tick ? before : after;
    }

    private static long toward(long tick, long target, double strength) {
        return tick + Math.round((target - tick) * strength / 100);
    }

    /** Each note lasts until the next chord or note begins, the last ones until the phrase ends; what is struck together is one chord. */
    public static Edited legato(Phrase phrase, Set<Integer> picked, Around around) {
        Map<Integer, Long> until = new HashMap<>();
        long next = phrase.length();
        List<List<Note>> chords = around.chords(Edited.meant(phrase, picked));
        for (int i = chords.size() - 1; i >= 0; i--) {
            for (Note note : chords.get(i)) {
                until.put(note.id(), next);
            }
            next = chords.get(i).get(0).tick();
        }
        return Edited.each(
                phrase, picked, note -> note.withLength(until.get(note.id()) - note.tick()), "last until the next", "");
    }

    /** Later by so many ticks, or earlier; all by the same, and no note leaves the phrase. */
    public static Edited move(Phrase phrase, Set<Integer> picked, long ticks) {
        List<Note> notes = Edited.meant(phrase, picked);
        if (notes.isEmpty()) {
            return Edited.nothing(phrase, picked, "There is no note to move.");
        }
        long first = notes.get(0).tick();
        long last = notes.get(notes.size() - 1).tick();
        long by = Math.max(-first, Math.min(phrase.length() - 1 - last, ticks));
        if (by != ticks && by == 0) {
            return Edited.nothing(
                    phrase, picked, ticks < 0 ? "The first is at the beginning." : "The last is at the phrase’s end.");
        }
        return Edited.each(phrase, picked, note -> note.withTick(note.tick() + by), by < 0 ? "earlier" : "later", "");
    }

    /** All by the same, so that the first starts at a tick. */
    public static Edited beginAt(Phrase phrase, Set<Integer> picked, long tick) {
        List<Note> notes = Edited.meant(phrase, picked);
        return move(phrase, picked, notes.isEmpty() ? 0 : tick - notes.get(0).tick());
    }

    /** Later by so many ticks, or earlier; what leaves the phrase at one end comes in at the other. */
    public static Edited shiftRound(Phrase phrase, Set<Integer> picked, long ticks) {
        return Edited.each(
                phrase,
                picked,
                note -> note.withTick(Math.floorMod(note.tick() + ticks, phrase.length())),
                "shifted round to the " + (ticks < 0 ? "left" : "right"),
                "");
    }

    /** Longer by so many ticks, or shorter, at least 1 tick. */
    public static Edited lengthen(Phrase phrase, Set<Integer> picked, long ticks) {
        return Edited.each(
                phrase,
                picked,
                note -> note.withLength(Math.max(1, note.length() + ticks)),
                ticks < 0 ? "shorter" : "longer",
                "");
    }

    /** All as long as that. */
    public static Edited lasting(Phrase phrase, Set<Integer> picked, long ticks) {
        return Edited.each(phrase, picked, note -> note.withLength(Math.max(1, ticks)), "as long as one another", "");
    }

    /**
     * Times and lengths by a factor: of the whole phrase with its length, or of the picked notes from the first of them on. Where the
     * phrase is too short then, it gets longer by whole bars.
     */
    public static Edited stretch(Phrase phrase, Set<Integer> picked, double factor, Around around) {
        List<Note> notes = Edited.meant(phrase, picked);
        long from = picked.isEmpty() || notes.isEmpty() ? 0 : notes.get(0).tick();
        long last = 0;
        List<Note> changed = new ArrayList<>();
        for (Note note : notes) {
            long tick = from + Math.round((note.tick() - from) * factor);
            changed.add(note.withTick(tick).withLength(Math.max(1, Math.round(note.length() * factor))));
            last = Math.max(last, tick + 1);
        }
        long length = picked.isEmpty() ? Math.max(1, Math.round(phrase.length() * factor)) : phrase.length();
        if (length < last) {
            length = around.barLineAtOrAfter(last);
        }
        String how = factor == 0.5
                ? "half as long"
                : factor == 2 ? "twice as long" : "stretched to " + Math.round(factor * 100) + " %";
        Phrase messages = picked.isEmpty()
                ? phrase.withMessages(phrase.messages().stream()
                        .map(message -> message.at(Math.round(message.tick() * factor), message.arrival()))
                        .toList())
                : phrase;
        Phrase after = messages.withLength(Math.max(length, phrase.length()))
                .withNotes(phrase.notes().withAll(changed))
                .withLength(length);
        return new Edited(after, picked, Edited.notes(changed.size()) + " " + how);
    }

    /** What came last comes first: each note ends where it began, seen from the other end of the phrase or of the picked notes. */
    public static Edited reverse(Phrase phrase, Set<Integer> picked) {
        List<Note> notes = Edited.meant(phrase, picked);
        long from = picked.isEmpty() || notes.isEmpty() ? 0 : notes.get(0).tick();
        long to = picked.isEmpty()
                ? phrase.length()
                : Math.min(
                        phrase.length(),
                        notes.stream().mapToLong(Note::endTick).max().orElse(0));
        return Edited.each(
                phrase,
                picked,
                note -> {
                    long end = Math.min(to, note.endTick());
                    return note.withTick(from + to - end).withLength(end - note.tick());
                },
                "reversed in time",
                "");
    }

    /** The notes of a chord one after another, low to high, by so many ticks each; they end where they ended. */
    public static Edited strumApart(Phrase phrase, Set<Integer> picked, long ticks, Around around) {
        Map<Integer, Long> by = new HashMap<>();
        for (List<Note> chord : around.chords(Edited.meant(phrase, picked))) {
            long start = chord.get(0).tick();
            chord.sort(Comparator.comparingInt(Note::pitch));
            for (int place = 0; place < chord.size(); place++) {
                Note note = chord.get(place);
                by.put(note.id(), start + place * ticks - note.tick());
            }
        }
        return Edited.each(
                phrase,
                picked,
                note -> {
                    long moved = Math.min(by.get(note.id()), note.length() - 1);
                    return note.tick() + moved >= phrase.length()
                            ? null
                            : note.withTick(note.tick() + moved).withLength(note.length() - moved);
                },
                "strummed apart",
                "would have left the phrase and stayed");
    }
}
