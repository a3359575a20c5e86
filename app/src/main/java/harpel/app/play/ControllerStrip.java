package harpel.app.play;

import harpel.app.perform.ControllerDesk;
import harpel.app.perform.ControllerDesk.Hands;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Space;
import harpel.device.Devices;
import harpel.device.SimulatedMachine;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** Below the pads: which controller is in hand, what its pads are, and its lights. */
final class ControllerStrip extends HBox {
    private final Transport transport;
    private final ControllerDesk desk;
    private final Choice<String> device;
    private final Choice<String> map;
    private final Map<Hands, ToggleButton> hands = new EnumMap<>(Hands.class);
    private final HBox modes = new HBox(Space.TIGHT);
    private final Label asked = new Label();
    private final HBox asks;
    private final ToggleButton learn;
    private final ToggleButton lights;
    private final SimulatedMachine machine;
    private SimulatedPads simulated;

    ControllerStrip(Transport transport, ControllerDesk controller, SimulatedMachine machine) {
        super(Space.CLOSE);
        this.transport = transport;
        this.machine = machine;
        this.desk = controller;
        setId("controller-strip");
        getStyleClass().add("controller-strip");
        setAlignment(Pos.CENTER_LEFT);
        setPadding(new Insets(Space.CLOSE, Space.EDGE, Space.CLOSE, Space.EDGE));
        device = new Choice<>(
                "controller-device",
                "Which device is the controller; its pads play no part while it is",
                name -> name.isEmpty() ? "no controller" : name,
                name -> desk.take(name, desk.mapId()));
        device.setPrefWidth(150);
        map = new Choice<>(
                "controller-map",
                "What its pads and knobs are",
                id -> desk.maps().get(id).name(),
                id -> desk.take(desk.device(), id));
        map.setPrefWidth(230);
        asked.setId("controller-conflict");
        asked.getStyleClass().add("problem");
        asks = new HBox(
                Space.TIGHT,
                asked,
                Buttons.small(
                        "take it",
                        "conflict-take",
                        "The pad that was touched takes the note; the other plays it no more",
                        () -> desk.learning().resolve(true)),
                Buttons.small(
                        "leave it",
                        "conflict-leave",
                        "All stays as it was",
                        () -> desk.learning().resolve(false)));
        asks.setAlignment(Pos.CENTER_LEFT);
        ToggleGroup group = new ToggleGroup();
        for (Hands one : Hands.values()) {
            String words = one.name().toLowerCase(Locale.ROOT);
            ToggleButton button = Buttons.oneOf(
                    group,
                    words,
                    "hands-" + words,
                    "Its pads are the " + words + "; the upper row of pads leads here, too",
                    one == desk.hands(),
                    () -> desk.lead(one));
            hands.put(one, button);
            modes.getChildren().add(button);
        }
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        learn = Buttons.toggle(
                "learn by touching both",
                "controller-learn",
                "Press a pad here, then one of the device: that plays it from now on",
                desk.learning()::turn);
        lights = Buttons.toggle("lights", "controller-lights", "Whether its lights say what its pads are", desk::lit);
        Label name = new Label("Controller");
        name.getStyleClass().add("string-name");
        getChildren()
                .addAll(
                        name,
                        device,
                        map,
                        modes,
                        asks,
                        space,
                        Buttons.small(
                                "simulated…",
                                "simulated-pads",
                                "Opens a simulated controller of 8 × 8 pads in a window of its own",
                                this::simulate),
                        learn,
                        lights);
        desk.changes().addListener((property, before, now) -> show());
        show();
    }

    private void simulate() {
        if (simulated == null) {
            simulated = new SimulatedPads(machine, getScene(), () -> {
                simulated = null;
                if (desk.device().equals(SimulatedPads.NAME)) {
                    desk.take("", desk.mapId());
                }
            });
            transport.devices().lookSoon();
            desk.take(SimulatedPads.NAME, "pads-8x8-rows-of-8");
        }
        simulated.show();
    }

    /** Shows what is in hand. */
    void show() {
        List<String> names = new ArrayList<>(List.of(""));
        for (Devices.Shown one : transport.devices().all()) {
            if (one.isInput() && (one.isThere() || one.name().equals(desk.device()))) {
                names.add(one.name());
            }
        }
        if (!names.contains(desk.device())) {
            names.add(desk.device());
        }
        device.show(names, desk.device());
        map.show(List.copyOf(desk.maps().keySet()), desk.mapId());
        hands.forEach((one, button) -> button.setSelected(one == desk.hands()));
        learn.setSelected(desk.learning().isOn());
        desk.learning()
                .conflict()
                .ifPresent(one -> asked.setText("Note " + one.note() + " plays pad " + (one.plays() + 1)
                        + " already; pad " + (one.wanted() + 1) + " instead?"));
        for (HBox each : List.of(asks, modes)) {
            each.setVisible(desk.learning().conflict().isPresent() == (each == asks));
            each.setManaged(each.isVisible());
        }
        lights.setSelected(desk.isLit());
    }
}
