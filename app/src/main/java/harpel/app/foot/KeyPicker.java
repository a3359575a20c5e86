package harpel.app.foot;

import harpel.app.document.Document;
import harpel.app.document.TypedValue;
import harpel.app.look.Messages;
import harpel.app.ui.Field;
import harpel.app.ui.Menus;
import harpel.app.ui.Space;
import harpel.piece.PieceEdit;
import harpel.theory.Key;
import harpel.theory.Scale;
import javafx.geometry.Pos;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/** The key of the piece: typed, or picked from a list of roots and scales. */
final class KeyPicker extends HBox {
    private final Document document;
    private final Messages messages;
    private final Field typed;
    private final MenuButton list = Menus.button(
            "", "key-list", "Pick root and scale; a right-click on a drawn key makes it the root", button -> offer());

    KeyPicker(Document document, Messages messages) {
        super(Space.TIGHT);
        this.document = document;
        this.messages = messages;
        setAlignment(Pos.CENTER_LEFT);
        typed = new Field(
                "key",
                "The key of the piece, such as D dorian",
                text -> document.take(PieceEdit.of("Set key", TypedValue.key(text))),
                messages::say);
        typed.setPrefWidth(104);
        HBox.setHgrow(typed, Priority.ALWAYS);
        list.setMinWidth(28);
        list.setAccessibleText("Pick root and scale");
        Label name = new Label("Key");
        name.getStyleClass().add("soft");
        name.setMinWidth(52);
        name.setLabelFor(typed);
        getChildren().addAll(name, typed, list);
        document.piece().addListener((property, before, now) -> show());
        show();
    }

    private Key key() {
        return document.piece().get().key();
    }

    private void show() {
        typed.show(key().name());
    }

    private void offer() {
        list.getItems().clear();
        Menu roots = new Menu("Root: " + key().rootName());
        roots.setId("key-roots");
        for (int root = 0; root < 12; root++) {
            int one = root;
            CheckMenuItem item = new CheckMenuItem(new Key(root, key().scale()).rootName());
            item.setSelected(root == key().root());
            item.setOnAction(event -> root(document, messages, one));
            roots.getItems().add(item);
        }
        list.getItems().addAll(roots, new SeparatorMenuItem());
        for (String name : Scale.names()) {
            CheckMenuItem item = new CheckMenuItem(name);
            item.setSelected(name.equals(key().scale().name()));
            item.setOnAction(event -> set(document, messages, new Key(key().root(), Scale.of(name))));
            list.getItems().add(item);
        }
    }

    /** Makes a note the root of the key; the scale stays. */
    static void root(Document document, Messages messages, int pitchClass) {
        set(document, messages, new Key(pitchClass, document.piece().get().key().scale()));
    }

    private static void set(Document document, Messages messages, Key key) {
        document.apply(PieceEdit.of("Set key", piece -> piece.withKey(key)));
        messages.say("The key is " + key.name() + ".");
    }
}
