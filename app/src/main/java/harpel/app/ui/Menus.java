package harpel.app.ui;

import javafx.scene.control.MenuItem;

/** Items of menus. */
public final class Menus {
    private Menus() {}

    /** @param id for tests */
    public static MenuItem item(String words, String id, Runnable action) {
        MenuItem item = new MenuItem(words);
        item.setId(id);
        item.setOnAction(event -> action.run());
        return item;
    }
}
