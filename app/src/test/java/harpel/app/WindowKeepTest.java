package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Look.View;
import harpel.engine.LiveStatus;
import harpel.phrase.Note;
import harpel.phrase.Origin;
import harpel.phrase.Phrase;
import harpel.phrase.action.Velocities;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.time.Ticks;
import java.util.List;
import java.util.Set;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Keeping what was heard and recording what is played, by mouse and by keyboard. */
class WindowKeepTest extends WindowCase {
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    @Override
    String parts() {
        return "{'name':'Lead','phrase':'tide','chain':[{'effect':'transpose','semitones':12}]},"
                + "{'name':'Second','chain':[]}";
    }

    @Override
    Piece piece() {
        return super.piece()
                .withPhrase(Phrase.of("Tide", BAR, List.of(Note.of(0, BAR / 8, 60, 90), Note.of(BAR / 2, 100, 64, 70))))
                .withTime(new harpel.time.TimeMap(harpel.time.TempoMap.of(480), harpel.time.MeterMap.FOUR_FOUR));
    }

    private Phrase phrase(String id) {
        return session.document().piece().get().phrase(id).orElseThrow();
    }

    private boolean has(String id) {
        return session.document().piece().get().phrase(id).isPresent();
    }

    private void playUntilBar(int bar) {
        interact(() -> session.transport().play());
        await(() -> session.transport().heardNow() > bar * BAR);
    }

    @Test
    void oneKeyKeepsTheLastBarsAsTheyWereSent() {
        interact(() -> session.keeping().bars().set(2));
        playUntilBar(3);
        push(KeyCode.K);
        await(() -> has("kept-1"));
        Phrase kept = phrase("kept-1");
        assertThat(kept.length()).isEqualTo(2 * BAR);
        assertThat(kept.ready()).as("it is the result of a chain").isTrue();
        assertThat(kept.notes()).extracting(Note::pitch).containsExactly(72, 76, 72, 76);
        assertThat(kept.notes()).extracting(Note::tick).containsExactly(0L, BAR / 2, BAR, BAR * 3 / 2);
        assertThat(kept.notes()).extracting(Note::length).containsExactly(BAR / 8, 100L, BAR / 8, 100L);
        assertThat(kept.origin().kind()).isEqualTo(Origin.Kind.KEPT);
        assertThat(text("#message")).isEqualTo("Kept “Kept 1, Lead”: 4 notes in 2 bars, in the list of phrases.");
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> !has("kept-1"));
    }

    @Test
    void aStretchMarkedOnTheStripIsKeptFromTheInputAndHungOnThePart() {
        playUntilBar(4);
        interact(() -> session.transport().stop());
        interact(() -> session.keeping().place().set(harpel.run.Tap.INPUT));
        drag(on("#heard-notes", 1.2 / 16, 0.5), on("#heard-notes", 1.8 / 16, 0.5));
        await(() -> text("#keep").equals("Keep this bar"));
        clickOn("#keep-hang");
        clickOn("#keep");
        await(() -> session.selection().part().phrase().equals("kept-1"));
        assertThat(phrase("kept-1").notes()).extracting(Note::pitch).containsExactly(60, 64);
        assertThat(phrase("kept-1").ready()).isFalse();
        clickOn("#keep-chords");
        await(() -> text("#message").startsWith("Kept 2 phrases, one a chord"));
        assertThat(phrase("kept-2").notes()).extracting(Note::pitch).containsExactly(60);
        interact(() -> lookup("#keep-cut")
                .<javafx.scene.control.ComboBox<Boolean>>query()
                .setValue(true));
        clickOn("#keep-chords");
        await(() -> text("#message").startsWith("Kept 1 phrase, from bar line to bar line"));
        assertThat(phrase("kept-4").length()).isEqualTo(BAR);
    }

    @Test
    void whatRingsOnByKeysIsKeptWithTheBarItHasBegun() {
        playUntilBar(2);
        interact(() -> session.transport().stop());
        await(() -> session.transport().status().mode() == LiveStatus.Mode.STOPPED);
        interact(() -> session.transport().press(53, 90));
        await(() -> session.transport().status().mode() == LiveStatus.Mode.KEYS
                && Math.floorMod(session.transport().heardNow(), BAR) > BAR / 4);
        interact(() -> session.keeping().keep());
        interact(() -> session.transport().release(53));
        assertThat(phrase("kept-1").notes()).extracting(Note::pitch).contains(65);
    }

    @Test
    void whatWasHeardGoesWithItsPieceAndComesBackWithIt() {
        playUntilBar(2);
        interact(() -> session.transport().stop());
        long heard = session.transport().heard().last();
        assertThat(heard).isPositive();
        interact(() -> session.replace(Piece.empty(), "New piece"));
        assertThat(session.transport().heard().last()).isZero();
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> has("tide"));
        assertThat(session.transport().heard().last()).isEqualTo(heard);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
        await(() -> !has("tide"));
        assertThat(session.transport().heard().last()).isZero();
    }

    @Test
    void oneRoundOfAStageBecomesAPhraseByOneClick() {
        select("transpose");
        clickOn("#keep-round");
        await(() -> has("transpose-round-1"));
        assertThat(phrase("transpose-round-1").notes()).extracting(Note::pitch).containsExactly(72, 76);
        await(() -> text("#message").startsWith("Kept “Transpose round 1”: 2 notes"));
    }

    @Test
    void whatIsPlayedIsAddedRoundByRoundAndTheLastIsTakenBack() {
        interact(() -> session.recorder().countIn().set(0));
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
        await(() -> session.transport().heardNow() > BAR / 4);
        assertThat(lookup("#record").queryAs(ToggleButton.class).isSelected()).isTrue();
        interact(() -> session.transport().press(50, 77));
        interact(() -> session.transport().release(50));
        await(() -> phrase("tide").notes().size() == 3);
        // A later round, also where the first key came late.
        long round = session.transport().heardNow() / BAR;
        await(() -> session.transport().heardNow() / BAR > round);
        interact(() -> session.transport().press(53, 77));
        interact(() -> session.transport().release(53));
        await(() -> phrase("tide").notes().size() == 4);
        clickOn("#play");
        await(
                () -> !session.recorder().armed().get(),
                () -> session.transport().status() + ", the button is "
                        + lookup("#play").query().getPseudoClassStates());
        assertThat(text("#message")).startsWith("Recorded into “Tide”: 4 notes.");
        assertThat(phrase("tide").notes()).allMatch(note -> note.tick() < BAR);
        push(KeyCode.CONTROL, KeyCode.Z);
        await(
                () -> phrase("tide").notes().stream().noneMatch(note -> note.pitch() == 53),
                () -> text("#message") + ", then " + session.document().undoLabel() + ", of "
                        + phrase("tide").notes());
        assertThat(phrase("tide").notes()).extracting(Note::pitch).contains(50);
    }

    @Test
    void aRoundTakenBackWhileItIsRecordedDoesNotComeBackWithTheNextKey() {
        interact(() -> session.recorder().countIn().set(0));
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
        await(() -> session.transport().heardNow() > BAR / 4);
        interact(() -> session.transport().press(50, 77));
        interact(() -> session.transport().release(50));
        await(() -> phrase("tide").notes().size() == 3);
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> phrase("tide").notes().size() == 2);
        long back = session.transport().heardNow();
        await(() -> session.transport().heardNow() > back + BAR);
        interact(() -> session.transport().press(53, 77));
        interact(() -> session.transport().release(53));
        await(() -> phrase("tide").notes().size() > 2);
        clickOn("#play");
        await(() -> !session.recorder().armed().get());
        assertThat(phrase("tide").notes()).extracting(Note::pitch).containsExactlyInAnyOrder(60, 64, 53);
    }

    @Test
    void whatIsPlayedWhileAHandEditsThePhraseIsRecorded() {
        interact(() -> session.recorder().countIn().set(0));
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
        await(() -> session.transport().heardNow() > BAR / 4);
        interact(() -> {
            session.transport().press(50, 77);
            session.transport().release(50);
        });
        // The key is in the engine before the edit, and not yet in the phrase.
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "Louder",
                        piece -> piece.withPhrase(
                                Velocities.louder(piece.phrase("tide").orElseThrow(), Set.of(), 5)
                                        .phrase()))));
        await(() -> phrase("tide").notes().stream().anyMatch(note -> note.pitch() == 50));
        clickOn("#play");
        await(() -> !session.recorder().armed().get());
        assertThat(phrase("tide").notes()).extracting(Note::pitch).containsExactlyInAnyOrder(60, 64, 50);
    }

    @Test
    void aPartWithoutAPhraseGetsOneOfWholeBars() {
        interact(() -> session.selection().partId().set("second"));
        interact(() -> session.recorder().countIn().set(1));
        clickOn("#record");
        await(() -> session.transport().heardNow() > BAR / 4);
        interact(() -> session.transport().press(50, 77));
        await(() -> has("recorded-1"));
        interact(() -> session.transport().release(50));
        await(() -> session.transport().heardNow() > BAR);
        clickOn("#record");
        await(() -> !session.recorder().armed().get());
        Phrase recorded = phrase("recorded-1");
        assertThat(recorded.length() % BAR).isZero();
        assertThat(recorded.notes())
                .singleElement()
                .satisfies(note -> assertThat(note.velocity()).isEqualTo(77));
        assertThat(session.selection().part().phrase()).isEqualTo("recorded-1");
        assertThat(recorded.origin().kind()).isEqualTo(Origin.Kind.RECORDED);
    }

    @Test
    void aRoundTakesThePlaceOfWhatIsThereAndLiesOnTheGrid() {
        interact(() -> {
            session.recorder().countIn().set(0);
            session.recorder().adding().set(false);
            session.recorder().ontoGrid().set(true);
            session.desk().grid().set("1/4");
        });
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
        await(() -> session.transport().heardNow() > BAR + BAR / 4);
        assertThat(phrase("tide").notes())
                .as("a round in which nothing is played takes nothing away")
                .hasSize(2);
        interact(() -> session.transport().press(50, 77));
        interact(() -> session.transport().release(50));
        await(() -> phrase("tide").notes().size() == 1);
        assertThat(phrase("tide").notes().get(0).pitch()).isEqualTo(50);
        assertThat(phrase("tide").notes().get(0).tick() % Ticks.PER_QUARTER).isZero();
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
        await(() -> !session.recorder().armed().get());
    }

    @Test
    void aPartThatGoesWhileItIsRecordedEndsTheRecording() {
        interact(() -> session.recorder().countIn().set(0));
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
        await(() -> session.transport().heardNow() > BAR / 4);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.DELETE);
        await(() -> !session.recorder().armed().get());
        assertThat(session.document().piece().get().parts()).hasSize(1);
        assertThat(phrase("tide").notes()).hasSize(2);
        interact(() -> session.selection().partId().set("second"));
        clickOn("#record");
        await(() -> session.recorder().armed().get());
        push(KeyCode.ESCAPE);
        await(() -> !session.recorder().armed().get());
    }

    @Test
    void whatTheChainSendsIsRecordedReady() {
        interact(() -> {
            session.recorder().countIn().set(0);
            session.recorder().sent().set(true);
            session.look().view().set(View.PHRASE);
        });
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
        await(() -> has("recorded-1") && phrase("recorded-1").notes().size() >= 2);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.R);
        await(() -> !session.recorder().armed().get());
        assertThat(phrase("recorded-1").ready()).isTrue();
        assertThat(phrase("recorded-1").notes().get(0).pitch()).isEqualTo(72);
        assertThat(session.selection().part().phrase())
                .as("it is not heard twice")
                .isEqualTo("tide");
    }
}
