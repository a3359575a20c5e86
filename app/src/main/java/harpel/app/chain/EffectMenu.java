package harpel.app.chain;

import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.ui.TextLine;
import harpel.chain.Branch;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.Family;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Point2D;
import javafx.geometry.Side;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.robot.Robot;
import javafx.stage.Screen;

/** The list of effects to add, by family. */
public final class EffectMenu {
    private static final double AWAY = 24;

    private EffectMenu() {}

    /** Offers the effects to add at a place of a chain. */
    public static void show(Node anchor, Selection selection, Look look, List<Step> way, int place) {
        show(anchor, selection, look, kind -> add(selection, way, place, kind));
    }

    /** Offers the effects to add behind the selected stage, or at the end. */
    public static void showBehindSelected(Node anchor, Selection selection, Look look) {
        show(anchor, selection, look, kind -> addBehindSelected(selection, kind));
    }

    /** Adds an effect behind the selected stage, or at the end. */
    public static void addBehindSelected(Selection selection, EffectKind kind) {
        StageAddress address = selection.selected().get();
        List<Step> way = address == null ? List.of() : address.chainWay();
        List<Stage> stages = selection.chainAt(way).stages();
        int place = stages.size();
        for (int i = 0; address != null && i < stages.size(); i++) {
            place = stages.get(i).id().equals(address.stageId()) ? i + 1 : place;
        }
        add(selection, way, place, kind);
    }

    /** Offers the effects that can take the place of a stage. */
    public static void showReplace(Node anchor, Selection selection, Look look, StageAddress address) {
        show(
                anchor,
                selection,
                look,
                kind -> selection.editStage(
                        "Replace by " + kind.words().label(), "", address, stage -> ready(stage.replacedBy(kind))));
    }

    private static void show(Node anchor, Selection selection, Look look, Consumer<EffectKind> choose) {
        ContextMenu menu = new ContextMenu();
        TextField search = new TextLine("find-effect", "What it shall do, or its name; Enter takes the first", "");
        search.setPromptText("type what you want: softer, echo, in key");
        search.setPrefColumnCount(24);
        CustomMenuItem top = new CustomMenuItem(search, false);
        search.textProperty().addListener((property, before, now) -> fill(menu, top, choose, now));
        search.setOnAction(event -> EffectCatalog.found(search.getText()).stream()
                .findFirst()
                .ifPresent(kind -> {
                    menu.hide();
                    choose.accept(kind);
                }));
        // The list would count from what was highlighted last, which may have gone since.
        search.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.DOWN) {
                menu.getItems().stream()
                        .filter(item -> item.getUserData() != null)
                        .findFirst()
                        .map(MenuItem::getStyleableNode)
                        .ifPresent(Node::requestFocus);
            }
            if (event.getCode() == KeyCode.DOWN || event.getCode() == KeyCode.UP) {
                event.consume();
            }
        });
        menu.setOnShown(event -> {
            search.requestFocus();
            menu.getScene().addEventFilter(KeyEvent.KEY_TYPED, typed -> typeInto(search, typed));
            new EffectPeek(look, kind -> ready(Stage.of(kind.id(), kind))).follow(menu, selection.piece());
        });
        fill(menu, top, choose, "");
        if (anchor instanceof Button) {
            menu.show(anchor, Side.BOTTOM, 40, 0);
        } else {
            // By the keyboard: at the top of the view, where it stays while fewer entries are left.
            Point2D corner = anchor.localToScreen(anchor.getBoundsInLocal().getMinX() + 40, 8);
            menu.show(anchor, corner.getX(), corner.getY());
        }
        keepOffThePointer(menu);
    }

    /** A list that opens under the pointer would have an entry chosen that nobody pointed at. */
    private static void keepOffThePointer(ContextMenu menu) {
        Point2D pointer = new Robot().getMousePosition();
        boolean across = pointer.getX() >= menu.getX() && pointer.getX() < menu.getX() + menu.getWidth();
        boolean down = pointer.getY() >= menu.getY() && pointer.getY() < menu.getY() + menu.getHeight();
        if (across && down) {
            double right = pointer.getX() + AWAY;
            boolean fits = right + menu.getWidth()
                    <= Screen.getPrimary().getVisualBounds().getMaxX();
            menu.setX(fits ? right : Math.max(0, pointer.getX() - AWAY - menu.getWidth()));
        }
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

    private static void fill(ContextMenu menu, CustomMenuItem top, Consumer<EffectKind> choose, String typed) {
        List<MenuItem> items = new ArrayList<>(List.of(top));
        Family family = null;
        List<EffectKind> found = EffectCatalog.found(typed);
        if (found.isEmpty()) {
            items.add(head("Nothing is found by “" + typed.strip() + "”. Try softer, echo, in key, random."));
        }
        for (EffectKind kind : found) {
            if (typed.isBlank() && kind.words().family() != family) {
                family = kind.words().family();
                items.add(head(family.label()));
            }
            MenuItem item =
                    new MenuItem(kind.words().label() + " – " + kind.words().does());
            item.setId("add-" + kind.id());
            item.setUserData(kind);
            item.setOnAction(event -> choose.accept(kind));
            items.add(item);
        }
        menu.getItems().setAll(items);
    }

    private static MenuItem head(String words) {
        MenuItem head = new MenuItem(words);
        head.setDisable(true);
        head.getStyleClass().add("menu-head");
        return head;
    }

    /** Adds a stage with simple settings and selects it. */
    public static void add(Selection selection, List<Step> way, int place, EffectKind kind) {
        String id = selection.chainAt(way).freeId(kind.id());
        Stage stage = ready(Stage.of(id, kind));
        selection.edit("Add " + kind.words().label(), "", way, chain -> chain.plus(place, stage));
        selection.selected().set(StageAddress.of(selection.partId().get(), way, id));
    }

    /** A split begins with two dry branches. */
    private static Stage ready(Stage stage) {
        boolean bare = stage.kind().nature().branches() && stage.branches().isEmpty();
        return bare ? stage.withBranches(List.of(Branch.DRY, Branch.DRY)) : stage;
    }
}
