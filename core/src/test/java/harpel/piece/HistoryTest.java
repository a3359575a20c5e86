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

    @Test
    void aPhraseHoldsOnlyNotesThatStartInIt() {
        assertThatThrownBy(() -> Phrase.of("P", 100, List.of(Note.of(100, 1, 60, 90))))
                .hasMessageContaining("ends at tick 100");
        assertThatThrownBy(() -> Note.of(0, 0, 60, 90)).hasMessageContaining("at least 1 tick");
    }
}
