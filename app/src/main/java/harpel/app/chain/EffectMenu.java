package harpel.app.chain;

import harpel.app.session.Session;
import harpel.chain.Branch;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.geometry.Side;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyEvent;

/** The list of effects to add, by family. */
public final class EffectMenu {
    private EffectMenu() {}

    /** Offers the effects to add at a place of a chain. */
    public static void show(Node anchor, Session session, List<Step> way, int place) {
        show(anchor, kind -> add(session, way, place, kind));
    }

    /** Offers the effects that can take the place of a stage. */
    public static void showReplace(Node anchor, Session session, StageAddress address) {
        show(
                anchor,
                kind -> session.selection()
                        .editStage("Replace by " + kind.label(), "", address, stage -> ready(stage.replacedBy(kind))));
    }

    private static void show(Node anchor, Consumer<EffectKind> choose) {
        ContextMenu menu = new ContextMenu();
        TextField search = new TextField();
        search.setId("find-effect");
        search.setPromptText("type what you want: softer, echo, in key");
        search.setPrefColumnCount(24);
        CustomMenuItem top = new CustomMenuItem(search, false);
        search.textProperty().addListener((property, before, now) -> fill(menu, top, choose, now));
        search.setOnAction(event -> found(search.getText()).stream().findFirst().ifPresent(kind -> {
            menu.hide();
            choose.accept(kind);
        }));
        menu.setOnShown(event -> {
            search.requestFocus();
            menu.getScene().addEventFilter(KeyEvent.KEY_TYPED, typed -> typeInto(search, typed));
        });
        fill(menu, top, choose, "");
        menu.show(anchor, Side.BOTTOM, 40, 0);
    }

    /** An entry under the pointer takes the focus; what is typed is meant for the search all the same. */
    private static void typeInto(TextField search, KeyEvent typed) {
        String letter = typed.getCharacter();
        if (search.isFocused() || letter.isEmpty() || Character.isISOControl(letter.charAt(0))) {
            return;
        }
        typed.consume();
        search.requestFocus();
        search.appendText(letter);
        search.end();
    }

    /** The effects that are found by what was typed, those whose name begins with it first. */
    public static List<EffectKind> found(String typed) {
        String start = typed.strip().toLowerCase(Locale.ROOT);
        List<EffectKind> found = new ArrayList<>();
        EffectCatalog.kinds().stream().filter(kind -> kind.isFoundBy(typed)).forEach(found::add);
        if (!start.isEmpty()) {
            found.sort(Comparator.comparing(
                    kind -> kind.label().toLowerCase(Locale.ROOT).startsWith(start) ? 0 : 1));
        }
        return found;
    }

    private static void fill(ContextMenu menu, CustomMenuItem top, Consumer<EffectKind> choose, String typed) {
        List<MenuItem> items = new ArrayList<>(List.of(top));
        EffectKind.Family family = null;
        for (EffectKind kind : found(typed)) {
            if (typed.isBlank() && kind.family() != family) {
                family = kind.family();
                MenuItem head = new MenuItem(family.label());
                head.setDisable(true);
                head.getStyleClass().add("menu-head");
                items.add(head);
            }
            MenuItem item = new MenuItem(kind.label() + " – " + kind.does());
            item.setId("add-" + kind.id());
            item.setOnAction(event -> choose.accept(kind));
            items.add(item);
        }
        menu.getItems().setAll(items);
    }

    /** Adds a stage with simple settings and selects it. */
    public static void add(Session session, List<Step> way, int place, EffectKind kind) {
        String id = session.selection().chainAt(way).freeId(kind.id());
        Stage stage = ready(Stage.of(id, kind));
        session.selection().edit("Add " + kind.label(), "", way, chain -> chain.plus(place, stage));
        session.selection()
                .selected()
                .set(StageAddress.of(session.selection().partId().get(), way, id));
    }

    /** A split begins with two dry branches. */
    private static Stage ready(Stage stage) {
        boolean bare = stage.kind().branches() && stage.branches().isEmpty();
        return bare ? stage.withBranches(List.of(Branch.DRY, Branch.DRY)) : stage;
    }
}
