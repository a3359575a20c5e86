package harpel.make;

import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.theory.Voicing;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;

/** Plain phrases that make an effect's work easy to see and hear. */
public final class TestPhrases {
    private static final long QUARTER = Ticks.PER_QUARTER;

    private TestPhrases() {}

    /** The name of the one that is for drums: whoever hears it wants percussion sounds. */
    public static final String DRUMS = "Test: drum bar";

    /** All of them, for a piece in that key and meter; one to four bars long. */
    public static List<Phrase> all(Key key, MeterMap meter) {
        long bar = meter.at(0).barTicks();
        return List.of(
                repeated(bar),
                chromatic(bar),
                progression(key, bar),
                oneLong(bar),
                bass(key, bar),
                octaveAndFifth(bar),
                chords("Test: four bright chords", "I V vi IV", key, meter),
                chords("Test: four smooth chords", "Imaj7 vi7 ii7 V7", key, meter),
                chords("Test: four dark chords", "i VI III VII", key, meter),
                drumBar(bar));
    }

    private static Phrase repeated(long bar) {
        List<Note> notes = new ArrayList<>();
        for (long tick = 0; tick < 2 * bar; tick += QUARTER) {
            notes.add(note(tick, QUARTER / 2, 60, 100));
        }
        return Phrase.of("Test: one note repeated", 2 * bar, notes);
    }

    private static Phrase chromatic(long bar) {
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i * QUARTER / 2 < 2 * bar; i++) {
            notes.add(note(i * QUARTER / 2, QUARTER * 2 / 5, 60 + i % 25, 90));
        }
        return Phrase.of("Test: chromatic run", 2 * bar, notes);
    }

    private static Phrase oneLong(long bar) {
        return Phrase.of("Test: one long note", 4 * bar, List.of(note(0, 4 * bar, 60, 100)));
    }

    /** The roots of four chords, two octaves below the middle. */
    private static Phrase bass(Key key, long bar) {
        List<Note> notes = new ArrayList<>();
        for (Chord chord : new Progression("", "I vi IV V").chords(key)) {
            notes.add(note(
                    notes.size() * bar, bar - QUARTER / 8, chord.pitchesNear(38).get(0), 95));
        }
        return Phrase.of("Test: a bass note a bar", 4 * bar, notes);
    }

    private static Phrase octaveAndFifth(long bar) {
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            notes.add(note(i * bar, bar - QUARTER / 8, 48, 95));
            notes.add(note(i * bar, bar - QUARTER / 8, 67, 85));
        }
        return Phrase.of("Test: an octave and a fifth apart", 4 * bar, notes);
    }

    private static Phrase chords(String name, String numerals, Key key, MeterMap meter) {
        Recipe.Result made = Recipe.Kind.CHORDS
                .plain()
                .with(ChordsMaker.PROGRESSION, numerals)
                .with(ChordsMaker.VOICING, Voicing.CLOSE)
                .with(ChordsMaker.LOWEST, 43)
                .with(ChordsMaker.HIGHEST, 67)
                .with(ChordsMaker.BASS, false)
                .make(key, new TimeMap(TempoMap.of(120), meter));
        List<Note> notes = made.notes().stream()
                .map(note -> note.withLength(note.length() - QUARTER / 8))
                .toList();
        return Phrase.of(name, made.length(), notes);
    }

    /** Degrees with the triads of the key, whatever it is. */
    private static Phrase progression(Key key, long bar) {
        List<Note> notes = new ArrayList<>();
        int[] degrees = {0, 5, 3, 4};
        for (int i = 0; i < degrees.length; i++) {
            int root = key.shift(48 + key.root(), degrees[i]);
            for (int pitch : Chord.stackedThirds(key, root, 3)) {
                notes.add(note(i * bar, bar - QUARTER / 8, pitch, 90));
            }
        }
        return Phrase.of("Test: four chords", 4 * bar, notes);
    }

    /** General MIDI percussion: bass drum 36, snare 38, closed hi-hat 42. */
    private static Phrase drumBar(long bar) {
        List<Note> notes = new ArrayList<>();
        for (int i = 0; i * QUARTER / 2 < bar; i++) {
            long tick = i * QUARTER / 2;
            notes.add(note(tick, QUARTER / 4, 42, i % 2 == 0 ? 80 : 60));
            if (i % 4 == 0) {
                notes.add(note(tick, QUARTER / 4, 36, 110));
            } else if (i % 4 == 2) {
                notes.add(note(tick, QUARTER / 4, 38, 100));
            }
        }
        return Phrase.of(DRUMS, bar, notes);
    }

    private static Note note(long tick, long length, int pitch, int velocity) {
        return Note.of(tick, length, pitch, velocity);
    }
}
