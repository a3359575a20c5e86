package harpel.app.look;

import harpel.chain.StageAddress;
import java.util.List;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableSet;

/** How the window shows things: day or night, how large, what is folded. Interface thread. */
public final class Look {
    public static final double LARGEST = 2;
    private static final double SIZE_STEP = 0.25;

    private final Messages messages;
    private final ObjectProperty<Theme> theme = new SimpleObjectProperty<>(Theme.DAY);
    private final DoubleProperty size = new SimpleDoubleProperty(1);
    /** The views of the window. */
    public enum View {
        CHAIN,
        PHRASE,
        TIMELINE,
        PLAY,
        /** The page of MIDI devices and the clock. */
        DEVICES,
        /** The sheet of variations, which takes the whole page. */
        VARIATIONS
    }

    private final ObjectProperty<View> view = new SimpleObjectProperty<>(View.CHAIN);
    private final BooleanProperty large = new SimpleBooleanProperty();
    private final BooleanProperty routes = new SimpleBooleanProperty();
    private final BooleanProperty commonOpen = new SimpleBooleanProperty();
    private final ObservableSet<StageAddress> folded = FXCollections.observableSet();

    public Look(Messages messages) {
        this.messages = messages;
    }

    public ObjectProperty<Theme> theme() {
        return theme;
    }

    /** How much larger everything is shown, 1–2. */
    public DoubleProperty size() {
        return size;
    }

    /** Shows everything larger or smaller by a step, between 100 and 200 %. */
    public void resize(int steps) {
        double next = Math.round((size.get() + steps * SIZE_STEP) * 100) / 100.0;
        size.set(Math.max(1, Math.min(LARGEST, next)));
        messages.say("Size " + Math.round(100 * size.get()) + " %.");
    }

    /** The style sheets of this theme and size. */
    public List<String> styles() {
        return theme.get().styles(size.get());
    }

    /** The view that is seen. */
    public ObjectProperty<View> view() {
        return view;
    }

    /** Whether the selected stage's editor lies large over the rows. */
    public BooleanProperty large() {
        return large;
    }

    /** Whether the page of routes lies over the rows. */
    public BooleanProperty routes() {
        return routes;
    }

    /** Whether the settings that every effect has are unfolded. */
    public BooleanProperty commonOpen() {
        return commonOpen;
    }

    /** Folds a stage's row, or unfolds it. */
    public void fold(StageAddress address) {
        if (!folded.remove(address)) {
            folded.add(address);
        }
    }

    public boolean isFolded(StageAddress address) {
        return folded.contains(address);
    }

    /** The stages whose rows are folded. */
    public ObservableSet<StageAddress> folded() {
        return folded;
    }
}
