package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.look.Messages;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import harpel.phrase.Phrase;
import harpel.phrase.action.Edited;
import harpel.phrase.action.Pitches;
import harpel.phrase.action.Shapes;
import harpel.phrase.action.Times;
import harpel.phrase.action.Velocities;
import harpel.time.TimeValue;
import java.util.Locale;
import java.util.Set;
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
    private static final int LOUDER = 5;

    private final Messages messages;
    private final PhraseDesk desk;
    private final TextField strength = amount("grid-strength", "How far of the way onto the grid, 0–100 %", "100");
    private final TextField swing =
            amount("grid-swing", "Where the second of two steps lies, 50–75 %; 50 is even", "50");
    private final ToggleButton ends =
            Buttons.toggle("ends", "grid-ends", "Brings the ends of notes onto the grid, too", on -> {});
    private final TextField loosen = amount("loosen-by", "By how much at most", "8");
    private final TextField ramp = amount("ramp-from-to", "From and to which velocity", "40–110");
    private final TextField even = amount("equal-to", "To which velocity", "88");
    private final TextField chances = amount("chance-from-to", "Between which chances, in percent", "40–80");
    private final TextField stretch = amount("stretch-to", "To how much of their length, in percent", "150");
    private final TextField apart = amount("strum-by", "How far apart", "1/64");
    private long draws;

    NoteButtons(PhraseDesk desk, Messages messages) {
        super(Space.CLOSE);
        this.messages = messages;
        this.desk = desk;
        groups();
    }

    /** What is typed holds as it stands; it is read when the button beside it is pressed. */
    private static TextField amount(String id, String what, String text) {
        TextField field = new TextLine(id, what, text);
        field.setPrefWidth(text.length() > 4 ? 66 : 48);
        return field;
    }

    private Button act(String words, String id, String tip, PhraseDesk.Action action) {
        Button button = Buttons.button(words, id, tip, () -> {
            try {
                desk.act(words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1), action);
            } catch (IllegalArgumentException e) {
                messages.say(e.getMessage());
            }
        });
        button.getStyleClass().add("tiny");
        return button;
    }

    private static FlowPane flow(Node... nodes) {
        FlowPane flow = new FlowPane(Space.TIGHT, Space.TIGHT, nodes);
        flow.setPrefWrapLength(240);
        return flow;
    }

    private static HBox with(Button button, Node... amounts) {
        // Enter in an amount does what its button does.
        for (Node amount : amounts) {
            if (amount instanceof TextField field) {
                field.setOnAction(event -> button.fire());
            }
        }
        HBox box = new HBox(Space.FINE, button);
        box.getChildren().addAll(amounts);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private void groups() {
        getChildren()
                .addAll(
                        NotesPanel.heading("Pitch"),
                        flow(
                                act(
                                        "octave up",
                                        "act-octave-up",
                                        "An octave up  (Shift+Up)",
                                        (p, ids) -> Pitches.transpose(p, ids, 12)),
                                act(
                                        "octave down",
                                        "act-octave-down",
                                        "An octave down  (Shift+Down)",
                                        (p, ids) -> Pitches.transpose(p, ids, -12)),
                                act(
                                        "+1 st",
                                        "act-semitone-up",
                                        "A semitone up  (Up)",
                                        (p, ids) -> Pitches.transpose(p, ids, 1)),
                                act(
                                        "−1 st",
                                        "act-semitone-down",
                                        "A semitone down  (Down)",
                                        (p, ids) -> Pitches.transpose(p, ids, -1)),
                                act(
                                        "degree up",
                                        "act-degree-up",
                                        "A step of the key up",
                                        (p, ids) -> Pitches.degrees(p, ids, 1, desk.around())),
                                act(
                                        "degree down",
                                        "act-degree-down",
                                        "A step of the key down",
                                        (p, ids) -> Pitches.degrees(p, ids, -1, desk.around())),
                                act(
                                        "into the key",
                                        "act-into-key",
                                        "To the nearest note of the key, of two the lower",
                                        (p, ids) -> Pitches.intoKey(p, ids, Pitches.Into.NEAREST, desk.around())),
                                act(
                                        "up into it",
                                        "act-into-key-up",
                                        "To the next note of the key above",
                                        (p, ids) -> Pitches.intoKey(p, ids, Pitches.Into.UP, desk.around())),
                                act(
                                        "down into it",
                                        "act-into-key-down",
                                        "To the next note of the key below",
                                        (p, ids) -> Pitches.intoKey(p, ids, Pitches.Into.DOWN, desk.around())),
                                act("mirror", "act-mirror", "The highest becomes the lowest", Pitches::mirror)),
                        NotesPanel.heading("Time"),
                        flow(
                                with(
                                        act(
                                                "onto the grid",
                                                "act-grid",
                                                "Starts onto the grid of the roll, so many percent of the way, with a swing",
                                                this::ontoGrid),
                                        strength,
                                        swing,
                                        ends),
                                act("legato", "act-legato", "Each lasts until the next", Times::legato),
                                act(
                                        "earlier",
                                        "act-earlier",
                                        "By a step of the grid  (Left)",
                                        (p, ids) -> Times.move(p, ids, -desk.stepTicks())),
                                act(
                                        "later",
                                        "act-later",
                                        "By a step of the grid  (Right)",
                                        (p, ids) -> Times.move(p, ids, desk.stepTicks())),
                                act(
                                        "round ◂",
                                        "act-round-left",
                                        "Shifts to the left by a step; what leaves comes in at the end",
                                        (p, ids) -> Times.shiftRound(p, ids, -desk.stepTicks())),
                                act(
                                        "round ▸",
                                        "act-round-right",
                                        "Shifts to the right by a step; what leaves comes in at the beginning",
                                        (p, ids) -> Times.shiftRound(p, ids, desk.stepTicks())),
                                act(
                                        "half",
                                        "act-half",
                                        "Half as long",
                                        (p, ids) -> Times.stretch(p, ids, 0.5, desk.around())),
                                act(
                                        "double",
                                        "act-double",
                                        "Twice as long",
                                        (p, ids) -> Times.stretch(p, ids, 2, desk.around())),
                                act("reverse", "act-reverse", "What came last comes first", Times::reverse),
                                with(
                                        act(
                                                "stretch",
                                                "act-stretch",
                                                "Times and lengths to so many percent",
                                                (p, ids) ->
                                                        Times.stretch(p, ids, percent(stretch) / 100.0, desk.around())),
                                        stretch),
                                with(
                                        act(
                                                "strum apart",
                                                "act-strum",
                                                "The notes of a chord one after another",
                                                (p, ids) -> Times.strumApart(
                                                        p,
                                                        ids,
                                                        Math.round(TimeValue.parse(apart.getText()
                                                                        .strip())
                                                                .ticksAt(
                                                                        0,
                                                                        desk.around()
                                                                                .time())))),
                                        apart)),
                        NotesPanel.heading("Velocity and chance"),
                        flow(
                                with(
                                        act(
                                                "all equal",
                                                "act-equal",
                                                "All to one velocity",
                                                (p, ids) -> Velocities.equal(p, ids, whole(even, 1, 127))),
                                        even),
                                act(
                                        "softer",
                                        "act-softer",
                                        "Softer by 5  (−)",
                                        (p, ids) -> Velocities.louder(p, ids, -LOUDER)),
                                act(
                                        "louder",
                                        "act-louder",
                                        "Louder by 5  (+)",
                                        (p, ids) -> Velocities.louder(p, ids, LOUDER)),
                                with(
                                        act(
                                                "ramp",
                                                "act-ramp",
                                                "From one velocity to another",
                                                (p, ids) -> Velocities.ramp(
                                                        p, ids, pair(ramp, 1, 127)[0], pair(ramp, 1, 127)[1])),
                                        ramp),
                                with(
                                        act(
                                                "loosen",
                                                "act-loosen",
                                                "Each up or down by a draw; again draws others",
                                                (p, ids) -> Velocities.loosen(p, ids, whole(loosen, 0, 127), draws++)),
                                        loosen),
                                with(
                                        act(
                                                "chance at random",
                                                "act-chance",
                                                "Each gets a chance between two; again draws others",
                                                (p, ids) -> Velocities.chanceAtRandom(
                                                        p,
                                                        ids,
                                                        pair(chances, 0, 100)[0],
                                                        pair(chances, 0, 100)[1],
                                                        draws++,
                                                        desk.around())),
                                        chances),
                                act(
                                        "off",
                                        "act-off",
                                        "Kept, but not played; again to switch on  (O)",
                                        Velocities::off)),
                        NotesPanel.heading("Notes"),
                        flow(
                                act(
                                        "cut at the mark",
                                        "act-cut",
                                        "Notes that sound across the mark become two",
                                        (p, ids) ->
                                                Shapes.cutAt(p, ids, desk.mark().get())),
                                act("join", "act-join", "Notes of one pitch that touch become one", Shapes::join),
                                act(
                                        "fill",
                                        "act-fill",
                                        "Again and again to the phrase’s end",
                                        (p, ids) -> Shapes.fill(p, ids, desk.around())),
                                act(
                                        "trim",
                                        "act-trim",
                                        "The phrase to its notes, by whole bars",
                                        (p, ids) -> Shapes.trim(p, ids, desk.around())),
                                act(
                                        "phrase twice",
                                        "act-twice",
                                        "The phrase twice as long, with its notes again",
                                        (p, ids) -> Shapes.twice(p, ids, desk.around()))));
    }

    private Edited ontoGrid(Phrase phrase, Set<Integer> ids) {
        TimeValue pace = desk.pace()
                .orElseThrow(() -> new IllegalArgumentException("the grid is off; choose one above the roll"));
        return Times.ontoGrid(
                phrase, ids, pace, number(swing, 50, 75), number(strength, 0, 100), ends.isSelected(), desk.around());
    }

    private static double number(TextField field, double low, double high) {
        try {
            double value = Double.parseDouble(field.getText().replace("%", "").strip());
            if (value >= low && value <= high) {
                return value;
            }
        } catch (NumberFormatException e) {
            // Said below, with what was typed.
        }
        throw new IllegalArgumentException(field.getAccessibleText() + ": must be " + Math.round(low) + "–"
                + Math.round(high) + " but was “" + field.getText() + "”");
    }

    private static int whole(TextField field, int low, int high) {
        return (int) Math.round(number(field, low, high));
    }

    private static double percent(TextField field) {
        return number(field, 1, 1600);
    }

    private static int[] pair(TextField field, int low, int high) {
        String[] ends = field.getText().replace("%", "").strip().split("\\s*[–-]\\s*");
        try {
            int from = Integer.parseInt(ends[0]);
            int to = Integer.parseInt(ends[ends.length - 1]);
            if (ends.length <= 2 && Math.min(from, to) >= low && Math.max(from, to) <= high) {
                return new int[] {from, to};
            }
        } catch (NumberFormatException e) {
            // Said below, with what was typed.
        }
        throw new IllegalArgumentException(field.getAccessibleText() + ": two numbers " + low + "–" + high
                + ", such as “40–80”, but was “" + field.getText() + "”");
    }
}
