package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.desk.TimelineDesk.Snap;
import harpel.app.look.Look.View;
import harpel.engine.LiveStatus;
import harpel.engine.LiveStatus.Mode;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Block;
import harpel.piece.Bracket;
import harpel.piece.KeyChange;
import harpel.piece.Mark;
import harpel.piece.Mix;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.Timeline;
import harpel.piece.Timeline.Ref;
import harpel.piece.perform.Lever;
import harpel.theory.Key;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.geometry.Point2D;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The Timeline view: each gesture by mouse and by keyboard. */
class WindowTimelineTest extends WindowCase {
    private static final long BAR = 4L * Ticks.PER_QUARTER;

    @Override
    String parts() {
        return "{'name':'Lead','phrase':'tide','chain':[]},{'name':'Clock','chain':[{'effect':'pulse'}],'channel':2},"
                + "{'name':'Below','input':{'output-of':'lead'},'chain':[],'channel':3}";
    }

    @Override
    Piece piece() {
        return super.piece()
                .withPhrase(Phrase.of("Tide", 2 * BAR, List.of(Note.of(0, BAR, 60, 90), Note.of(BAR, BAR, 62, 90))))
                .withTime(new TimeMap(TempoMap.of(400), MeterMap.FOUR_FOUR));
    }

    @BeforeEach
    void open() {
        push(KeyCode.CONTROL, KeyCode.DIGIT3);
        await(() -> session.look().view().get() == View.TIMELINE
                && onFx(() -> lookup("#board-timeline").tryQuery().isPresent()));
        settle();
    }

    @Test
    void behindTheLastBlockItStopsAndGoesBackToWhereItBegan() {
        interact(() -> {
            session.document()
                    .apply(PieceEdit.of(
                            "Block",
                            piece -> piece.withTimeline(true)
                                    .withPart("lead", part -> part.withBlocks(List.of(Block.of(0, 2 * BAR, "tide"))))
                                    // One without blocks plays on for ever, unheard.
                                    .withPart("clock", part -> part.withMix(Mix.PLAIN.withMute(true)))));
            session.transport().player().locate(BAR);
            session.transport().play();
        });
        await(() -> session.transport().status().mode() == LiveStatus.Mode.PLAYING);
        await(() -> session.transport().status().mode() == LiveStatus.Mode.STOPPED);
        assertThat(session.messages().last().get()).isEqualTo("The end. Back to bar 2.");
        await(() -> session.transport().status().anchorTick() == BAR);
    }

    @Test
    void whyPickedBlocksAreNotJoinedIsSaid() {
        Block first = Block.of(0, 2 * BAR, "tide");
        Block second = Block.of(2 * BAR, 2 * BAR, "tide");
        assertThat(joined(first, Block.of(3 * BAR, BAR, "tide")))
                .isEqualTo("Pick blocks of one part that lie side by side to join them.");
        assertThat(joined(first, second.withVariation(7)))
                .isEqualTo("Blocks of different variations cannot be joined: give them the same.");
        assertThat(joined(first, second.withChain(false))).startsWith("One block goes through the chain");
        assertThat(joined(first, second.withPhrase(""))).isEqualTo("A block without a phrase cannot be joined.");
        assertThat(now().part("lead").orElseThrow().blocks()).hasSize(2);
    }

    /** What is said where two blocks are picked and joined. */
    private String joined(Block one, Block next) {
        interact(() -> {
            session.document()
                    .apply(PieceEdit.of(
                            "Blocks", piece -> piece.withPart("lead", part -> part.withBlocks(List.of(one, next)))));
            session.timeline().picked().set(Set.of(new Ref("lead", one.at()), new Ref("lead", next.at())));
            session.timeline().join();
        });
        return session.messages().last().get();
    }

    private Piece now() {
        return session.document().piece().get();
    }

    private Point2D at(double bar, double row) {
        return onFx(() -> pane.timeline().place(bar * BAR, row));
    }

    /** "0+2 tide, 4+1": where each block of a part begins, how long it is, and what it plays, in bars. */
    private String blocks(String part) {
        return now().part(part).orElseThrow().blocks().stream()
                .map(block -> (block.at() / (double) BAR + "+" + block.length() / (double) BAR).replace(".0", "")
                        + (block.phrase().isEmpty() ? "" : " " + block.phrase()))
                .collect(Collectors.joining(", "));
    }

    private void set(String part, Block... blocks) {
        interact(() -> session.document()
                .apply(harpel.piece.PieceEdit.of(
                        "Blocks",
                        piece -> piece.withTimeline(true).withPart(part, one -> one.withBlocks(List.of(blocks))))));
        settle();
    }

    private void pick(String part, long bar) {
        clickOn(at(bar + 0.5, now().parts().indexOf(now().part(part).orElseThrow())));
        await(() -> session.timeline().picked().get().contains(new Ref(part, bar * BAR)));
    }

    @Test
    void blocksAreDrawnMovedCopiedResizedAndRemovedByMouse() {
        drag(at(0.4, 0), at(1.6, 0));
        await(() -> blocks("lead").equals("0+2 tide"));
        assertThat(now().timeline()).as("the first lets the piece play so").isTrue();
        assertThat(session.messages().last().get())
                .isEqualTo("A block of “Tide” from bar 1 to bar 3. The piece plays as its timeline now.");
        drag(at(3.2, 1), at(3.7, 1));
        await(() -> blocks("clock").equals("3+1"));
        drag(at(1, 0), at(3, 0));
        await(() -> blocks("lead").equals("2+2 tide"));
        moveTo(at(3, 0)).press(KeyCode.CONTROL);
        drag(at(3, 0), at(5, 0));
        release(KeyCode.CONTROL);
        await(() -> blocks("lead").equals("2+2 tide, 4+2 tide"));
        drag(at(5.99, 0), at(7, 0));
        await(() -> blocks("lead").equals("2+2 tide, 4+3 tide"));
        push(KeyCode.CONTROL, KeyCode.Z);
        await(() -> blocks("lead").equals("2+2 tide, 4+2 tide"));
        pick("lead", 2);
        push(KeyCode.DELETE);
        await(() -> blocks("lead").equals("4+2 tide"));
        drag(at(4.2, 0), at(2.2, 0));
        drag(at(2.5, 0), at(2.5, 1));
        await(() -> blocks("lead").isEmpty() && blocks("clock").equals("2+2 tide"));
    }

    @Test
    void oneLaidOverAnotherCutsItWithOneUndo() {
        set("lead", Block.of(0, 4 * BAR, "tide"), Block.of(5 * BAR, BAR, "tide"));
        drag(at(5.5, 0), at(1.5, 0));
        await(() -> blocks("lead").equals("0+1 tide, 1+1 tide, 2+2 tide"));
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(blocks("lead")).isEqualTo("0+4 tide, 5+1 tide");
    }

    @Test
    void endsOfPickedBlocksMoveAsFarAsTheNextPickedOne() {
        set("lead", Block.of(0, BAR, "tide"), Block.of(BAR, BAR, "tide"), Block.of(4 * BAR, BAR, "tide"));
        push(KeyCode.CONTROL, KeyCode.A);
        push(KeyCode.SHIFT, KeyCode.RIGHT);
        assertThat(blocks("lead")).isEqualTo("0+1 tide, 1+2 tide, 4+2 tide");
        push(KeyCode.SHIFT, KeyCode.RIGHT);
        push(KeyCode.SHIFT, KeyCode.RIGHT);
        assertThat(blocks("lead")).isEqualTo("0+1 tide, 1+3 tide, 4+4 tide");
        assertThat(session.timeline().picked().get()).hasSize(3);
    }

    @Test
    void everythingIsDoneByKeys() {
        push(KeyCode.N);
        await(() -> blocks("lead").equals("0+2 tide"));
        push(KeyCode.RIGHT);
        push(KeyCode.RIGHT);
        assertThat(blocks("lead")).isEqualTo("2+2 tide");
        push(KeyCode.SHIFT, KeyCode.RIGHT);
        assertThat(blocks("lead")).isEqualTo("2+3 tide");
        push(KeyCode.D);
        assertThat(blocks("lead")).isEqualTo("2+3 tide, 5+3 tide");
        push(KeyCode.TAB);
        assertThat(session.timeline().picked().get()).containsExactly(new Ref("lead", 2 * BAR));
        interact(() -> session.transport().engine().locate(3 * BAR));
        await(() -> session.timeline().now() == 3 * BAR);
        push(KeyCode.X);
        assertThat(blocks("lead")).isEqualTo("2+1 tide, 3+2 tide, 5+3 tide");
        push(KeyCode.CONTROL, KeyCode.A);
        push(KeyCode.J);
        assertThat(blocks("lead"))
                .as("the copy begins its phrase anew, so both become one of their own")
                .isEqualTo("2+6 tide-2");
        push(KeyCode.DOWN);
        assertThat(blocks("clock")).isEqualTo("2+6 tide-2");
        push(KeyCode.DELETE);
        assertThat(Timeline.all(now())).isEmpty();
        push(KeyCode.Q);
        settle();
        assertThat(starts()).as("letters belong to the blocks").isEmpty();
    }

    @Test
    void severalArePickedByFrameAndMoveTogether() {
        set("lead", Block.of(0, BAR, "tide"), Block.of(2 * BAR, BAR, "tide"));
        set("clock", Block.of(0, BAR, ""));
        press(KeyCode.SHIFT);
        drag(at(1.5, 0), at(0.2, 1));
        release(KeyCode.SHIFT);
        await(() -> session.timeline().picked().get().size() == 2);
        assertThat(text("#block-title")).isEqualTo("2 blocks");
        drag(at(0.5, 0), at(4.5, 0));
        await(() ->
                blocks("lead").equals("2+1 tide, 4+1 tide") && blocks("clock").equals("4+1"));
    }

    @Test
    void lanesTakeWhatIsTyped() {
        set("lead", Block.of(0, 8 * BAR, "tide"));
        type(2, -1, "Tide turns");
        assertThat(now().marks()).containsExactly(Mark.of(2 * BAR, "Tide turns"));
        type(4, -2, "F major");
        assertThat(now().keys()).containsExactly(KeyChange.of(4 * BAR, Key.parse("F major")));
        type(4, -3, "104");
        assertThat(now().time().tempo().bpmAt(4 * BAR)).isEqualTo(104);
        type(6, -4, "3/4");
        assertThat(now().time().meter().at(6 * BAR).shown()).isEqualTo("3/4");
        doubleClickOn(at(5, -2));
        write("Q sharp");
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).startsWith("a root is a note name such as C");
        assertThat(onFx(() -> lookup("#lane-field").queryAs(TextField.class).isVisible()))
                .as("it stays to be mended")
                .isTrue();
        push(KeyCode.ESCAPE);
        assertThat(now().keys()).hasSize(1);
        type(4.02, -2, "");
        assertThat(now().keys()).isEmpty();
        push(KeyCode.CONTROL, KeyCode.PAGE_UP);
        await(() -> session.timeline().now() == 2 * BAR);
        assertThat(session.messages().last().get()).isEqualTo("At “Tide turns”, bar 3.");
    }

    private void type(double bar, int lane, String text) {
        doubleClickOn(at(bar, lane));
        await(() -> onFx(() -> lookup("#lane-field").query().isFocused()));
        if (text.isEmpty()) {
            push(KeyCode.DELETE);
        } else {
            write(text);
        }
        push(KeyCode.ENTER);
        settle();
    }

    @Test
    void thePanelSaysAndSetsWhereABlockLies() {
        set("lead", Block.of(BAR, 2 * BAR, "tide"));
        pick("lead", 1);
        assertThat(text("#block-title")).isEqualTo("Tide");
        assertThat(text("#block-about")).isEqualTo("Lead, bar 2 to bar 4");
        enter("#block-lasts", "4");
        assertThat(blocks("lead")).isEqualTo("1+4 tide");
        enter("#block-begins", "3");
        assertThat(blocks("lead")).isEqualTo("2+4 tide");
        enter("#block-from", "2");
        enter("#block-variation", "23");
        clickOn("#block-past");
        Block block = now().part("lead").orElseThrow().blocks().get(0);
        assertThat(block.from()).isEqualTo(BAR);
        assertThat(block.variation()).isEqualTo(23);
        assertThat(block.chain()).isFalse();
        enter("#block-from", "9");
        assertThat(session.messages().last().get()).isEqualTo("The phrase ends before “9”.");
        push(KeyCode.ESCAPE);
        clickOn("#block-own");
        assertThat(now().part("lead").orElseThrow().blocks().get(0).phrase()).isEqualTo("tide-2");
        clickOn("#block-open");
        await(() -> session.look().view().get() == View.PHRASE);
        assertThat(session.desk().phraseId().get()).isEqualTo("tide-2");
    }

    private void enter(String field, String text) {
        doubleClickOn(field);
        push(KeyCode.CONTROL, KeyCode.A);
        write(text);
        push(KeyCode.ENTER);
        settle();
    }

    @Test
    void itPlaysAsItIsDrawnAndAsLoopsAgain() {
        set("lead", Block.of(BAR, BAR, "tide"));
        set("clock", Block.of(9 * BAR, BAR, ""));
        assertThat(onFx(() ->
                        lookup("#plays-timeline").queryAs(ToggleButton.class).isSelected()))
                .isTrue();
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == Mode.PLAYING);
        await(() -> session.timeline().now() > 3 * BAR);
        push(KeyCode.SPACE);
        assertThat(starts()).as("lead and below, once, for one bar").containsExactlyInAnyOrder("60 90", "60 90");
        clickOn("#plays-loops");
        assertThat(now().timeline()).isFalse();
        clickOn(at(4, -4));
        await(() -> session.timeline().now() == 4 * BAR);
    }

    @Test
    void aStretchComesRoundByDragAndByKeys() {
        set("lead", Block.of(0, 4 * BAR, "tide"));
        press(KeyCode.SHIFT);
        drag(at(1.1, -4), at(2.9, -4));
        release(KeyCode.SHIFT);
        await(() -> now().bracket().equals(new Bracket(BAR, 3 * BAR, true)));
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(now().bracket()).as("one undo for the drag").isEqualTo(Bracket.NONE);
        push(KeyCode.CONTROL, KeyCode.Y);
        assertThat(text("#loop-title")).isEqualTo("bar 2 to bar 4 comes round; the rest waits.");
        push(KeyCode.SPACE);
        await(() -> starts().size() >= 12);
        assertThat(session.timeline().now()).isBetween(BAR, 3 * BAR);
        push(KeyCode.SPACE);
        await(() -> session.transport().status().mode() == Mode.STOPPED);
        assertThat(session.timeline().now()).as("it stands in the loop").isBetween(BAR, 3 * BAR);
        push(KeyCode.L);
        assertThat(now().bracket().on()).isFalse();
        pick("lead", 0);
        push(KeyCode.L);
        assertThat(now().bracket()).isEqualTo(new Bracket(0, 4 * BAR, true));
        clickOn("#loop-on");
        assertThat(now().bracket().on()).isFalse();
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(now().bracket().on()).isTrue();
    }

    @Test
    void aLeversPointsAreSetDraggedTypedAndTakenAway() {
        set("lead", Block.of(0, 8 * BAR, "tide"));
        clickOn("#add-lane");
        clickOn("#lane-lever-0");
        await(() -> points().size() == 1);
        settle();
        clickOn(onFx(() -> pane.timeline().lanePlace(0, 2 * BAR, 0.8)));
        await(() -> points().size() == 2);
        interact(() -> session.document()
                .apply(harpel.piece.PieceEdit.of(
                        "Without the first",
                        piece -> new harpel.piece.Lane.OfLever(
                                        piece.levers().get(0).name())
                                .without(piece, 0))));
        assertThat(points().get(0).tick()).isEqualTo(2 * BAR);
        assertThat(points().get(0).value()).isBetween(75.0, 85.0);
        Point2D from =
                onFx(() -> pane.timeline().lanePlace(0, 2 * BAR, points().get(0).value() / 100));
        drag(from, onFx(() -> pane.timeline().lanePlace(0, 4 * BAR, 0.2)));
        await(() -> points().size() == 1 && points().get(0).tick() == 4 * BAR);
        push(KeyCode.CONTROL, KeyCode.Z);
        assertThat(points().get(0).tick()).as("one undo for the drag").isEqualTo(2 * BAR);
        Point2D point =
                onFx(() -> pane.timeline().lanePlace(0, 2 * BAR, points().get(0).value() / 100));
        doubleClickOn(point);
        await(() -> onFx(() -> lookup("#point-field").query().isFocused()));
        write("35");
        push(KeyCode.ENTER);
        assertThat(points()).containsExactly(new Lever.Point(2 * BAR, 35));
        doubleClickOn(onFx(() -> pane.timeline().lanePlace(0, 2 * BAR, 0.35)));
        await(() -> onFx(() -> lookup("#point-field").query().isFocused()));
        push(KeyCode.DELETE);
        push(KeyCode.ENTER);
        assertThat(points()).isEmpty();
    }

    private List<Lever.Point> points() {
        return now().levers().get(0).points();
    }

    @Test
    void aPhraseGoesOntoTheTimelineWhereNowIs() {
        interact(() -> session.transport().engine().locate(2 * BAR));
        await(() -> session.timeline().now() == 2 * BAR);
        push(KeyCode.CONTROL, KeyCode.DIGIT2);
        await(() -> session.look().view().get() == View.PHRASE);
        push(KeyCode.CONTROL, KeyCode.ALT, KeyCode.T);
        assertThat(blocks("lead")).isEqualTo("2+2 tide");
        assertThat(session.messages().last().get())
                .isEqualTo("“Tide” is on the timeline at bar 3. The piece plays as its timeline now.");
    }

    @Test
    void barsComeAndGoWhereNowIs() {
        set("lead", Block.of(0, 4 * BAR, "tide"));
        interact(() -> session.transport().engine().locate(BAR));
        await(() -> session.timeline().now() == BAR);
        clickOn("#insert-bars");
        assertThat(blocks("lead")).isEqualTo("0+1 tide, 2+3 tide");
        clickOn("#take-out-bars");
        assertThat(blocks("lead")).isEqualTo("0+1 tide, 1+3 tide");
        clickOn("#snap-off");
        assertThat(session.timeline().snap().get()).isEqualTo(Snap.OFF);
    }
}
