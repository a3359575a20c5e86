package harpel.app.chain;

import harpel.app.document.Selection;
import harpel.app.look.Look;
import harpel.app.look.Messages;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.chain.StageAddress.Step;
import harpel.effect.EffectKind;
import harpel.format.ChainFile;
import harpel.format.FileException;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;

/** What can be done with the selected stage; does nothing where none is selected. */
public final class StageActions {
    private StageActions() {}

    private static StageAddress selected(Selection selection) {
        StageAddress address = selection.selected().get();
        return address != null && address.branch() == 0 ? address : null;
    }

    public static void remove(Selection selection) {
        StageAddress address = selected(selection);
        if (address == null) {
            return;
        }
        Chain chain = selection.chainAt(address.chainWay());
        int place = chain.indexOf(address.stageId());
        selection.edit(
                "Remove " + chain.stages().get(place).name(),
                "",
                address.chainWay(),
                before -> before.minus(address.stageId()));
        Chain left = selection.chainAt(address.chainWay());
        if (!left.stages().isEmpty()) {
            select(
                    selection,
                    address.chainWay(),
                    left.stages().get(Math.min(place, left.stages().size() - 1)).id());
        }
    }

    public static void duplicate(Selection selection) {
        StageAddress address = selected(selection);
        if (address == null) {
            return;
        }
        Chain chain = selection.chainAt(address.chainWay());
        int place = chain.indexOf(address.stageId());
        Stage stage = chain.stages().get(place);
        String id = chain.freeId(stage.id());
        selection.edit("Duplicate " + stage.name(), "", address.chainWay(), before -> before.plus(place + 1, stage));
        select(selection, address.chainWay(), id);
    }

    /** Puts the selected stage, or with none selected the whole chain, on the clipboard as the text of a chain file. */
    public static void copy(Selection selection, Messages messages) {
        StageAddress address = selected(selection);
        Chain chain = address == null
                ? selection.part().chain()
                : Chain.EMPTY.plus(0, selection.stage(address).orElseThrow());
        ChainFile file = new ChainFile(ChainFile.PART, null, chain, Map.of());
        ClipboardContent content = new ClipboardContent();
        content.putString(file.write());
        Clipboard.getSystemClipboard().setContent(content);
        messages.say(address == null ? "Copied the chain." : "Copied the stage.");
    }

    /** Puts the stages of a copied text behind the selected stage, or at the end. */
    public static void paste(Selection selection, Messages messages) {
        String text = Clipboard.getSystemClipboard().getString();
        StageAddress address = selected(selection);
        List<Step> way = address == null ? List.of() : address.chainWay();
        try {
            Chain pasted = ChainFile.read(text == null ? "" : text).chain();
            selection.edit("Paste", "", way, chain -> {
                Chain changed = chain;
                int place = address == null ? chain.stages().size() : chain.indexOf(address.stageId()) + 1;
                for (Stage stage : pasted.stages()) {
                    changed = changed.plus(place++, stage);
                }
                return changed;
            });
        } catch (FileException | IllegalArgumentException e) {
            messages.say("What was copied is no stage or chain: " + e.getMessage());
        }
    }

    public static void move(Selection selection, int by) {
        StageAddress address = selected(selection);
        if (address == null) {
            return;
        }
        selection.edit(
                by < 0 ? "Move up" : "Move down",
                "",
                address.chainWay(),
                chain -> chain.moved(address.stageId(), chain.indexOf(address.stageId()) + by));
    }

    public static void toggle(Selection selection) {
        StageAddress address = selected(selection);
        if (address != null) {
            selection.editStage(
                    "Switch on or off",
                    "",
                    address,
                    stage -> stage.isKnown() ? stage.with(EffectKind.ON, !stage.on()) : stage);
        }
    }

    /** Offers other effects for the place of the selected stage. */
    public static void replace(Selection selection, Look look, Node anchor) {
        StageAddress address = selected(selection);
        if (address != null) {
            EffectMenu.showReplace(anchor, selection, look, address);
        }
    }

    public static void fold(Selection selection, Look look) {
        StageAddress address = selected(selection);
        if (address != null) {
            look.fold(address);
        }
    }

    /** Selects the stage above or below in the same chain, or the first. */
    public static void step(Selection selection, int by) {
        StageAddress address = selected(selection);
        List<Step> way = address == null ? List.of() : address.chainWay();
        List<Stage> stages = selection.chainAt(way).stages();
        if (!stages.isEmpty()) {
            int now = address == null ? -by : selection.chainAt(way).indexOf(address.stageId());
            select(
                    selection,
                    way,
                    stages.get(Math.max(0, Math.min(stages.size() - 1, now + by)))
                            .id());
        }
    }

    public static void select(Selection selection, List<Step> way, String id) {
        selection.selected().set(StageAddress.of(selection.partId().get(), way, id));
    }
}
