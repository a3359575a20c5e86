package harpel.app;

import harpel.app.look.Look.View;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;

/** Every action of the window, each declared once: its keys, its place in menus, what is said of it, and what it does. */
final class Actions {
    /**
     * One action.
     *
     * @param id for tests and tooltips
     * @param words what it does, as menus and the list of keys say it
     * @param here whether its keys mean it in the view that is seen
     * @param enabled whether it can be done now
     */
    record Action(String id, String words, KeyCombination key, View here, BooleanSupplier enabled, Runnable run) {
        /** Its keys, as they are shown. */
        String keys() {
            return key.getDisplayText();
        }
    }

    private final Map<String, Action> byId = new LinkedHashMap<>();
    private final List<MenuItem> items = new ArrayList<>();
    private final Supplier<View> seen;
    private View declaring;

    /** @param seen the view that is seen */
    Actions(Supplier<View> seen) {
        this.seen = seen;
    }

    /** What is declared from now on belongs to one view, or with null to all. */
    void in(View view) {
        declaring = view;
    }

    /**
     * Declares an action.
     *
     * @throws IllegalArgumentException when another has that id or those keys, or there is no key of that name
     */
    Action add(String id, String words, String key, BooleanSupplier enabled, Runnable run) {
        Action action = new Action(id, words, KeyCombination.keyCombination(key), declaring, enabled, run);
        if (!(action.key instanceof KeyCodeCombination)) {
            // It would be read as a letter that no key has, and the action never be done.
            throw new IllegalArgumentException("there is no key called \"" + key + "\", for the action " + id);
        }
        boolean taken = byId.values().stream()
                .anyMatch(one -> one.id.equals(id) || one.key.equals(action.key) && meet(one.here, action.here));
        if (taken) {
            throw new IllegalArgumentException("two actions have the name " + id + " or the keys " + key);
        }
        byId.put(id, action);
        return action;
    }

    private static boolean meet(View one, View other) {
        return one == null || other == null || one == other;
    }

    List<Action> all() {
        return List.copyOf(byId.values());
    }

    /** An item for a menu; it is grey while the action cannot be done. */
    MenuItem item(Action action) {
        MenuItem item = new MenuItem(action.words);
        item.setId("action-" + action.id);
        item.setAccelerator(action.key);
        item.setOnAction(event -> run(action));
        items.add(item);
        item.setUserData(action);
        return item;
    }

    /** Brings the items up to date, before a menu shows them. */
    void refresh() {
        items.forEach(item -> item.setDisable(!((Action) item.getUserData()).enabled.getAsBoolean()));
    }

    /** Does the action of those keys; false when there is none. One that cannot be done now takes the keys all the same. */
    boolean take(KeyEvent event) {
        for (Action action : byId.values()) {
            if (action.key.match(event) && meet(action.here, seen.get())) {
                run(action);
                return true;
            }
        }
        return false;
    }

    private static void run(Action action) {
        if (action.enabled.getAsBoolean()) {
            action.run.run();
        }
    }
}
