package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.look.Messages;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.type.FlagType;
import harpel.phrase.action.NoteAction;
import harpel.phrase.action.NoteActions;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** A button for everything that can be done to the picked notes, some with an amount beside it. */
final class NoteButtons extends VBox {
    private static final int LONG = 4;

    private final Messages messages;
    private final PhraseDesk desk;

    NoteButtons(PhraseDesk desk, Messages messages) {
        super(Space.CLOSE);
        this.messages = messages;
        this.desk = desk;
        for (NoteAction.Group group : NoteAction.Group.values()) {
            FlowPane flow = new FlowPane(Space.TIGHT, Space.TIGHT);
            flow.setPrefWrapLength(240);
            NoteActions.all().stream()
                    .filter(one -> one.group() == group && !one.button().isEmpty())
                    .forEach(one -> flow.getChildren().add(control(one)));
            getChildren().addAll(NotesPanel.heading(group.label()), flow);
        }
    }

    private Node control(NoteAction action) {
        Map<Param<?>, Node> amounts = new LinkedHashMap<>();
        for (Param<?> param : action.amounts().params()) {
            amounts.put(param, amount(action.id() + "-" + param.id(), param));
        }
        Button button = Buttons.button(action.button(), "act-" + action.id(), action.tip(), () -> act(action, amounts));
        button.getStyleClass().add("tiny");
        if (amounts.isEmpty()) {
            return button;
        }
        // Enter in an amount does what its button does.
        for (Node amount : amounts.values()) {
            if (amount instanceof TextField field) {
                field.setOnAction(event -> button.fire());
            }
        }
        List<Node> nodes = new ArrayList<>(List.of(button));
        nodes.addAll(amounts.values());
        HBox box = new HBox(Space.FINE, nodes.toArray(Node[]::new));
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    /** What is typed holds as it stands; it is read when the button beside it is pressed. */
    private static <T> Node amount(String id, Param<T> param) {
        if (param.type() instanceof FlagType) {
            return Buttons.toggle(param.id(), id, param.help(), on -> {});
        }
        String text = param.type().show(param.defaultValue());
        TextField field = new TextLine(id, param.help() + "; " + param.type().range(), text);
        field.setPrefWidth(text.length() > LONG ? 66 : 48);
        return field;
    }

    private void act(NoteAction action, Map<Param<?>, Node> amounts) {
        try {
            ParamSet values = action.amounts().defaults();
            for (Map.Entry<Param<?>, Node> one : amounts.entrySet()) {
                values = read(values, one.getKey(), one.getValue());
            }
            desk.act(action, values);
        } catch (IllegalArgumentException e) {
            messages.say(e.getMessage());
        }
    }

    private static <T> ParamSet read(ParamSet values, Param<T> param, Node from) {
        if (from instanceof ToggleButton toggle) {
            return values.withPlain(param, toggle.isSelected());
        }
        String typed = ((TextField) from).getText();
        try {
            return values.with(param, param.type().parse(typed));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(param.help() + ": " + e.getMessage(), e);
        }
    }
}
