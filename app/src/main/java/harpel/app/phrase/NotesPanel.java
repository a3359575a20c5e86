package harpel.app.phrase;

import harpel.app.session.Made;
import harpel.app.session.PhraseDesk;
import harpel.app.session.Places;
import harpel.app.session.Session;
import harpel.app.session.TraceStore.Drawn;
import harpel.app.ui.Buttons;
import harpel.app.ui.Field;
import harpel.app.ui.Scrolling;
import harpel.app.ui.Tips;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.action.Edited;
import harpel.phrase.action.Pitches;
import harpel.phrase.action.Shapes;
import harpel.phrase.action.Times;
import harpel.phrase.action.Velocities;
import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.theory.Pitch;
import harpel.time.TimeValue;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.ToIntFunction;
import java.util.stream.Collectors;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** What is picked in the roll, at the right: its values, everything that can be done with it, and what the chain makes of the phrase. */
public final class NotesPanel extends BorderPane {
    private static final int LOUDER = 5;

    private final Session session;
    private final PhraseDesk desk;
    private final Roll roll;
    private final Label title = new Label();
    private final Label about = new Label();
    private final NumberTile velocity;
    private final NumberTile chance;
    private final Field starts;
    private final Field lasts;
    private final Field strength = amount("grid-strength", "How far of the way onto the grid, 0–100 %", "100");
    private final Field swing = amount("grid-swing", "Where the second of two steps lies, 50–75 %; 50 is even", "50");
    private final ToggleButton ends =
            Buttons.toggle("ends", "grid-ends", "Brings the ends of notes onto the grid, too", on -> {});
    private final Field loosen = amount("loosen-by", "By how much at most", "8");
    private final Field ramp = amount("ramp-from-to", "From and to which velocity", "40–110");
    private final Field even = amount("equal-to", "To which velocity", "88");
    private final Field chances = amount("chance-from-to", "Between which chances, in percent", "40–80");
    private final Field stretch = amount("stretch-to", "To how much of their length, in percent", "150");
    private final Field apart = amount("strum-by", "How far apart", "1/64");
    private final Label makes = new Label();
    private final Hyperlink showThem = new Hyperlink("Show them");
    private long draws;

    NotesPanel(Session session, Roll roll) {
        this.session = session;
        this.desk = session.desk();
        this.roll = roll;
        setId("notes-panel");
        getStyleClass().add("inspector");
        title.setId("picked-title");
        title.getStyleClass().add("part-title");
        about.setId("picked-about");
        about.getStyleClass().add("soft");
        about.setWrapText(true);
        velocity = new NumberTile("picked-velocity", "Velocity", "", 1, 127, this::setVelocity, session::say);
        chance = new NumberTile("picked-chance", "Chance", " %", 0, 100, this::setChance, session::say);
        starts = new Field(
                "picked-starts",
                "Where the first picked note starts: bar . beat . ticks",
                this::setStarts,
                session::say);
        lasts = new Field("picked-lasts", "How long the picked notes last, in beats", this::setLasts, session::say);
        velocity.setOnEnd(desk::endGesture);
        chance.setOnEnd(desk::endGesture);
        HBox first = new HBox(6, grow(velocity), grow(chance));
        HBox second = new HBox(6, grow(named("Starts", starts)), grow(named("Lasts", lasts)));
        makes.setId("makes");
        makes.setWrapText(true);
        showThem.setId("show-outside");
        Tips.set(showThem, "Shows in red what lies outside the key, or no longer");
        showThem.setOnAction(event -> {
            roll.showOutside(!roll.showsOutside());
            showMade();
        });
        VBox content = new VBox(6, title, about, first, second, heading("Through the chain"), makes, showThem);
        groups(content);
        content.setPadding(new Insets(10, 12, 12, 14));
        setCenter(new Scrolling(content));
        desk.picked().addListener((property, before, now) -> show());
        desk.phraseId().addListener((property, before, now) -> show());
        session.document().piece().addListener((property, before, now) -> show());
        session.made().result().addListener((property, before, now) -> showMade());
        show();
        showMade();
    }

    private Field amount(String id, String what, String text) {
        Field[] made = new Field[1];
        made[0] = new Field(id, what, typed -> made[0].show(typed), words -> {});
        made[0].show(text);
        made[0].setPrefWidth(text.length() > 4 ? 66 : 48);
        return made[0];
    }

    private static Node grow(javafx.scene.layout.Region node) {
        HBox.setHgrow(node, Priority.ALWAYS);
        node.setPrefWidth(120);
        return node;
    }

    private static VBox named(String name, Field field) {
        Label label = new Label(name);
        label.getStyleClass().add("tile-name");
        label.setLabelFor(field);
        return new VBox(1, label, field);
    }

    private static Label heading(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("soft");
        return label;
    }

    private Button act(String words, String id, String tip, PhraseDesk.Action action) {
        Button button = Buttons.button(words, id, tip, () -> {
            try {
                desk.act(words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1), action);
            } catch (IllegalArgumentException e) {
                session.say(e.getMessage());
            }
        });
        button.getStyleClass().add("tiny");
        return button;
    }

    private static FlowPane flow(Node... nodes) {
        FlowPane flow = new FlowPane(4, 4, nodes);
        flow.setPrefWrapLength(240);
        return flow;
    }

    private static HBox with(Button button, Node... amounts) {
        HBox box = new HBox(2, button);
        box.getChildren().addAll(amounts);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private void groups(VBox content) {
        content.getChildren()
                .addAll(
                        heading("Pitch"),
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
                        heading("Time"),
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
                        heading("Velocity and chance"),
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
                        heading("Notes"),
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

    private static double number(Field field, double low, double high) {
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

    private static int whole(Field field, int low, int high) {
        return (int) Math.round(number(field, low, high));
    }

    private static double percent(Field field) {
        return number(field, 1, 1600);
    }

    private static int[] pair(Field field, int low, int high) {
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

    private void setVelocity(int value, boolean done) {
        gesture("Set velocity", done, (p, ids) -> Velocities.equal(p, ids, value));
    }

    private void setChance(int value, boolean done) {
        gesture("Set chance", done, (p, ids) -> Velocities.chance(p, ids, value, desk.around()));
    }

    private void gesture(String label, boolean done, PhraseDesk.Action action) {
        desk.phrase().ifPresent(phrase -> {
            Edited edited = action.apply(phrase, desk.picked().get());
            desk.set(label, label, edited.phrase(), edited.picked());
            session.say(edited.said());
        });
        if (done) {
            desk.endGesture();
        }
    }

    private void setStarts(String text) {
        String[] places = text.split("[ .]+");
        try {
            long bar = Long.parseLong(places[0]);
            long beat = places.length > 1 ? Long.parseLong(places[1]) : 1;
            long ticks = places.length > 2 ? Long.parseLong(places[2]) : 0;
            long at = desk.around().time().meter().tickOfBar(bar - 1);
            long tick = at
                    + (beat - 1) * desk.around().time().meter().at(at).beatTicks()
                    + ticks * harpel.time.Ticks.PER_QUARTER / 480;
            desk.act(
                    "Move notes",
                    (p, ids) -> Times.move(
                            p, ids, tick - Edited.meant(p, ids).get(0).tick()));
        } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
            throw new IllegalArgumentException(
                    "a place is bar . beat . ticks (480 a quarter), such as 3 . 1 . 0, but was “" + text + "”");
        }
    }

    private void setLasts(String text) {
        try {
            double beats = Double.parseDouble(text.replaceAll("[^0-9.]", ""));
            long ticks = Math.max(
                    1, Math.round(beats * desk.around().time().meter().at(0).beatTicks()));
            desk.act("Set length", (p, ids) -> Times.lasting(p, ids, ticks));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("a length is in beats, such as 0.5, but was “" + text + "”");
        }
    }

    private void show() {
        Phrase phrase = desk.phrase().orElse(null);
        if (phrase == null) {
            title.setText("No phrase");
            about.setText("“+ new” at the left begins one; “Piece → Read a phrase” reads a MIDI file.");
            return;
        }
        Set<Integer> ids = desk.picked().get();
        List<Note> notes = Edited.meant(phrase, ids);
        title.setText(
                ids.isEmpty()
                        ? notes.size() + (notes.size() == 1 ? " note" : " notes") + " in all"
                        : ids.size() == 1 ? "1 note" : ids.size() + " notes");
        about.setText(about(notes, ids.isEmpty()));
        velocity.show(range(notes, Note::velocity));
        chance.show(range(notes, note -> note.traits().chance()));
        if (notes.isEmpty()) {
            starts.show("");
            lasts.show("");
            return;
        }
        var place = desk.around().time().meter().placeAt(notes.get(0).tick());
        starts.show(place.bar() + " . " + place.beat() + " . "
                + place.ticksIntoBeat() * 480 / harpel.time.Ticks.PER_QUARTER);
        double beat = desk.around().time().meter().at(0).beatTicks();
        long shortest = notes.stream().mapToLong(Note::length).min().orElse(0);
        long longest = notes.stream().mapToLong(Note::length).max().orElse(0);
        lasts.show(
                shortest == longest
                        ? beats(shortest / beat) + " beats"
                        : beats(shortest / beat) + "–" + beats(longest / beat));
    }

    private static String beats(double beats) {
        return String.format(Locale.ROOT, beats == Math.rint(beats) ? "%.0f" : "%.2f", beats);
    }

    private String about(List<Note> notes, boolean all) {
        Set<Integer> pitches = new TreeSet<>();
        notes.forEach(note -> pitches.add(note.pitch()));
        if (notes.isEmpty()) {
            return "Press and drag in the roll to draw; N puts one in at the mark.";
        }
        if (all) {
            return "Actions are for all notes while none is picked.";
        }
        long bar = desk.around().time().meter().placeAt(notes.get(0).tick()).bar();
        boolean together =
                notes.stream().allMatch(note -> note.tick() == notes.get(0).tick());
        String named = together
                ? Chord.told(pitches)
                : pitches.stream().map(Pitch::shown).collect(Collectors.joining(" "));
        return (pitches.size() <= 8 ? named : pitches.size() + " pitches") + " · in bar " + bar;
    }

    private static int[] range(List<Note> notes, ToIntFunction<Note> value) {
        return notes.isEmpty()
                ? null
                : new int[] {
                    notes.stream().mapToInt(value).min().orElseThrow(),
                    notes.stream().mapToInt(value).max().orElseThrow()
                };
    }

    private void showMade() {
        Made.Result result = session.made().result().get();
        Phrase phrase = desk.phrase().orElse(null);
        if (result == null || phrase == null || !result.phrase().equals(phrase.id())) {
            makes.setText(phrase == null ? "" : "Heard by no part: drag it to one, or press Ctrl+Alt+H.");
            showThem.setVisible(false);
            showThem.setManaged(false);
            return;
        }
        Key key = session.document().piece().get().key();
        List<Drawn> sent = result.at(Places.sound(result.part()));
        Map<Integer, Integer> outside = new TreeMap<>();
        sent.stream()
                .filter(drawn -> !key.contains(drawn.note.pitch()))
                .forEach(drawn -> outside.merge(drawn.note.pitch(), 1, Integer::sum));
        int out = outside.values().stream().mapToInt(Integer::intValue).sum();
        double bars =
                phrase.length() / (double) desk.around().time().meter().at(0).barTicks();
        String named = outside.entrySet().stream()
                .sorted(Map.Entry.<Integer, Integer>comparingByValue().reversed())
                .limit(4)
                .map(entry -> Pitch.shown(entry.getKey()) + " " + entry.getValue() + "×")
                .collect(Collectors.joining(", "));
        makes.setText(String.format(
                Locale.ROOT,
                "%d notes make %d a round, %.1f a bar; %s%s",
                phrase.notes().size(),
                sent.size(),
                sent.size() / Math.max(1e-9, bars),
                out == 0 ? "all in the key." : (sent.size() - out) + " in the key, " + out + " outside",
                out == 0 ? "" : " (" + named + ")."));
        showThem.setVisible(out > 0);
        showThem.setManaged(out > 0);
        showThem.setText(roll.showsOutside() ? "No longer" : "Show them");
    }
}
