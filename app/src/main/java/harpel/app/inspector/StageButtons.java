package harpel.app.inspector;

import harpel.app.chain.EffectMenu;
import harpel.app.chain.StageActions;
import harpel.app.desk.Keeping;
import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.transport.Transport;
import harpel.app.ui.Buttons;
import harpel.app.ui.Space;
import harpel.chain.Branch;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.route.Split;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.control.Button;
import javafx.scene.layout.FlowPane;

/** What can be done to the selected stage or branch, at the foot of its controls. */
final class StageButtons extends FlowPane {
    private StageButtons() {
        super(Space.CLOSE, Space.CLOSE);
    }

    static StageButtons ofBranch(Selection selection, StageAddress address, Stage stage) {
        int number = address.branch();
        Button remove = Buttons.button(
                "Remove branch",
                "remove-branch",
                "Remove this branch and its stages",
                () -> selection.editStage(
                        "Remove branch", "", address, one -> one.withBranches(without(one.branches(), number - 1))));
        remove.setDisable(stage.branches().size() < 2);
        StageButtons buttons = new StageButtons();
        buttons.getChildren().add(remove);
        return buttons;
    }

    static StageButtons of(
            Selection selection, Look look, Transport transport, Keeping keeping, StageAddress address, Stage stage) {
        StageButtons buttons = new StageButtons();
        if (stage.isKnown() && stage.kind().nature().branches()) {
            buttons.add(
                    "Add branch",
                    "add-branch",
                    "Add a dry branch",
                    () -> selection.editStage(
                            "Add branch",
                            "",
                            address,
                            one -> one.branches().size() < Split.MOST_BRANCHES
                                    ? one.withBranches(with(one.branches()))
                                    : one));
        }
        if (stage.isKnown() && !stage.kind().words().action().isEmpty()) {
            String action = stage.kind().words().action();
            buttons.add(
                    action,
                    action.toLowerCase(Locale.ROOT).replace(' ', '-'),
                    action + ": the effect’s own action, at once",
                    () -> transport.act(address));
        }
        Button replace = buttons.add(
                "Replace…", "replace", "Another effect in its place, keeping what fits  (Ctrl+R)", () -> {});
        replace.setOnAction(event -> EffectMenu.showReplace(replace, selection, look, address));
        buttons.add(
                "Duplicate",
                "duplicate",
                "Put the same stage after it  (Ctrl+D)",
                () -> StageActions.duplicate(selection));
        buttons.add("Remove", "remove", "Remove the stage  (Ctrl+Delete)", () -> StageActions.remove(selection));
        if (stage.isKnown()) {
            buttons.add(
                    "Keep one round",
                    "keep-round",
                    "What leaves this stage until its rows come round, as a phrase; of the part’s phrase, or of the key’s triad",
                    () -> keeping.keepRound(address));
        }
        return buttons;
    }

    private Button add(String words, String id, String tip, Runnable action) {
        Button button = Buttons.button(words, id, tip, action);
        getChildren().add(button);
        return button;
    }

    private static List<Branch> without(List<Branch> branches, int place) {
        List<Branch> left = new ArrayList<>(branches);
        left.remove(place);
        return left;
    }

    private static List<Branch> with(List<Branch> branches) {
        List<Branch> more = new ArrayList<>(branches);
        more.add(Branch.DRY);
        return more;
    }
}
