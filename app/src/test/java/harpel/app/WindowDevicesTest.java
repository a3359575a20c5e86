package harpel.app;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Look.View;
import harpel.app.transport.DeviceDesk;
import harpel.app.ui.Choice;
import harpel.device.Devices;
import harpel.device.SimulatedMachine;
import harpel.engine.LiveStatus.Mode;
import harpel.sound.BuiltInSound;
import harpel.sound.Delay;
import harpel.testkit.RecordingPort;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The page of MIDI devices and the clock, against simulated devices. */
class WindowDevicesTest extends WindowCase {
    private final SimulatedMachine machine = new SimulatedMachine();
    private SimulatedMachine.Device keys;
    private final RecordingPort pier = new RecordingPort();

    @Override
    String parts() {
        return "{'name':'Lead','chain':[]}";
    }

    @Override
    harpel.device.MachineDevices machine() {
        keys = machine.plugIn("Keys");
        machine.plugIn("Pier", pier);
        return machine;
    }

    private boolean at(int status) {
        return pier.sent().stream().anyMatch(one -> (one.message()[0] & 0xFF) == status && one.message()[1] == 60);
    }

    private void open() {
        session.transport().devices().look();
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        await(() -> session.look().view().get() == View.DEVICES
                && onFx(() -> lookup("#out-pier").tryQuery().isPresent()));
        settle();
    }

    @Test
    void devicesComeAndGoOnThePageAndBackLeadsToTheViewBefore() {
        open();
        machine.pullOut(keys);
        session.transport().devices().look();
        await(() -> session.messages().last().get().startsWith("“Keys” is gone"));
        await(() -> onFx(() -> lookup("#in-keys .soft").queryLabeled().getText().startsWith("gone")));
        machine.plugIn(keys);
        session.transport().devices().look();
        await(() -> session.messages().last().get().equals("“Keys” connected again."));
        clickOn("#close-devices");
        assertThat(session.look().view().get()).isEqualTo(View.CHAIN);
    }

    @Test
    void aSimulatedMachineSendsItsClockFromAWindowOfItsOwn() {
        open();
        clickOn("#simulated-clock");
        await(() -> onFx(() -> lookup("#partner-start").tryQuery().isPresent()));
        session.transport().devices().look();
        await(() -> onFx(() -> lookup("#follow-in-simulated-clock").tryQuery().isPresent()));
        interact(() ->
                lookup("#follow-in-simulated-clock").queryAs(ToggleButton.class).fire());
        clickOn("#partner-tempo");
        interact(() -> lookup("#partner-tempo").queryAs(TextField.class).selectAll());
        write("500");
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).contains("20–400").contains("500");
        interact(() -> lookup("#partner-tempo").queryAs(TextField.class).selectAll());
        write("150");
        push(KeyCode.ENTER);
        assertThat(lookup("#partner-tempo").queryAs(TextField.class).getText()).isEqualTo("150");
        clickOn("#partner-bar");
        interact(() -> lookup("#partner-bar").queryAs(TextField.class).selectAll());
        write("0");
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).isEqualTo("a bar is 1–1,024, but was 0");
        clickOn("#partner-start");
        await(() -> session.transport().status().mode() == Mode.PLAYING);
        // On a machine that is busy with something else the clocks come as unevenly as they are sent.
        await(() -> Math.abs(session.transport().status().tempo().bpmAt(0) - 150) < 8);
        assertThat(session.transport().status().clock()).isEqualTo("Simulated clock");
        clickOn("#partner-stop");
        await(() -> session.transport().status().mode() == Mode.STOPPED);
        // The keys of the computer play as in the window behind.
        clickOn("#partner-silent");
        long notes = session.transport().status().notesIn();
        press(KeyCode.X);
        await(() -> session.transport().status().notesIn() == notes + 1);
        release(KeyCode.X);
    }

    @Test
    void anOutputIsTestedDelayedAndLeft() {
        open();
        moveTo(lookup("#test-out-pier").query()).press(MouseButton.PRIMARY);
        await(() -> at(0x90));
        release(MouseButton.PRIMARY);
        await(() -> at(0x80));
        clickOn("#delay-out-pier");
        interact(() -> lookup("#delay-out-pier").queryAs(TextField.class).selectAll());
        write("300");
        push(KeyCode.ENTER);
        assertThat(session.messages().last().get()).contains("−250–250 ms").contains("300");
        interact(() -> lookup("#delay-out-pier").queryAs(TextField.class).selectAll());
        write("25");
        push(KeyCode.ENTER);
        await(() -> session.deviceDesk().kept().uses().get("out Pier").delay() == 25);
        settle();
        clickOn("#use-out-pier");
        await(() -> !session.transport().outputs().contains("Pier"));
    }

    @Test
    void timeIsSentAndFollowedAndSaidInTheTopBar() {
        open();
        clickOn("#clock-out-pier");
        assertThat(session.deviceDesk().clockTo()).containsExactly("Pier");
        settle();
        clickOn("#follow-in-keys");
        assertThat(session.deviceDesk().clockFrom()).isEqualTo("Keys");
        keys.play(0xFA, 0, 0);
        keys.play(0xF8, 0, 0);
        await(() -> session.transport().status().mode() == Mode.PLAYING);
        assertThat(session.transport().status().clock()).isEqualTo("Keys");
        keys.play(0xFC, 0, 0);
        await(() -> session.transport().status().mode() == Mode.STOPPED);
    }

    @Test
    void howDevicesAreUsedIsKeptOnTheMachine(@TempDir Path home) {
        DeviceDesk.Kept kept = new DeviceDesk.Kept(
                Map.of("in Keys: 1", new Devices.Use(false, 0, 3), "out Pier = 2", new Devices.Use(true, -20, 0)),
                "Keys: 1",
                List.of("Pier = 2", "Shore"),
                new BuiltInSound.Wish("Studio, left", Optional.of(Delay.VERY_SAFE)));
        new Settings(home).keep(kept);
        assertThat(new Settings(home).devices()).isEqualTo(kept);
        assertThat(new Settings(home.resolve("none")).devices()).isEqualTo(DeviceDesk.Kept.NOTHING);
    }

    @Test
    void howSoundIsHeardIsChosenByHand() {
        open();
        assertThat(session.transport().sound().wish()).isEqualTo(BuiltInSound.Wish.PLAIN);
        await(() -> lookup("#sound-row").tryQuery().isPresent());
        interact(() -> {
            Choice<Optional<Delay>> delay = lookup("#sound-delay").query();
            delay.setValue(Optional.of(Delay.SAFE));
            delay.getOnAction().handle(new javafx.event.ActionEvent());
        });
        await(() -> session.transport().sound().wish().delay().equals(Optional.of(Delay.SAFE)));
        assertThat(session.deviceDesk().kept().sound().delay()).contains(Delay.SAFE);
    }

    @Test
    void theMetronomeClicksWhileItPlays() {
        open();
        clickOn("#metronome");
        push(KeyCode.SPACE);
        // General MIDI: percussion is channel 10, 76 and 77 are wood blocks.
        await(() -> messages().stream().anyMatch(one -> (one[0] & 0xFF) == 0x99 && one[1] >= 76));
        clickOn("#nudge-later");
        assertThat(session.messages().last().get()).isEqualTo("10 ms later.");
        push(KeyCode.SPACE);
    }
}
