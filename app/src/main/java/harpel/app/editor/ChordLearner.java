package harpel.app.editor;

import harpel.app.document.Document;
import harpel.app.document.Selection;
import harpel.app.look.Messages;
import harpel.app.transport.Places;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.notes.ChordKeys;
import harpel.event.NoteStart;
import harpel.param.music.ChordTableType.KeyChord;
import harpel.theory.Pitch;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The chords of single keys: a list, and learning one by playing first its key and then its notes. */
final class ChordLearner extends VBox {
    private enum State {
        OFF,
        KEY,
        CHORD
    }

    private final Document document;
    private final Selection selection;
    private final Transport transport;
    private final Messages messages;
    private final ToggleButton learn;
    private final Label prompt = new Label();
    private final VBox list = new VBox(Space.FINE);
    private StageAddress address;
    private State state = State.OFF;
    /** The last note of the part that was there before this state; null for none. */
    private NoteStart seen;

    private int key;
    private final TreeSet<Integer> chord = new TreeSet<>();

    public ChordLearner(Document document, Selection selection, Transport transport, Messages messages) {
        super(Space.TIGHT);
        this.document = document;
        this.selection = selection;
        this.transport = transport;
        this.messages = messages;
        learn = Buttons.stays(
                "Learn a chord by playing",
                "learn-chord",
                "Play the key that shall have a chord, let it go, then play the chord",
                on -> go(on ? State.KEY : State.OFF));
        prompt.setId("learn-prompt");
        prompt.getStyleClass().add("advice");
        prompt.setWrapText(true);
        getChildren().addAll(learn, prompt, list);
        go(State.OFF);
    }

    private void go(State newState) {
        state = newState;
        List<NoteStart> notes = notes();
        seen = notes.isEmpty() ? null : notes.get(notes.size() - 1);
        chord.clear();
        learn.setSelected(state != State.OFF);
        prompt.setText(
                switch (state) {
                    case OFF -> "";
                    case KEY -> "Play the key.";
                    case CHORD -> "Now the chord for " + Pitch.shown(key, document.spelling()) + ", and let go.";
                });
        prompt.setManaged(state != State.OFF);
        prompt.setVisible(state != State.OFF);
    }

    private List<NoteStart> notes() {
        return transport.traces().notes(Places.input(selection.partId().get())).stream()
                .map(drawn -> drawn.note)
                .toList();
    }

    /** What has come to the part since; time may have begun anew meanwhile, and then all of it has. */
    private List<NoteStart> fresh() {
        List<NoteStart> notes = notes();
        for (int i = notes.size() - 1; i >= 0; i--) {
            if (notes.get(i) == seen) {
                return notes.subList(i + 1, notes.size());
            }
        }
        return notes;
    }

    public void show(StageAddress newAddress, Stage stage) {
        if (!newAddress.equals(address)) {
            address = newAddress;
            go(State.OFF);
        }
        Map<Integer, KeyChord> keys = new TreeMap<>(stage.params().get(ChordKeys.KEYS));
        list.getChildren()
                .setAll(keys.entrySet().stream()
                        .map(entry -> row(entry.getKey(), entry.getValue()))
                        .toList());
    }

    private HBox row(int pitch, KeyChord keyChord) {
        Label words = new Label(Pitch.shown(pitch, document.spelling()) + "  " + words(keyChord));
        Button remove = Buttons.remove(
                "remove-chord-" + pitch,
                "the chord of " + Pitch.shown(pitch, document.spelling()),
                () -> change("Remove chord", keys -> keys.remove(pitch)));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        return new HBox(Space.CLOSE, words, space, remove);
    }

    /** "Am7 (VIm7)", or the names of the notes. */
    private String words(KeyChord keyChord) {
        if (keyChord.symbol() != null) {
            return keyChord.symbol().shown(document.spelling()) + " ("
                    + keyChord.symbol().romanIn(document.piece().get().key()) + ")";
        }
        return keyChord.notes().stream()
                .map(note -> keyChord.relative()
                        ? (note < 0 ? "−" + -note : "+" + note)
                        : Pitch.shown(note, document.spelling()))
                .collect(Collectors.joining(" "));
    }

    private void change(String label, java.util.function.Consumer<Map<Integer, KeyChord>> change) {
        selection.editStage(label, "", address, stage -> {
            Map<Integer, KeyChord> keys = new TreeMap<>(stage.params().get(ChordKeys.KEYS));
            change.accept(keys);
            return stage.with(ChordKeys.KEYS, Map.copyOf(keys));
        });
    }

    /** Listens while it learns; once a frame. */
    public void draw() {
        if (state == State.OFF) {
            return;
        }
        List<NoteStart> fresh = fresh();
        boolean sounding =
                transport.traces().sounds(Places.input(selection.partId().get()));
        if (state == State.KEY && !fresh.isEmpty() && !sounding) {
            key = fresh.get(0).pitch();
            go(State.CHORD);
        } else if (state == State.CHORD) {
            fresh.forEach(note -> chord.add(note.pitch()));
            if (!chord.isEmpty() && !sounding) {
                List<Integer> pitches = List.copyOf(chord);
                int learnt = key;
                go(State.OFF);
                change("Learn chord", keys -> keys.put(learnt, new KeyChord(null, pitches, false)));
                messages.say(Pitch.shown(learnt, document.spelling()) + " plays "
                        + pitches.stream()
                                .map(pitch -> Pitch.shown(pitch, document.spelling()))
                                .collect(Collectors.joining(" "))
                        + ".");
            }
        }
    }
}
