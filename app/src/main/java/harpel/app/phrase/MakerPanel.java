package harpel.app.phrase;

import harpel.app.desk.PhraseDesk;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.app.transport.Audition;
import harpel.app.transport.Words;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.ParamTile;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import harpel.make.ChordsMaker;
import harpel.make.MelodyMaker;
import harpel.make.Progression;
import harpel.make.Recipe;
import harpel.make.Recipe.Kind;
import harpel.make.Taking;
import harpel.param.Param;
import harpel.phrase.Note;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import harpel.theory.Key;
import harpel.theory.Pitch;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import javafx.geometry.Insets;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;

/** Makes phrases: what is made is seen in the roll and heard in place, and nothing is overwritten until it is taken. */
final class MakerPanel extends BorderPane {
    private static final int COLUMNS = 2;
    /** What few, some and many notes a bar are. */
    private static final Map<String, Double> DENSITIES = Map.of("few", 3.0, "some", 6.0, "many", 12.0);

    private final Document document;
    private final Selection selection;
    private final Audition audition;
    private final Messages messages;
    private final PhraseDesk desk;
    private final Map<Kind, Recipe> recipes = new EnumMap<>(Kind.class);
    private final Map<Kind, VBox> pages = new EnumMap<>(Kind.class);
    private final List<ParamTile<?>> tiles = new ArrayList<>();
    private final VBox page = new VBox();
    private final Label about = new Label();
    private final ToggleButton hear;
    private Choice<Progression> common;
    private boolean progressionIsChosen;
    private Kind kind = Kind.MELODY;
    private Recipe.Result result = new Recipe.Result(List.of(), 0);

    MakerPanel(
            Document document, Selection selection, Look look, PhraseDesk desk, Audition audition, Messages messages) {
        this.document = document;
        this.selection = selection;
        this.audition = audition;
        this.messages = messages;
        this.desk = desk;
        setId("maker-panel");
        getStyleClass().add("inspector");
        Label title = new Label("Make a phrase");
        title.getStyleClass().add("part-title");
        about.setId("maker-about");
        about.getStyleClass().add("soft");
        about.setWrapText(true);
        FlowPane kinds = new FlowPane(Space.CLOSE, Space.CLOSE);
        ToggleGroup group = new ToggleGroup();
        for (Kind one : Kind.values()) {
            recipes.put(one, one.plain());
            pages.put(one, pageOf(one));
            String words = one.name().toLowerCase(Locale.ROOT);
            kinds.getChildren().add(Buttons.oneOf(group, words, "make-" + words, "Makes " + words, one == kind, () -> {
                kind = one;
                make();
            }));
        }
        hear = Buttons.toggle("hear", "make-hear", "Hears it in the phrase’s place, from the next bar on", this::hear);
        FlowPane tries = new FlowPane(
                Space.CLOSE,
                Space.CLOSE,
                Buttons.small("another", "make-another", "The next seed, or the next progression", () -> {
                    progressionIsChosen |= kind == Kind.CHORDS;
                    recipes.put(kind, recipes.get(kind).another());
                    make();
                }),
                hear);
        Label take = new Label("Take it as");
        take.getStyleClass().add("soft");
        FlowPane takes = new FlowPane(
                Space.CLOSE,
                Space.CLOSE,
                Buttons.small("New phrase", "take-new", "A phrase of its own, in the list", this::takeNew),
                Buttons.small(
                        "Replace", "take-instead", "In place of all notes of this phrase", () -> take(Taking.INSTEAD)),
                Buttons.small("Add", "take-added", "Beside the notes of this phrase", () -> take(Taking.ADDED)),
                Buttons.small(
                        "Replace within range",
                        "take-in-place",
                        "In place of the notes between the lowest and the highest pitch and, where notes are picked, in their bars;"
                                + " what lies outside stays",
                        () -> take(Taking.IN_PLACE)));
        VBox content = new VBox(Space.GAP, title, kinds, tries, about, take, takes, page);
        content.setPadding(new Insets(Space.ROOM, Space.EDGE, Space.EDGE, Space.EDGE));
        setCenter(new Scrolling(content));
        desk.making().addListener((property, before, now) -> {
            if (now) {
                make();
            } else {
                end();
            }
        });
        // What is heard belongs to what is looked at.
        look.view().addListener((property, before, now) -> silence());
        selection.partId().addListener((property, before, now) -> silence());
        document.piece().addListener((property, before, now) -> {
            if (desk.making().get() && (before.key() != now.key() || before.time() != now.time())) {
                make();
            }
        });
    }

    private VBox pageOf(Kind one) {
        VBox made = new VBox(Space.GAP);
        if (one == Kind.MELODY) {
            FlowPane amounts = new FlowPane(Space.CLOSE, Space.CLOSE);
            for (String words : List.of("few", "some", "many")) {
                amounts.getChildren()
                        .add(Buttons.small(
                                words,
                                "make-" + words,
                                Math.round(DENSITIES.get(words)) + " notes a bar",
                                () -> set(Kind.MELODY, MelodyMaker.DENSITY, DENSITIES.get(words))));
            }
            made.getChildren().add(amounts);
        } else if (one == Kind.CHORDS) {
            common = new Choice<>(
                    "make-progression",
                    "Thirty progressions that are common, by mood",
                    progression -> progression.mood() + ": " + progression.text(),
                    progression -> set(Kind.CHORDS, ChordsMaker.PROGRESSION, progression.text()));
            common.setPromptText("common progressions");
            made.getChildren().add(common);
        }
        GridPane grid = new GridPane();
        grid.setHgap(Space.CLOSE);
        grid.setVgap(Space.CLOSE);
        for (int i = 0; i < COLUMNS; i++) {
            ColumnConstraints column = new ColumnConstraints();
            column.setPercentWidth(100.0 / COLUMNS);
            grid.getColumnConstraints().add(column);
        }
        int place = 0;
        for (Param<?> param : recipes.get(one).values().spec().params()) {
            ParamTile<?> tile = tile(one, param);
            tile.setMaxWidth(Double.MAX_VALUE);
            tiles.add(tile);
            boolean wide = param == ChordsMaker.PROGRESSION;
            if (wide) {
                grid.add(tile, 0, place / COLUMNS, COLUMNS, 1);
                place += COLUMNS;
            } else {
                grid.add(tile, place % COLUMNS, place / COLUMNS);
                place++;
            }
        }
        made.getChildren().add(grid);
        return made;
    }

    private <T> ParamTile<T> tile(Kind one, Param<T> param) {
        ParamTile<T> tile = new ParamTile<>(
                param,
                (changed, done) -> set(one, param, param.type().read(changed.plain())),
                document::spelling,
                messages::say);
        tile.setId("make-" + param.id());
        return tile;
    }

    private <T> void set(Kind one, Param<T> param, T value) {
        progressionIsChosen |= param == ChordsMaker.PROGRESSION;
        if (!recipes.get(one).values().get(param).equals(value)) {
            recipes.put(one, recipes.get(one).with(param, value));
            make();
        }
    }

    /** Makes it anew and shows it. */
    private void make() {
        page.getChildren().setAll(pages.get(kind));
        Piece piece = document.piece().get();
        if (kind == Kind.CHORDS && !progressionIsChosen) {
            String usual = Progression.usualIn(piece.key()).text();
            recipes.put(kind, recipes.get(kind).with(ChordsMaker.PROGRESSION, usual));
        }
        Recipe recipe = recipes.get(kind);
        showCommon();
        tiles.forEach(tile -> {
            if (recipe.values().spec().has(tile.param())) {
                tile.show(recipe.values());
            }
        });
        try {
            result = recipe.make(piece.key(), piece.time());
            double bars = result.length() / (double) piece.time().meter().at(0).barTicks();
            about.setText(String.format(
                    Locale.ROOT,
                    "%d notes in %s bars, %.1f a bar, %s.",
                    result.notes().size(),
                    bars == Math.rint(bars) ? String.valueOf((long) bars) : String.valueOf(bars),
                    result.notes().size() / bars,
                    inTheKey(piece.key())));
        } catch (IllegalArgumentException e) {
            result = new Recipe.Result(List.of(), 0);
            about.setText(e.getMessage());
        }
        desk.preview().set(result.notes());
        if (hear.isSelected()) {
            hear(true);
        }
    }

    /** The common progression that is set, if it is one: what was typed is no longer called by its name. */
    private void showCommon() {
        String text = recipes.get(Kind.CHORDS).values().get(ChordsMaker.PROGRESSION);
        common.show(
                Progression.COMMON,
                Progression.COMMON.stream()
                        .filter(one -> one.text().equals(text))
                        .findFirst()
                        .orElse(null));
    }

    /** "all in C major", or how many notes leave it, by name. */
    private String inTheKey(Key key) {
        Set<Integer> outside = new TreeSet<>();
        int count = 0;
        for (Note note : result.notes()) {
            if (!key.contains(note.pitch())) {
                outside.add(Pitch.pitchClass(note.pitch()));
                count++;
            }
        }
        return count == 0
                ? "all in " + key.name()
                : count + (count == 1 ? " leaves " : " leave ") + key.name() + ": "
                        + outside.stream()
                                .map(name -> document.spelling().of(name))
                                .collect(Collectors.joining(" "));
    }

    private void end() {
        desk.preview().set(List.of());
        silence();
    }

    private void silence() {
        if (hear.isSelected()) {
            hear.setSelected(false);
            hear(false);
        }
    }

    /** The chosen part plays what was made, alone in the phrase's place, until it is taken or put away. */
    private void hear(boolean on) {
        if (!on || result.notes().isEmpty()) {
            audition.end();
            return;
        }
        String part = selection.partId().get();
        Recipe.Result heard = result;
        audition.hear(piece -> {
            Phrase made = Phrase.of("made", heard.length(), heard.notes());
            String id = piece.freePhraseId("made");
            return Audition.inPlace(piece.withPhrase(made.withId(id)).withPart(part, one -> one.withPhrase(id)), part);
        });
    }

    private void done(String words) {
        silence();
        // What was taken is in the phrase now.
        desk.preview().set(List.of());
        messages.say(words);
    }

    private void takeNew() {
        if (result.notes().isEmpty()) {
            messages.say("There is nothing to take yet: " + about.getText());
            return;
        }
        Recipe recipe = recipes.get(kind);
        String name = kind.name().charAt(0) + kind.name().substring(1).toLowerCase(Locale.ROOT);
        Piece now = document.piece().get();
        String id = now.freePhraseId(Phrase.idFor(name + " 1"));
        String called = name + " " + id.replaceFirst(".*-", "");
        Phrase phrase =
                Phrase.of(called, result.length(), result.notes()).withId(id).withOrigin(recipe.origin());
        String part = selection.partId().get();
        boolean hears = !selection.part().phrase().isEmpty();
        document.apply(PieceEdit.of("Make a phrase", piece -> {
            Piece with = piece.withPhrase(phrase);
            return hears ? with : with.withPart(part, one -> one.withPhrase(id));
        }));
        desk.show(id);
        done("Made “" + called + "”: " + Words.count(result.notes().size(), "note")
                + (hears
                        ? ", in the list of phrases."
                        : ", heard by " + selection.part().name() + "."));
    }

    private void take(Taking taking) {
        Phrase phrase = desk.phrase().orElse(null);
        if (phrase == null || result.notes().isEmpty()) {
            messages.say("There is nothing to take yet: " + about.getText());
            return;
        }
        Taking.Range range = range(phrase);
        Recipe.Result made = result;
        Phrase after = taking.into(phrase, made.notes(), made.length(), range);
        Phrase with = phrase.notes().isEmpty() || taking == Taking.INSTEAD
                ? after.withOrigin(recipes.get(kind).origin())
                : after;
        desk.set("Make notes", "", with, java.util.Set.of());
        done("“" + phrase.name() + "” has " + after.notes().size() + " notes now, "
                + after.notes().stream()
                        .filter(note -> phrase.notes().findOrNull(note.id()) == null)
                        .count() + " of them new.");
    }

    /** Between the lowest and highest pitch that are set, in the bars of what is picked, or all. */
    private Taking.Range range(Phrase phrase) {
        Recipe melody = recipes.get(Kind.MELODY);
        int low = kind == Kind.MELODY ? melody.values().get(MelodyMaker.LOWEST) : 0;
        int high = kind == Kind.MELODY ? melody.values().get(MelodyMaker.HIGHEST) : 127;
        List<Note> picked = phrase.notes().stream()
                .filter(note -> desk.picked().get().contains(note.id()))
                .toList();
        if (picked.isEmpty()) {
            return new Taking.Range(Math.min(low, high), Math.max(low, high), 0, phrase.length());
        }
        var meter = document.piece().get().time().meter();
        long from = meter.tickOfBar(meter.barAt(picked.get(0).tick()));
        long to = meter.barLineAtOrAfter(
                picked.stream().mapToLong(Note::endTick).max().orElse(phrase.length()));
        return new Taking.Range(Math.min(low, high), Math.max(low, high), from, to);
    }
}
