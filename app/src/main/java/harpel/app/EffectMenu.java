package harpel.app;

import harpel.chain.Branch;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Side;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;

/** The list of effects to add, by family. */
final class EffectMenu {
    private EffectMenu() {}

    static void show(Node anchor, Session session, List<Step> way, int place) {
        ContextMenu menu = new ContextMenu();
        EffectKind.Family family = null;
        for (EffectKind kind : EffectCatalog.kinds()) {
            if (kind.family() != family) {
                family = kind.family();
                MenuItem head = new MenuItem(family.label());
                head.setDisable(true);
                head.getStyleClass().add("menu-head");
                if (!menu.getItems().isEmpty()) {
                    menu.getItems().add(new SeparatorMenuItem());
                }
                menu.getItems().add(head);
            }
            MenuItem item = new MenuItem(kind.label() + " – " + kind.does());
            item.setId("add-" + kind.id());
            item.setOnAction(event -> add(session, way, place, kind));
            menu.getItems().add(item);
        }
        menu.show(anchor, Side.BOTTOM, 40, 0);
    }

    /** Adds a stage with simple settings and selects it. */
    static void add(Session session, List<Step> way, int place, EffectKind kind) {
        String id = session.chainAt(way).freeId(kind.id());
        Stage stage = Stage.of(id, kind);
        Stage ready = kind.branches() ? stage.withBranches(List.of(Branch.DRY, Branch.DRY)) : stage;
        session.edit("Add " + kind.label(), "", way, chain -> chain.plus(place, ready));
        List<Step> steps = new ArrayList<>(way);
        steps.add(new Step(id, 0));
        session.selected().set(new StageAddress(session.partId().get(), steps));
    }
}
