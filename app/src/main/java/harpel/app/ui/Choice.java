package harpel.app.ui;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ListView;
import javafx.scene.control.Skin;
import javafx.scene.control.skin.ComboBoxListViewSkin;
import javafx.scene.input.KeyEvent;
import javafx.util.StringConverter;

/**
 * One of several things, each with its words; choosing one tells it, showing one does not.
 *
 * @param <T> the things
 */
public final class Choice<T> extends ComboBox<T> {
    private final Letters letters = new Letters();
    private boolean showing;

    /** @param tip what is chosen, for the tip and a screen reader */
    public Choice(String id, String tip, Function<T, String> words, Consumer<T> chosen) {
        setId(id);
        setMaxWidth(Double.MAX_VALUE);
        setAccessibleText(tip);
        Tips.set(this, tip);
        setConverter(new StringConverter<>() {
            @Override
            public String toString(T thing) {
                return thing == null ? "" : words.apply(thing);
            }

            @Override
            public T fromString(String text) {
                throw new UnsupportedOperationException("things are chosen, not typed");
            }
        });
        setOnAction(event -> {
            if (!showing && getValue() != null) {
                chosen.accept(getValue());
            }
        });
        addEventHandler(KeyEvent.KEY_TYPED, event -> {
            // Where it is closed they play keys.
            if (isShowing() && letters.isOne(event)) {
                letters.find(event.getCharacter(), getItems(), words).ifPresent(this::setValue);
                event.consume();
            }
        });
    }

    /** The list comes into the scene when it opens, and not before: it is more than all else here. */
    @Override
    protected Skin<?> createDefaultSkin() {
        ComboBoxListViewSkin<T> skin = new ComboBoxListViewSkin<>(this);
        ListView<?> list = (ListView<?>) skin.getPopupContent();
        getChildren().remove(list);
        // Where the list ends between two pixels, its window would show white.
        setOnShown(event -> {
            // It may have gone again before its styles were there.
            if (list.getScene() != null
                    && list.getBackground() != null
                    && !list.getBackground().isEmpty()) {
                list.getScene().setFill(list.getBackground().getFills().get(0).getFill());
            }
        });
        return skin;
    }

    /** Shows what there is to choose from, and what holds now. */
    public void show(List<T> things, T value) {
        showing = true;
        if (!getItems().equals(things)) {
            // What held before may have no words among other things.
            setValue(null);
            getItems().setAll(things);
        }
        setValue(value);
        showing = false;
    }
}
