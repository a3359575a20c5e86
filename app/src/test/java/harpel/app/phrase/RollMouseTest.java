package harpel.app.phrase;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.desk.PhraseDesk;
import harpel.app.phrase.RollMouse.Held;
import harpel.app.phrase.RollMouse.Hold;
import harpel.app.session.Session;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.time.Ticks;
import java.util.List;
import java.util.Set;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Gestures and keys of the roll in ticks and pitches, without a window. */
class RollMouseTest {
    private static final long EIGHTH = Ticks.PER_QUARTER / 2;
    private static final long BAR = 8 * EIGHTH;
    private static final Held PLAIN = new Held(false, false, false);

    private final Session session = new Session(Piece.empty()
            .withPhrase(
                    Phrase.of("Tide", BAR, List.of(Note.of(0, EIGHTH, 60, 90), Note.of(4 * EIGHTH, EIGHTH, 64, 70))))
            .withPart("part-1", part -> part.withPhrase("tide")));
    private final PhraseDesk desk = session.desk();
    private final RollMouse mouse =
            new RollMouse(session.document(), session.transport(), session.desk(), session.recorder());
    private final RollKeys keys =
            new RollKeys(session.transport(), session.desk(), session.recorder(), session.messages(), new RollWindow());

    @AfterEach
    void close() {
        session.close();
    }

    private Phrase phrase() {
        return desk.phrase().orElseThrow();
    }

    private List<String> notes() {
        return phrase().notes().stream()
                .map(note -> note.pitch() + " " + note.tick() / (double) EIGHTH + "+" + note.length() / (double) EIGHTH)
                .toList();
    }

    private void press(Note on, Hold hold, double eighth, int pitch, Held held) {
        mouse.press(phrase(), on, hold, eighth * EIGHTH, pitch, held);
    }

    private void drag(double eighth, int pitch, Held held) {
        mouse.drag(eighth * EIGHTH, pitch, held);
    }

    private void key(KeyCode code, boolean shift, boolean control) {
        assertThat(keys.take(new KeyEvent(KeyEvent.KEY_PRESSED, "", "", code, shift, control, false, false)))
                .isTrue();
    }

    @Test
    void aClickDrawsANoteOfTheLastLengthAndADragOneAsLongAsItGoes() {
        press(null, Hold.BODY, 1.4, 67, PLAIN);
        mouse.release();
        assertThat(notes()).contains("67 1.0+1.0");
        press(null, Hold.BODY, 2.1, 69, PLAIN);
        drag(3.9, 69, PLAIN);
        drag(5.2, 69, PLAIN);
        mouse.release();
        assertThat(notes()).contains("69 2.0+4.0");
        assertThat(desk.drawnLength().get()).isEqualTo(4 * EIGHTH);
        assertThat(session.document().undoLabel()).contains("Draw a note");
        session.document().undo();
        assertThat(notes())
                .as("one undo a gesture")
                .doesNotContain("69 2.0+4.0")
                .contains("67 1.0+1.0");
    }

    @Test
    void drawingInKeyGoesToTheNoteBelowAndOffTheGridWhereItIsPressed() {
        desk.inKey().set(true);
        press(null, Hold.BODY, 1, 66, PLAIN);
        mouse.release();
        assertThat(notes()).as("F sharp is not in C major").contains("65 1.0+1.0");
        press(null, Hold.BODY, 2.5, 67, new Held(false, false, true));
        mouse.release();
        assertThat(notes()).contains("67 2.5+1.0");
    }

    @Test
    void aNoteIsMovedOnTheGridAndNotOutOfThePhrase() {
        Note first = phrase().notes().get(0);
        press(first, Hold.BODY, 0.5, 60, PLAIN);
        drag(2.6, 62, PLAIN);
        assertThat(notes()).contains("62 2.0+1.0");
        drag(-9, 130, PLAIN);
        assertThat(notes()).contains("127 0.0+1.0");
        drag(40, 60, PLAIN);
        mouse.release();
        assertThat(phrase().notes()).allMatch(note -> note.tick() < BAR);
        session.document().undo();
        assertThat(notes()).containsExactly("60 0.0+1.0", "64 4.0+1.0");
    }

    @Test
    void anEndPulledWithCtrlStretchesAllThatIsPickedAndOneUndoTakesItBack() {
        Note second = phrase().notes().get(1);
        desk.pick(Set.of(phrase().notes().get(0).id(), second.id()));
        Held copy = new Held(false, true, false);
        press(second, Hold.RIGHT, 5, 64, copy);
        drag(6.2, 64, copy);
        drag(2.6, 64, copy);
        mouse.release();
        assertThat(notes()).as("three fifths as long").containsExactly("60 0.0+0.6", "64 2.4+0.6");
        session.document().undo();
        assertThat(notes()).containsExactly("60 0.0+1.0", "64 4.0+1.0");
    }

    @Test
    void severalPickedNotesMoveTogetherAndAreCopied() {
        desk.pick(Set.of(phrase().notes().get(0).id(), phrase().notes().get(1).id()));
        Note second = phrase().notes().get(1);
        press(second, Hold.BODY, 4.5, 64, new Held(false, true, false));
        drag(5.5, 66, new Held(false, true, false));
        mouse.release();
        assertThat(notes()).containsExactly("60 0.0+1.0", "62 1.0+1.0", "64 4.0+1.0", "66 5.0+1.0");
        assertThat(desk.picked().get()).as("the copies are picked").hasSize(2);
        press(phrase().notes().get(3), Hold.BODY, 5.5, 66, PLAIN);
        drag(6.5, 66, PLAIN);
        mouse.release();
        assertThat(notes()).containsExactly("60 0.0+1.0", "62 2.0+1.0", "64 4.0+1.0", "66 6.0+1.0");
    }

    @Test
    void endsAreResizedAtBothSides() {
        Note second = phrase().notes().get(1);
        press(second, Hold.RIGHT, 5, 64, PLAIN);
        drag(7.1, 64, PLAIN);
        mouse.release();
        assertThat(notes()).contains("64 4.0+3.0");
        press(phrase().notes().get(1), Hold.LEFT, 4, 64, PLAIN);
        drag(5.9, 64, PLAIN);
        mouse.release();
        assertThat(notes()).contains("64 6.0+1.0");
        press(phrase().notes().get(1), Hold.RIGHT, 7, 64, new Held(false, false, true));
        drag(1, 64, new Held(false, false, true));
        mouse.release();
        assertThat(phrase().notes().get(1).length())
                .as("never shorter than a tick")
                .isEqualTo(1);
    }

    @Test
    void aFramePicksAndWithShiftPicksMore() {
        desk.drawing().set(false);
        press(null, Hold.BODY, 0, 61, PLAIN);
        drag(2, 59, PLAIN);
        assertThat(mouse.isFraming()).isTrue();
        assertThat(mouse.frameLowest()).isEqualTo(59);
        assertThat(mouse.frameHighest()).isEqualTo(61);
        assertThat(mouse.frameToTick() - mouse.frameFromTick()).isEqualTo(2.0 * EIGHTH);
        mouse.release();
        assertThat(desk.picked().get()).containsExactly(phrase().notes().get(0).id());
        press(null, Hold.BODY, 3, 70, new Held(true, false, false));
        drag(6, 60, new Held(true, false, false));
        mouse.release();
        assertThat(desk.picked().get()).hasSize(2);
        press(phrase().notes().get(0), Hold.BODY, 0, 60, new Held(true, false, false));
        mouse.release();
        assertThat(desk.picked().get()).as("Shift takes it out again").hasSize(1);
        press(null, Hold.BODY, 7, 80, PLAIN);
        mouse.release();
        assertThat(desk.picked().get()).isEmpty();
    }

    @Test
    void keysDoAllOfItOnWhatIsPicked() {
        key(KeyCode.TAB, false, false);
        assertThat(desk.mark().get()).isZero();
        key(KeyCode.RIGHT, false, false);
        key(KeyCode.UP, false, false);
        key(KeyCode.UP, true, false);
        key(KeyCode.RIGHT, false, true);
        assertThat(notes()).contains("73 1.0+2.0");
        key(KeyCode.PLUS, false, false);
        key(KeyCode.MINUS, false, false);
        key(KeyCode.MINUS, false, false);
        assertThat(phrase().notes().get(0).velocity()).isEqualTo(85);
        for (int i = 0; i < 11; i++) {
            key(KeyCode.C, false, false);
        }
        assertThat(phrase().notes().get(0).traits().chance())
                .as("below nought it is sure again")
                .isEqualTo(100);
        key(KeyCode.O, false, false);
        assertThat(phrase().notes().get(0).traits().off()).isTrue();
        key(KeyCode.TAB, true, false);
        key(KeyCode.DELETE, false, false);
        assertThat(phrase().notes()).hasSize(1);
        desk.inKey().set(true);
        desk.pick(Set.of(phrase().notes().get(0).id()));
        int before = phrase().notes().get(0).pitch();
        key(KeyCode.UP, false, false);
        assertThat(phrase().notes().get(0).pitch()).as("a degree of the key").isGreaterThan(before);
    }

    @Test
    void withNothingPickedArrowsMoveTheMarkAndNPutsANoteThere() {
        key(KeyCode.RIGHT, false, false);
        key(KeyCode.RIGHT, false, false);
        assertThat(desk.mark().get()).isEqualTo(2 * EIGHTH);
        key(KeyCode.N, false, false);
        assertThat(notes()).contains("60 2.0+1.0");
        assertThat(desk.mark().get()).as("and the mark moves on").isEqualTo(3 * EIGHTH);
        desk.pick(Set.of());
        key(KeyCode.C, false, false);
        assertThat(session.messages().last().get()).startsWith("Pick notes first");
        assertThat(keys.take(new KeyEvent(KeyEvent.KEY_PRESSED, "", "", KeyCode.Q, false, false, false, false)))
                .as("what means nothing here is left to others")
                .isFalse();
        desk.stepping().set(true);
        key(KeyCode.PERIOD, false, false);
        assertThat(desk.mark().get()).isEqualTo(4 * EIGHTH);
        desk.pick(Set.of(phrase().notes().get(0).id()));
        key(KeyCode.COMMA, false, false);
        assertThat(notes()).as("tied to the next step").contains("60 0.0+2.0");
        assertThat(keys.take(new KeyEvent(KeyEvent.KEY_PRESSED, "", "", KeyCode.N, false, false, false, false)))
                .as("letters play while steps are wanted")
                .isFalse();
    }

    @Test
    void aNoteThatIsPulledAtItsBeginningStaysWithinThePhraseAndKeepsItsEnd() {
        Note note = phrase().notes().get(0);
        press(note, Hold.LEFT, 0, 60, PLAIN);
        drag(-3, 60, PLAIN);
        assertThat(notes()).as("not before the phrase").contains("60 0.0+1.0");
        mouse.release();
        Note other = phrase().notes().get(1);
        press(other, Hold.LEFT, 4, 64, PLAIN);
        drag(7, 64, PLAIN);
        mouse.release();
        Note now = phrase().notes().find(other.id()).orElseThrow();
        assertThat(now.tick() + now.length()).as("its end").isEqualTo(5 * EIGHTH);
        assertThat(now.length()).as("no shorter than a tick").isEqualTo(1);
    }

    @Test
    void aNoteThatIsOnlyTouchedIsMovedByNothingAndAfterADragComesBackWhereItWas() {
        Note note = phrase().notes().get(0);
        press(note, Hold.BODY, 0.5, 60, PLAIN);
        drag(2.5, 62, PLAIN);
        assertThat(notes()).contains("62 2.0+1.0");
        drag(0.5, 60, PLAIN);
        assertThat(notes()).as("dragged back").contains("60 0.0+1.0");
        mouse.release();
    }
}
