package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.document.Document;
import harpel.app.look.Messages;
import harpel.app.transport.Made;
import harpel.app.transport.Places;
import harpel.app.transport.TraceStore.Drawn;
import harpel.app.ui.Buttons;
import harpel.app.ui.Field;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import harpel.param.Param;
import harpel.param.ParamSet;
import harpel.param.ParamSpec;
import harpel.param.type.IntType;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.phrase.action.Edited;
import harpel.phrase.action.Times;
import harpel.phrase.action.Velocities;
import harpel.theory.Chord;
import harpel.theory.GeneralMidi;
import harpel.theory.Key;
import harpel.theory.Pitch;
import java.util.IntSummaryStatistics;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.ToIntFunction;
import java.util.stream.Collectors;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** What is picked in the roll, at the right: its values, everything that can be done with it, and what the chain makes of the phrase. */
public final class NotesPanel extends BorderPane {
    private final Document document;
    private final Made made;
    private final Messages messages;
    private final PhraseDesk desk;
    private final Roll roll;
    private final Label title = new Label();
    private final Label about = new Label();
    private static final Param<Integer> VELOCITY = Param.of(
            "velocity",
            IntType.of(1, 127, ""),
            92,
            "The velocity of the picked notes; setting it makes them all alike.");
    private static final Param<Integer> CHANCE = Param.of(
            "chance",
            IntType.percent(0, 100),
            100,
            "How often they are played, drawn each time the phrase comes round.");
    private static final ParamSpec VALUES = ParamSpec.of(VELOCITY, CHANCE);

    private final ParamTile<Integer> velocity;
    private final ParamTile<Integer> chance;
    /** What the tiles say where the picked notes differ; empty where they do not. */
    private String velocities = "";

    private String chanceRange = "";
    private final Field starts;
    private final Field lasts;
    private final Label makes = new Label();
    private final Hyperlink showThem;

    NotesPanel(Document document, PhraseDesk desk, Made made, Messages messages, Roll roll) {
        this.document = document;
        this.made = made;
        this.messages = messages;
        this.desk = desk;
        this.roll = roll;
        setId("notes-panel");
        getStyleClass().add("inspector");
        title.setId("picked-title");
        title.getStyleClass().add("part-title");
        about.setId("picked-about");
        about.getStyleClass().add("soft");
        about.setWrapText(true);
        velocity = new ParamTile<>(VELOCITY, this::setVelocity, document::spelling, messages::say);
        velocity.name(text -> velocities.isEmpty() ? text : velocities);
        chance = new ParamTile<>(CHANCE, this::setChance, document::spelling, messages::say);
        chance.name(text -> chanceRange.isEmpty() ? text : chanceRange);
        starts = new Field(
                "picked-starts",
                "Where the first picked note starts: bar . beat . ticks",
                this::setStarts,
                messages::say);
        lasts = new Field("picked-lasts", "How long the picked notes last, in beats", this::setLasts, messages::say);
        HBox first = new HBox(Space.CLOSE, grow(velocity), grow(chance));
        HBox second = new HBox(Space.CLOSE, grow(named("Starts", starts)), grow(named("Lasts", lasts)));
        makes.setId("makes");
        makes.setWrapText(true);
        showThem = Buttons.link(
                "Show them", "show-outside", "Shows in red what lies outside the key, or no longer", () -> {
                    roll.showOutside(!roll.showsOutside());
                    showMade();
                });
        VBox content =
                new VBox(Space.CLOSE, title, about, first, second, heading("Through the chain"), makes, showThem);
        content.getChildren().add(new NoteButtons(desk, messages));
        content.setPadding(new Insets(Space.ROOM, Space.EDGE, Space.EDGE, Space.EDGE));
        setCenter(new Scrolling(content));
        desk.picked().addListener((property, before, now) -> show());
        desk.phraseId().addListener((property, before, now) -> show());
        document.piece().addListener((property, before, now) -> show());
        made.result().addListener((property, before, now) -> showMade());
        show();
        showMade();
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
        return new VBox(Space.HAIR, label, field);
    }

    static Label heading(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("soft");
        return label;
    }

    private void setVelocity(ParamTile<?> tile, boolean done) {
        int value = ((Number) tile.plain()).intValue();
        gesture("Set velocity", done, (p, ids) -> Velocities.equal(p, ids, value));
    }

    private void setChance(ParamTile<?> tile, boolean done) {
        int value = ((Number) tile.plain()).intValue();
        gesture("Set chance", done, (p, ids) -> Velocities.chance(p, ids, value, desk.around()));
    }

    private void gesture(String label, boolean done, PhraseDesk.Action action) {
        desk.phrase().ifPresent(phrase -> {
            Edited edited = action.apply(phrase, desk.picked().get());
            desk.set(label, label, edited.phrase(), edited.picked());
            messages.say(edited.said());
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
            desk.phrase()
                    .ifPresent(phrase -> desk.picked().get().stream()
                            .findFirst()
                            .flatMap(phrase.notes()::find)
                            .ifPresent(desk::asSet));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("a length is in beats, such as 0.5, but was “" + text + "”");
        }
    }

    private void show() {
        Phrase phrase = desk.phrase().orElse(null);
        if (phrase == null) {
            title.setText("No phrase");
            about.setText("");
            return;
        }
        Set<Integer> ids = desk.picked().get();
        List<Note> notes = Edited.meant(phrase, ids);
        title.setText(
                ids.isEmpty()
                        ? notes.size() + (notes.size() == 1 ? " note" : " notes") + " in all"
                        : ids.size() == 1 ? "1 note" : ids.size() + " notes");
        about.setText(about(notes, ids.isEmpty()));
        showValues(notes);
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
                        ? beats(shortest / beat) + (shortest == beat ? " beat" : " beats")
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
                ? Chord.told(pitches, document.spelling())
                : pitches.stream()
                        .map(pitch -> Pitch.shown(pitch, document.spelling()))
                        .collect(Collectors.joining(" "));
        return (pitches.size() <= 8 ? named : pitches.size() + " pitches") + " · in bar " + bar;
    }

    private void showValues(List<Note> notes) {
        velocities = range(notes, Note::velocity, "");
        chanceRange = range(notes, note -> note.traits().chance(), " %");
        ParamSet values = VALUES.defaults();
        if (!notes.isEmpty()) {
            values = values.with(VELOCITY, mean(notes, Note::velocity))
                    .with(CHANCE, mean(notes, note -> note.traits().chance()));
        }
        velocity.show(values);
        chance.show(values);
        velocity.setDisable(notes.isEmpty());
        chance.setDisable(notes.isEmpty());
    }

    private static int mean(List<Note> notes, ToIntFunction<Note> value) {
        return (int) Math.round(notes.stream().mapToInt(value).average().orElse(0));
    }

    /** "46–111"; empty where all are alike. */
    private static String range(List<Note> notes, ToIntFunction<Note> value, String unit) {
        IntSummaryStatistics all = notes.stream().mapToInt(value).summaryStatistics();
        return all.getMin() >= all.getMax() ? "" : all.getMin() + "–" + all.getMax() + unit;
    }

    /** Gives the keyboard to the first value. */
    void focusFirst() {
        velocity.requestFocus();
    }

    private void showMade() {
        Made.Result result = made.result().get();
        Phrase phrase = desk.phrase().orElse(null);
        if (result == null || phrase == null || !result.phrase().equals(phrase.id())) {
            makes.setText(
                    phrase == null || desk.hearer().isPresent()
                            ? ""
                            : "Heard by no part: drag it to one, or press Ctrl+Alt+H.");
            showThem.setVisible(false);
            showThem.setManaged(false);
            return;
        }
        Key key = document.piece().get().key();
        List<Drawn> sent = result.at(Places.sound(result.part()));
        Map<Integer, Integer> outside = new TreeMap<>();
        sent.stream()
                // Drums have no key.
                .filter(drawn -> drawn.note.channel() != GeneralMidi.PERCUSSION_CHANNEL)
                .filter(drawn -> !key.contains(drawn.note.pitch()))
                .forEach(drawn -> outside.merge(drawn.note.pitch(), 1, Integer::sum));
        int out = outside.values().stream().mapToInt(Integer::intValue).sum();
        double bars =
                phrase.length() / (double) desk.around().time().meter().at(0).barTicks();
        String named = outside.entrySet().stream()
                .sorted(Map.Entry.<Integer, Integer>comparingByValue().reversed())
                .limit(4)
                .map(entry -> Pitch.shown(entry.getKey(), document.spelling()) + " " + entry.getValue() + "×")
                .collect(Collectors.joining(", "));
        makes.setText(String.format(
                Locale.ROOT,
                "%d notes make %d a round, %.1f a bar%s%s",
                phrase.notes().size(),
                sent.size(),
                sent.size() / Math.max(1e-9, bars),
                desk.isDrums()
                        ? "."
                        : out == 0
                                ? "; all in the key."
                                : "; " + (sent.size() - out) + " in the key, " + out + " outside",
                out == 0 ? "" : " (" + named + ")."));
        showThem.setVisible(out > 0);
        showThem.setManaged(out > 0);
        showThem.setText(roll.showsOutside() ? "No longer" : "Show them");
    }
}
