package harpel.app.phrase;

import harpel.app.draw.Raster;
import harpel.app.draw.Thumbnail;
import harpel.app.look.Look;
import harpel.app.ui.Asking;
import harpel.app.ui.Buttons;
import harpel.app.ui.Choice;
import harpel.app.ui.Space;
import harpel.app.ui.room.Scrolling;
import harpel.format.midi.MidiFile;
import harpel.phrase.Phrase;
import harpel.piece.Piece;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonBar;
import javafx.scene.control.ButtonType;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Window;

/** Asks what becomes of which tracks of a MIDI file, each with a picture of it, and whether its time, key and marks are taken along. */
public final class TrackSheet {
    /** What becomes of tracks. */
    public enum As {
        PHRASES("phrases in the list"),
        PARTS("parts of this piece, on its timeline"),
        PIECE("a new piece, with the file’s tempo, meters, keys and marks");

        private final String words;

        As(String words) {
            this.words = words;
        }

        @Override
        public String toString() {
            return words;
        }
    }

    /** What was chosen. */
    public record Chosen(
            As as, List<MidiFile.Line> lines, List<Phrase> phrases, boolean time, boolean key, boolean marks) {}

    private static final double WIDE = 160;
    private static final double TALL = 30;

    private TrackSheet() {}

    /**
     * Asks.
     *
     * @param file the file's name
     * @param first what is proposed
     */
    public static Optional<Chosen> ask(Look look, Window owner, MidiFile midi, String file, As first) {
        VBox rows = new VBox(Space.CLOSE);
        List<CheckBox> boxes = new ArrayList<>();
        List<Phrase> phrases = new ArrayList<>();
        for (MidiFile.Line line : midi.lines()) {
            Phrase phrase = midi.toPhrase(line, file);
            CheckBox box =
                    Buttons.check(line.shown(), "track-" + phrases.size(), phrases.isEmpty() || first != As.PHRASES);
            box.setMinWidth(170);
            box.setPrefWidth(170);
            boxes.add(box);
            phrases.add(phrase);
            double bars = phrase.length() / (double) midi.time().meter().at(0).barTicks();
            Label about = new Label(String.format(
                    Locale.ROOT,
                    "channel %d · %d notes · %.0f bars",
                    line.channel() + 1,
                    line.notes().size(),
                    bars));
            about.getStyleClass().add("soft");
            about.setMinWidth(180);
            HBox row = new HBox(Space.GAP, box, about, picture(look, phrase));
            row.setAlignment(Pos.CENTER_LEFT);
            rows.getChildren().add(row);
        }
        CheckBox time = Buttons.check(
                "Take its tempo and meter along: "
                        + Math.round(midi.time().tempo().bpmAt(0)) + ", "
                        + midi.time().meter().at(0).shown(),
                "take-time",
                false);
        CheckBox key = Buttons.check(
                midi.key().map(one -> "Take its key along: " + one.name()).orElse("It names no key"),
                "take-key",
                false);
        key.setDisable(midi.key().isEmpty());
        int named = midi.marks().size();
        CheckBox marks = Buttons.check(
                named == 0 ? "It has no marks" : "Take its " + (named == 1 ? "mark" : named + " marks") + " along",
                "take-marks",
                false);
        marks.setDisable(named == 0);
        Scrolling list = new Scrolling(rows);
        list.setPrefViewportHeight(Math.min(320, 40 * phrases.size()));
        Choice<As> as = new Choice<>("tracks-as", "What becomes of the tracks", As::toString, chosen -> {});
        as.show(List.of(As.values()), first);
        // A new piece has all of it.
        List.of(time, key, marks)
                .forEach(box -> box.visibleProperty().bind(as.valueProperty().isNotEqualTo(As.PIECE)));
        as.valueProperty().addListener((property, before, now) -> {
            if (now != As.PHRASES) {
                boxes.forEach(box -> box.setSelected(true));
            }
        });
        VBox content = new VBox(Space.ROOM, list, as, time, key, marks);
        content.setPadding(new Insets(Space.ROOM));
        ButtonType read = new ButtonType("Read", ButtonBar.ButtonData.OK_DONE);
        Alert sheet = Asking.sheet(
                owner, look.styles(), "What becomes of the tracks of “" + file + "”?", "", read, ButtonType.CANCEL);
        sheet.getDialogPane().setContent(content);
        sheet.getDialogPane().lookupButton(read).setId("read-tracks");
        Optional<ButtonType> answer = sheet.showAndWait();
        if (answer.isEmpty() || answer.get() != read) {
            return Optional.empty();
        }
        List<Phrase> chosen = new ArrayList<>();
        List<MidiFile.Line> lines = new ArrayList<>();
        for (int i = 0; i < boxes.size(); i++) {
            if (boxes.get(i).isSelected()) {
                chosen.add(phrases.get(i));
                lines.add(midi.lines().get(i));
            }
        }
        return Optional.of(
                new Chosen(as.getValue(), lines, chosen, time.isSelected(), key.isSelected(), marks.isSelected()));
    }

    private static StackPane picture(Look look, Phrase phrase) {
        Raster raster = new Raster();
        raster.fit(WIDE, TALL, look.size().get());
        Thumbnail.paint(raster, look.theme().get(), phrase);
        raster.end();
        StackPane place = new StackPane(raster);
        place.setMinSize(WIDE, TALL);
        place.setMaxSize(WIDE, TALL);
        return place;
    }

    /** Puts chosen phrases into a piece, each under an id of its own. */
    public static Piece with(Piece piece, Chosen chosen, MidiFile midi, List<String> ids) {
        Piece with = piece;
        for (Phrase phrase : chosen.phrases) {
            String id = with.freePhraseId(phrase.id());
            with = with.withPhrase(phrase.withId(id));
            ids.add(id);
        }
        return along(with, chosen, midi);
    }

    /** With what of the file is taken along besides its notes. */
    public static Piece along(Piece piece, Chosen chosen, MidiFile midi) {
        Piece with = piece;
        if (chosen.time) {
            with = with.withTime(midi.time());
        }
        if (chosen.marks) {
            with = with.withMarks(midi.marks());
        }
        return chosen.key && midi.key().isPresent() ? with.withKey(midi.key().orElseThrow()) : with;
    }
}
