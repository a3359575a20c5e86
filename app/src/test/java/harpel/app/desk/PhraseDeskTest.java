package harpel.app.desk;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.action.Pitches;
import harpel.phrase.action.Shapes;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.time.Ticks;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class PhraseDeskTest {
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    private final Messages messages = new Messages();
    private final Document document = new Document(
            Piece.empty()
                    .withPhrase(Phrase.of("Tide", BAR, List.of(Note.of(0, 100, 60, 90), Note.of(500, 100, 64, 90))))
                    .withPhrase(Phrase.of("Crab", 2 * BAR, List.of()))
                    .withDuplicate("part-1")
                    .withDuplicate("part-1")
                    .withPart("part-1", part -> part.withPhrase("tide"))
                    .withPart("part-2", part -> part.withPhrase("crab")),
            messages);
    private final Selection selection = new Selection(document);
    private final PhraseDesk desk = new PhraseDesk(document, selection, messages);

    @Test
    void thePhraseOfTheChosenPartIsShownAndNoneWhereItHasNone() {
        assertThat(desk.phraseId().get()).isEqualTo("tide");
        selection.partId().set("part-2");
        assertThat(desk.phraseId().get()).isEqualTo("crab");
        assertThat(desk.hearer().orElseThrow().id()).isEqualTo("part-2");
        selection.partId().set("part-3");
        assertThat(desk.phraseId().get())
                .as("what is drawn would be drawn into another part’s")
                .isEmpty();
        desk.show("tide");
        assertThat(desk.phraseId().get()).as("asked for").isEqualTo("tide");
        document.apply(PieceEdit.of("Hear", piece -> piece.withPart("part-3", part -> part.withPhrase("crab"))));
        assertThat(desk.phraseId().get()).as("what it plays from now on").isEqualTo("crab");
        document.apply(PieceEdit.of("Delete", piece -> piece.withoutPhrase("crab")));
        assertThat(desk.phraseId().get()).isEmpty();
        assertThat(desk.phrase()).isEmpty();
        document.undo();
        assertThat(desk.phraseId().get()).isEqualTo("crab");
    }

    @Test
    void whatIsGoneIsNotPickedAnyMoreAndTheMarkStaysWithin() {
        desk.pick(Set.of(0, 1));
        desk.mark().set(BAR - 1);
        desk.act("Remove one", (phrase, picked) -> Shapes.remove(phrase, Set.of(0)));
        assertThat(messages.last().get()).isEqualTo("1 note removed");
        assertThat(desk.picked().get()).isEmpty();
        document.undo();
        desk.pick(Set.of(0, 1));
        document.apply(PieceEdit.of(
                "Shorter", piece -> piece.withPhrase(desk.phrase().orElseThrow().withLength(600))));
        assertThat(desk.mark().get()).isEqualTo(599);
        assertThat(desk.picked().get()).hasSize(2);
        document.undo();
        document.undo();
        assertThat(desk.picked().get()).as("undo leaves what is there picked").hasSize(2);
    }

    @Test
    void anActionIsOneEditAndSaysWhatItDid() {
        desk.act("Octave up", (phrase, picked) -> Pitches.transpose(phrase, picked, 12));
        assertThat(document.undoLabel()).contains("Octave up");
        assertThat(messages.last().get()).isEqualTo("2 notes up an octave");
        desk.act("Nothing", (phrase, picked) -> Shapes.join(phrase, picked));
        assertThat(document.undoLabel()).as("what changes nothing is no edit").contains("Octave up");
        document.undo();
        assertThat(desk.phrase().orElseThrow().notes().get(0).pitch()).isEqualTo(60);
    }

    @Test
    void theGridHasSixteenPacesAndNone() {
        for (String grid : PhraseDesk.GRIDS) {
            desk.grid().set(grid);
            assertThat(desk.steps().isPresent()).as(grid).isEqualTo(!grid.equals("off"));
            assertThat(desk.stepTicks()).as(grid).isPositive();
        }
        desk.grid().set("1/8t");
        assertThat(desk.stepTicks()).isEqualTo(Ticks.PER_QUARTER / 3);
        desk.grid().set("off");
        desk.like(Note.of(0, 1234, 60, 55));
        assertThat(desk.stepTicks()).as("the last length").isEqualTo(1234);
        assertThat(desk.lastVelocity()).isEqualTo(55);
    }

    @Test
    void theNextNoteIsNoLongerThanTheGridUnlessItsLengthWasSetAndIsForgottenWithThePiece() {
        desk.grid().set("1/16");
        desk.like(Note.of(0, 4 * Ticks.PER_QUARTER, 60, 55));
        assertThat(desk.drawnLength().get()).as("picked, not set").isEqualTo(Ticks.PER_QUARTER / 4);
        assertThat(desk.drawnLengthInWords()).isEqualTo("1/16");
        desk.asSet(Note.of(0, 5 * Ticks.PER_QUARTER, 60, 55));
        assertThat(desk.drawnLengthInWords()).isEqualTo("5 beats");
        document.other(Piece.empty(), "New piece");
        assertThat(desk.drawnLengthInWords()).isEqualTo("1/16");
        assertThat(desk.lastVelocity()).isEqualTo(92);
    }

    @Test
    void ofWhatIsPickedOnlyWhatIsGoneIsLetGoOf() {
        desk.pick(Set.of(0, 1));
        document.apply(PieceEdit.of("Remove one", piece -> {
            Phrase phrase = piece.phrase("tide").orElseThrow();
            return piece.withPhrase(phrase.withNotes(phrase.notes().minus(0)));
        }));
        assertThat(desk.picked().get()).containsExactly(1);
    }
}
