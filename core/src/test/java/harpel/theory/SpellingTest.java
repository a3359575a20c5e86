package harpel.theory;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class SpellingTest {
    /** The order of signs at the clef, a handbook fact: each sharp a fifth above the one before, flats the other way round. */
    private static final List<String> CLEF = List.of("F", "C", "G", "D", "A", "E", "B");

    static IntStream signatures() {
        return IntStream.rangeClosed(-5, 5);
    }

    /** Standard MIDI Files 1.0, key signature: −1 is one flat, 1 one sharp; major or minor. */
    @ParameterizedTest
    @MethodSource("signatures")
    void aKeysBlackNotesAreThoseOfItsSignature(int sharps) {
        List<String> order = CLEF.subList(sharps < 0 ? 7 + sharps : 0, sharps < 0 ? 7 : sharps);
        TreeSet<String> signs = order.stream()
                .map(letter -> letter + (sharps < 0 ? "♭" : "♯"))
                .collect(Collectors.toCollection(TreeSet::new));
        for (Key key : List.of(
                new Key(Math.floorMod(7 * sharps, 12), Scale.of("major")),
                new Key(Math.floorMod(7 * sharps + 9, 12), Scale.of("minor")))) {
            Spelling spelling = Spelling.of(key);
            TreeSet<String> written = key.scale().steps().stream()
                    .map(step -> spelling.of(key.root() + step))
                    .filter(name -> name.length() == 2)
                    .collect(Collectors.toCollection(TreeSet::new));
            assertThat(written).as(key.name()).isEqualTo(signs);
        }
    }

    /** Common practice: a degree keeps its letter, whatever the other signs of the key. */
    @ParameterizedTest
    @CsvSource({
        "D harmonic minor, D E F G A B♭ C♯",
        "A harmonic minor, A B C D E F G♯",
        "C minor blues, C E♭ F G♭ G B♭",
        "C lydian, C D E F♯ G A B",
        "F lydian dominant, F G A B C D E♭",
        "C altered, C D♭ E♭ E G♭ A♭ B♭",
        "F# major, F♯ G♯ A♯ B C♯ D♯ F",
        "C# minor, C♯ D♯ E F♯ G♯ A B",
        "Bb minor, B♭ C D♭ E♭ F G♭ A♭",
        "A# major, B♭ C D E♭ F G A",
        "G minor pentatonic, G B♭ C D F",
        "C chromatic, C C♯ D D♯ E F F♯ G G♯ A A♯ B"
    })
    void degreesHaveTheirLetters(String name, String notes) {
        Key key = Key.parse(name);
        assertThat(key.scale().steps().stream()
                        .map(step -> Spelling.of(key).of(key.root() + step))
                        .collect(Collectors.joining(" ")))
                .isEqualTo(notes);
    }

    @ParameterizedTest
    @CsvSource({"C major, C♯", "F major, D♭", "G minor, D♭", "D major, C♯", "Eb major, G♭"})
    void notesOutsideAKeyHaveTheSignThatItHasMoreOf(String name, String outside) {
        assertThat(Spelling.of(Key.parse(name)).of(Pitch.parseClass(outside))).isEqualTo(outside);
    }

    @ParameterizedTest
    @ValueSource(strings = {"Bb major", "C# minor", "Eb dorian", "F# major", "Ab minor pentatonic"})
    void aKeysNameReadsAsTheSameKeyAlsoInAFile(String text) {
        for (int root = 0; root < 12; root++) {
            Key key = new Key(root, Key.parse(text).scale());
            assertThat(Key.parse(key.name())).isEqualTo(key);
            assertThat(Key.parse(Pitch.plain(key.name()))).isEqualTo(key);
            assertThat(Pitch.plain(key.name())).matches("\\p{ASCII}+");
        }
    }

    @Test
    void whatIsShownFollowsTheKeyAndFilesKeepToSharps() {
        Spelling flats = Spelling.of(Key.parse("Bb major"));
        assertThat(Pitch.shown(58, flats)).isEqualTo("B♭3");
        assertThat(Pitch.name(58)).isEqualTo("A♯3");
        assertThat(Chord.told(List.of(58, 62, 65), flats)).isEqualTo("B♭3 D4 F4, B♭");
        assertThat(Chord.parse("Ebmaj7").shown(flats)).isEqualTo("E♭maj7");
        assertThat(Chord.parse("Ebmaj7").symbol()).isEqualTo("D♯maj7");
    }
}
