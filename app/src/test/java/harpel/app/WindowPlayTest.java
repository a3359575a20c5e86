package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Look.View;
import harpel.chain.StageAddress;
import harpel.engine.LiveStatus.Mode;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Lane;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Moment;
import harpel.piece.perform.Pad;
import harpel.piece.perform.Pad.Does;
import harpel.piece.perform.When;
import harpel.testkit.RecordingPort;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.List;
import java.util.concurrent.locks.LockSupport;
import java.util.function.UnaryOperator;
import javafx.geometry.Bounds;
import javafx.scene.control.ComboBox;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The Play view: levers, pads and moments by mouse and by keyboard. */
class WindowPlayTest extends WindowCase {
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    @Override
    String parts() {
        return "{'name':'Lead','phrase':'tide','chain':[{'effect':'echo'}]},{'name':'Bass','chain':[],'channel':2}";
    }

    @Override
    Piece piece() {
        return super.piece()
                .withPhrase(Phrase.of("Tide", BAR, List.of(Note.of(0, BAR / 2, 60, 90))))
                .withPhrase(Phrase.of("Crab", BAR, List.of(Note.of(0, BAR / 2, 72, 90))))
                .withTime(new TimeMap(TempoMap.of(240), MeterMap.FOUR_FOUR))
                .withLevers(List.of(Lever.of("Tide", 20, 74)));
    }

    @BeforeEach
    void open() {
        push(KeyCode.CONTROL, KeyCode.DIGIT4);
        await(() -> session.look().view().get() == View.PLAY
                && onFx(() -> lookup("#pad-0").tryQuery().isPresent()));
        settle();
    }

    private Piece now() {
        return session.document().piece().get();
    }

    private void does(UnaryOperator<Piece> change) {
        interact(() -> session.document().apply(PieceEdit.of("Do", change)));
        settle();
    }

    private void play() {
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == Mode.PLAYING);
    }

    @Test
    void aLeverIsDraggedTypedTurnedAndMovedByKeys() {
        Bounds string = bounds("#string-tide .string");
        drag(
                new javafx.geometry.Point2D(string.getCenterX(), string.getMaxY() - 40),
                new javafx.geometry.Point2D(string.getCenterX(), string.getMinY() + 14));
        await(() -> now().levers().get(0).value() == 100);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(now().levers().get(0).value()).as("one undo for the drag").isEqualTo(20);
        push(KeyCode.UP);
        push(KeyCode.PAGE_UP);
        assertThat(now().levers().get(0).value()).isEqualTo(31);
        doubleClickOn("#string-value-Tide");
        write("62.5");
        push(KeyCode.ENTER);
        assertThat(now().levers().get(0).value()).isEqualTo(62.5);
        doubleClickOn("#string-value-Tide");
        write("162");
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).contains("0–100 %").contains("162");
        push(KeyCode.ESCAPE);
    }

    @Test
    void aLeverMayReturnWhenLetGoOfAndStandOnPlaces() {
        leverMenu();
        clickOn("#lever-returns");
        await(() -> now().levers().get(0).returns());
        does(piece -> piece.withLevers(List.of(piece.levers().get(0).withSteps(5))));
        moveTo(lookup("#string-tide .string").query()).press(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> now().levers().get(0).value() == 50);
        release(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> now().levers().get(0).value() == 25);
    }

    @Test
    void aLeverLearnsOneControllerMoreForgetsOneAndBends() {
        leverMenu();
        clickOn("#lever-learn-more");
        await(() -> session.levers().learning().get().equals("Tide"));
        session.transport()
                .engine()
                .openInput("Knobs")
                .offer(harpel.event.Message.CONTROL_CHANGE, 21, 0, System.nanoTime());
        await(() -> now().levers().get(0).controllers().equals(List.of(74, 21)));
        leverMenu();
        clickOn("#lever-forget-74");
        await(() -> now().levers().get(0).controllers().equals(List.of(21)));
        leverMenu();
        clickOn("#lever-curve");
        clickOn("#lever-curve-50");
        await(() -> now().levers().get(0).curve() == 50);
    }

    @Test
    void aNewLeverHasANameOfItsOwn() {
        does(piece -> piece.withLevers(List.of(Lever.of("Tide", 0), Lever.of("Lever 3", 0))));
        clickOn("#play-add-lever");
        await(() -> now().levers().size() == 3);
        assertThat(now().levers().get(2).name()).isEqualTo("Lever 4");
    }

    private void leverMenu() {
        moveTo(lookup("#string-tide .string").query()).press(javafx.scene.input.MouseButton.SECONDARY);
        release(javafx.scene.input.MouseButton.SECONDARY);
    }

    @Test
    void anEmptyPadIsSetUpByPressingItAndThenPlayed() {
        clickOn("#pad-5");
        await(() -> onFx(() -> lookup("#pad-does").tryQuery().isPresent()));
        choose("#pad-does", Does.STAGE);
        await(() -> now().pad(5).map(Pad::does).filter(Does.STAGE::equals).isPresent());
        assertThat(now().pad(5).orElseThrow().what()).isEqualTo("lead/echo");
        choose("#pad-does", Does.PHRASE);
        await(() -> now().pad(5).orElseThrow().what().equals("tide"));
        // What it was about has no words among stages: what nobody caught fails the test.
        choose("#pad-does", Does.STAGE);
        await(() -> now().pad(5).orElseThrow().what().equals("lead/echo"));
        choose("#pad-when", When.NOW);
        clickOn("#pad-done");
        Lane<Boolean> echo = Lane.ofSwitch(StageAddress.parse("lead/echo"));
        clickOn("#pad-5");
        await(() -> !echo.base(now()));
        push(KeyCode.ENTER);
        await(() -> echo.base(now()));
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(echo.base(now())).isFalse();
    }

    @SuppressWarnings("unchecked")
    private <T> void choose(String box, T value) {
        interact(() -> ((ComboBox<T>) lookup(box).query()).setValue(value));
        settle();
    }

    @Test
    void aPadWaitsForTheBarAndIsDoneThereAndTakenBackWhenPressedAgain() {
        does(piece -> piece.withPad(Pad.of(0, Does.MUTE, "bass", "", new When(64))));
        play();
        clickOn("#pad-0");
        assertThat(now().part("bass").orElseThrow().mix().mute()).as("it waits").isFalse();
        assertThat(session.performing().waitsFor(now().pad(0).orElseThrow())).isPresent();
        clickOn("#pad-0");
        assertThat(session.performing().waitsFor(now().pad(0).orElseThrow())).isEmpty();
        does(piece -> piece.withPad(Pad.of(0, Does.MUTE, "bass", "", new When(4))));
        clickOn("#pad-0");
        await(() -> now().part("bass").orElseThrow().mix().mute());
        assertThat(session.timeline().now()).isGreaterThanOrEqualTo(4 * BAR);
    }

    @Test
    void aChordSoundsWhileItsPadIsHeld() {
        does(piece -> piece.withPad(Pad.of(0, Does.CHORD, "bass", "Am", When.NOW)));
        moveTo(lookup("#pad-0").query()).press(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> pitches(true).size() == 3);
        assertThat(pitches(false)).isEmpty();
        release(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> pitches(false).size() == 3);
    }

    /** The pitch that was started last; more may come while it is looked at. */
    private int lastStarted() {
        List<Integer> started = pitches(true);
        return started.isEmpty() ? -1 : started.get(started.size() - 1);
    }

    /** The pitches that were sent, of starts or of ends. */
    private List<Integer> pitches(boolean starts) {
        return sent.sent().stream()
                .map(RecordingPort.Sent::message)
                .filter(message ->
                        starts == ((message[0] & 0xF0) == 0x90 && message[2] > 0) && ((message[0] & 0xE0) == 0x80))
                .map(message -> (int) message[1])
                .toList();
    }

    @Test
    void aChordIsLearntByPlayingIt() {
        does(piece -> piece.withPad(Pad.of(0, Does.CHORD, "bass", "Am", When.NOW)));
        clickOn("#set-up-pads");
        clickOn("#pad-0");
        await(() -> onFx(() -> lookup("#pad-learn-chord").tryQuery().isPresent()));
        settle();
        clickOn("#pad-learn-chord");
        interact(() -> {
            session.transport().press(50, 90);
            session.transport().press(57, 90);
        });
        await(() -> pitches(true).size() == 2);
        interact(() -> {
            session.transport().release(50);
            session.transport().release(57);
        });
        await(() -> now().pad(0).orElseThrow().what().equals("50 57"));
        clickOn("#pad-done");
        int before = pitches(true).size();
        moveTo(lookup("#pad-0").query()).press(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> pitches(true).size() == before + 2);
        release(javafx.scene.input.MouseButton.PRIMARY);
        assertThat(pitches(true).subList(before, before + 2)).containsExactlyInAnyOrder(50, 57);
    }

    @Test
    void marblesAreLaunchedAndPickedByPressingAndTakenOffByTheOtherButton() {
        does(piece -> piece.withPart(
                "bass",
                one -> one.withChain(new harpel.chain.Chain(
                        List.of(harpel.chain.Stage.of("carom", harpel.effect.EffectCatalog.of("carom"))
                                .with(harpel.effect.notes.Carom.MARBLES, List.of())
                                .with(harpel.effect.notes.Carom.CELLS, List.of()))))));
        clickOn("#play-part-lead");
        await(() -> onFx(() -> lookup("#hand-marble").tryQuery().isPresent()));
        assertThat(session.selection().part().id()).as("it has no board").isEqualTo("lead");
        Bounds board = bounds("#carom-board");
        javafx.geometry.Point2D cell = new javafx.geometry.Point2D(board.getMinX() + 60, board.getMinY() + 60);
        moveTo(cell);
        settle();
        assertThat(text("#board-words")).isEqualTo("Column 2, row 7 (D4): empty.");
        clickOn(cell);
        await(() -> marbles() == 1);
        await(() -> onFx(() -> lookup("#marble-pace").tryQuery().isPresent()));
        assertThat(lookup("#tilt-left").tryQuery()).isEmpty();
        clickOn(cell);
        settle();
        assertThat(marbles()).as("pressed again it is picked").isEqualTo(1);
        assertThat(lookup("#marble-note").tryQuery()).isPresent();
        rightClickOn(cell);
        await(() -> marbles() == 0);
        await(() -> onFx(() -> lookup("#tilt-left").tryQuery().isPresent()));
        Piece before = now();
        focus("#tilt-left");
        press(KeyCode.ENTER);
        await(() -> onFx(() -> session.performing().isTilted(StageAddress.parse("bass/carom"))));
        release(KeyCode.ENTER);
        await(() -> onFx(() -> !session.performing().isTilted(StageAddress.parse("bass/carom"))));
        assertThat(now()).isEqualTo(before);
    }

    private int marbles() {
        return now().part("bass")
                .orElseThrow()
                .chain()
                .stages()
                .get(0)
                .params()
                .get(harpel.effect.notes.Carom.MARBLES)
                .size();
    }

    @Test
    void aFillIsHeardForABarAndLeavesThePieceAsItWas() {
        does(piece -> piece.withPad(Pad.of(0, Does.FILL, "lead", "crab", When.BAR))
                .withPart("lead", one -> one.withChain(harpel.chain.Chain.EMPTY)));
        Piece before = now();
        play();
        clickOn("#pad-0");
        await(() -> pitches(true).contains(72));
        await(() -> lastStarted() == 60);
        assertThat(pitches(true).stream().filter(pitch -> pitch == 72)).hasSize(1);
        assertThat(now()).isEqualTo(before);
    }

    @Test
    void aMomentIsKeptRenamedRecalledAndUndone() {
        clickOn("#keep-moment");
        await(() -> now().moments().size() == 1);
        clickOn("#moment-menu-0");
        clickOn("#moment-rename");
        await(() -> onFx(() -> lookup("#moment-name").tryQuery().isPresent()));
        doubleClickOn("#moment-name");
        push(KeyCode.CONTROL, KeyCode.A);
        write("Storm");
        push(KeyCode.ENTER);
        await(() -> now().moment("Storm").isPresent());
        does(piece -> new Lane.OfLever("Tide").withBase(new Lane.OfMute("bass").withBase(piece, true), 90.0));
        assertThat(now().moments().get(0).isNow(now())).isFalse();
        clickOn("#moment-0");
        await(() -> now().moments().get(0).isNow(now()));
        assertThat(now().levers().get(0).value()).isEqualTo(20);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(now().levers().get(0).value()).isEqualTo(90);
    }

    @Test
    void aMomentHoldsLeversAgainstTheirPointsAlsoWhereTheyAreSetSoAlready() {
        Lever written =
                now().levers().get(0).withPoints(List.of(new Lever.Point(0, 90), new Lever.Point(64 * BAR, 90)));
        Moment moment = Moment.of("Calm", now()).withWhen(When.NOW);
        does(piece -> piece.withTimeline(true).withLevers(List.of(written)).withMoments(List.of(moment)));
        play();
        await(() -> lookup("by its points").tryQuery().isPresent());
        clickOn("#moment-0");
        await(() -> onFx(() -> session.transport()
                .traces()
                .held("Tide", session.timeline().now())
                .filter(held -> Math.abs(held.value() - 0.2) < 1e-9)
                .isPresent()));
        await(() -> lookup("held until bar 65").tryQuery().isPresent());
    }

    @Test
    void aMomentWaitsForItsBarWhileItPlays() {
        Moment loud = Moment.of("Loud", new Lane.OfLever("Tide").withBase(now(), 90.0))
                .withWhen(new When(2))
                .withGlide(2);
        does(piece -> piece.withMoments(List.of(loud)));
        play();
        clickOn("#moment-0");
        await(() -> now().levers().get(0).value() == 90);
        assertThat(session.timeline().now()).isGreaterThanOrEqualTo(2 * BAR);
    }

    @Test
    void silenceForgetsWhatWaits() {
        does(piece -> piece.withPad(Pad.of(0, Does.MUTE, "bass", "", new When(8)))
                .withPad(Pad.of(1, Does.PHRASE, "lead", "crab", When.NOW)));
        Piece before = now();
        play();
        clickOn("#pad-0");
        assertThat(session.performing().waitsFor(now().pad(0).orElseThrow())).isPresent();
        push(KeyCode.ESCAPE);
        await(() -> session.transport().status().mode() == Mode.STOPPED);
        settle();
        assertThat(session.performing().waitsFor(now().pad(0).orElseThrow())).isEmpty();
        assertThat(now()).isEqualTo(before);
    }

    @Test
    void aPhraseIsHeardWhileItsPadIsHeld() {
        does(piece -> piece.withPad(Pad.of(0, Does.PHRASE, "lead", "crab", When.NOW))
                .withPart("lead", one -> one.withChain(harpel.chain.Chain.EMPTY)));
        play();
        await(() -> pitches(true).contains(60));
        moveTo(lookup("#pad-0").query()).press(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> pitches(true).contains(72));
        release(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> lastStarted() == 60);
        assertThat(now().part("lead").orElseThrow().phrase()).isEqualTo("tide");
    }

    @Test
    void aPhraseIsHeardOnceAndABoardTiltsWhileItsPadIsHeld() {
        does(piece -> piece.withPad(Pad.of(0, Does.ONCE, "lead", "crab", When.BAR))
                .withPad(Pad.of(1, Does.TILT, "bass", "up", When.NOW))
                .withPart("lead", one -> one.withChain(harpel.chain.Chain.EMPTY))
                .withPart(
                        "bass",
                        one -> one.withChain(new harpel.chain.Chain(
                                List.of(harpel.chain.Stage.of("carom", harpel.effect.EffectCatalog.of("carom")))))));
        Piece before = now();
        play();
        clickOn("#pad-0");
        await(() -> pitches(true).contains(72));
        moveTo(lookup("#pad-1").query()).press(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> session.performing().isHeld(now().pad(1).orElseThrow()));
        await(() -> rows() > 0);
        // Two cells on it surely rolls the other way; then it keeps its column, which it leaves at every other cell by
        // itself.
        LockSupport.parkNanos(400_000_000);
        int column = onFx(this::firstColumn);
        for (int i = 0; i < 6; i++) {
            LockSupport.parkNanos(80_000_000);
            assertThat(onFx(this::firstColumn)).isEqualTo(column);
        }
        release(javafx.scene.input.MouseButton.PRIMARY);
        await(() -> !session.performing().isHeld(now().pad(1).orElseThrow()));
        await(() -> lastStarted() != 72);
        assertThat(now()).isEqualTo(before);
    }

    private int rows() {
        return session.transport().traces().steps("bass/carom").size();
    }

    private int firstColumn() {
        return session.transport().traces().steps("bass/carom").stream()
                .findFirst()
                .map(cell -> cell % 8)
                .orElse(-1);
    }

    @Test
    void aPadThatIsAboutWhatIsGoneSaysSo() {
        does(piece -> piece.withPad(Pad.of(0, Does.MUTE, "gone", "", When.NOW))
                .withPad(Pad.of(1, Does.MOMENT, "", "Flood", When.NOW)));
        clickOn("#pad-0");
        assertThat(session.messages().last().get())
                .isEqualTo(
                        "Pad 1 is about the part “gone”, which is not there any more; the other mouse button sets it up.");
        clickOn("#pad-1");
        assertThat(session.messages().last().get()).contains("the moment “Flood”");
    }

    @Test
    void padsHaveEightPages() {
        push(KeyCode.PAGE_DOWN);
        await(() ->
                onFx(() -> lookup("#pad-0 .pad-number").queryLabeled().getText().equals("17")));
        clickOn("#pads-before");
        clickOn("#pads-before");
        await(() -> onFx(
                () -> lookup("#pad-15 .pad-number").queryLabeled().getText().equals("128")));
    }

    @Test
    void threeTapsSetTheTempo() {
        does(piece -> piece.withPad(Pad.of(0, Does.TAP, "", "", When.NOW)));
        for (int i = 0; i < 5; i++) {
            clickOn("#pad-0");
        }
        assertThat(session.messages().last().get()).startsWith("Tempo ").endsWith("as tapped.");
        assertThat(now().time().tempo().bpmAt(0)).isNotEqualTo(240);
    }

    @Test
    void arrowsWalkThePadsAndPartsAreMutedHere() {
        push(KeyCode.RIGHT);
        push(KeyCode.DOWN);
        assertThat(onFx(() -> lookup("#pad-5").query().isFocused())).isTrue();
        clickOn("#play-mute-bass");
        await(() -> now().part("bass").orElseThrow().mix().mute());
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(now().part("bass").orElseThrow().mix().mute()).isFalse();
    }
}
