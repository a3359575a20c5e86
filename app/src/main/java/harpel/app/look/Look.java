package harpel.app.look;

import harpel.chain.StageAddress;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
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

    /** What can be folded away to a strip, so that there is more room for notes. */
    public enum Fold {
        PARTS("the parts at the left", "F9"),
        CONTROLS("the controls at the right", "F10"),
        HEARD("what was heard", "F12"),
        KEYS("the drawn keys", "F11");

        private final String words;
        private final String key;

        Fold(String words, String key) {
            this.words = words;
            this.key = key;
        }

        /** The key that folds or opens it. */
        public String key() {
            return key;
        }

        public String words() {
            return words;
        }
    }

    /** Below so many points the window folds of itself, unless someone has it open. */
    private static final double CONTROLS_FROM = 960;

    private static final double PARTS_FROM = 820;
    private static final double HEARD_FROM = 620;
    private static final double KEYS_FROM = 720;
    /** In views whose rows go down the whole page the keys fold sooner. */
    private static final double KEYS_BELOW_ROWS_FROM = 900;

    private final Map<Fold, Boolean> wished = new EnumMap<>(Fold.class);
    private final ReadOnlyObjectWrapper<Set<Fold>> folds = new ReadOnlyObjectWrapper<>(Set.of());
    private double wide = Double.MAX_VALUE;
    private double high = Double.MAX_VALUE;
    private final ObjectProperty<View> view = new SimpleObjectProperty<>(View.CHAIN);
    private final BooleanProperty large = new SimpleBooleanProperty();
    private final BooleanProperty routes = new SimpleBooleanProperty();
    private final BooleanProperty commonOpen = new SimpleBooleanProperty();
    private final ObservableSet<StageAddress> folded = FXCollections.observableSet();

    public Look(Messages messages) {
        this.messages = messages;
        view.addListener((property, before, now) -> fold());
    }

    /** What is folded away. */
    public ReadOnlyObjectProperty<Set<Fold>> folds() {
        return folds.getReadOnlyProperty();
    }

    /** Folds something away, or opens it; that stays so in every window until it is done again. */
    public void toggle(Fold fold) {
        wish(fold, !folds.get().contains(fold));
    }

    /** Has something be folded, or open, whatever room there is. */
    public void wish(Fold fold, boolean folded) {
        wished.put(fold, folded);
        fold();
    }

    /** What someone has folded or opened, and which of both. */
    public Map<Fold, Boolean> wished() {
        return Map.copyOf(wished);
    }

    /** How large the window is, in points of its content. */
    public void room(double newWide, double newHigh) {
        wide = newWide;
        high = newHigh;
        fold();
    }

    private void fold() {
        Set<Fold> now = EnumSet.noneOf(Fold.class);
        for (Fold fold : Fold.values()) {
            if (wished.getOrDefault(fold, isTight(fold))) {
                now.add(fold);
            }
        }
        if (!now.equals(folds.get())) {
            folds.set(Collections.unmodifiableSet(now));
        }
    }

    private boolean isTight(Fold fold) {
        boolean rows = view.get() == View.TIMELINE || view.get() == View.PLAY;
        return switch (fold) {
            case PARTS -> wide < PARTS_FROM;
            case CONTROLS -> wide < CONTROLS_FROM;
            case HEARD -> high < HEARD_FROM;
            case KEYS -> high < (rows ? KEYS_BELOW_ROWS_FROM : KEYS_FROM);
        };
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
