package harpel.make;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.make.MelodyMaker.Contour;
import harpel.make.MelodyMaker.Texture;
import harpel.make.RhythmMaker.Row;
import harpel.make.Taking.Range;
import harpel.param.ParamSet;
import harpel.phrase.Note;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.testkit.Randoms;
import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.theory.Numeral;
import harpel.theory.Spelling;
import harpel.theory.Voicing;
import harpel.time.StepGrid;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The maker of phrases: chords by numeral, melodies and textures, rhythms, and what becomes of them. */
class MakeTest {
    private static final long BAR = 4L * Ticks.PER_QUARTER;
    private static final Key D_DORIAN = Key.parse("D dorian");
    private static final TimeMap TIME = TimeMap.DEFAULT;

    /**
     * Numerals in all twelve major and minor keys against the npm package tonal 6.4.3, which knows nothing of Harpel: the notes of each
     * chord. {@code tools/reference} makes the table again.
     */
    @Test
    void numeralsAreThoseOfAReferenceLibraryInAllKeys() throws IOException {
        List<String> lines;
        try (InputStream in = MakeTest.class.getResourceAsStream("/reference/numerals-tonal-6.4.3.txt")) {
            lines = new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .toList();
        }
        assertThat(lines).hasSizeGreaterThan(1_400);
        List<String> wrong = new ArrayList<>();
        for (String line : lines) {
            String[] fields = line.split("\\|");
            Set<Integer> theirs = Stream.of(fields[2].split(" "))
                    .map(Integer::valueOf)
                    .collect(Collectors.toCollection(TreeSet::new));
            Chord chord = Numeral.parse(fields[1], Key.parse(fields[0]));
            Set<Integer> ours = new TreeSet<>();
            chord.intervals().forEach(interval -> ours.add((chord.root() + interval) % 12));
            if (!ours.equals(theirs)) {
                wrong.add(line + " but was " + ours + " " + chord.symbol());
            }
        }
        assertThat(wrong).isEmpty();
    }

    /** What is read back is read again as the same chord; worked examples beside it. */
    @Test
    void chordsAreReadBackAsNumerals() throws IOException {
        for (String key :
                List.of("C major", "A minor", "D dorian", "E phrygian", "F# harmonic minor", "G minor pentatonic")) {
            Key one = Key.parse(key);
            for (int root = 0; root < 12; root++) {
                for (String quality : Chord.qualities()) {
                    Chord chord = Chord.parse(harpel.theory.Pitch.className(root) + quality);
                    assertThat(Numeral.parse(Numeral.of(chord, one), one)).isEqualTo(chord);
                }
            }
        }
        assertThat(Stream.of("Dm7", "G7", "Cmaj7", "Bdim", "Bb", "F#dim", "Fm")
                        .map(symbol -> Numeral.of(Chord.parse(symbol), Key.C_MAJOR)))
                .containsExactly("ii7", "V7", "Imaj7", "vii°", "♭VII", "♯iv°", "iv");
        assertThat(Stream.of("Am", "F", "G", "E7", "G#dim7")
                        .map(symbol -> Numeral.of(Chord.parse(symbol), Key.parse("A minor"))))
                .containsExactly("i", "VI", "VII", "V7", "♮vii°7");
    }

    @ParameterizedTest
    @CsvSource({
        "i VI III VII, A minor, Am F C G",
        "ii7 V7 Imaj7, C major, Dm7 G7 Cmaj7",
        "I bVII IV I, D mixolydian, D C G D",
        "i bII, E phrygian, Em F",
        "iiø V7 i7, A minor, Bm7b5 E7 Am7",
        "Dm7 G7 Cmaj7, F# minor, Dm7 G7 Cmaj7",
        "vii° | I, G major, F#dim G",
        "I - V - vi - IV, Bb major, Bb F Gm D#"
    })
    void progressionsAreReadAsNumeralsOrSymbols(String text, String key, String symbols) {
        String read = new Progression("", text)
                .chords(Key.parse(key)).stream()
                        .map(chord -> chord.symbol().replace('♯', '#'))
                        .collect(Collectors.joining(" "));
        assertThat(read).isEqualTo(symbols.replace("Bb", "A#"));
    }

    /** Each church mode begins with chords of its own steps. */
    @ParameterizedTest
    @CsvSource({
        "C major, I V vi IV",
        "A minor, i VI III VII",
        "D dorian, i III VII IV",
        "G mixolydian, I VII IV I",
        "E phrygian, i II vii i",
        "F lydian, I II vi I",
        "C harmonic minor, i VI III VII"
    })
    void aKeyBeginsWithChordsOfItsMode(String key, String progression) {
        assertThat(Progression.usualIn(Key.parse(key)).text()).isEqualTo(progression);
    }

    @Test
    void thirtyProgressionsAreKnownAndReadInEveryKey() {
        assertThat(Progression.COMMON).hasSize(30).doesNotHaveDuplicates();
        for (Progression progression : Progression.COMMON) {
            for (String key : List.of("C major", "F# minor", "D dorian", "A minor pentatonic")) {
                assertThat(progression.chords(Key.parse(key))).hasSizeGreaterThan(1);
            }
        }
        assertThatThrownBy(() -> new Progression("", "I X").chords(D_DORIAN)).hasMessageContaining("\"X\"");
        assertThatThrownBy(() -> new Progression("", "V13b9").chords(D_DORIAN))
                .hasMessageStartingWith("unknown numeral \"V13b9\"");
        assertThatThrownBy(() -> new Progression("", " ").chords(D_DORIAN)).hasMessageContaining("Roman numerals");
    }

    @Test
    void chordsAreHeldOrStruckAndReadBack() {
        Recipe held = Recipe.Kind.CHORDS.plain().with(ChordsMaker.PROGRESSION, "ii7 V7 Imaj7");
        List<Note> notes = held.make(Key.C_MAJOR, TimeMap.DEFAULT).notes();
        assertThat(held.make(Key.C_MAJOR, TimeMap.DEFAULT).length()).isEqualTo(3 * BAR);
        for (int bar = 0; bar < 3; bar++) {
            long tick = bar * BAR;
            List<Integer> pitches = notes.stream()
                    .filter(note -> note.tick() == tick)
                    .map(Note::pitch)
                    .toList();
            assertThat(Chord.named(pitches, Spelling.SHARPS))
                    .contains(List.of("Dm7", "G7", "Cmaj7").get(bar));
            assertThat(pitches).hasSize(5);
        }
        assertThat(notes).allMatch(note -> note.length() == BAR);
        Recipe off = held.with(ChordsMaker.PROGRESSION, "I")
                .with(ChordsMaker.BARS, 0.5)
                .with(ChordsMaker.RHYTHM, ChordsMaker.Rhythm.OFF_BEATS);
        assertThat(eighths(off)).containsExactly(1L, 3L);
        Recipe row = held.with(ChordsMaker.PROGRESSION, "I IV")
                .with(ChordsMaker.BARS, 0.75)
                .with(ChordsMaker.RHYTHM, ChordsMaker.Rhythm.STEPS)
                .with(ChordsMaker.STEPS, "x..5.");
        assertThat(eighths(row)).as("the row begins with each chord").containsExactly(0L, 3L, 5L, 6L, 9L, 11L);
        assertThat(row.make(Key.C_MAJOR, TimeMap.DEFAULT).notes())
                .allSatisfy(note -> assertThat(note.velocity()).isEqualTo(note.tick() / (BAR / 8) % 6 == 3 ? 45 : 90));
    }

    private static List<Long> eighths(Recipe recipe) {
        return recipe.make(Key.C_MAJOR, TimeMap.DEFAULT).notes().stream()
                .map(note -> note.tick() / (BAR / 8))
                .distinct()
                .toList();
    }

    @Test
    void chordsStayInTheirRangeWhateverTheVoicing() {
        for (Voicing voicing : Voicing.values()) {
            for (Progression progression : Progression.COMMON) {
                Recipe recipe = Recipe.Kind.CHORDS
                        .plain()
                        .with(ChordsMaker.PROGRESSION, progression.text())
                        .with(ChordsMaker.VOICING, voicing)
                        .with(ChordsMaker.LOWEST, 50)
                        .with(ChordsMaker.HIGHEST, 64)
                        .with(ChordsMaker.BASS, false);
                assertThat(recipe.make(D_DORIAN, TimeMap.DEFAULT).notes())
                        .as("%s %s", voicing, progression)
                        .isNotEmpty()
                        .allMatch(note -> note.pitch() >= 50 && note.pitch() <= 64);
            }
        }
        assertThatThrownBy(() ->
                        Recipe.Kind.CHORDS.plain().with(ChordsMaker.HIGHEST, 55).make(D_DORIAN, TimeMap.DEFAULT))
                .hasMessage("chords need an octave: from C3 on the highest note is B3 or higher");
    }

    @Test
    void whatMadeAPhraseIsReadFromItAgain() {
        Recipe melody = Recipe.Kind.MELODY.plain().with(MelodyMaker.SEED, 7);
        assertThat(Recipe.of(melody.origin())).contains(melody);
        assertThat(Recipe.of(melody.another(3).origin())).contains(melody.with(MelodyMaker.SEED, 10));
        assertThat(Recipe.of(Recipe.Kind.RHYTHM.plain().origin()))
                .as("a rhythm has no other like it")
                .isEmpty();
        assertThat(Recipe.of(Origin.DRAWN)).isEmpty();
    }

    /** Whatever is set: inside the allowed pitches and bars, on the grid, the same for the same seed. */
    @ParameterizedTest
    @ValueSource(
            longs = {
                1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 26, 27, 28,
                29, 30
            })
    void aMelodyStaysWithinWhatIsAllowed(long seed) {
        Randoms randoms = new Randoms(seed);
        Key key = randoms.key();
        TimeMap time = randoms.time();
        ParamSet values = randoms.params(MelodyMaker.SPEC)
                .with(MelodyMaker.NOTES, "")
                .with(MelodyMaker.LOWEST, 40)
                .with(MelodyMaker.HIGHEST, 64)
                .with(MelodyMaker.GRID, TimeValue.ofNote(randoms.oneOf(List.of("1/8", "1/16", "1/8t", "1/4"))));
        List<Note> notes = MelodyMaker.notes(values, key, time);
        assertThat(MelodyMaker.notes(values, key, time)).isEqualTo(notes);
        long end = MelodyMaker.length(values, time);
        StepGrid grid = StepGrid.ofPiece(time, values.get(MelodyMaker.GRID), 50);
        assertThat(values.get(MelodyMaker.TEXTURE) == Texture.OVERLAPPING
                        || notes.stream()
                                        .map(note -> note.tick() + " " + note.pitch())
                                        .distinct()
                                        .count()
                                == notes.size())
                .as("no note twice")
                .isTrue();
        for (Note note : notes) {
            assertThat(note.pitch()).isBetween(40, 64);
            assertThat(key.contains(note.pitch())).isTrue();
            assertThat(note.tick() + note.length()).isLessThanOrEqualTo(end);
            assertThat(grid.tickOf(grid.indexAtOrAfter(note.tick())))
                    .as("on the grid")
                    .isEqualTo(note.tick());
        }
        int soft = Math.min(values.get(MelodyMaker.SOFTEST), values.get(MelodyMaker.LOUDEST));
        int loud = Math.max(values.get(MelodyMaker.SOFTEST), values.get(MelodyMaker.LOUDEST));
        assertThat(notes).allMatch(note -> note.velocity() >= soft && note.velocity() <= loud);
    }

    private static double mean(ParamSet values) {
        long notes = 0;
        for (int seed = 0; seed < 200; seed++) {
            notes += MelodyMaker.notes(values.with(MelodyMaker.SEED, seed), D_DORIAN, TIME)
                    .size();
        }
        return notes / 200.0 / values.get(MelodyMaker.BARS);
    }

    /** The density is what is to be expected, within a tenth over 200 seeds; few are fewer than some, and these than many. */
    @ParameterizedTest
    @EnumSource(Texture.class)
    void theDensityIsWhatIsToBeExpected(Texture texture) {
        List<Double> means = new ArrayList<>();
        for (double density : new double[] {3, 6, 12}) {
            for (int offbeats : new int[] {20, 50, 70}) {
                ParamSet values = MelodyMaker.SPEC
                        .defaults()
                        .with(MelodyMaker.TEXTURE, texture)
                        .with(MelodyMaker.GRID, TimeValue.ofNote("1/16"))
                        .with(MelodyMaker.OFFBEATS, offbeats)
                        .with(MelodyMaker.LONGEST, 3)
                        .with(MelodyMaker.DENSITY, density);
                double mean = mean(values);
                assertThat(mean)
                        .as("%s, %s notes a bar, %s %% off", texture, density, offbeats)
                        .isBetween(density * 0.9, density * 1.1);
                means.add(mean);
            }
        }
        assertThat(means.get(0)).isLessThan(means.get(3));
        assertThat(means.get(3)).isLessThan(means.get(6));
    }

    @Test
    void contoursLeadWhereTheySayAndMotifsComeAgain() {
        ParamSet values =
                MelodyMaker.SPEC.defaults().with(MelodyMaker.DENSITY, 8.0).with(MelodyMaker.LEAPS, 10);
        for (Contour contour : List.of(Contour.RISING, Contour.FALLING)) {
            List<Note> notes = MelodyMaker.notes(values.with(MelodyMaker.CONTOUR, contour), D_DORIAN, TIME);
            int first = notes.get(0).pitch();
            int last = notes.get(notes.size() - 1).pitch();
            assertThat(Integer.signum(last - first)).isEqualTo(contour == Contour.RISING ? 1 : -1);
        }
        ParamSet motif =
                values.with(MelodyMaker.MOTIF, 1).with(MelodyMaker.CHANGE, 0).with(MelodyMaker.DENSITY, 4.0);
        List<Note> notes = MelodyMaker.notes(motif, D_DORIAN, TIME);
        List<Set<Long>> bars = new ArrayList<>();
        for (int bar = 0; bar < 4; bar++) {
            long from = bar * BAR;
            bars.add(notes.stream()
                    .filter(note -> note.tick() >= from && note.tick() < from + BAR)
                    .map(note -> note.tick() - from)
                    .collect(Collectors.toSet()));
        }
        assertThat(new HashSet<>(bars)).as("the rhythm of a bar comes again").hasSize(1);
    }

    @Test
    void ownPitchClassesAreTakenAndNoneIsRefused() {
        ParamSet own = MelodyMaker.SPEC.defaults().with(MelodyMaker.NOTES, "C F#");
        List<Note> notes = MelodyMaker.notes(own, D_DORIAN, TIME);
        assertThat(notes).isNotEmpty().allMatch(note -> note.pitch() % 6 == 0);
        assertThatThrownBy(() -> MelodyMaker.notes(
                        own.with(MelodyMaker.LOWEST, 61).with(MelodyMaker.HIGHEST, 62), D_DORIAN, TIME))
                .hasMessageContaining("widen them");
        assertThatThrownBy(() -> MelodyMaker.notes(own.with(MelodyMaker.NOTES, "C H"), D_DORIAN, TIME))
                .hasMessageContaining("H");
    }

    /** E(3,8) is x..x..x. and E(2,5) x.x.. (Toussaint 2005); turned by one the second begins a step later. */
    @Test
    void rhythmsAreSpreadEvenlyAndRowsRunOnBesideOneAnother() {
        List<Note> notes = RhythmMaker.notes(List.of(new Row(36, 3, 8, 0, 100), new Row(42, 2, 5, 1, 70)), 100, 1000);
        assertThat(notes.stream().filter(note -> note.pitch() == 36).map(Note::tick))
                .containsExactly(0L, 300L, 600L, 800L);
        assertThat(notes.stream().filter(note -> note.pitch() == 42).map(Note::tick))
                .containsExactly(100L, 300L, 600L, 800L);
        assertThatThrownBy(() -> new Row(36, 9, 8, 0, 100)).hasMessageContaining("9 in 8");
    }

    @Test
    void whatLiesOutsideTheChosenRangeIsLeftAsItIs() {
        Randoms randoms = new Randoms(5);
        Phrase before = randoms.phrase("Tide").withLength(8 * BAR);
        Range range = new Range(50, 70, BAR, 3 * BAR);
        List<Note> made =
                MelodyMaker.notes(MelodyMaker.SPEC.defaults().with(MelodyMaker.DENSITY, 16.0), D_DORIAN, TIME);
        Phrase after = Taking.IN_PLACE.into(before, made, 4 * BAR, range);
        List<Note> outside =
                before.notes().stream().filter(note -> !range.has(note)).toList();
        assertThat(after.notes().stream().filter(note -> !range.has(note))).containsExactlyElementsOf(outside);
        assertThat(after.notes().stream().filter(range::has)).isNotEmpty().allMatch(note -> note.endTick() <= 3 * BAR);
        assertThat(after.length()).isEqualTo(before.length());
        Phrase added = Taking.ADDED.into(before, made, 9 * BAR, range);
        assertThat(added.notes()).hasSize(before.notes().size() + made.size());
        assertThat(added.length()).isEqualTo(9 * BAR);
        Phrase instead = Taking.INSTEAD.into(before, made, 4 * BAR, range);
        assertThat(instead.notes()).hasSameSizeAs(made);
        assertThat(instead.length()).isEqualTo(4 * BAR);
    }
}
