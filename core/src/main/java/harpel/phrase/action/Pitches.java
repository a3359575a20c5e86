package harpel.phrase.action;

import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.theory.Spelling;
import java.util.List;
import java.util.Set;
import java.util.function.IntUnaryOperator;

/** What can be done to the pitches of notes. A note that would leave 0–127 stays as it is. */
public final class Pitches {
    /** Where a note outside the key goes. */
    public enum Into {
        NEAREST,
        UP,
        DOWN
    }

    private static final String STAYED = "stayed, as they would leave the 128 pitches";

    private Pitches() {}

    private static Edited each(Phrase phrase, Set<Integer> picked, IntUnaryOperator change, String done) {
        return Edited.each(
                phrase,
                picked,
                note -> {
                    int pitch = change.applyAsInt(note.pitch());
                    return Pitch.inRange(pitch) ? note.withPitch(pitch) : null;
                },
                done,
                STAYED);
    }

    /** Up by so many semitones, or down. */
    public static Edited transpose(Phrase phrase, Set<Integer> picked, int semitones) {
        int by = Math.abs(semitones);
        String far = by % 12 == 0 ? count(by / 12, "octave") : count(by, "semitone");
        return each(phrase, picked, pitch -> pitch + semitones, (semitones < 0 ? "down " : "up ") + far);
    }

    private static String count(int count, String what) {
        return count == 1 ? "a" + (what.startsWith("o") ? "n " : " ") + what : count + " " + what + "s";
    }

    /** Up by so many degrees of the key, or down; a note outside the key keeps its distance from the degree below it. */
    public static Edited degrees(Phrase phrase, Set<Integer> picked, int degrees, Around around) {
        Key key = around.key();
        return each(
                phrase,
                picked,
                pitch -> key.shift(pitch, degrees),
                (degrees < 0 ? "down " : "up ") + count(Math.abs(degrees), "degree") + " of " + key.name());
    }

    /** Notes outside the key go to one of it. Of two equally near the lower. */
    public static Edited intoKey(Phrase phrase, Set<Integer> picked, Into into, Around around) {
        Key key = around.key();
        return each(phrase, picked, pitch -> into(pitch, into, key), "brought into " + key.name());
    }

    private static int into(int pitch, Into into, Key key) {
        for (int away = 0; away < 12; away++) {
            boolean below = into != Into.UP && key.contains(pitch - away);
            boolean above = into != Into.DOWN && key.contains(pitch + away);
            if (below || above) {
                return below ? pitch - away : pitch + away;
            }
        }
        return pitch;
    }

    /** The highest becomes the lowest and the other way round. */
    public static Edited mirror(Phrase phrase, Set<Integer> picked, Around around) {
        List<Note> notes = Edited.meant(phrase, picked);
        int low = notes.stream().mapToInt(Note::pitch).min().orElse(0);
        int high = notes.stream().mapToInt(Note::pitch).max().orElse(0);
        return each(
                phrase,
                picked,
                pitch -> low + high - pitch,
                "mirrored between " + Pitch.shown(low, Spelling.of(around.key())) + " and "
                        + Pitch.shown(high, Spelling.of(around.key())));
    }
}
