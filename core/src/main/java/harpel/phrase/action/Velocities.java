package harpel.phrase.action;

import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.Traits;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.function.ToIntFunction;

/** What can be done to the velocities and chances of notes. */
public final class Velocities {
    private Velocities() {}

    private static int fit(long velocity) {
        return (int) Math.max(1, Math.min(127, velocity));
    }

    private static Edited each(Phrase phrase, Set<Integer> picked, ToIntFunction<Note> change, String done) {
        return Edited.each(phrase, picked, note -> note.withVelocity(fit(change.applyAsInt(note))), done, "");
    }

    public static Edited equal(Phrase phrase, Set<Integer> picked, int velocity) {
        return each(phrase, picked, note -> velocity, "to velocity " + velocity);
    }

    /** Louder by so much, or softer; within 1–127. */
    public static Edited louder(Phrase phrase, Set<Integer> picked, int by) {
        return each(
                phrase, picked, note -> note.velocity() + by, (by < 0 ? "softer by " : "louder by ") + Math.abs(by));
    }

    /** From one velocity at the first note to another at the last, evenly in time. */
    public static Edited ramp(Phrase phrase, Set<Integer> picked, int from, int to) {
        List<Note> notes = Edited.meant(phrase, picked);
        if (notes.isEmpty()) {
            return Edited.nothing(phrase, picked, "There is no note to change.");
        }
        long first = notes.get(0).tick();
        long span = Math.max(1, notes.get(notes.size() - 1).tick() - first);
        return each(
                phrase,
                picked,
                note -> (int) Math.round(from + (to - from) * (note.tick() - first) / (double) span),
                "from velocity " + from + " to " + to);
    }

    /** Each up or down by a draw of at most so much; the same seed gives the same. */
    public static Edited loosen(Phrase phrase, Set<Integer> picked, int most, long seed) {
        SplittableRandom random = new SplittableRandom(seed);
        Map<Integer, Integer> drawn = new HashMap<>();
        Edited.meant(phrase, picked).forEach(note -> drawn.put(note.id(), random.nextInt(-most, most + 1)));
        return each(phrase, picked, note -> note.velocity() + drawn.get(note.id()), "loosened by up to " + most);
    }

    /** All to the chance of the first, so much more or less; past one end it begins at the other. */
    public static Edited stepChance(Phrase phrase, Set<Integer> picked, int by, Around around) {
        List<Note> notes = Edited.meant(phrase, picked);
        if (notes.isEmpty()) {
            return Edited.nothing(phrase, picked, "There is no note.");
        }
        int wanted = notes.get(0).traits().chance() + by;
        return chance(phrase, picked, wanted < 0 ? 100 : wanted > 100 ? 0 : wanted, around);
    }

    /** Every note played in so many of a hundred rounds. */
    public static Edited chance(Phrase phrase, Set<Integer> picked, int percent, Around around) {
        Edited edited = Edited.each(
                phrase,
                picked,
                note -> note.withTraits(withChance(note.traits(), percent)),
                "to " + percent + " %",
                "");
        return expecting(edited, around);
    }

    /** Each gets a chance drawn between two; the same seed gives the same. */
    public static Edited chanceAtRandom(
            Phrase phrase, Set<Integer> picked, int one, int other, long seed, Around around) {
        int low = Math.min(one, other);
        int high = Math.max(one, other);
        SplittableRandom random = new SplittableRandom(seed);
        Map<Integer, Integer> drawn = new HashMap<>();
        Edited.meant(phrase, picked).forEach(note -> drawn.put(note.id(), random.nextInt(low, high + 1)));
        Edited edited = Edited.each(
                phrase,
                picked,
                note -> note.withTraits(withChance(note.traits(), drawn.get(note.id()))),
                "with a chance of " + low + "–" + high + " %",
                "");
        return expecting(edited, around);
    }

    private static Edited expecting(Edited edited, Around around) {
        double bars = Math.max(1e-9, around.barsIn(edited.phrase().length()));
        String said = String.format(
                Locale.ROOT,
                "%s; %.1f notes a bar are to be expected",
                edited.said(),
                edited.phrase().expectedNotes() / bars);
        return new Edited(edited.phrase(), edited.picked(), said);
    }

    private static Traits withChance(Traits traits, int percent) {
        return Traits.of(percent, traits.off(), traits.unknown());
    }

    /** Switches notes off, or on again where all of them are off. */
    public static Edited off(Phrase phrase, Set<Integer> picked) {
        boolean off = Edited.meant(phrase, picked).stream()
                .anyMatch(note -> !note.traits().off());
        return Edited.each(
                phrase,
                picked,
                note -> note.withTraits(
                        Traits.of(note.traits().chance(), off, note.traits().unknown())),
                off ? "off" : "on again",
                "");
    }
}
