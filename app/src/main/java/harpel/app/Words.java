package harpel.app;

import harpel.event.NoteStart;
import harpel.theory.GeneralMidi;
import harpel.theory.Pitch;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** Says things in plain words. */
final class Words {
    private Words() {}

    /** What became of a note on its way: "A3 from A2 · velocity 90 → 54". */
    static String ancestry(NoteStart note) {
        List<String> pitches = new ArrayList<>();
        for (NoteStart one = note; one != null; one = one.cause()) {
            String name = name(one);
            if (pitches.isEmpty() || !pitches.get(pitches.size() - 1).equals(name)) {
                pitches.add(name);
            }
        }
        Collections.reverse(pitches);
        NoteStart origin = note.origin();
        String velocity = origin.velocity() == note.velocity()
                ? "velocity " + note.velocity()
                : "velocity " + origin.velocity() + " → " + note.velocity();
        return String.join(" → ", pitches) + " · " + velocity;
    }

    /** The pitch's name, or on the percussion channel that of what is struck. */
    private static String name(NoteStart note) {
        return note.channel() == GeneralMidi.PERCUSSION_CHANNEL
                ? GeneralMidi.percussion(note.pitch()).orElse(Pitch.shown(note.pitch()))
                : Pitch.shown(note.pitch());
    }

    /** "0.3 ms". */
    static String milliseconds(long nanos) {
        return String.format(java.util.Locale.ROOT, "%.1f ms", nanos / 1e6);
    }
}
