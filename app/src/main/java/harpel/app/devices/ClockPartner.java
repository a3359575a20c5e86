package harpel.app.devices;

import harpel.app.look.Messages;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Field;
import harpel.app.ui.SideWindow;
import harpel.app.ui.Space;
import harpel.device.SimulatedClock;
import harpel.device.SimulatedMachine;
import javafx.geometry.Pos;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** A simulated machine that sends its clock, in a window of its own: an input like any other, plugged in while its window is open. */
final class ClockPartner {
    static final String NAME = "Simulated clock";

    private static final int SIXTEENTHS_A_BAR = 16;
    private static final int LAST_BAR = (SimulatedClock.LAST_SIXTEENTH + 1) / SIXTEENTHS_A_BAR;
    private static final double WIDE = 420;

    private final SimulatedMachine.Device device;
    private final SimulatedClock clock;
    private final Messages messages;
    private final SideWindow window;

    ClockPartner(SimulatedMachine simulated, Messages messages, Scene behind, Runnable closed) {
        this.messages = messages;
        device = simulated.plugIn(NAME);
        clock = new SimulatedClock(device);
        Field tempo = field("partner-tempo", "Its tempo, 20–400 quarters a minute", "120", clock::tempo);
        Field jitter =
                field("partner-jitter", "So many ms each clock is early or late at most, 0–10", "0", clock::jitter);
        Field bar = field(
                "partner-bar", "Sends the song position of a bar of 4/4, 1–1,024; it goes on there", "1", this::toBar);
        HBox does = row(
                Buttons.button("Start", "partner-start", "From the beginning", clock::begin),
                Buttons.button("Stop", "partner-stop", "It stands; its clocks go on", clock::stop),
                Buttons.button("Continue", "partner-continue", "From where it stands", clock::goOn),
                Buttons.toggle("silent", "partner-silent", "Sends no clocks, as when a cable is loose", clock::silent));
        VBox all = new VBox(
                Space.ROOM,
                does,
                row(new Label("tempo"), tempo, new Label("jitter, ms"), jitter, new Label("to bar"), bar),
                words("Follow its clock on the page of devices, then start it here."));
        window = new SideWindow(NAME, all, behind, WIDE, () -> {
            clock.close();
            simulated.pullOut(device);
            closed.run();
        });
    }

    private void toBar(double bar) {
        if (bar != Math.rint(bar) || bar < 1 || bar > LAST_BAR) {
            throw new IllegalArgumentException("a bar is 1–1,024, but was " + Words.number(bar));
        }
        clock.position((int) (bar - 1) * SIXTEENTHS_A_BAR);
    }

    /** Takes a number, or throws with what is wrong with it. */
    private interface Taker {
        void take(double number);
    }

    private Field field(String id, String about, String shown, Taker taker) {
        Field[] field = new Field[1];
        field[0] = new Field(
                id,
                about,
                text -> {
                    String bare = text.strip().replace(',', '.');
                    if (!bare.matches("\\d{1,4}(\\.\\d{1,3})?")) {
                        throw new IllegalArgumentException(about + ": a number is wanted, but it was “" + text + "”");
                    }
                    taker.take(Double.parseDouble(bare));
                    field[0].show(bare);
                },
                messages::say);
        field[0].show(shown);
        field[0].setPrefColumnCount(4);
        return field[0];
    }

    private static HBox row(javafx.scene.Node... nodes) {
        HBox row = new HBox(Space.CLOSE, nodes);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private static Label words(String text) {
        Label words = new Label(text);
        words.getStyleClass().add("soft");
        return words;
    }

    void show() {
        window.show();
    }
}
