package harpel.piece;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.phrase.Note;
import harpel.phrase.Phrase;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class HistoryTest {
    private static PieceEdit rename(String name, String gesture) {
        return new PieceEdit("Rename to " + name, gesture, piece -> piece.withName(name));
    }

    @Test
    void anEditIsUndoneAndDoneAgain() {
        History history = new History(Piece.empty());
        history.apply(rename("Fog", ""));
        assertThat(history.undoLabel()).contains("Rename to Fog");
        assertThat(history.undo()).isTrue();
        assertThat(history.current().name()).isEqualTo("Untitled");
        assertThat(history.redoLabel()).contains("Rename to Fog");
        assertThat(history.redo()).isTrue();
        assertThat(history.current().name()).isEqualTo("Fog");
        assertThat(history.redo()).isFalse();
    }

    @Test
    void allThatWasDoneSinceAPieceBecomesOneStep() {
        History history = new History(Piece.empty());
        history.apply(rename("a", ""));
        Piece since = history.current();
        history.apply(rename("b", ""));
        history.apply(rename("c", "drag"));
        history.together(since, rename("d", ""));
        assertThat(history.current().name()).isEqualTo("d");
        assertThat(history.undoLabel()).contains("Rename to d");
        history.undo();
        assertThat(history.current()).isSameAs(since);
        history.redo();
        assertThat(history.current().name()).isEqualTo("d");
        history.undo();
        history.undo();
        assertThat(history.current().name()).isEqualTo("Untitled");
    }

    @Test
    void aStepOfWhatChangesNothingInTheEndIsNone() {
        History history = new History(Piece.empty());
        Piece since = history.current();
        history.apply(rename("a", ""));
        history.together(since, rename("Untitled", ""));
        assertThat(history.undoLabel()).isEmpty();
        assertThat(history.current()).isEqualTo(since);
    }

    @Test
    void sinceAPieceThatIsNotKeptAnyMoreAnEditIsAStepOfItsOwn() {
        History history = new History(Piece.empty());
        history.apply(rename("a", ""));
        history.together(Piece.empty().withName("Elsewhere"), rename("b", ""));
        history.undo();
        assertThat(history.current().name()).isEqualTo("a");
    }

    @Test
    void oneGestureIsOneStepUntilItEnds() {
        History history = new History(Piece.empty());
        history.apply(rename("a", "drag"));
        history.apply(rename("b", "drag"));
        history.endGesture();
        history.apply(rename("c", "drag"));
        history.undo();
        assertThat(history.current().name()).isEqualTo("b");
        history.undo();
        assertThat(history.current().name()).isEqualTo("Untitled");
        assertThat(history.undo()).isFalse();
    }

    @Test
    void anEditThatChangesNothingLeavesNoTrace() {
        History history = new History(Piece.empty());
        history.apply(rename("Untitled", ""));
        assertThat(history.undoLabel()).isEmpty();
        history.apply(rename("a", "drag"));
        history.apply(rename("Untitled", "drag"));
        assertThat(history.undoLabel()).as("a drag back to where it began").isEmpty();
    }

    @Test
    void unsavedChangesAreThoseSinceTheSavedState() {
        History history = new History(Piece.empty());
        history.apply(rename("a", ""));
        assertThat(history.hasUnsavedChanges()).isTrue();
        history.markSaved();
        assertThat(history.hasUnsavedChanges()).isFalse();
        history.undo();
        assertThat(history.hasUnsavedChanges()).isTrue();
        history.redo();
        assertThat(history.hasUnsavedChanges()).isFalse();
    }

    @Test
    void undoingEverythingLeadsBackWhateverWasDone() {
        Random random = new Random(5);
        History history = new History(Piece.empty());
        for (int i = 0; i < 300; i++) {
            switch (random.nextInt(4)) {
                case 0 -> history.undo();
                case 1 -> history.redo();
                default -> history.apply(rename("n" + random.nextInt(5), random.nextBoolean() ? "g" : ""));
            }
        }
        while (history.undoLabel().isPresent()) {
            history.undo();
        }
        assertThat(history.current()).isEqualTo(Piece.empty());
    }

    private static Phrase phraseOf(int notes) {
        Random random = new Random(3);
        return Phrase.of(
                "Tide",
                1_000_000,
                java.util.stream.IntStream.range(0, notes)
                        .mapToObj(i -> Note.of(random.nextInt(999_000), 480, 30 + i % 60, 1 + i % 127))
                        .toList());
    }

    @Test
    void whatIsKeptOfAnEditOfOneNoteIsSmallHoweverManyThereAre() {
        Piece few = Piece.empty().withPhrase(phraseOf(200));
        Piece many = Piece.empty().withPhrase(phraseOf(100_000));
        for (Piece piece : List.of(few, many)) {
            Phrase phrase = piece.phrases().get(0);
            Note note = phrase.notes().iterator().next();
            Piece after = piece.withPhrase(phrase.withNotes(phrase.notes().with(note.withVelocity(5))));
            assertThat(History.bytesBetween(piece, after)).isLessThan(100_000);
        }
        assertThat(History.bytesBetween(many, Piece.empty()))
                .as("a phrase that is thrown away is kept whole")
                .isGreaterThan(1_000_000);
    }

    @Test
    void theOldestStepsAreForgottenBeforeMemoryRunsOut() {
        History history = new History(Piece.empty());
        int steps = 0;
        long most = 0;
        while (steps < 60) {
            // Each step puts a whole new phrase in place of the one before.
            Phrase phrase = phraseOf(20_000 + steps);
            history.apply(PieceEdit.of("Step " + steps, piece -> piece.withPhrases(List.of(phrase))));
            most = Math.max(most, history.bytes());
            steps++;
        }
        assertThat(most).isLessThanOrEqualTo(History.MOST_BYTES);
        Piece last = history.current();
        int undone = 0;
        while (history.undo()) {
            undone++;
        }
        assertThat(undone).as("some are kept, not all").isBetween(5, steps - 1);
        assertThat(history.bytes()).isZero();
        for (int i = 0; i < undone; i++) {
            assertThat(history.redo()).isTrue();
        }
        assertThat(history.current()).isEqualTo(last);
    }

    @Test
    void aPhraseHoldsOnlyNotesThatStartInIt() {
        assertThatThrownBy(() -> Phrase.of("P", 100, List.of(Note.of(100, 1, 60, 90))))
                .hasMessageContaining("ends at tick 100");
        assertThatThrownBy(() -> Note.of(0, 0, 60, 90)).hasMessageContaining("at least 1 tick");
    }

    /** What was undone lies between: what is done then is a step of its own, though the hand is still on the control. */
    @Test
    void aGestureDoesNotGoOnOverAnUndo() {
        History history = new History(Piece.empty());
        history.apply(rename("a", "drag"));
        history.apply(rename("b", "other"));
        history.undo();
        history.apply(rename("c", "drag"));
        history.undo();
        assertThat(history.current().name()).isEqualTo("a");
    }
}
