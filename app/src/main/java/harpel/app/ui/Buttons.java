package harpel.app.ui;

import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.Region;

/** Buttons, which are never cut off narrower than their words and always say what they do when pointed at. */
public final class Buttons {
    private Buttons() {}

    /** @param id for style sheets and tests */
    public static Button button(String words, String id, String tip, Runnable action) {
        Button button = new Button(words);
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        Tips.set(button, tip);
        button.setOnAction(event -> action.run());
        return button;
    }

    /** One of many beside one another. */
    public static Button small(String words, String id, String tip, Runnable action) {
        Button button = button(words, id, tip, action);
        button.getStyleClass().add("small-toggle");
        return button;
    }

    /** Takes something out of a list. */
    public static Button remove(String id, String what, Runnable action) {
        Button button = button("×", id, "Remove " + what, action);
        button.setAccessibleText("Remove " + what);
        return button;
    }

    /** A small one of several, of which one always holds; what it does is done whenever it is pressed. */
    public static ToggleButton oneOf(
            ToggleGroup group, String words, String id, String tip, boolean selected, Runnable action) {
        ToggleButton button = toggle(words, id, tip, on -> {});
        button.setToggleGroup(group);
        button.setSelected(selected);
        button.setOnAction(event -> {
            button.setSelected(true);
            action.run();
        });
        return button;
    }

    /** A small one that stays pressed. */
    public static ToggleButton toggle(String words, String id, String tip, Consumer<Boolean> changed) {
        ToggleButton button = stays(words, id, tip, changed);
        button.getStyleClass().add("small-toggle");
        return button;
    }

    /** One that stays pressed. */
    public static ToggleButton stays(String words, String id, String tip, Consumer<Boolean> changed) {
        ToggleButton button = new ToggleButton(words);
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        Tips.set(button, tip);
        button.setOnAction(event -> changed.accept(button.isSelected()));
        return button;
    }

    /**
     * Shows a picture, or several lines, in place of words; as narrow as its place is.
     *
     * @param words for a screen reader
     */
    public static Button picture(Node shown, String id, String words, String tip, Runnable action) {
        Button button = button("", id, tip, action);
        button.setGraphic(shown);
        button.setMinWidth(Region.USE_COMPUTED_SIZE);
        button.setAccessibleText(words);
        return button;
    }

    /** A box to check. */
    public static CheckBox check(String words, String id, boolean checked) {
        CheckBox box = new CheckBox(words);
        box.setId(id);
        box.setSelected(checked);
        return box;
    }

    /** A way out, or on, in the middle of words. */
    public static Hyperlink link(String words, String id, String tip, Runnable action) {
        Hyperlink link = new Hyperlink(words);
        link.setId(id);
        Tips.set(link, tip);
        link.setOnAction(event -> action.run());
        return link;
    }
}
