package harpel.app.devices;

import harpel.app.desk.Recorder;
import harpel.app.look.Messages;
import harpel.app.perform.Performing;
import harpel.app.transport.DeviceDesk;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Field;
import harpel.app.ui.Held;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import harpel.device.Devices;
import harpel.device.Devices.Shown;
import harpel.device.SimulatedMachine;
import harpel.port.Ports;
import harpel.sound.BuiltInSound;
import harpel.sound.Delay;
import harpel.sound.SoundEngine;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The MIDI devices of the machine: what comes in and goes out there, how they are used, and the clock. */
public final class DevicesPage extends BorderPane {
    private static final PseudoClass ACTIVE = PseudoClass.getPseudoClass("active");
    private static final long LIT_NANOS = 150_000_000L;
    private static final int LOOK_EVERY = 15;
    private static final int TEST_PITCH = 60;
    private static final double SILENCE_LUFS = -70;
    private static final double NAME_WIDE = 300;

    private final Transport transport;
    private final SimulatedMachine simulated;
    private final Messages messages;
    private final DeviceDesk desk;
    private final VBox inputs = new VBox(Space.CLOSE);
    private final Label soundState = soft("");
    private final VBox outputs = new VBox(Space.CLOSE);
    private final Map<String, Region> lights = new LinkedHashMap<>();
    private ClockPartner partner;
    private List<Shown> shown;
    private int shownChanges = -1;
    private int frame;

    public DevicesPage(
            Transport transport,
            Recorder recorder,
            SimulatedMachine simulated,
            DeviceDesk devices,
            Performing performing,
            Messages messages,
            Runnable back) {
        this.transport = transport;
        this.simulated = simulated;
        this.messages = messages;
        this.desk = devices;
        setId("devices-page");
        getStyleClass().add("phrase-view");
        Label title = new Label("MIDI devices and clock");
        title.getStyleClass().add("part-title");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(
                Space.ROOM, title, space, Buttons.button("Back", "close-devices", "Back to the view before", back));
        head.setAlignment(Pos.CENTER_LEFT);
        ToggleButton metronome = Buttons.toggle(
                "metronome",
                "metronome",
                "Clicks on the beats while it plays, in the built-in sounds  (Ctrl+Shift+J)",
                recorder.metronome()::set);
        recorder.metronome().addListener((property, before, now) -> metronome.setSelected(now));
        HBox time = new HBox(
                Space.GAP,
                metronome,
                Buttons.small(
                        "tap",
                        "tap-tempo",
                        "Tap the tempo: the third tap sets it  (Ctrl+Shift+T)",
                        () -> performing.tap()),
                Buttons.small(
                        "‹ earlier", "nudge-earlier", "Time goes on 10 ms earlier  (Ctrl+,)", () -> desk.nudge(false)),
                Buttons.small("later ›", "nudge-later", "Time goes on 10 ms later  (Ctrl+.)", () -> desk.nudge(true)));
        time.getChildren()
                .add(Buttons.small(
                        "simulated clock…",
                        "simulated-clock",
                        "Opens a simulated machine that sends its clock, in a window of its own",
                        this::simulate));
        time.setAlignment(Pos.CENTER_LEFT);
        VBox content = new VBox(
                Space.ROOM,
                head,
                heading("Inputs", "what they play goes to the parts that hear them, or to the chosen part"),
                inputs,
                heading("Outputs", "parts sound there; a delay lines up instruments that answer early or late"),
                outputs,
                heading("Time", "of its own, or that of an input whose clock is followed"),
                time);
        content.setPadding(new Insets(Space.EDGE, Space.PAGE, Space.EDGE, Space.PAGE));
        setCenter(new Scrolling(content));
    }

    private void simulate() {
        if (partner == null) {
            partner = new ClockPartner(simulated, messages, getScene(), () -> partner = null);
            transport.devices().lookSoon();
        }
        partner.show();
    }

    private static HBox heading(String name, String about) {
        Label head = new Label(name);
        head.getStyleClass().add("string-name");
        Label words = new Label(about);
        words.getStyleClass().add("soft");
        HBox row = new HBox(Space.ROOM, head, words);
        row.setAlignment(Pos.BASELINE_LEFT);
        return row;
    }

    private void show(List<Shown> all) {
        lights.clear();
        inputs.getChildren().clear();
        outputs.getChildren().clear();
        outputs.getChildren().add(output(new Shown(Ports.BUILT_IN, false, true, Devices.Use.PLAIN, "")));
        outputs.getChildren().add(sound());
        for (Shown one : all) {
            (one.isInput() ? inputs : outputs).getChildren().add(one.isInput() ? input(one) : output(one));
        }
        if (inputs.getChildren().isEmpty()) {
            inputs.getChildren().add(soft("There is none. One that is plugged in is found within two seconds."));
        }
    }

    private static Label soft(String words) {
        Label label = new Label(words);
        label.getStyleClass().add("soft");
        return label;
    }

    private static String id(Shown one) {
        String name = one.name().isEmpty() ? "built-in" : one.name();
        return (one.isInput() ? "in-" : "out-")
                + name.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
    }

    private HBox row(Shown one) {
        Region light = new Region();
        light.getStyleClass().add("light");
        lights.put((one.isInput() ? "i" : "o") + one.name(), light);
        Label name = new Label(one.name().isEmpty() ? "Built-in sounds" : one.name());
        name.setMinWidth(NAME_WIDE);
        name.setMaxWidth(NAME_WIDE);
        String words = !one.isThere()
                ? "gone; taken up again when it is back"
                : !one.problem().isEmpty()
                        ? "does not open: " + one.problem()
                        : one.use().used() ? "" : "not used";
        Label state = soft(words);
        if (one.isThere() && !one.problem().isEmpty()) {
            state.getStyleClass().setAll("label", "problem");
        }
        HBox row = new HBox(Space.GAP, light, name);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setId(id(one));
        if (!one.name().isEmpty()) {
            ToggleButton used = Buttons.toggle(
                    "used",
                    "use-" + id(one),
                    "Whether the device is opened at all; kept on this machine",
                    on -> desk.use(one.name(), one.isInput(), one.use().withUsed(on)));
            used.setSelected(one.use().used());
            row.getChildren().add(used);
        }
        row.getChildren().add(state);
        return row;
    }

    private HBox input(Shown one) {
        HBox row = row(one);
        Choice<Integer> channel = new Choice<>(
                "channel-" + id(one),
                "Which channels of it are heard",
                number -> number == 0 ? "all channels" : "channel " + number,
                number -> desk.use(one.name(), true, one.use().withChannel(number)));
        channel.show(IntStream.rangeClosed(0, 16).boxed().toList(), one.use().channel());
        channel.setMaxWidth(130);
        boolean follows = desk.clockFrom().equals(one.name());
        ToggleButton clock = Buttons.toggle(
                "follow its clock",
                "follow-" + id(one),
                "It starts, stops and drives time; jitter is taken out",
                on -> desk.follow(on ? one.name() : ""));
        clock.setSelected(follows);
        row.getChildren().addAll(2 + 1, List.of(channel, clock));
        return row;
    }

    private HBox output(Shown one) {
        HBox row = row(one);
        List<javafx.scene.Node> more = new ArrayList<>();
        Button test = Buttons.small("test note", "test-" + id(one), "Sounds a C while it is pressed", () -> {});
        Held.on(
                test,
                () -> transport.engine().testNote(one.name(), TEST_PITCH, true),
                () -> transport.engine().testNote(one.name(), TEST_PITCH, false));
        more.add(test);
        if (!one.name().isEmpty()) {
            Field delay = new Field(
                    "delay-" + id(one),
                    "How many milliseconds it sounds later, or with − earlier, than others: −250–250",
                    text -> delayTyped(one, text),
                    messages::say);
            delay.show(one.use().delay() + " ms");
            delay.setPrefColumnCount(5);
            ToggleButton clock = Buttons.toggle(
                    "send clock",
                    "clock-" + id(one),
                    "24 clocks a quarter, start, stop, continue and song position",
                    on -> desk.clockTo(one.name(), on));
            clock.setSelected(desk.clockTo().contains(one.name()));
            more.add(delay);
            more.add(clock);
        }
        row.getChildren().addAll(one.name().isEmpty() ? 2 : 2 + 1, more);
        return row;
    }

    /** How the built-in sounds are heard: on which device, how long after they are due, and how that goes. */
    private HBox sound() {
        BuiltInSound.Wish wish = transport.sound().wish();
        Choice<String> device = new Choice<>(
                "sound-device",
                "The sound device on which the built-in sounds are heard; kept on this machine",
                name -> name.isEmpty() ? "the machine’s own choice" : name,
                name -> desk.sound(
                        new BuiltInSound.Wish(name, transport.sound().wish().delay())));
        List<String> names = new ArrayList<>(List.of(""));
        names.addAll(SoundEngine.devices());
        if (!names.contains(wish.device())) {
            names.add(wish.device());
        }
        device.show(names, wish.device());
        device.setMaxWidth(NAME_WIDE);
        Choice<Optional<Delay>> delay = new Choice<>(
                "sound-delay",
                "How long after it is due all is heard: the shorter, the sooner a key is heard; the longer, the less it breaks off."
                        + " Automatic begins at 10 ms and grows when sound breaks off",
                one -> one.map(some -> some.label() + ", " + some.millis() + " ms")
                        .orElse("automatic"),
                one -> desk.sound(new BuiltInSound.Wish(transport.sound().wish().device(), one)));
        List<Optional<Delay>> delays = new ArrayList<>(List.of(Optional.empty()));
        Arrays.stream(Delay.values()).map(Optional::of).forEach(delays::add);
        delay.show(delays, wish.delay());
        delay.setMaxWidth(150);
        HBox row = new HBox(Space.GAP, soft("heard on"), device, delay, soundState);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setPadding(new Insets(0, 0, Space.GAP, Space.PAGE));
        row.setId("sound-row");
        showSound();
        return row;
    }

    private void showSound() {
        soundState.setText(transport
                .sound()
                .state()
                .map(state -> state.delay().millis() + " ms · "
                        + (state.lateBlocks() == 0
                                ? "never broke off"
                                : "broke off " + state.lateBlocks() + (state.lateBlocks() == 1 ? " time" : " times"))
                        + (state.takenVoices() == 0
                                ? ""
                                : " · " + state.takenVoices() + (state.takenVoices() == 1 ? " note" : " notes")
                                        + " cut short for want of voices")
                        + " · " + Math.round(state.share() * 100) + " % of a processor"
                        + (state.loudness() < SILENCE_LUFS ? "" : " · " + loudness(state)))
                .orElse("no sound device"));
    }

    /** "−18 LUFS, peak −6 dB, softened by 2 dB". */
    private static String loudness(SoundEngine.State state) {
        return minus(state.loudness()) + " LUFS, peak " + minus(state.peak()) + " dB"
                + (state.softened() < 0.5 ? "" : ", softened by " + Math.round(state.softened()) + " dB");
    }

    private static String minus(double value) {
        return String.valueOf(Math.round(value)).replace('-', '−');
    }

    private void delayTyped(Shown one, String text) {
        String bare = text.replace("ms", "").replace('−', '-').strip();
        if (!bare.matches("-?\\d{1,3}") || Math.abs(Integer.parseInt(bare)) > Devices.MOST_DELAY) {
            throw new IllegalArgumentException("a delay is −250–250 ms, but was to be “" + text + "”");
        }
        desk.use(one.name(), false, one.use().withDelay(Integer.parseInt(bare)));
    }

    /** Draws a frame. */
    public void draw() {
        if (frame++ % LOOK_EVERY == 0 || desk.changes().get() != shownChanges) {
            List<Shown> all = transport.devices().all();
            if (!all.equals(shown) || desk.changes().get() != shownChanges) {
                shown = all;
                shownChanges = desk.changes().get();
                show(all);
            }
        }
        if (frame % LOOK_EVERY == 1) {
            showSound();
        }
        long now = transport.nanos();
        lights.forEach((key, light) -> {
            long active = transport.devices().activeNanos(key.substring(1), key.startsWith("i"));
            light.pseudoClassStateChanged(ACTIVE, active != 0 && now - active < LIT_NANOS);
        });
    }
}
