package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Look.View;
import harpel.make.ChordsMaker;
import harpel.make.Progression;
import harpel.make.Recipe.Kind;
import harpel.phrase.Note;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.List;
import javafx.scene.control.ComboBox;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Making phrases beside the roll. */
class WindowMakerTest extends WindowCase {
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    @Override
    String parts() {
        return "{'name':'Lead','phrase':'tide','chain':[]}";
    }

    @Override
    Piece piece() {
        return super.piece()
                .withKey(Key.parse("D dorian"))
                .withPhrase(Phrase.of(
                        "Tide",
                        4 * BAR,
                        List.of(Note.of(0, BAR, 60, 90), Note.of(BAR, BAR, 30, 90), Note.of(2 * BAR, BAR, 62, 90))))
                .withTime(new TimeMap(TempoMap.of(400), MeterMap.FOUR_FOUR));
    }

    @BeforeEach
    void open() {
        push(KeyCode.CONTROL, KeyCode.DIGIT2);
        await(() -> session.look().view().get() == View.PHRASE);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.M);
        await(() -> !preview().isEmpty());
        settle();
    }

    private List<Note> preview() {
        return onFx(() -> session.desk().preview().get());
    }

    private Phrase tide() {
        return session.document().piece().get().phrase("tide").orElseThrow();
    }

    @Test
    void alsoOnATimelineItIsHeardInPlace() {
        interact(() -> session.document()
                .apply(harpel.piece.PieceEdit.of(
                        "Block",
                        piece -> piece.withTimeline(true)
                                .withPart(
                                        session.selection().partId().get(),
                                        part -> part.withBlocks(
                                                List.of(harpel.piece.Block.of(90 * BAR, BAR, "tide")))))));
        clickOn("#make-hear");
        await(() -> starts().size() >= 3);
        assertThat(session.document().piece().get().parts().get(0).blocks())
                .as("the piece itself is as it was")
                .hasSize(1);
    }

    @Test
    void withoutAPhraseThereIsAnEmptyOneToMakeInto() {
        interact(() -> session.replace(Piece.empty(), "New"));
        assertThat(onFx(() -> session.desk().making().get())).isFalse();
        settle();
        clickOn("#begin-making");
        await(() -> !preview().isEmpty());
        assertThat(session.selection().part().phrase()).isEqualTo("phrase");
        List<Note> proposed = preview();
        clickOn("#take-instead");
        assertThat(session.document()
                        .piece()
                        .get()
                        .phrase("phrase")
                        .orElseThrow()
                        .notes())
                .hasSameSizeAs(proposed);
        assertThat(preview()).as("what was taken is no proposal any more").isEmpty();
        push(KeyCode.CONTROL, KeyCode.Z);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(onFx(() -> session.desk().making().get()))
                .as("there is nothing to make into any more")
                .isFalse();
    }

    @Test
    void chordsBeginInTheModeOfTheKeyAndSayWhatLeavesIt() {
        clickOn("#make-chords");
        await(() -> text("#maker-about").contains("4 bars"));
        settle();
        assertThat(text("#maker-about")).endsWith("a bar, all in D dorian.");
        interact(() -> session.document().apply(PieceEdit.of("Key", piece -> piece.withKey(Key.parse("G major")))));
        await(() -> text("#maker-about").endsWith("a bar, all in G major."));
        ComboBox<Progression> common = lookup("#make-progression").<Progression>queryComboBox();
        assertThat(common.getValue().text()).isEqualTo("I V vi IV");
        interact(() -> common.setValue(new Progression("dark", "i iv V")));
        await(() -> text("#maker-about").contains(" leave G major: "));
    }

    @Test
    void aMelodyIsSeenBeforeItIsTakenAndAnotherIsAnother() {
        List<Note> first = preview();
        assertThat(text("#maker-about")).matches("\\d+ notes in 4 bars, [\\d.]+ a bar, all in D dorian\\.");
        clickOn("#make-many");
        await(() -> preview().size() > first.size());
        clickOn("#make-few");
        await(() -> preview().size() < first.size() + 4);
        List<Note> few = preview();
        clickOn("#make-another");
        await(() -> !preview().equals(few));
        assertThat(tide().notes()).as("nothing is overwritten").hasSize(3);
        List<Note> wanted = preview();
        clickOn("#take-new");
        await(() -> session.document().piece().get().phrases().size() == 2);
        Phrase made = session.document().piece().get().phrases().get(1);
        assertThat(made.name()).isEqualTo("Melody 1");
        assertThat(made.notes())
                .extracting(Note::pitch)
                .containsExactlyElementsOf(wanted.stream().map(Note::pitch).toList());
        assertThat(made.origin().kind()).isEqualTo(Origin.Kind.MADE);
        assertThat(made.origin().how()).containsEntry("make", "melody").containsEntry("seed", 2);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.M);
        await(() -> preview().isEmpty());
    }

    @Test
    void whatLiesOutsideThePitchesStaysAndOneUndoTakesAllBack() {
        int proposed = preview().size();
        clickOn("#take-in-place");
        await(() -> tide().notes().size() != 3);
        assertThat(tide().notes().stream().filter(note -> note.pitch() == 30))
                .as("below the lowest")
                .hasSize(1);
        assertThat(tide().notes()).noneMatch(note -> note.length() == BAR && note.pitch() > 50);
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> tide().notes().size() == 3);
        clickOn("#take-added");
        await(() -> tide().notes().size() == 3 + proposed);
        clickOn("#take-instead");
        await(() -> tide().notes().size() == proposed);
        assertThat(tide().origin().kind()).isEqualTo(Origin.Kind.MADE);
    }

    @Test
    void chordsAreChosenByNumeralHeardInPlaceAndWrongOnesNamed() {
        clickOn("#make-chords");
        await(() -> text("#maker-about").contains("in 4 bars"));
        interact(() -> lookup("#make-progression").<Progression>queryComboBox().setValue(Progression.COMMON.get(25)));
        await(() -> text("#maker-about").contains("in 3 bars"));
        Piece before = session.document().piece().get();
        clickOn("#make-hear");
        await(() -> messages().stream()
                .anyMatch(message -> (message[0] & 0xF0) == 0x90
                        && message[1] == preview().get(0).pitch()));
        assertThat(session.document().piece().get())
                .as("heard, and not in the piece")
                .isEqualTo(before);
        clickOn("#take-instead");
        await(() -> tide().length() == 3 * BAR);
        assertThat(tide().notes())
                .hasSameSizeAs(Kind.CHORDS
                        .plain()
                        .with(ChordsMaker.PROGRESSION, "ii7 V7 Imaj7")
                        .make(Key.parse("D dorian"), TimeMap.DEFAULT)
                        .notes());
        clickOn("#make-rhythm");
        await(() -> text("#maker-about").contains("in 2 bars"));
        assertThat(preview()).extracting(Note::pitch).contains(36, 38, 42);
    }
}
