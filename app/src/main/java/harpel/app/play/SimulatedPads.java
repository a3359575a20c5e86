package harpel.app.play;

import harpel.app.ui.SideWindow;
import harpel.app.ui.Slide;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.control.Light;
import harpel.device.SimulatedMachine;
import harpel.port.OutputPort;
import java.util.Locale;
import java.util.Map;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * A simulated controller of 8 × 8 pads with lights and eight knobs, in a window of its own: a device like any other, which is plugged in
 * while its window is open. It sends plain notes 36–99 and controllers 16–23, and is lit by note-ons with the colour as velocity.
 */
public final class SimulatedPads {
    public static final String NAME = "Simulated 8 × 8";

    private static final int SIZE = 8;
    private static final int FIRST = 36;
    private static final int FIRST_KNOB = 16;
    private static final double WIDE = 400;
    /** The velocities that the map of 8 × 8 pads lights by. */
    private static final Map<Integer, Light> COLOURS =
            Map.of(0, Light.OFF, 1, Light.THERE, 3, Light.ON, 5, Light.WAITS, 7, Light.MOVES, 9, Light.LEADS);

    private final SimulatedMachine simulated;
    private final SimulatedMachine.Device plays;
    private final SimulatedMachine.Device lit;
    private final Region[] pads = new Region[SIZE * SIZE];
    private final SideWindow window;

    /** @param behind what is shown in the window that it belongs to */
    public SimulatedPads(SimulatedMachine simulated, Scene behind, Runnable closed) {
        this.simulated = simulated;
        plays = simulated.plugIn(NAME);
        lit = simulated.plugIn(NAME, new LightPort());
        GridPane grid = new GridPane();
        grid.setHgap(Space.TIGHT);
        grid.setVgap(Space.TIGHT);
        for (int row = 0; row < SIZE; row++) {
            for (int column = 0; column < SIZE; column++) {
                int note = FIRST + (SIZE - 1 - row) * SIZE + column;
                Region pad = new Region();
                pad.setId("sim-" + column + "-" + row);
                pad.setMinSize(40, 40);
                pad.getStyleClass().add("sim-pad");
                Tips.set(pad, "Note " + note + (row == 0 && column < 4 ? ": leads to " + hands(column) : ""));
                pad.addEventHandler(MouseEvent.MOUSE_PRESSED, event -> plays.play(0x90, note, 100));
                pad.addEventHandler(MouseEvent.MOUSE_RELEASED, event -> plays.play(0x80, note, 64));
                pads[note - FIRST] = pad;
                grid.add(pad, column, row);
            }
        }
        HBox knobs = new HBox(Space.TIGHT);
        int[] sent = new int[SIZE];
        for (int i = 0; i < SIZE; i++) {
            int place = i;
            int controller = FIRST_KNOB + i;
            Slide knob = new Slide(
                    "sim-knob-" + i,
                    "Knob " + (i + 1),
                    0,
                    127,
                    value -> {
                        if ((int) value != sent[place]) {
                            sent[place] = (int) value;
                            plays.play(0xB0, controller, sent[place]);
                        }
                    },
                    () -> {});
            knob.setOrientation(javafx.geometry.Orientation.VERTICAL);
            knob.setPrefHeight(90);
            knob.setMinWidth(40);
            knobs.getChildren().add(knob);
        }
        Label about = new Label("The upper row leads: board, pads, parts, keys.");
        about.getStyleClass().add("soft");
        VBox all = new VBox(Space.GAP, knobs, grid, about);
        window = new SideWindow(NAME, all, behind, WIDE, () -> {
            unplug();
            closed.run();
        });
    }

    private static String hands(int column) {
        return harpel.app.perform.ControllerDesk.Hands.values()[column].name().toLowerCase(Locale.ROOT);
    }

    public void show() {
        window.show();
    }

    private void unplug() {
        simulated.pullOut(plays);
        simulated.pullOut(lit);
    }

    private void light(int note, int colour) {
        int place = note - FIRST;
        if (place >= 0 && place < pads.length) {
            Light light = COLOURS.getOrDefault(colour, Light.ON);
            Platform.runLater(() -> pads[place]
                    .getStyleClass()
                    .setAll("sim-pad", "sim-" + light.name().toLowerCase(Locale.ROOT)));
        }
    }

    /** Its lights, as they are told. */
    private final class LightPort implements OutputPort {
        @Override
        public String name() {
            return NAME;
        }

        @Override
        public void send(byte[] message, long dueNanos) {
            if ((message[0] & 0xF0) == 0x90) {
                light(message[1], message[2]);
            }
        }

        @Override
        public void close() {
            // its window closes it
        }
    }
}
