package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Look.View;
import harpel.app.transport.Made;
import harpel.app.transport.Places;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.time.Ticks;
import java.util.List;
import java.util.Set;
import javafx.geometry.Point2D;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The Phrase view: everything by mouse and by keyboard alone. */
class WindowPhraseTest extends WindowCase {
    private static final long EIGHTH = Ticks.PER_QUARTER / 2;
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    @Override
    String parts() {
        return "{'name':'Lead','phrase':'tide','chain':[{'effect':'transpose','semitones':12}]},"
                + "{'name':'Second','chain':[]}";
    }

    @Override
    Piece piece() {
        return super.piece()
                .withPhrase(Phrase.of(
                        "Tide", 2 * BAR, List.of(Note.of(0, 4 * EIGHTH, 60, 90), Note.of(BAR, 2 * EIGHTH, 64, 70))));
    }

    @BeforeEach
    void open() {
        push(KeyCode.CONTROL, KeyCode.DIGIT2);
        await(() -> session.look().view().get() == View.PHRASE && isThere("#roll"));
        // What the chain makes has come, and the view is laid out around it.
        await(() -> onFx(() -> session.made().result().get()) != null);
        settle();
    }

    private boolean isThere(String node) {
        return onFx(() -> lookup(node).tryQuery().isPresent());
    }

    private Phrase phrase() {
        return session.desk().phrase().orElseThrow();
    }

    private List<String> notes() {
        return phrase().notes().stream()
                .map(note -> note.pitch() + " " + note.tick() * 2 / Ticks.PER_QUARTER + "+"
                        + note.length() * 2 / Ticks.PER_QUARTER)
                .toList();
    }

    /** The middle of a pitch's row at an eighth of the phrase, counted from 0 with its parts. */
    private Point2D at(double eighth, int pitch) {
        return onFx(() -> pane.phrases().place(eighth * EIGHTH, pitch));
    }

    @Test
    void theViewsHaveNamesAndKeysAndKeepTheirPlace() {
        assertThat(text("#view-phrase")).isEqualTo("Phrase");
        clickOn("#view-chain");
        await(() -> isThere("#stage-transpose") && !isThere("#roll"));
        push(KeyCode.CONTROL, KeyCode.DIGIT2);
        await(() -> isThere("#roll"));
    }

    @Test
    void aNoteIsDrawnMovedCopiedResizedAndRemovedByMouse() {
        drag(at(2.3, 67), at(4.2, 67));
        await(() -> notes().contains("67 2+3"));
        assertThat(session.desk().picked().get()).hasSize(1);
        drag(at(3.5, 67), at(5.5, 69));
        await(() -> notes().contains("69 4+3"));
        drag(at(6.98, 69), at(8.02, 69));
        await(() -> notes().contains("69 4+4"));
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> notes().contains("69 4+3"));
        press(KeyCode.CONTROL);
        drag(at(5, 69), at(9, 69));
        release(KeyCode.CONTROL);
        await(() -> notes().contains("69 8+3") && notes().contains("69 4+3"));
        doubleClickOn(at(9.5, 69));
        await(() -> !notes().contains("69 8+3"));
    }

    @Test
    void aNoteThatIsUndoneWhileItIsDrawnIsNotDrawnOn() {
        List<String> before = notes();
        moveTo(at(2.3, 67)).press(MouseButton.PRIMARY).moveTo(at(3.2, 67));
        await(() -> !notes().equals(before));
        interact(() -> session.document().undo());
        moveTo(at(6.2, 67)).moveTo(at(7.2, 67)).release(MouseButton.PRIMARY);
        assertThat(notes()).isEqualTo(before);
    }

    @Test
    void picksThatThePhraseDoesNotHaveAreNoneToTheKeys() {
        focus("#roll");
        interact(() -> session.desk().pick(Set.of(4711)));
        push(KeyCode.UP);
        push(KeyCode.RIGHT);
        interact(() -> session.desk().pick(Set.of(4711)));
        push(KeyCode.TAB);
        await(() -> session.desk().picked().get().size() == 1
                && !session.desk().picked().get().contains(4711));
    }

    @Test
    void aFramePicksAndDeleteRemoves() {
        press(KeyCode.SHIFT);
        drag(at(0.2, 62), at(9, 58));
        release(KeyCode.SHIFT);
        await(() -> session.desk().picked().get().size() == 1);
        assertThat(text("#picked-title")).isEqualTo("1 note");
        assertThat(text("#picked-about")).isEqualTo("C4 · in bar 1");
        push(KeyCode.DELETE);
        await(() -> notes().equals(List.of("64 8+2")));
    }

    @Test
    void theKeyboardAloneDrawsMovesAndSetsChance() {
        focus("#roll");
        assertThat(text("#letters")).isEqualTo("Letters edit notes (F6 leaves)");
        push(KeyCode.TAB);
        await(() -> text("#picked-about").startsWith("C4"));
        push(KeyCode.RIGHT);
        await(() -> notes().contains("60 1+4"));
        push(KeyCode.SHIFT, KeyCode.UP);
        await(() -> notes().contains("72 1+4"));
        push(KeyCode.CONTROL, KeyCode.LEFT);
        await(() -> notes().contains("72 1+3"));
        push(KeyCode.C);
        await(() -> phrase().notes().get(0).traits().chance() == 90);
        push(KeyCode.O);
        await(() -> phrase().notes().get(0).traits().off());
        push(KeyCode.N);
        await(() -> phrase().notes().size() == 3);
        push(KeyCode.SHIFT, KeyCode.TAB);
        assertThat(sent.sent()).as("what is touched is heard").isNotEmpty();
        push(KeyCode.CONTROL, KeyCode.A);
        await(() -> session.desk().picked().get().size() == 3);
        push(KeyCode.DELETE);
        await(() -> notes().isEmpty());
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> phrase().notes().size() == 3);
    }

    @Test
    void notesGoOverTheClipboardAsTextAndIntoAnotherPhrase() {
        focus("#roll");
        push(KeyCode.CONTROL, KeyCode.C);
        await(() -> onFx(() -> Clipboard.getSystemClipboard().getString()).contains("\"notes\""));
        clickOn("#new-phrase");
        await(() -> session.desk().phraseId().get().equals("phrase"));
        assertThat(text("#message")).contains("heard by no part");
        focus("#roll");
        push(KeyCode.CONTROL, KeyCode.V);
        await(() -> notes().equals(List.of("60 0+4", "64 8+2")));
        push(KeyCode.CONTROL, KeyCode.ALT, KeyCode.H);
        await(() -> session.selection().part().phrase().equals("phrase"));
        focus("#phrase-phrase");
        push(KeyCode.DELETE);
        await(() -> session.document().piece().get().phrases().size() == 1);
        assertThat(text("#message")).contains("Lead hears no phrase now");
        assertThat(session.desk().phraseId().get())
                .as("“Tide” is not Lead’s any more")
                .isEmpty();
        assertThat(text("#no-phrase")).isEqualTo("Lead plays no phrase.");
    }

    @Test
    void aLaneIsDrawnAcross() {
        Point2D low = on("#lane", 0, 0.25);
        Point2D high = on("#lane", 1, 0.25);
        drag(low, high);
        await(() -> phrase().notes().stream().allMatch(note -> Math.abs(note.velocity() - 32) <= 2));
        clickOn("#lane-chance");
        drag(on("#lane", 0, 0.5), on("#lane", 1, 0.5));
        await(() -> phrase().notes().stream()
                .allMatch(note -> Math.abs(note.traits().chance() - 50) <= 2));
        clickOn("#lane-bend");
        drag(on("#lane", 0.01, 0.5), on("#lane", 0.4, 0.9));
        await(() ->
                phrase().messages().stream().filter(message -> message.isBend()).count() > 3);
        clickOn("#lane-controller");
        await(() -> text("#lane-controller").equals("CC 1"));
        drag(on("#lane", 0.01, 0.5), on("#lane", 0.3, 0.5));
        await(() -> phrase().messages().stream().anyMatch(message -> message.isController(1)));
        interact(() -> session.desk()
                .act(
                        "Test",
                        (one, picked) -> new harpel.phrase.action.Edited(
                                one.withMessages(List.of(harpel.event.Message.control(0, 0, 0, 74, 9))),
                                picked,
                                "test")));
        clickOn("#lane-controller");
        await(() -> text("#lane-controller").equals("CC 74"));
    }

    @Test
    void actionsSayWhatTheyDidAndAreUndoneInOneStep() {
        clickOn("#act-octave-up");
        await(() -> notes().contains("72 0+4") && notes().contains("76 8+2"));
        assertThat(text("#message")).isEqualTo("2 notes up an octave");
        clickOn("#act-round-right");
        await(() -> notes().contains("72 1+4"));
        clickOn("#undo");
        clickOn("#undo");
        await(() -> notes().equals(List.of("60 0+4", "64 8+2")));
    }

    @Test
    void anAmountIsTakenAsItIsTypedAndAWrongOneIsSaidWithItsRange() {
        type("#equal-to", "55");
        clickOn("#act-equal");
        await(() -> phrase().notes().stream().allMatch(note -> note.velocity() == 55));
        type("#equal-to", "200");
        clickOn("#act-equal");
        await(() -> text("#message").startsWith("To which velocity: must be "));
        assertThat(text("#message")).contains("1–127", "200");
        assertThat(phrase().notes()).allMatch(note -> note.velocity() == 55);
        type("#chance-from", "20");
        type("#chance-to", "20 %");
        push(KeyCode.ENTER);
        await(() -> phrase().notes().stream().allMatch(note -> note.traits().chance() == 20));
        type("#ramp-from", "loud");
        clickOn("#act-ramp");
        await(() -> text("#message").startsWith("From which velocity: "));
    }

    private void type(String field, String text) {
        focus(field);
        interact(() -> lookup(field).queryTextInputControl().setText(text));
    }

    @Test
    void theValuesOfWhatIsPickedAreTypedAndReachedByKey() {
        focus("#roll");
        push(KeyCode.TAB);
        push(KeyCode.F6);
        await(() -> onFx(() -> lookup("#param-velocity").query().isFocused()));
        assertThat(text("#letters")).isEqualTo("Letters set Velocity");
        push(KeyCode.DIGIT4);
        push(KeyCode.DIGIT2);
        push(KeyCode.ENTER);
        await(() -> phrase().notes().get(0).velocity() == 42);
        assertThat(phrase().notes().get(1).velocity()).as("only what is picked").isEqualTo(70);
        push(KeyCode.SHIFT, KeyCode.F6);
        await(() -> onFx(() -> lookup("#roll").query().isFocused()));
        push(KeyCode.CONTROL, KeyCode.A);
        await(() -> text("#picked-title").equals("2 notes"));
        assertThat(onFx(() -> lookup("#param-velocity")
                        .lookup(".tile-value")
                        .queryAs(javafx.scene.control.Label.class)
                        .getText()))
                .isEqualTo("42–70");
        focus("#picked-lasts");
        type("#picked-lasts", "0.5");
        push(KeyCode.ENTER);
        await(() -> notes().contains("60 0+1") && notes().contains("64 8+1"));
        type("#picked-starts", "nowhere");
        push(KeyCode.ENTER);
        await(() -> text("#message").contains("a place is bar . beat . ticks"));
    }

    @Test
    void whatTheChainMakesIsPrintedAgainAfterAnEditAndCounted() {
        Made.Result first = onFx(() -> session.made().result().get());
        assertThat(first.at(Places.sound("lead")))
                .extracting(one -> one.note.pitch())
                .containsExactly(72, 76);
        clickOn("#act-semitone-up");
        await(() -> onFx(() -> session.made().result().get() != first));
        await(() -> text("#makes").startsWith("2 notes make 2 a round, 1.0 a bar; 1 in the key, 1 outside (C♯5 1×)"));
        clickOn("#phrase-ready");
        await(() -> phrase().ready());
        await(() -> text("#makes").contains("C♯4 1×"));
        assertThat(text("#phrase-about")).contains("past its chain");
    }

    @Test
    void stepsArePlayedInAsChordsAndRests() {
        clickOn("#step");
        focus("#roll");
        assertThat(text("#letters")).as("the letters play").isEqualTo("Letters play notes");
        interact(() -> session.desk().mark().set(4 * EIGHTH));
        press(KeyCode.Q);
        press(KeyCode.E);
        await(() -> notes().contains("72 4+1") && notes().contains("76 4+1"));
        release(KeyCode.E);
        release(KeyCode.Q);
        await(() -> onFx(() -> session.desk().mark().get()) == 5 * EIGHTH);
        push(KeyCode.PERIOD);
        push(KeyCode.W);
        await(() -> notes().contains("74 6+1"));
        push(KeyCode.CONTROL, KeyCode.E);
        await(() -> !lookup("#step").queryAs(ToggleButton.class).isSelected());
    }

    /** What is touched in the roll is heard, but was played by nobody. */
    @Test
    void aNoteThatIsOnlyTouchedIsNotSteppedIn() {
        clickOn("#step");
        focus("#roll");
        interact(() -> session.desk().mark().set(4 * EIGHTH));
        push(KeyCode.Q);
        await(() -> notes().contains("72 4+1"));
        clickOn(at(4.5, 72));
        await(() -> session.desk().picked().get().size() == 1);
        push(KeyCode.UP);
        await(() -> notes().contains("73 4+1"));
        // Another key that is played comes after all that was touched.
        push(KeyCode.W);
        await(() -> notes().stream().anyMatch(one -> one.startsWith("74 ")));
        assertThat(notes()).hasSize(4);
    }

    @Test
    void anEditInPlayLeavesWhatSoundsAlone() {
        interact(() -> session.transport().play());
        await(() -> starts().size() == 1);
        focus("#act-twice");
        push(KeyCode.ENTER);
        await(() -> phrase().length() == 4 * BAR);
        interact(() -> session.desk().pick(Set.of(phrase().notes().get(1).id())));
        focus("#roll");
        push(KeyCode.UP);
        await(() -> notes().contains("65 8+2"));
        interact(() -> session.transport().stop());
        await(() -> harpel.testkit.Wire.open(messages()).isEmpty());
    }
}
