package harpel.app.editor;

import harpel.app.draw.WaysRow;
import harpel.effect.pitch.Stray;
import harpel.param.Param;
import harpel.param.ParamSpec;
import harpel.theory.Interval.Unit;
import harpel.theory.Key;
import java.util.Locale;
import java.util.Set;
import javafx.scene.control.Label;

/** Where the last note can stray to, by name, and how often it goes there. */
final class StrayEditor extends StageEditor {
    private final WaysRow ways;
    private final Label words = words("stray-words");
    private int note = -1;

    public StrayEditor(Around around, Edit edit) {
        super(around, edit);
        ways = new WaysRow(
                around.look(),
                around.messages(),
                "stray-ways",
                "Ways",
                (changed, done) -> set(Stray.WAYS, changed, done));
        getChildren().addAll(ways, words);
    }

    @Override
    public Set<Param<?>> instead(ParamSpec spec) {
        return Set.of(Stray.WAYS);
    }

    private Key key() {
        return around().document().piece().get().key();
    }

    private int led(int step) {
        return Stray.led(stage().params(), note, step, key());
    }

    @Override
    public void show() {
        note = lastNote();
        ways.show(get(Stray.WAYS), get(Stray.STEPS_IN) == Unit.DEGREES ? "degrees" : "semitones", key(), this::led);
        words.setText(String.format(
                Locale.ROOT,
                "%d %% of notes are taken, %.1f %% change.",
                get(Stray.AMOUNT),
                Stray.trueShare(stage().params())));
    }

    @Override
    public void draw() {
        int last = lastNote();
        if (last != note) {
            note = last;
            ways.leads(this::led);
        }
        ways.draw();
    }
}
