package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.chain.EffectMenu;
import harpel.app.chain.TimeWindow;
import harpel.app.look.Theme;
import harpel.app.transport.Places;
import harpel.app.transport.TraceStore;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.held.Arpeggio;
import harpel.effect.notes.Echo;
import harpel.effect.pitch.Transpose;
import harpel.effect.route.Split;
import harpel.engine.LiveStatus;
import harpel.event.NoteStart;
import harpel.format.Presets;
import harpel.move.Source;
import harpel.piece.Part;
import harpel.piece.Rack;
import harpel.testkit.SimulatedController;
import harpel.testkit.Wire;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.image.WritableImage;
import javafx.scene.input.DragEvent;
import javafx.scene.input.Dragboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.TransferMode;
import javafx.scene.paint.Color;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mockito.Mockito;

/** Comparing, looking closely, folding, replacing, pointing: the Chain view's other actions in the real window. */
class WindowCompareTest extends WindowCase {
    @TempDir
    Path folder;

    @Override
    String parts() {
        return "{'name':'Lead','chain':[{'effect':'harmony','voices':[{'degrees':2}],'keep':false},"
                + "{'effect':'echo','label':'Far bells','repeats':3,'time':'1/16','fade':40}]},"
                + "{'name':'Drums','channel':10,'chain':[{'effect':'pulse','root':36}]}";
    }

    private List<String> chain() {
        return session.selection().part().chain().stages().stream()
                .map(stage -> stage.kind().id())
                .toList();
    }

    private void shortcut(KeyCode... keys) {
        press(KeyCode.CONTROL);
        push(keys);
        release(KeyCode.CONTROL);
    }

    @Test
    void aAndBAreHeardInTurnWithWhatDiffersListed() {
        clickOn("#chain-b");
        select("echo");
        shortcut(KeyCode.DELETE);
        assertThat(chain()).containsExactly("harmony");
        push(KeyCode.F2);
        assertThat(chain()).containsExactly("harmony", "echo");
        assertThat(lookup("#chain-a").queryAs(ToggleButton.class).isSelected()).isTrue();
        MenuButton compare = lookup("#compare").queryAs(MenuButton.class);
        interact(compare::show);
        assertThat(compare.getItems())
                .extracting(MenuItem::getText)
                .contains("From A to B:", "Far bells: only in the first");
        interact(compare::hide);
        shortcut(KeyCode.Z);
        assertThat(chain()).as("switching is undone like anything else").containsExactly("harmony");
        choose("#compare", "make-alike");
        push(KeyCode.F2);
        assertThat(chain()).containsExactly("harmony");
        choose("#compare", "keep-one");
        assertThat(session.selection().part().rack())
                .isEqualTo(Rack.of(session.selection().part().chain()));
    }

    @Test
    void switchingBetweenAAndBWhilePlayingLeavesNoNoteHanging() {
        clickOn("#chain-b");
        interact(() -> session.selection().edit("test", "", List.of(), chain -> chain.minus("echo")));
        interact(() -> session.transport().press(60, 100));
        await(() -> !starts().isEmpty());
        for (int i = 0; i < 6; i++) {
            push(KeyCode.F2);
        }
        interact(() -> session.transport().release(60));
        await(() -> Wire.open(messages()).isEmpty());
    }

    @Test
    void theWholeChainIsSwitchedOffAndOn() {
        choose("#chain-more", "chain-off");
        play(60, 100);
        await(() -> starts().equals(List.of("60 100")));
        // The chain goes on unheard; its echoes are over when time stands.
        await(() -> session.transport().status().mode() == LiveStatus.Mode.STOPPED);
        press(KeyCode.CONTROL, KeyCode.SHIFT);
        push(KeyCode.B);
        release(KeyCode.SHIFT, KeyCode.CONTROL);
        assertThat(session.selection().part().rack().off()).isFalse();
        play(62, 100);
        await(() -> starts().size() == 5);
        assertThat(starts().subList(1, 5))
                .as("a third up in C major")
                .containsExactly("65 100", "65 60", "65 36", "65 22");
    }

    @Test
    void aNotesWayIsToldWhenItIsPointedAt() {
        play(60, 60);
        await(() -> starts().size() == 4);
        TimeWindow window = pane.chain().window();
        push(KeyCode.F4);
        List<TraceStore.Drawn> notes =
                onFx(() -> session.transport().traces().last(Places.at(StageAddress.parse("lead/echo")), 10));
        NoteStart second = notes.get(2).note;
        // Rows share the height there is over some frames: it is looked for where it is by now.
        await(() -> {
            Bounds bounds = bounds("#stage-echo .trace");
            moveTo(new Point2D(
                    bounds.getMinX() + window.x(second.tick(), bounds.getWidth()) + 1,
                    bounds.getMinY() + window.y(second.pitch(), bounds.getHeight())));
            return !text("#pointed").isEmpty();
        });
        assertThat(text("#pointed")).isEqualTo("E4 from C4: harmony up two degrees, echo 2 of 3, 60 → 22");
    }

    @Test
    void tracesZoomFreezeAndGoBack() {
        TimeWindow window = pane.chain().window();
        double bars = window.bars();
        shortcut(KeyCode.EQUALS);
        assertThat(window.bars()).isLessThan(bars);
        shortcut(KeyCode.MINUS);
        shortcut(KeyCode.MINUS);
        assertThat(window.bars()).isGreaterThan(bars);
        choose("#chain-more", "pitch-in");
        assertThat(window.pitchZoom()).isGreaterThan(1);
        shortcut(KeyCode.DIGIT0);
        assertThat(window.bars()).isEqualTo(bars);
        assertThat(window.pitchZoom()).isEqualTo(1);
        interact(() -> session.transport().play());
        await(() -> window.nowTick() > 20_000);
        choose("#chain-more", "freeze");
        double from = window.fromTick();
        press(KeyCode.ALT);
        push(KeyCode.LEFT);
        release(KeyCode.ALT);
        assertThat(window.fromTick()).isLessThan(from);
        await(() -> text("#standing").startsWith("frozen, "));
        double stays = window.fromTick();
        await(() -> window.nowTick() > 40_000);
        assertThat(window.fromTick()).as("it stays while time goes on").isEqualTo(stays);
        choose("#chain-more", "freeze");
        assertThat(window.fromTick()).isGreaterThan(stays);
        interact(() -> session.transport().stop());
    }

    @Test
    void theDifferenceOfAStageIsDrawn() {
        TimeWindow window = pane.chain().window();
        interact(() -> session.transport().press(60, 100));
        // Long enough to be seen beside the line for now.
        await(() -> window.nowTick() > 20_000);
        interact(() -> session.transport().release(60));
        select("harmony");
        choose("#chain-more", "difference");
        Color brass = Theme.DAY.brass;
        await(() -> pixels("#stage-harmony .trace", brass) > 10);
        int without = pixels("#stage-echo .trace", Theme.DAY.red);
        assertThat(pixels("#stage-harmony .trace", Theme.DAY.red))
                .as("the played note was taken away and is outlined")
                .isGreaterThan(without);
        shortcut(KeyCode.J);
        await(() -> pixels("#stage-harmony .trace", Theme.DAY.red) <= without);
    }

    /** How many pixels of a node have very nearly a colour, the line for now left out. */
    private int pixels(String node, Color wanted) {
        return onFx(() -> {
            WritableImage image = lookup(node).query().snapshot(null, null);
            int found = 0;
            for (int x = 0; x < image.getWidth() * (TimeWindow.NOW - 0.02); x++) {
                for (int y = 0; y < image.getHeight(); y++) {
                    Color seen = image.getPixelReader().getColor(x, y);
                    double away = Math.abs(seen.getRed() - wanted.getRed())
                            + Math.abs(seen.getGreen() - wanted.getGreen())
                            + Math.abs(seen.getBlue() - wanted.getBlue());
                    found += away < 0.06 ? 1 : 0;
                }
            }
            return found;
        });
    }

    @Test
    void aStageIsFoldedAndReplacedAndShowsItsLabel() {
        Node row = lookup("#stage-echo").query();
        assertThat(lookup("#stage-echo .label").queryAllAs(javafx.scene.control.Label.class))
                .extracting(javafx.scene.control.Label::getText)
                .contains("Far bells", "Echo");
        double tall = onFx(() -> row.getBoundsInParent().getHeight());
        select("echo");
        shortcut(KeyCode.F);
        await(() -> onFx(() -> row.getBoundsInParent().getHeight()) < tall - 8);
        double folded = onFx(() -> row.getBoundsInParent().getHeight());
        clickOn("#fold-echo");
        await(() -> onFx(() -> row.getBoundsInParent().getHeight()) > folded + 8);
        shortcut(KeyCode.R);
        clickOn("#find-effect");
        write("transpose");
        push(KeyCode.ENTER);
        await(() -> chain().equals(List.of("harmony", "transpose")));
        assertThat(session.selection().part().chain().stages().get(1).name())
                .as("the label fits there, too")
                .isEqualTo("Far bells");
    }

    @Test
    void presetsAreGoneThroughAndHeardAndOneUndoTakesAllBack() {
        select("echo");
        Stage before = session.selection().part().chain().find("echo").orElseThrow();
        List<Presets.Preset> presets = Presets.shipped().of(before.kind());
        clickOn("#preset-next");
        assertThat(session.messages().last().get()).contains(presets.get(0).name());
        clickOn("#preset-next");
        Stage second = session.selection().part().chain().find("echo").orElseThrow();
        assertThat(second.params().get(Echo.REPEATS))
                .isEqualTo(presets.get(1).stage().params().get(Echo.REPEATS));
        assertThat(second.name()).as("the label stays").isEqualTo("Far bells");
        clickOn("#preset-back");
        clickOn("#preset-back");
        assertThat(session.messages().last().get())
                .contains(presets.get(presets.size() - 1).name());
        shortcut(KeyCode.Z);
        assertThat(session.selection().part().chain().find("echo").orElseThrow())
                .isEqualTo(before);
    }

    @Test
    void branchesStandSideBySideAndOneIsHeardAlone() {
        interact(() -> session.selection().edit("test", "", List.of(), chain -> harpel.chain.Chain.EMPTY));
        clickOn("#insert-0");
        clickOn("#find-effect");
        write("split");
        push(KeyCode.ENTER);
        await(() -> chain().equals(List.of("split")));
        interact(() -> EffectMenu.add(
                session.selection(),
                StageAddress.parse("lead/split").branchWay(1),
                0,
                harpel.effect.EffectCatalog.of("transpose")));
        interact(() -> session.selection()
                .edit(
                        "test",
                        "",
                        StageAddress.parse("lead/split").branchWay(1),
                        chain -> chain.withStage("transpose", stage -> stage.with(Transpose.OCTAVES, 1))));
        await(() -> onFx(() -> {
            Bounds first = boundsOf("#branch-split-1");
            Bounds second = boundsOf("#branch-split-2");
            return second.getMinX() > first.getMaxX() && second.getMinY() == first.getMinY();
        }));
        clickOn("#solo-split-1");
        assertThat(session.selection()
                        .part()
                        .chain()
                        .stages()
                        .get(0)
                        .branches()
                        .get(0)
                        .takes()
                        .get(Split.SOLO))
                .isTrue();
        play(60, 100);
        await(() -> starts().equals(List.of("72 100")));
        clickOn("#solo-split-1");
        play(60, 100);
        await(() -> starts().size() == 3);
    }

    private Bounds boundsOf(String node) {
        Node found = lookup(node).query();
        return found.localToScene(found.getBoundsInLocal());
    }

    @Test
    void aLeverIsAddedWhereItsButtonStaysAndTakesItsMoversWithIt() {
        double before = onFx(() -> boundsOf("#add-lever").getMinY());
        clickOn("#add-lever");
        clickOn("#add-lever");
        assertThat(session.document().piece().get().levers()).hasSize(3);
        assertThat(onFx(() -> boundsOf("#add-lever").getMinY()))
                .isCloseTo(before, org.assertj.core.data.Offset.offset(1.0));
        select("echo");
        assertThat(isSeen("#pick-2")).as("the new one is open").isTrue();
        clickOn("#open-lever-0");
        clickOn("#pick-0");
        assertThat(lookup("#pick-0").queryLabeled().getText()).isEqualTo("press a control");
        clickOn("#param-fade");
        assertThat(moversOfFade()).isEqualTo(1);
        clickOn("#remove-lever-0");
        assertThat(moversOfFade()).as("nothing names a lever that is gone").isZero();
        shortcut(KeyCode.Z);
        assertThat(moversOfFade()).isEqualTo(1);
    }

    private int moversOfFade() {
        return session.selection()
                .part()
                .chain()
                .find("echo")
                .orElseThrow()
                .moves()
                .of(Echo.FADE)
                .size();
    }

    @Test
    void aLeverIsShownItsControlByPointingAndFollowsTheKnob() {
        SimulatedController controller =
                new SimulatedController(session.transport().engine());
        select("echo");
        clickOn("#open-lever-0");
        clickOn("#pick-0");
        clickOn("#param-fade");
        assertThat(session.levers().picking().get()).isEmpty();
        assertThat(session.selection()
                        .part()
                        .chain()
                        .find("echo")
                        .orElseThrow()
                        .moves()
                        .of(Echo.FADE))
                .extracting(mover -> mover.settings().get(Source.NAME))
                .containsExactly("Tide");
        assertThat(lookup("#param-fade .tile-reach").query().isVisible())
                .as("how far it moves is drawn")
                .isTrue();
        clickOn("#learn-0");
        controller.control(21, 0);
        await(() ->
                session.document().piece().get().levers().get(0).controllers().equals(List.of(21)));
        await(() -> {
            // The engine takes the lever's controller with its next look at the piece.
            controller.control(21, 0);
            controller.control(21, 127);
            return onFx(() -> lookup("#lever-0").queryAs(Slider.class).getValue()) > 99;
        });
    }

    @Test
    void ownTestPhrasesAreKeptAndSentThroughAnyChain() throws Exception {
        String before = System.getProperty("harpel.home", "");
        System.setProperty("harpel.home", folder.toString());
        try {
            interact(() -> testPhrase("chromatic run").fire());
            interact(() -> session.transport().stop());
            interact(
                    () -> testPhrase("Keep this part’s phrase as a test phrase").fire());
            Path kept = Presets.userFolder().resolveSibling("test-phrases").resolve("chromatic-run.mid");
            assertThat(kept).exists();
            interact(() -> session.selection().partId().set("drums"));
            interact(() -> testPhrase("chromatic-run").fire());
            assertThat(session.selection().part().phrase()).isEqualTo("chromatic-run");
            int notes = session.document()
                    .piece()
                    .get()
                    .phrase("chromatic-run")
                    .orElseThrow()
                    .notes()
                    .size();
            assertThat(notes)
                    .isEqualTo(session.document()
                            .piece()
                            .get()
                            .phrase("test-chromatic-run")
                            .orElseThrow()
                            .notes()
                            .size());
            interact(() -> session.transport().stop());
        } finally {
            System.setProperty("harpel.home", before);
        }
    }

    @Test
    void aChainFileIsDraggedIn() throws Exception {
        Path file = folder.resolve("far.chain.json");
        Files.writeString(file, "{\"harpel\":1,\"chain\":[{\"effect\":\"arpeggio\",\"gate\":33}]}");
        Dragboard board = Mockito.mock(Dragboard.class);
        Mockito.when(board.hasFiles()).thenReturn(true);
        Mockito.when(board.getFiles()).thenReturn(List.of(file.toFile()));
        interact(() -> pane.getOnDragDropped().handle(dropping(board)));
        assertThat(chain()).containsExactly("arpeggio");
        assertThat(value("arpeggio", Arpeggio.GATE)).isEqualTo(33);
        Mockito.when(board.getFiles()).thenReturn(List.of(new File("song.txt")));
        interact(() -> pane.getOnDragDropped().handle(dropping(board)));
        assertThat(session.messages().last().get()).contains("can be dragged in");
    }

    private static DragEvent dropping(Dragboard board) {
        return new DragEvent(DragEvent.DRAG_DROPPED, board, 0, 0, 0, 0, TransferMode.COPY, null, null, null);
    }

    @Test
    void theStageWhereNotesStopIsShownWithTheWayOut() {
        interact(() -> session.selection()
                .edit("test", "", List.of(), chain -> chain.plus(0, harpel.effect.EffectCatalog.of("arpeggio"))));
        interact(() -> session.selection()
                .editStage(
                        "test",
                        "",
                        StageAddress.parse("lead/arpeggio"),
                        stage -> stage.with(Arpeggio.PACE, harpel.time.TimeValue.ofNote("2/1"))
                                .with(Arpeggio.LATE_CATCH, 0.0)));
        interact(() -> session.transport().play());
        await(() -> session.transport().status().tickAt(System.nanoTime()) > 2_000);
        for (int i = 0; i < 4; i++) {
            play(60, 100);
        }
        await(() -> isSeen("#advice-arpeggio")
                && lookup("#advice-arpeggio").queryAs(Hyperlink.class).getText().startsWith("Keep them"));
        clickOn("#advice-arpeggio");
        assertThat(value("arpeggio", Arpeggio.LATCH)).isEqualTo(Arpeggio.LatchMode.REPLACE);
        interact(() -> session.transport().stop());
    }

    @Test
    void pitchesOutsideTheKeyAreNamedAtTheSound() {
        play(66, 100);
        await(() -> starts().size() == 4);
        await(() -> isSeen("#advice-text-sound")
                && text("#advice-text-sound").startsWith("1 of 1 pitches leaves the key: "));
        clickOn("#advice-sound");
        assertThat(chain()).endsWith("scale-fit");
    }

    @Test
    void aDuplicatedDrumPartTakesTheNextFreeDrumAndPartsAreDraggedInTheList() {
        interact(() -> session.selection().partId().set("drums"));
        choose("#part-menu", "duplicate-part");
        assertThat(session.selection().part().channel() + 1).isEqualTo(10);
        assertThat(session.selection().part().chain().stages().get(0).params().get(harpel.effect.notes.Pulse.ROOT))
                .as("36 is taken, 37 the side stick is free")
                .isEqualTo(37);
        drag(on("#part-drums-2", 0.3, 0.5), on("#part-lead", 0.3, 0.9));
        assertThat(session.document().piece().get().parts())
                .extracting(Part::id)
                .containsExactly("drums-2", "lead", "drums");
    }
}
