package harpel.theory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TheoryTest {
    @ParameterizedTest
    @CsvSource({"60, C4", "61, C♯4", "69, A4", "0, C-1", "127, G9", "59, B3"})
    void pitchesHaveNames(int pitch, String name) {
        assertThat(Pitch.name(pitch)).isEqualTo(name);
        assertThat(Pitch.parse(name)).isEqualTo(pitch);
    }

    @ParameterizedTest
    @CsvSource({"c#4, 61", "Db4, 61", "B♭2, 46", "Cb4, 59", "F##3, 55", "g9, 127"})
    void namesAreReadAsPeopleWriteThem(String name, int pitch) {
        assertThat(Pitch.parse(name)).isEqualTo(pitch);
    }

    @Test
    void aScalesNameIsReadWithSpacesOrHyphens() {
        assertThat(Scale.of("minor-pentatonic")).isEqualTo(Scale.of("Minor  Pentatonic"));
        assertThat(Scale.of("half whole diminished")).isEqualTo(Scale.of("half-whole diminished"));
        assertThat(Key.parse("A harmonic-minor").name()).isEqualTo("A harmonic minor");
    }

    @Test
    void theOtherOctaveNamingCallsNote60C3() {
        assertThat(Pitch.name(60, OctaveNaming.C3)).isEqualTo("C3");
    }

    @ParameterizedTest
    @ValueSource(strings = {"H4", "C", "C10", "C###4", "", "60"})
    void whatIsNoPitchIsRefusedByName(String name) {
        assertThatThrownBy(() -> Pitch.parse(name))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("\"" + name + "\"");
    }

    @Test
    void foldingKeepsTheNameAndLandsInRange() {
        IntStream.range(-60, 200).forEach(pitch -> {
            assertThat(Pitch.inRange(Pitch.fold(pitch))).isTrue();
            assertThat(Pitch.pitchClass(Pitch.fold(pitch))).isEqualTo(Pitch.pitchClass(pitch));
        });
        assertThat(Pitch.fold(128)).isEqualTo(116);
        assertThat(Pitch.fold(64)).isEqualTo(64);
    }

    /** Common practice, no source: G major and E minor hold the same notes, and F is not among them. */
    @Test
    void relativeKeysHoldTheSameNotes() {
        Key gMajor = Key.parse("G major");
        Key eMinor = Key.parse("E minor");
        IntStream.range(0, 128)
                .forEach(pitch -> assertThat(gMajor.contains(pitch)).isEqualTo(eMinor.contains(pitch)));
        assertThat(gMajor.contains(65)).isFalse();
        assertThat(gMajor.contains(66)).isTrue();
    }

    /** Common practice, no source: the modes are the major scale begun on its other degrees. */
    @ParameterizedTest
    @CsvSource({"dorian, D", "phrygian, E", "lydian, F", "mixolydian, G", "minor, A", "locrian, B"})
    void modesAreTheWhiteKeys(String mode, String root) {
        Key key = Key.parse(root + " " + mode);
        IntStream.range(0, 12).forEach(pitch -> assertThat(key.contains(pitch)).isEqualTo(Key.C_MAJOR.contains(pitch)));
    }

    @Test
    void degreesStepThroughTheKeyAcrossOctaves() {
        Key key = Key.C_MAJOR;
        assertThat(IntStream.range(0, 9).map(degree -> key.shift(60, degree)))
                .containsExactly(60, 62, 64, 65, 67, 69, 71, 72, 74);
        assertThat(key.shift(60, -1)).isEqualTo(59);
        assertThat(key.shift(64, 2)).isEqualTo(67);
    }

    @Test
    void aNoteOutsideTheKeyKeepsItsDistanceAboveTheDegreeBelow() {
        assertThat(Key.C_MAJOR.shift(61, 1)).isEqualTo(63);
        assertThat(Key.C_MAJOR.shift(66, -1)).isEqualTo(65);
    }

    @Test
    void shiftingThereAndBackLeadsHome() {
        for (String scale : Scale.names()) {
            Key key = new Key(2, Scale.of(scale));
            for (int pitch = 30; pitch < 90; pitch++) {
                if (key.contains(pitch)) {
                    assertThat(key.shift(key.shift(pitch, 5), -5))
                            .as("%s %s", scale, pitch)
                            .isEqualTo(pitch);
                }
            }
        }
    }

    /** Common practice, no source. */
    @ParameterizedTest
    @CsvSource({"5, fourth", "6, tritone", "7, fifth", "12, octave", "3, minor third", "10, minor seventh"})
    void intervalsHaveNames(int semitones, String name) {
        assertThat(Interval.ofSemitones(semitones).shown()).isEqualTo("+" + semitones + " st (" + name + ")");
    }

    @Test
    void anIntervalIsTakenSeveralTimes() {
        assertThat(Interval.ofSemitones(7).from(45, 2, Key.C_MAJOR)).isEqualTo(59);
        assertThat(Interval.ofDegrees(-2).from(60, 1, Key.C_MAJOR)).isEqualTo(57);
    }

    /** Common practice, no source: in quarters. */
    @ParameterizedTest
    @CsvSource({"1/4, 1", "1/8, 0.5", "1/8d, 0.75", "1/4d, 1.5", "1/16, 0.25", "4/1, 16", "1/64, 0.0625", "3/8, 1.5"})
    void noteValuesCountQuarters(String value, double quarters) {
        assertThat(NoteValue.parse(value).quarters()).isEqualTo(quarters);
        assertThat(NoteValue.parse(value)).hasToString(value);
    }

    @Test
    void threeTripletsFillTheNextValue() {
        assertThat(3 * NoteValue.parse("1/8t").toTicks(15_360))
                .isEqualTo(NoteValue.parse("1/4").toTicks(15_360));
        assertThat(NoteValue.parse("1/64t").toTicks(15_360)).isEqualTo(640);
    }

    @ParameterizedTest
    @ValueSource(strings = {"1/3", "1/128", "5/1", "0/4", "1/8x", "quarter", "1/8 d"})
    void whatIsNoNoteValueIsRefused(String text) {
        assertThatThrownBy(() -> NoteValue.parse(text)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aScaleOfOnesOwnIsReadBack() {
        Key key = new Key(3, Scale.ofSteps(List.of(0, 1, 6)));
        assertThat(key.name()).isEqualTo("D♯ steps 0 1 6");
        assertThat(Key.parse(key.name())).isEqualTo(key);
        assertThat(Scale.ofSteps(List.of(0, 2, 4, 5, 7, 9, 11))).isEqualTo(Scale.of("major"));
    }

    @Test
    void anUnknownScaleIsRefusedWithTheKnownOnes() {
        assertThatThrownBy(() -> Key.parse("D sideways"))
                .hasMessageContaining("\"sideways\"")
                .hasMessageContaining("dorian");
    }

    /** Handbook spellings, common practice; every known symbol names itself. */
    @ParameterizedTest
    @CsvSource({
        "60 64 67 71, Cmaj7",
        "60 64 67, C",
        "64 67 72, C/E",
        "57 60 64 67, Am7",
        "50 53 57 60 64, Dm9",
        "55 59 62 65, G7",
        "60 67, C5",
        "48 60, ",
        "60 61 62, "
    })
    void chordsAreNamedByTheirNotes(String pitches, String name) {
        List<Integer> notes = java.util.Arrays.stream(pitches.split(" "))
                .map(Integer::valueOf)
                .toList();
        assertThat(Chord.named(notes, Spelling.SHARPS).orElse(null)).isEqualTo(name);
    }

    @Test
    void everyKnownChordIsNamedAsItself() {
        for (String quality : Chord.qualities()) {
            List<Integer> pitches = Chord.parse("D" + quality).pitchesNear(50);
            assertThat(Chord.named(pitches, Spelling.SHARPS)).as(quality).contains("D" + quality);
        }
        assertThat(Chord.told(List.of(67, 60, 64), Spelling.SHARPS)).isEqualTo("C4 E4 G4, C");
        assertThat(GeneralMidi.note(42, GeneralMidi.PERCUSSION_CHANNEL, Spelling.SHARPS))
                .isEqualTo("F♯2 Closed Hi-Hat");
        assertThat(GeneralMidi.note(42, 0, Spelling.SHARPS)).isEqualTo("F♯2");
    }
}
