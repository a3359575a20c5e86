package harpel.app.ui;

import java.util.Objects;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.input.KeyEvent;

/** Menus that a button opens, and their items. */
public final class Menus {
    private Menus() {}

    /** @param id for tests */
    public static MenuItem item(String words, String id, Runnable action) {
        MenuItem item = new MenuItem(words);
        item.setId(id);
        item.setOnAction(event -> action.run());
        return item;
    }

    /** A list that opens beside what it belongs to, and in which letters move the highlight. */
    public static ContextMenu list() {
        ContextMenu menu = new ContextMenu();
        Letters letters = new Letters();
        menu.addEventFilter(KeyEvent.KEY_TYPED, event -> {
            if (letters.isOne(event)) {
                letters.find(event.getCharacter(), menu.getItems(), item -> Objects.toString(item.getText(), ""))
                        .map(MenuItem::getStyleableNode)
                        .ifPresent(Node::requestFocus);
                event.consume();
            }
        });
        return menu;
    }

    /** A button that opens a menu. */
    public static MenuButton button(String words, String id, String tip) {
        MenuButton button = new MenuButton(words);
        button.setId(id);
        Tips.set(button, tip);
        return button;
    }

    /** The same with items that are made whenever it is opened. */
    public static MenuButton button(String words, String id, String tip, Consumer<MenuButton> fill) {
        MenuButton button = button(words, id, tip);
        // A menu without items does not open.
        button.getItems().add(new SeparatorMenuItem());
        button.setOnShowing(event -> fill.accept(button));
        return button;
    }
}
