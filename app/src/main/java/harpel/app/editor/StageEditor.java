package harpel.app.editor;

import harpel.app.draw.Drawing;
import harpel.app.transport.Places;
import harpel.app.ui.Space;
import harpel.app.ui.Tips;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectKind;
import harpel.effect.held.Arpeggio;
import harpel.effect.held.Lanes;
import harpel.effect.held.Polymeter;
import harpel.effect.held.Strum;
import harpel.effect.notes.Carom;
import harpel.effect.notes.ChordKeys;
import harpel.effect.notes.Echo;
import harpel.effect.notes.Pulse;
import harpel.effect.pitch.NoteBend;
import harpel.effect.pitch.ScaleFit;
import harpel.effect.pitch.Stray;
import harpel.effect.route.Split;
import harpel.effect.shape.Touch;
import harpel.param.Param;
import harpel.param.ParamSpec;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** The music of one stage drawn and edited, above its controls. */
public abstract class StageEditor extends VBox {
    /** How an editor changes the stage it shows. */
    public interface Edit {
        /** @param done whether the hand has left the control, so that what comes next is undone on its own */
        <T> void set(Param<T> param, T value, boolean done);
    }

    /** The editors there are, by the kind of effect. An effect without one is edited by its controls alone. */
    private static final Map<Class<? extends EffectKind>, BiFunction<Around, Edit, StageEditor>> EDITORS =
            Map.ofEntries(
                    Map.entry(Arpeggio.class, PatternEditor::new),
                    Map.entry(Lanes.class, LanesEditor::new),
                    Map.entry(Polymeter.class, PolymeterEditor::new),
                    Map.entry(Pulse.class, PulseEditor::new),
                    Map.entry(Echo.class, EchoEditor::new),
                    Map.entry(Strum.class, StrumEditor::new),
                    Map.entry(Stray.class, StrayEditor::new),
                    Map.entry(Touch.class, TouchEditor::new),
                    Map.entry(ScaleFit.class, ScaleEditor::new),
                    Map.entry(ChordKeys.class, ChordKeysEditor::new),
                    Map.entry(NoteBend.class, BendEditor::new),
                    Map.entry(Split.class, SplitEditor::new),
                    Map.entry(Carom.class, BoardEditor::new));

    private final Around around;
    private final Edit edit;
    private StageAddress address;
    private Stage stage;

    public StageEditor(Around around, Edit edit) {
        super(Space.TIGHT);
        this.around = around;
        this.edit = edit;
        getStyleClass().add("stage-editor");
    }

    public static Optional<StageEditor> of(Around around, Stage stage, Edit edit) {
        return stage.isKnown()
                ? Optional.ofNullable(EDITORS.get(stage.kind().getClass())).map(maker -> maker.apply(around, edit))
                : Optional.empty();
    }

    public final Around around() {
        return around;
    }

    public final StageAddress address() {
        return address;
    }

    public final Stage stage() {
        return stage;
    }

    public final <T> T get(Param<T> param) {
        return stage.params().get(param);
    }

    public final <T> void set(Param<T> param, T value, boolean done) {
        edit.set(param, value, done);
    }

    public final void show(StageAddress newAddress, Stage newStage) {
        address = newAddress;
        stage = newStage;
        show();
    }

    /** The note that came in last, or the root of the key. */
    final int lastNote() {
        int last = around().transport().traces().lastPitch(Places.before(around.document(), address));
        return last < 0 ? 60 + around.document().piece().get().key().root() : last;
    }

    /** Takes the next value up (1) or down (-1); always true, as an answer to a key. */
    final <T> boolean step(Param<T> param, int by, boolean fine) {
        set(param, param.type().step(get(param), by, fine), true);
        return true;
    }

    /** Sets parameters to their defaults; always true, as an answer to a gesture. */
    final boolean reset(Param<?>... params) {
        for (Param<?> param : params) {
            resetOne(param);
        }
        return true;
    }

    private <T> void resetOne(Param<T> param) {
        set(param, param.defaultValue(), true);
    }

    /** Shows the stage as it is now. */
    public abstract void show();

    /** Draws a frame. */
    public abstract void draw();

    /** The parameters that have no control of their own beside this editor. */
    public Set<Param<?>> instead(ParamSpec spec) {
        return Set.of();
    }

    /** A line of small words. */
    public static Label words(String id) {
        Label label = new Label();
        label.setId(id);
        label.getStyleClass().add("soft");
        label.setWrapText(true);
        label.setMinHeight(USE_PREF_SIZE);
        return label;
    }

    public static void tip(Drawing drawing, String text) {
        Tips.set(drawing, text);
    }
}
