package harpel.app.parts;

import harpel.advice.Advisor;
import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.transport.Sounds;
import harpel.app.transport.Transport;
import harpel.app.ui.Space;
import harpel.app.ui.TextLine;
import harpel.piece.Part;
import harpel.piece.PieceEdit;
import harpel.theory.GeneralMidi;
import harpel.theory.Words;
import java.util.List;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.VBox;

/**
 * Finds the sound of the shown part: what is typed is looked for in names and families, and each sound is taken and heard as it is walked
 * to. Enter keeps it, Escape brings back the one there was. Of a drum part it is the instruments of its set that are found and heard.
 */
final class SoundFinder extends VBox {
    private static final double LIST_HEIGHT = 190;

    /**
     * A row.
     *
     * @param pitch at which it is tried
     * @param sound the name of the sound that is taken; null for a drum, which is only heard
     */
    private record Found(String name, String about, int pitch, String sound) {}

    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Sounds sounds;
    private final TextField search = new TextLine(
            "sound-search", "A name or family, such as bell or organ; the arrow keys go through what is found", "");
    private final Label none = new Label("Nothing has that name. Try bell, organ, bass.");
    private final ListView<Found> list = new ListView<>();
    private String part = "";
    private boolean drums;
    /** The part's voice before it was looked for another. */
    private Part before;

    SoundFinder(Document document, Selection selection, Transport transport, Sounds sounds) {
        super(Space.TIGHT);
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.sounds = sounds;
        setVisible(false);
        search.setPromptText("bell, organ, pad …");
        search.textProperty().addListener((property, old, now) -> fill());
        list.setId("sounds-found");
        list.getStyleClass().add("sounds-found");
        list.setAccessibleText("Sounds");
        list.setPrefHeight(LIST_HEIGHT);
        list.setMinHeight(LIST_HEIGHT);
        // The keyboard stays in the line above.
        list.setFocusTraversable(false);
        list.setCellFactory(view -> new Row());
        list.getSelectionModel().selectedItemProperty().addListener((property, old, now) -> take(now));
        none.setWrapText(true);
        none.getStyleClass().add("soft");
        search.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        getChildren().addAll(search, list);
        sounds.bank().addListener((property, old, now) -> fill());
    }

    /** Opens or closes it. */
    void show(boolean open) {
        setVisible(open);
        if (open) {
            before = selection.part();
            search.clear();
            fill();
            search.requestFocus();
        } else {
            document.endGesture();
        }
    }

    /** Another part is shown, or it has changed. */
    void show(Part now) {
        boolean nowDrums = now.channel() == GeneralMidi.PERCUSSION_CHANNEL;
        if (!now.id().equals(part) || nowDrums != drums) {
            part = now.id();
            drums = nowDrums;
            show(false);
        }
    }

    private void fill() {
        if (!isVisible()) {
            return;
        }
        List<Found> found = drums ? drums(search.getText()) : sounds(search.getText());
        list.getItems().setAll(found);
        getChildren().set(1, found.isEmpty() ? none : list);
        if (!drums && search.getText().isBlank()) {
            // It begins at the sound there is.
            found.stream()
                    .filter(one -> one.sound.equals(selection.part().sound()))
                    .findFirst()
                    .ifPresent(list.getSelectionModel()::select);
            list.scrollTo(Math.max(0, list.getSelectionModel().getSelectedIndex() - 2));
        }
    }

    private List<Found> sounds(String typed) {
        return sounds.found(typed).stream()
                .map(one -> new Found(one.name(), one.family(), Advisor.homely(one.program()), one.name()))
                .toList();
    }

    private List<Found> drums(String typed) {
        return GeneralMidi.percussionKeys().stream()
                .map(key -> new Found(
                        GeneralMidi.percussion(key).orElseThrow(),
                        GeneralMidi.note(key, 0, document.spelling()),
                        key,
                        null))
                .filter(one -> Words.finds(typed, one.name + " " + one.about))
                .toList();
    }

    private void take(Found now) {
        if (now == null) {
            return;
        }
        if (now.sound != null && !now.sound.equals(selection.part().sound())) {
            sounds.choose(part, now.sound, "find sound " + part);
        }
        transport.trySound(part, now.pitch);
    }

    private void key(KeyEvent event) {
        int at = list.getSelectionModel().getSelectedIndex();
        int last = list.getItems().size() - 1;
        int to = switch (event.getCode()) {
            case DOWN -> Math.min(last, at + 1);
            case UP -> Math.max(0, at - 1);
            case PAGE_DOWN -> Math.min(last, at + 8);
            case PAGE_UP -> Math.max(0, at - 8);
            default -> -1;
        };
        if (to >= 0) {
            list.getSelectionModel().select(to);
            list.scrollTo(Math.max(0, to - 2));
            event.consume();
            return;
        }
        switch (event.getCode()) {
            case ENTER -> {
                show(false);
                event.consume();
            }
            case ESCAPE -> {
                bringBack();
                show(false);
                event.consume();
            }
            default -> {}
        }
    }

    private void bringBack() {
        if (!drums && !selection.part().voice().equals(before.voice())) {
            document.apply(new PieceEdit(
                    "Choose sound",
                    "find sound " + part,
                    piece -> piece.withPart(part, one -> one.withVoice(before.voice()))));
        }
    }

    /** A name, and softly beside it the family or the key. */
    private static final class Row extends ListCell<Found> {
        private final Label about = new Label();

        private Row() {
            about.getStyleClass().add("soft");
            setContentDisplay(ContentDisplay.RIGHT);
            // As wide as the list: what does not fit ends in dots.
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(Found item, boolean empty) {
            super.updateItem(item, empty);
            setText(empty ? null : item.name);
            about.setText(empty ? "" : item.about);
            setGraphic(empty ? null : about);
        }
    }
}
