package harpel.make;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.theory.Key;
import harpel.time.MeterMap;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class TestPhrasesTest {
    @ParameterizedTest
    @ValueSource(strings = {"4/4", "3/4", "7/8"})
    void eachFillsWholeBarsAndStaysInside(String meter) {
        MeterMap map = new MeterMap(List.of(MeterMap.Change.parse(0, meter)));
        List<Phrase> phrases = TestPhrases.all(Key.parse("D dorian"), map);
        assertThat(phrases).hasSize(10).allSatisfy(phrase -> {
            assertThat(phrase.length() % map.at(0).barTicks()).isZero();
            assertThat(phrase.notes()).isNotEmpty();
        });
        assertThat(phrases.get(0).notes()).extracting(Note::pitch).containsOnly(60);
        assertThat(phrases.get(2).notes())
                .extracting(Note::pitch)
                .allMatch(pitch -> Key.parse("D dorian").contains(pitch));
    }
}
