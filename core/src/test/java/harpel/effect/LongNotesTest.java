package harpel.effect;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.testkit.Heard;
import harpel.testkit.Played;
import org.junit.jupiter.api.Test;

/** Long Notes to the letter of its description. */
class LongNotesTest {
    private static Played played() {
        return Played.through("{'effect':'long-notes','at-least':'1/4'}")
                .note("C4", 0, 0.9)
                .note("E4", 1, 1)
                .note("G4", 2, 1.5);
    }

    @Test
    void notesOfAPhraseGoThroughAtOnceOrNotAtAll() {
        assertThat(played().asPhrase().bars(2))
                .containsExactly(new Heard(1, 1, 64, 100, 1), new Heard(2, 1.5, 67, 100, 1));
    }

    @Test
    void aKeyIsHeardOnceItHasBeenHeldLongEnoughAndKeepsItsLength() {
        assertThat(played().bars(2)).containsExactly(new Heard(2, 1, 64, 100, 1), new Heard(3, 1.5, 67, 100, 1));
    }
}
