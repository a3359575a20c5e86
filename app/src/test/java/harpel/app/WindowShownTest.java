package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.transport.Places;
import harpel.app.transport.TraceStore;
import harpel.effect.pitch.Transpose;
import harpel.engine.LiveStatus;
import harpel.move.Mover;
import harpel.move.Source;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.TimeMap;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** What the rows show agrees with what is heard. */
class WindowShownTest extends WindowCase {
    private static final long BAR = 61_440;

    @Override
    String parts() {
        return """
                {'name':'Lead','phrase':'tide','chain':[{'effect':'transpose','octaves':1}]},
                {'name':'Pulse','input':'none','chain':[{'effect':'pulse','steps':4}]},
                {'name':'After','input':{'output-of':'pulse'},'chain':[{'effect':'transpose','octaves':-1}]},
                {'name':'Done','phrase':'ready','chain':[{'effect':'touch'}]}""";
    }

    @Override
    Piece piece() {
        Note first = Note.of(0, BAR / 8, 60, 90);
        return super.piece()
                .withPhrase(Phrase.of("Tide", BAR, List.of(first, Note.of(BAR / 2, BAR / 8, 64, 90))))
                .withPhrase(Phrase.of("Ready", BAR, List.of(first)).withReady(true))
                .withTime(new TimeMap(TempoMap.of(480), MeterMap.FOUR_FOUR));
    }

    private List<String> words() {
        return lookup(".stage-row .soft").queryAllAs(Labeled.class).stream()
                .filter(Labeled::isVisible)
                .map(Labeled::getText)
                .toList();
    }

    private int drawn(String part) {
        List<TraceStore.Drawn> found = new ArrayList<>();
        session.transport().traces().within(Places.sound(part), 0, BAR, found);
        return found.size();
    }

    @Test
    void aMutedPartSaysSoWhereItsNotesWereCounted() {
        await(() -> words().contains("2 notes"));
        clickOn("#mute-lead");
        await(() -> text("#standing").equals("muted") && words().contains("muted"));
        clickOn("#mute-lead");
        await(() -> !lookup("#standing").query().isVisible());
    }

    @Test
    void aReadyPhraseIsSaidToGoPastTheChain() {
        interact(() -> session.selection().partId().set("done"));
        await(() -> text("#standing").equals("past the chain: “Ready”") && words().contains("past the chain"));
    }

    @Test
    void whatPlaysByItselfAndWhoHearsItIsSeenBeforeItPlays() {
        interact(() -> session.selection().partId().set("pulse"));
        await(() -> drawn("pulse") == 4);
        interact(() -> session.selection().partId().set("after"));
        await(() -> drawn("after") == 4);
    }

    @Test
    void afterAnEditWhatWasHeardStaysToCompareWith() {
        interact(() -> session.transport().play());
        await(() -> session.transport().heardNow() > BAR);
        interact(() -> session.transport().stop());
        await(() -> session.transport().status().mode() == LiveStatus.Mode.STOPPED);
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "Set octaves",
                        piece -> piece.withPart(
                                "lead",
                                part -> part.withChain(part.chain()
                                        .withStage("transpose", stage -> stage.with(Transpose.OCTAVES, -1)))))));
        List<TraceStore.Drawn> now = new ArrayList<>();
        await(() -> onFx(() -> {
            session.transport().traces().within(Places.sound("lead"), 0, BAR, now);
            return now.stream().map(one -> one.note.pitch()).toList().equals(List.of(48, 52));
        }));
        List<TraceStore.Drawn> before = new ArrayList<>();
        session.transport().traces().outdatedWithin(Places.sound("lead"), 0, BAR, before);
        assertThat(before).extracting(one -> one.note.pitch()).containsExactly(72, 76);
    }

    @Test
    void aLeverMovedAtRestLeavesWhatWasHeardGreyWhereItIsFollowed() {
        Mover by = Mover.proposed(Source.LEVER, Transpose.OCTAVES);
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "A lever",
                        piece -> piece.withLevers(List.of(Lever.of("Tide", 0), Lever.of("Wind", 0)))
                                .withPart(
                                        "lead",
                                        part -> part.withChain(part.chain()
                                                .withStage(
                                                        "transpose",
                                                        stage -> stage.withMoves(stage.moves()
                                                                .plus(
                                                                        Transpose.OCTAVES,
                                                                        by.withSettings(by.settings()
                                                                                .with(Source.NAME, "Tide"))))))))));
        interact(() -> session.transport().play());
        await(() -> session.transport().heardNow() > BAR);
        interact(() -> session.transport().stop());
        await(() -> session.transport().status().mode() == LiveStatus.Mode.STOPPED);
        lever(1);
        assertThat(grey()).as("nothing follows that one").isZero();
        lever(0);
        assertThat(grey()).isPositive();
    }

    @Test
    void whatAPartSendsAndWhatAnotherHearsOfItAreOneNumberAlsoInPlay() {
        interact(() -> session.transport().play());
        for (int bars = 1; bars <= 4; bars++) {
            long to = bars * BAR;
            await(() -> session.transport().heardNow() > to + BAR / 8);
            TraceStore traces = session.transport().traces();
            assertThat(onFx(() -> List.of(
                            traces.countWithin(Places.sound("pulse"), 0, to),
                            traces.countWithin(Places.input("after"), 0, to),
                            traces.countWithin(Places.sound("after"), 0, to))))
                    .as("after %d bars", bars)
                    .containsOnly(4 * bars);
        }
    }

    private void lever(int place) {
        interact(() -> session.document().apply(PieceEdit.of("Lever", piece -> {
            List<Lever> levers = new ArrayList<>(piece.levers());
            levers.set(place, levers.get(place).withValue(70));
            return piece.withLevers(levers);
        })));
    }

    private int grey() {
        List<TraceStore.Drawn> before = new ArrayList<>();
        session.transport().traces().outdatedWithin(Places.sound("lead"), 0, BAR, before);
        return before.size();
    }

    @Test
    void atTheBeginningTheRowsShowWhatIsToCome() {
        interact(() -> session.transport().play());
        await(() -> session.transport().heardNow() > 2 * BAR);
        interact(() -> session.transport().stop());
        interact(() -> session.transport().toStart());
        await(() -> onFx(() ->
                pane.chain().window().nowTick() == 0 && pane.chain().window().isAhead()));
        assertThat(drawn("lead")).isEqualTo(2);
    }

    @Test
    void homeBelongsToWhatHasTheKeyboard() {
        interact(() -> session.transport().engine().locate(2 * BAR));
        await(() -> session.timeline().now() == 2 * BAR);
        push(KeyCode.CONTROL, KeyCode.DIGIT2);
        await(() -> onFx(() -> lookup("#roll").tryQuery().isPresent()));
        focus("#roll");
        push(KeyCode.END);
        await(() -> session.desk().mark().get() == BAR - 1);
        push(KeyCode.HOME);
        await(() -> session.desk().mark().get() == 0);
        assertThat(session.timeline().now()).as("time stays").isEqualTo(2 * BAR);
        interact(() -> pane.requestFocus());
        push(KeyCode.HOME);
        await(() -> session.timeline().now() == 0);
    }
}
