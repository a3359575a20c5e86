package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import harpel.app.look.Look.View;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectCatalog;
import harpel.effect.notes.Carom;
import harpel.engine.LiveStatus.Mode;
import harpel.param.type.PathType.Point;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Lane;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Pad;
import harpel.piece.perform.Pad.Does;
import harpel.piece.perform.When;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.UnaryOperator;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Lanes of points, and writing what is done while the timeline plays. */
class WindowWritingTest extends WindowCase {
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    private final Lane<Boolean> echo = Lane.ofSwitch(StageAddress.parse("lead/echo"));
    private final Lane<Double> lever = new Lane.OfLever("Tide");
    private final Lane<Boolean> mute = new Lane.OfMute("lead");

    @Override
    String parts() {
        return "{'name':'Lead','chain':[{'effect':'echo'}]}";
    }

    @Override
    Piece piece() {
        return super.piece()
                .withTime(new TimeMap(TempoMap.of(400), MeterMap.FOUR_FOUR))
                .withLevers(List.of(Lever.of("Tide", 20)))
                .withTimeline(true)
                .withPart("lead", part -> part.withBlocks(List.of(Block.of(0, 64 * BAR, ""))));
    }

    @BeforeEach
    void open() {
        push(KeyCode.CONTROL, KeyCode.DIGIT3);
        await(() -> session.look().view().get() == View.TIMELINE
                && onFx(() -> lookup("#board-timeline").tryQuery().isPresent()));
        settle();
    }

    private Piece now() {
        return session.document().piece().get();
    }

    private void does(UnaryOperator<Piece> change) {
        interact(() -> session.document().apply(PieceEdit.of("Do", change)));
    }

    private void playFor(long ticks) {
        long from = session.timeline().now();
        await(() -> session.transport().status().mode() == Mode.PLAYING
                && session.timeline().now() >= from + ticks);
    }

    @Test
    void aLaneIsBegunForAValueOfAStageAndTakenAway() {
        clickOn("#add-lane");
        clickOn("#lanes-echo");
        clickOn("#lane-on");
        await(() -> echo.points(now()).equals(List.of(new Point<>(0, true))));
        settle();
        clickOn(onFx(() -> pane.timeline().lanePlace(0, 4 * BAR, 0)));
        await(() -> echo.points(now()).size() == 2);
        assertThat(echo.points(now())).last().isEqualTo(new Point<>(4 * BAR, false));
        doubleClickOn(onFx(() -> pane.timeline().lanePlace(0, 4 * BAR, 0)));
        await(() -> onFx(() -> lookup("#point-field").query().isFocused()));
        write("perhaps");
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).startsWith("Echo: On must be true or false");
        push(KeyCode.ESCAPE);
        clickOn("#remove-lane-0");
        await(() -> echo.points(now()).isEmpty());
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(echo.points(now())).hasSize(2);
    }

    @Test
    void whatIsDoneWhileItPlaysIsWrittenWithOneUndo() {
        Piece before = now();
        clickOn("#write");
        assertThat(session.writing().armed().get()).isTrue();
        push(KeyCode.SPACE);
        playFor(BAR);
        clickOn("#mute-lead");
        does(piece -> echo.withBase(piece, false));
        does(piece -> lever.withBase(piece, 80.0));
        playFor(BAR);
        clickOn("#mute-lead");
        playFor(BAR / 2);
        push(KeyCode.SPACE);
        await(() -> !session.writing().armed().get());
        assertThat(session.messages().last().get()).isEqualTo("Written: Mute of Lead, Echo: On of Lead, Lever “Tide”.");
        assertThat(mute.points(now())).extracting(Point::value).containsExactly(false, true, false);
        assertThat(mute.points(now()).get(1).tick()).isGreaterThanOrEqualTo(BAR);
        assertThat(mute.base(now())).isFalse();
        assertThat(echo.points(now())).extracting(Point::value).containsExactly(true, false);
        assertThat(echo.base(now())).isTrue();
        assertThat(lever.points(now())).extracting(Point::value).containsExactly(20.0, 80.0);
        assertThat(lever.base(now())).isEqualTo(20);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(now()).isEqualTo(before);
    }

    @Test
    void whatStandsWrittenGivesWayToTheHandAndHoldsAgainBehindIt() {
        does(piece -> lever.with(lever.with(piece, 0, 0.0), 64 * BAR, 64.0));
        clickOn("#write-adding");
        push(KeyCode.CONTROL, KeyCode.ALT, KeyCode.W);
        push(KeyCode.SPACE);
        playFor(BAR);
        AtomicBoolean gaveWay = new AtomicBoolean();
        interact(() -> session.document()
                .piece()
                .addListener((property, before, piece) ->
                        gaveWay.compareAndSet(false, lever.points(piece).isEmpty())));
        does(piece -> lever.withBase(piece, 90.0));
        await(() -> gaveWay.get() && lever.points(now()).size() == 2);
        push(KeyCode.SPACE);
        await(() -> !session.writing().armed().get());
        List<Point<Double>> points = lever.points(now());
        assertThat(points).extracting(Point::value).contains(90.0);
        assertThat(points.get(0)).isEqualTo(new Point<>(0, 0.0));
        assertThat(points.get(points.size() - 1)).isEqualTo(new Point<>(64 * BAR, 64.0));
        assertThat(lever.at(now(), 32 * BAR)).isBetween(31.0, 33.0);
    }

    @Test
    void aMomentThatGlidesIsWrittenAsItWasHeard() {
        harpel.piece.perform.Moment loud = harpel.piece.perform.Moment.of("Loud", lever.withBase(now(), 90.0))
                .withWhen(new harpel.piece.perform.When(2))
                .withGlide(2);
        does(piece -> piece.withMoments(List.of(loud)));
        push(KeyCode.CONTROL, KeyCode.ALT, KeyCode.W);
        push(KeyCode.SPACE);
        playFor(BAR / 4);
        long[] due = {0};
        interact(() -> {
            session.performing().recall(loud);
            due[0] = session.performing().waitsFor(loud).orElseThrow();
        });
        await(() -> lever.base(now()) == 90);
        playFor(BAR);
        push(KeyCode.SPACE);
        await(() -> !session.writing().armed().get());
        assertThat(due[0] % (2 * BAR)).isZero();
        assertThat(lever.at(now(), due[0])).as("the very bar").isEqualTo(20);
        assertThat(lever.at(now(), due[0] + Ticks.PER_QUARTER)).isBetween(53.0, 57.0);
        assertThat(lever.at(now(), due[0] + 2 * Ticks.PER_QUARTER)).isEqualTo(90);
    }

    @Test
    void whatPadsPlayAndTiltIsWrittenWhereItWasHeard() {
        does(piece -> piece.withPhrase(Phrase.of("Crab", BAR, List.of(Note.of(0, BAR / 4, 72, 90))))
                .withPart(
                        "lead",
                        one -> one.withChain(new Chain(List.of(Stage.of("carom", EffectCatalog.of("carom")))))));
        Piece before = now();
        interact(() -> session.writing().toggle());
        push(KeyCode.SPACE);
        playFor(BAR / 8);
        Pad fill = Pad.of(0, Does.FILL, "lead", "crab", When.BAR);
        Pad tilt = Pad.of(1, Does.TILT, "lead", "up", When.BEAT);
        long[] due = new long[2];
        interact(() -> {
            session.performing().press(fill);
            due[0] = session.performing().waitsFor(fill).orElseThrow();
            session.performing().press(tilt);
            due[1] = session.performing().waitsFor(tilt).orElseThrow();
        });
        await(() -> session.timeline().now() > due[0] + BAR / 2);
        interact(() -> session.performing().release(tilt));
        await(() -> session.timeline().now() > due[0] + 5 * BAR / 4);
        push(KeyCode.SPACE);
        await(() -> !session.writing().armed().get());
        assertThat(now().part("lead").orElseThrow().blocks())
                .extracting(Block::at, Block::length, Block::phrase)
                .containsExactly(
                        tuple(0L, due[0], ""),
                        tuple(due[0], BAR, "crab"),
                        tuple(due[0] + BAR, 64 * BAR - due[0] - BAR, ""));
        Lane<Carom.Tilt> lane = new Lane.OfStage<>(StageAddress.parse("lead/carom"), Carom.TILT);
        assertThat(lane.at(now(), due[1] - 1)).isEqualTo(Carom.Tilt.OFF);
        assertThat(lane.at(now(), due[1])).isEqualTo(Carom.Tilt.UP);
        assertThat(lane.at(now(), due[0] + BAR)).isEqualTo(Carom.Tilt.OFF);
        assertThat(session.messages().last().get()).contains("Written: ").contains("tilt of the board");
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(now()).isEqualTo(before);
    }

    @Test
    void loopsHaveNothingToWriteOn() {
        does(piece -> piece.withTimeline(false));
        clickOn("#write");
        assertThat(session.messages().last().get()).contains("plays loops");
        assertThat(session.writing().armed().get()).isFalse();
        assertThat(onFx(() -> lookup("#write").queryAs(ToggleButton.class).isSelected()))
                .isFalse();
    }

    @Test
    void marksKeysAndTempiAreCarriedWithOneUndo() {
        does(piece -> piece.withMarks(List.of(harpel.piece.Mark.of(4 * BAR, "Storm"))));
        settle();
        drag(
                onFx(() -> pane.timeline().place(4.1 * BAR, -1)),
                onFx(() -> pane.timeline().place(9.1 * BAR, -1)));
        await(() -> now().marks().get(0).tick() == 9 * BAR);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(now().marks().get(0).tick()).isEqualTo(4 * BAR);
    }
}
