package harpel.theory;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Locale;
import javax.sound.midi.Instrument;
import javax.sound.midi.MidiSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Names of General MIDI 1 against the sound bank of the Java platform, which carries them, and against its tables. */
class GeneralMidiTest {
    /** General MIDI System Level 1, sound set (from memory), programs counted from 1. */
    @ParameterizedTest
    @CsvSource({
        "1, Acoustic Grand Piano, Piano",
        "8, Clavi, Piano",
        "9, Celesta, Chromatic Percussion",
        "41, Violin, Strings",
        "74, Flute, Pipe",
        "92, Pad 4 (choir), Synth Pad",
        "115, Steel Drums, Percussive",
        "128, Gunshot, Sound Effects"
    })
    void aProgramHasTheNameAndFamilyOfTheSoundSet(int number, String name, String family) {
        assertThat(GeneralMidi.program(number - 1)).isEqualTo(name);
        assertThat(GeneralMidi.family(number - 1)).isEqualTo(family);
    }

    /** The platform shortens names to twenty letters and writes one in two words. */
    @Test
    void allNamesAreThoseOfThePlatformsSoundBank() throws Exception {
        int seen = 0;
        for (Instrument one : MidiSystem.getSynthesizer().getDefaultSoundbank().getInstruments()) {
            if (one.toString().startsWith("Instrument: ") && one.getPatch().getBank() == 0) {
                seen++;
                assertThat(bare(GeneralMidi.program(one.getPatch().getProgram())))
                        .startsWith(bare(one.getName()));
            }
        }
        assertThat(seen).isEqualTo(128);
    }

    private static String bare(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
    }

    @Test
    void whatIsTypedIsFoundAtTheBeginningsOfWords() {
        assertThat(Words.finds("bell tub", "Tubular Bells")).isTrue();
        assertThat(Words.finds("", "Tubular Bells")).isTrue();
        assertThat(Words.finds("ell", "Tubular Bells")).isFalse();
        assertThat(Words.finds("NYL gui", "Acoustic Guitar (nylon)")).isTrue();
    }
}
