package harpel.app.editor;

import harpel.app.draw.KeyboardDrawing;
import harpel.app.look.Theme;
import harpel.app.ui.TextLine;
import harpel.effect.notes.ChordKeys;
import harpel.param.Param;
import harpel.param.ParamSpec;
import harpel.param.music.ChordTableType;
import harpel.param.music.ChordTableType.KeyChord;
import harpel.theory.Chord;
import harpel.theory.Key;
import harpel.theory.Pitch;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.paint.Color;

/** The chords of single keys on a drawn keyboard: choose a key, see its chord, type another, or learn it by playing. */
final class ChordKeysEditor extends StageEditor {
    private static final int LOWEST = 36;
    private static final int OCTAVES = 4;

    private final Keys keys;
    private final Label words = words("chord-words");
    private final TextLine field = new TextLine(
            "chord-of-key",
            "The chord of the chosen key: a chord symbol, note numbers, or distances from the key with +; Enter sets it, empty takes"
                    + " it away",
            "");
    private final ChordLearner learner;

    public ChordKeysEditor(Around around, Edit edit) {
        super(around, edit);
        keys = new Keys(around);
        learner = new ChordLearner(around.document(), around.selection(), around.transport(), around.messages());
        field.setPromptText("Am7, or 57 60 64, or +0 +3 +7");
        field.setOnAction(event -> take(field.getText().strip()));
        getChildren().addAll(keys, words, field, learner);
    }

    @Override
    public Set<Param<?>> instead(ParamSpec spec) {
        return Set.of(ChordKeys.KEYS);
    }

    private List<Integer> chord(int pitch) {
        Key key = ChordKeys.key(
                stage().params(), around().document().piece().get().key());
        return ChordKeys.chord(stage().params(), key, pitch, List.of());
    }

    private void put(KeyChord chord) {
        Map<Integer, KeyChord> table = new TreeMap<>(get(ChordKeys.KEYS));
        if (chord == null) {
            table.remove(keys.chosen());
        } else {
            table.put(keys.chosen(), chord);
        }
        set(ChordKeys.KEYS, Map.copyOf(table), true);
    }

    private void take(String text) {
        if (text.isEmpty()) {
            put(null);
            return;
        }
        try {
            String bare = text.replaceAll("[\\s,]+", ",");
            put(ChordTableType.CHORDS.parse(keys.chosen() + "=" + bare).get(keys.chosen()));
            keys.requestFocus();
        } catch (IllegalArgumentException e) {
            around().say("Chord of " + Pitch.shown(keys.chosen(), around().spelling()) + ": " + e.getMessage());
        }
    }

    @Override
    public void show() {
        learner.show(address(), stage());
        showKey();
        keys.repaint();
    }

    private void showKey() {
        int key = keys.chosen();
        KeyChord own = get(ChordKeys.KEYS).get(key);
        String notes = Chord.told(chord(key), around().spelling());
        words.setText(Pitch.shown(key, around().spelling())
                + (notes.isEmpty() ? " is silent" : " plays " + notes)
                + (own != null ? " – a chord of its own." : "."));
        field.setText(
                own == null
                        ? ""
                        : ChordTableType.CHORDS
                                .show(Map.of(key, own), around().spelling())
                                .replaceFirst("^[^=]*=", ""));
        keys.setAccessibleText(words.getText());
    }

    @Override
    public void draw() {
        keys.draw();
        learner.draw();
    }

    private final class Keys extends KeyboardDrawing {
        Keys(Around around) {
            super(around.look(), "chord-keyboard", 62, LOWEST, OCTAVES);
            tip(
                    this,
                    "Press a key to see its chord; Shift-press adds a note to that chord or takes it away. Dots: keys with a chord of their own.\n"
                            + "Left, Right, Up and Down choose a key, Enter types its chord, Delete takes it away.");
        }

        @Override
        public Color colour(Theme theme, int pitch) {
            return chord(chosen()).contains(pitch) ? theme.brass : null;
        }

        @Override
        public boolean marked(int pitch) {
            return get(ChordKeys.KEYS).containsKey(pitch);
        }

        @Override
        public void chose() {
            showKey();
        }

        @Override
        public void other(int pitch) {
            List<Integer> notes = new ArrayList<>(chord(chosen()));
            if (!notes.remove((Integer) pitch)) {
                notes.add(pitch);
            }
            notes.sort(null);
            put(notes.isEmpty() ? null : new KeyChord(null, List.copyOf(notes), false));
        }

        @Override
        public boolean key(KeyEvent event) {
            if (event.getCode() == KeyCode.ENTER) {
                field.requestFocus();
                field.selectAll();
                return true;
            }
            if (event.getCode() == KeyCode.DELETE || event.getCode() == KeyCode.BACK_SPACE) {
                put(null);
                return true;
            }
            return super.key(event);
        }
    }
}
