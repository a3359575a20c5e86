package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Look.View;
import harpel.app.perform.ControllerDesk.Hands;
import harpel.device.SimulatedMachine;
import harpel.effect.notes.Carom;
import harpel.format.MapFile;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.piece.perform.Pad;
import harpel.piece.perform.Pad.Does;
import harpel.piece.perform.When;
import harpel.testkit.RecordingPort;
import harpel.testkit.Wire;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A controller in hand: a simulated one by its messages, and the one in a window of its own. */
class WindowControllerTest extends WindowCase {
    private final SimulatedMachine machine = new SimulatedMachine();
    private final RecordingPort lights = new RecordingPort();
    private SimulatedMachine.Device grid;

    @Override
    String parts() {
        return "{'name':'Lead','chain':[{'effect':'carom','marbles':[]}]},{'name':'Bass','chain':[],'channel':2}";
    }

    @Override
    Piece piece() {
        return super.piece()
                .withLevers(List.of(Lever.of("Tide", 50)))
                .withPads(List.of(Pad.of(0, Does.MUTE, "bass", "", When.NOW)));
    }

    @Override
    harpel.device.MachineDevices machine() {
        grid = machine.plugIn("Grid");
        machine.plugIn("Grid", lights);
        return machine;
    }

    private void take(String map) {
        session.transport().devices().look();
        interact(() -> session.controller().take("Grid", map));
        settle();
    }

    private Piece now() {
        return session.document().piece().get();
    }

    /** The note of a pad, from the top left. */
    private static int note(int column, int row) {
        return 36 + (7 - row) * 8 + column;
    }

    private void tap(int column, int row) {
        grid.play(0x90, note(column, row), 90);
        grid.play(0x80, note(column, row), 64);
        settle();
    }

    private int light(int column, int row) {
        return lights.sent().stream()
                .map(RecordingPort.Sent::message)
                .filter(one -> (one[0] & 0xFF) == 0x90 && one[1] == note(column, row))
                .reduce((before, after) -> after)
                .map(one -> (int) one[2])
                .orElse(-1);
    }

    @Test
    void itReachesAllPagesOfPads() {
        interact(() -> session.document()
                .apply(harpel.piece.PieceEdit.of(
                        "A pad on the last page",
                        piece -> piece.withPad(Pad.of(7 * Pad.PAGE, Does.SOLO, "lead", "", When.NOW)))));
        take("pads-8x8-rows-of-8");
        for (int i = 0; i < 3; i++) {
            tap(1, 0);
        }
        await(() -> session.messages().last().get().equals("Pads: pages 7–8 of 8."));
        tap(4, 4);
        await(() -> now().part("lead").orElseThrow().mix().solo());
        tap(1, 0);
        await(() -> session.messages().last().get().equals("Pads: pages 1–2 of 8."));
    }

    @Test
    void itsPadsPlayTheScreensAndItsLightsSaySo() {
        take("pads-8x8-rows-of-8");
        await(() -> light(0, 4) == 3);
        assertThat(light(1, 0)).as("the pads are in hand").isEqualTo(3);
        assertThat(light(0, 0)).as("leads to the board").isEqualTo(9);
        tap(0, 4);
        await(() -> now().part("bass").orElseThrow().mix().mute());
        await(() -> light(0, 4) == 1);
        int sent = lights.sent().size();
        settle();
        assertThat(lights.sent()).as("nothing has changed").hasSize(sent);
        interact(() -> session.controller().take("", "pads-8x8-rows-of-8"));
        await(() -> light(0, 4) == 0 && light(1, 0) == 0);
    }

    @Test
    void theUpperRowLeadsToTheBoardWhereMarblesAreLaunchedAndBack() {
        take("pads-8x8-rows-of-8");
        tap(0, 0);
        assertThat(session.controller().hands()).isEqualTo(Hands.BOARD);
        tap(2, 7);
        await(() -> marbles() == 1);
        await(() -> light(2, 7) == 3);
        tap(2, 7);
        await(() -> marbles() == 0);
        tap(2, 0);
        tap(1, 2);
        await(() -> now().part("bass").orElseThrow().mix().solo());
        tap(1, 0);
        assertThat(session.controller().hands()).isEqualTo(Hands.PADS);
    }

    private int marbles() {
        return now().part("lead")
                .orElseThrow()
                .chain()
                .stages()
                .get(0)
                .params()
                .get(Carom.MARBLES)
                .size();
    }

    @Test
    void asKeysItPlaysTheChosenPart() {
        interact(() -> session.selection().partId().set("bass"));
        take("pads-8x8-rows-of-8");
        tap(3, 0);
        grid.play(0x90, note(0, 7), 90);
        await(() -> starts().size() == 1);
        grid.play(0x80, note(0, 7), 64);
        await(() -> messages().stream().anyMatch(one -> (one[0] & 0xF0) == 0x80 && one[1] == 36));
    }

    /** The interface thread does nothing meanwhile: neither when they are struck nor whether they are heard is up to it. */
    @Test
    void itsKeysGoToTheEngineWhateverTheWindowIsDoing() {
        interact(() -> session.selection().partId().set("bass"));
        take("pads-8x8-rows-of-8");
        tap(3, 0);
        await(() -> session.controller().hands() == Hands.KEYS);
        int heard = starts().size();
        interact(() -> {
            grid.play(0x90, note(5, 7), 90);
            long end = System.nanoTime() + 5_000_000_000L;
            while (starts().size() == heard && System.nanoTime() < end) {
                Thread.onSpinWait();
            }
            assertThat(starts()).hasSize(heard + 1);
            grid.play(0x80, note(5, 7), 64);
        });
        await(() -> Wire.open(messages()).isEmpty());
        assertThat(starts().get(heard)).isEqualTo("41 90");
    }

    @Test
    void aKnobMovesItsLeverOnceItHasMetIt() {
        take("knobs-16-to-23");
        grid.play(0xB0, 16, 10);
        settle();
        assertThat(now().levers().get(0).value()).isEqualTo(50);
        assertThat(session.controller().unmet("Tide")).isPresent();
        grid.play(0xB0, 16, 70);
        await(() -> now().levers().get(0).value() > 54);
        grid.play(0xB0, 16, 127);
        await(() -> now().levers().get(0).value() == 100);
        interact(() -> session.document()
                .apply(PieceEdit.of("Move", piece -> piece.withLevers(List.of(Lever.of("Tide", 20))))));
        grid.play(0xB0, 16, 120);
        settle();
        assertThat(now().levers().get(0).value()).as("it has to be met again").isEqualTo(20);
    }

    @Test
    void aKnobThatALeverHasLearntMovesThatAlone() {
        interact(() -> session.document()
                .apply(PieceEdit.of(
                        "Learn", piece -> piece.withLevers(List.of(Lever.of("Tide", 50), Lever.of("Fray", 50, 16))))));
        take("knobs-16-to-23");
        await(() -> {
            // The engine takes the lever's controller with its next look at the piece.
            grid.play(0xB0, 16, 64);
            grid.play(0xB0, 16, 90);
            return session.transport().traces().lever("Fray").orElse(0) > 0.7;
        });
        settle();
        assertThat(now().levers().get(0).value()).isEqualTo(50);
    }

    @Test
    void theRingOfAKnobThatWasLearntMovesWithIt() {
        take("knobs-16-to-23");
        push(KeyCode.CONTROL, KeyCode.DIGIT4);
        await(() -> session.look().view().get() == View.PLAY
                && onFx(() -> lookup(".knob-ring").tryQuery().isPresent()));
        grid.play(0xB0, 16, 10);
        await(() -> ring().isVisible());
        double low = ring().getLayoutY();
        interact(() -> session.document()
                .apply(PieceEdit.of("Learn", piece -> piece.withLevers(List.of(Lever.of("Tide", 50, 16))))));
        await(() -> {
            // The engine takes the lever's controller with its next look at the piece.
            grid.play(0xB0, 16, 40);
            return ring().isVisible() && ring().getLayoutY() < low - 10;
        });
        assertThat(now().levers().get(0).value()).as("it has not met it").isEqualTo(50);
    }

    private Node ring() {
        return lookup(".knob-ring").query();
    }

    @Test
    void aPadIsLearntByTouchingBothAndKept(@TempDir Path folder) throws Exception {
        interact(() -> session.controller().readMaps(folder));
        take("keyboard");
        push(KeyCode.CONTROL, KeyCode.DIGIT4);
        await(() -> session.look().view().get() == View.PLAY
                && onFx(() -> lookup("#pad-0").tryQuery().isPresent()));
        settle();
        clickOn("#controller-learn");
        clickOn("#pad-0");
        assertThat(now().part("bass").orElseThrow().mix().mute())
                .as("touched, not pressed")
                .isFalse();
        grid.play(0x90, 100, 90);
        await(() -> session.messages().last().get().equals("Note 100 plays pad 1 now."));
        grid.play(0x80, 100, 64);
        clickOn("#controller-learn");
        grid.play(0x90, 100, 90);
        await(() -> now().part("bass").orElseThrow().mix().mute());
        assertThat(MapFile.all(folder, problem -> {}).get("keyboard").learnt()).containsEntry(100, 0);
    }

    @Test
    void aNoteThatPlaysAnotherPadIsOfferedNotTaken(@TempDir Path folder) {
        interact(() -> session.controller().readMaps(folder));
        take("keyboard");
        push(KeyCode.CONTROL, KeyCode.DIGIT4);
        await(() -> session.look().view().get() == View.PLAY
                && onFx(() -> lookup("#pad-0").tryQuery().isPresent()));
        interact(() -> session.controller().learning().turn(true));
        learn(0);
        await(() -> session.messages().last().get().equals("Note 100 plays pad 1 now."));
        learn(2);
        await(() -> onFx(() -> asked()));
        clickOn("#conflict-leave");
        assertThat(learnt()).containsExactly(Map.entry(100, 0));
        learn(2);
        await(() -> onFx(() -> asked()));
        clickOn("#conflict-take");
        assertThat(learnt()).containsExactly(Map.entry(100, 2));
        assertThat(asked()).isFalse();
    }

    private void learn(int pad) {
        interact(() -> session.controller().learning().touched(pad));
        grid.play(0x90, 100, 90);
        grid.play(0x80, 100, 64);
    }

    private boolean asked() {
        return lookup("#conflict-take").query().getParent().isVisible();
    }

    private Map<Integer, Integer> learnt() {
        return session.controller().maps().get("keyboard").learnt();
    }

    @Test
    void whatLeadsIsNotLearntForAPad() {
        take("pads-8x8-rows-of-8");
        interact(() -> session.controller().learning().turn(true));
        interact(() -> session.controller().learning().touched(3));
        grid.play(0x90, note(2, 0), 90);
        await(() -> session.messages().last().get().startsWith("Note 94 leads between board"));
        grid.play(0x80, note(2, 0), 64);
        grid.play(0x90, note(7, 0), 90);
        await(() -> session.messages().last().get().equals("Note 99 plays pad 4 now."));
    }

    @Test
    void theSimulatedControllerHasAWindowOfItsOwn() {
        push(KeyCode.CONTROL, KeyCode.DIGIT4);
        await(() -> session.look().view().get() == View.PLAY
                && onFx(() -> lookup("#simulated-pads").tryQuery().isPresent()));
        settle();
        clickOn("#simulated-pads");
        await(() -> onFx(() -> lookup("#sim-0-4").tryQuery().isPresent()));
        await(() -> onFx(() -> lookup("#sim-0-4").query().getStyleClass().contains("sim-on")));
        moveTo(lookup("#sim-0-4").query()).press(MouseButton.PRIMARY);
        release(MouseButton.PRIMARY);
        await(() -> now().part("bass").orElseThrow().mix().mute());
        await(() -> onFx(() -> lookup("#sim-0-4").query().getStyleClass().contains("sim-there")));
    }
}
