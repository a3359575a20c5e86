package harpel.app.parts;

import harpel.app.document.Document;
import harpel.app.look.Messages;
import harpel.app.perform.LeverWiring;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Field;
import harpel.app.ui.Slide;
import harpel.app.ui.Space;
import harpel.piece.PieceEdit;
import harpel.piece.perform.Lever;
import harpel.theory.GeneralMidi;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The piece's levers, a line each: its name and where it stands; opened also what it moves and its controller, learnt by moving a knob. */
final class LeversPanel extends VBox {
    private static final double NAME_WIDE = 76;
    private static final double PERCENT_WIDE = 24;

    private final Document document;
    private final Transport transport;
    private final LeverWiring levers;
    private final Messages messages;
    private List<String> shown = List.of();
    /** The lever of that name shows all it has. */
    private String opened = "";

    private final List<Slide> sliders = new ArrayList<>();

    LeversPanel(Document document, Transport transport, LeverWiring levers, Messages messages) {
        super(Space.TIGHT);
        this.document = document;
        this.transport = transport;
        this.levers = levers;
        this.messages = messages;
        setId("levers");
        document.piece().addListener((property, before, now) -> show());
        levers.learnt().addListener((property, before, now) -> show());
        levers.picking().addListener((property, before, now) -> show());
        show();
    }

    private void show() {
        List<Lever> all = document.piece().get().levers();
        List<String> shape = all.stream()
                .map(lever -> lever.name()
                        + lever.controllers()
                        + isOpen(lever)
                        + levers.learning().get()
                        + levers.picking().get())
                .toList();
        if (!shape.equals(shown) || getChildren().isEmpty()) {
            shown = shape;
            sliders.clear();
            getChildren()
                    .setAll(IntStream.range(0, all.size()).mapToObj(this::lever).toList());
        }
        for (int i = 0; i < all.size(); i++) {
            Slide slider = i < sliders.size() ? sliders.get(i) : null;
            if (slider != null
                    && !slider.isPressed()
                    && transport.traces().lever(all.get(i).name()).isEmpty()
                    && slider.getValue() != all.get(i).value()) {
                slider.show(all.get(i).value());
            }
        }
    }

    /** Lets the sliders follow the controllers that move their levers. */
    void draw() {
        List<Lever> levers = document.piece().get().levers();
        for (int i = 0; i < levers.size(); i++) {
            Slide slider = i < sliders.size() ? sliders.get(i) : null;
            OptionalDouble at = transport.traces().lever(levers.get(i).name());
            if (slider != null && at.isPresent() && !slider.isPressed()) {
                double value = at.getAsDouble() * 100;
                if (slider.getValue() != value) {
                    slider.show(value);
                }
            }
        }
    }

    /** The name over the list, with the button that makes it longer. */
    HBox head() {
        Label name = new Label("Levers");
        name.getStyleClass().add("soft");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(Space.TIGHT, name, space, addButton());
        head.setAlignment(Pos.CENTER_LEFT);
        return head;
    }

    private Button addButton() {
        Button add = Buttons.button(
                "+ lever",
                "add-lever",
                "A named control that moves any number of parameters, each by its own amount",
                () -> {
                    levers.add();
                    List<Lever> all = document.piece().get().levers();
                    opened = all.isEmpty() ? "" : all.get(all.size() - 1).name();
                    show();
                });
        add.getStyleClass().add("small-toggle");
        return add;
    }

    private VBox lever(int place) {
        Lever lever = document.piece().get().levers().get(place);
        Field name = new Field(
                "lever-name-" + place,
                "The lever’s name, which whatever it moves follows",
                text -> rename(place, text),
                messages::say);
        name.show(lever.name());
        name.setPrefColumnCount(5);
        Button learn = Buttons.button(
                lever.name().equals(levers.learning().get())
                        ? "move a knob"
                        : lever.controllers().isEmpty()
                                ? "Learn"
                                : lever.controllers().stream()
                                        .map(String::valueOf)
                                        .collect(Collectors.joining(" ")),
                "learn-" + place,
                (lever.controllers().isEmpty()
                                ? "Moved by hand only."
                                : "Moved by " + GeneralMidi.controllers(lever.controllers())
                                        + ", once that has come to where the lever stands.")
                        + " Press, then move a knob of your device to take it.",
                () -> levers.learn(lever.name()));
        learn.setMinWidth(USE_PREF_SIZE);
        learn.getStyleClass().add("small-toggle");
        Button pick = Buttons.button(
                lever.name().equals(levers.picking().get()) ? "press a control" : "Assign…",
                "pick-" + place,
                "Press this, then the control it shall move",
                () -> levers.pick(lever.name()));
        pick.setMinWidth(USE_PREF_SIZE);
        pick.getStyleClass().add("small-toggle");
        pick.setAccessibleText("Choose what the lever " + lever.name() + " moves");
        Button remove = Buttons.remove(
                "remove-lever-" + place,
                "the lever " + lever.name(),
                () -> document.apply(PieceEdit.of("Remove lever " + lever.name(), piece -> piece.withoutLever(place))));
        Slide slider = new Slide(
                "lever-" + place,
                "Lever " + lever.name(),
                0,
                100,
                dragged -> {
                    double value = Math.round(dragged);
                    transport.traces().forgetLever(lever.name());
                    change(place, "lever " + place, one -> one.value() == value ? one : one.withValue(value));
                },
                document::endGesture);
        slider.show(lever.value());
        sliders.add(slider);
        Label percent = new Label();
        percent.getStyleClass().add("soft");
        percent.setMinWidth(PERCENT_WIDE);
        percent.setAlignment(Pos.CENTER_RIGHT);
        percent.textProperty()
                .bind(Bindings.createStringBinding(
                        () -> String.valueOf(Math.round(slider.getValue())), slider.valueProperty()));
        ToggleButton opens = Buttons.toggle(
                lever.name(), "open-lever-" + place, "Its name, what it moves, and the knob that moves it", on -> {
                    opened = on ? lever.name() : "";
                    show();
                });
        opens.getStyleClass().setAll("lever-line");
        opens.setSelected(isOpen(lever));
        opens.setMinWidth(NAME_WIDE);
        opens.setMaxWidth(NAME_WIDE);
        HBox.setHgrow(slider, Priority.ALWAYS);
        HBox line = new HBox(Space.TIGHT, opens, slider, percent);
        line.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(Space.TIGHT, line);
        if (isOpen(lever)) {
            HBox.setHgrow(name, Priority.ALWAYS);
            HBox head = new HBox(Space.TIGHT, name, remove);
            head.setAlignment(Pos.CENTER_LEFT);
            box.getChildren().addAll(head, new HBox(Space.TIGHT, pick, learn));
        }
        Label conflict = new Label(conflict(lever));
        conflict.getStyleClass().add("problem");
        conflict.setWrapText(true);
        if (!conflict.getText().isEmpty()) {
            box.getChildren().add(conflict);
        }
        return box;
    }

    /** One lever is open at a time, and as long as a knob or a control is waited for that it is to have. */
    private boolean isOpen(Lever lever) {
        return List.of(opened, levers.learning().get(), levers.picking().get()).contains(lever.name());
    }

    private String conflict(Lever lever) {
        String others = levers.sharing(lever.name(), lever.controllers());
        return others.isEmpty() ? "" : "The same knob moves " + others + " as well.";
    }

    private void change(int place, String gesture, UnaryOperator<Lever> change) {
        document.apply(new PieceEdit("Move lever", gesture, piece -> {
            List<Lever> levers = new ArrayList<>(piece.levers());
            if (place < levers.size()) {
                levers.set(place, change.apply(levers.get(place)));
            }
            return piece.withLevers(levers);
        }));
    }

    private void rename(int place, String name) {
        opened = name;
        document.apply(PieceEdit.of("Rename lever", piece -> piece.withLeverRenamed(place, name)));
    }
}
