package harpel.app.chain;

import harpel.app.session.Session;
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

    private static StageAddress selected(Session session) {
        StageAddress address = session.selection().selected().get();
        return address != null && address.branch() == 0 ? address : null;
    }

    public static void remove(Session session) {
        StageAddress address = selected(session);
        if (address == null) {
            return;
        }
        Chain chain = session.selection().chainAt(address.chainWay());
        int place = chain.indexOf(address.stageId());
        session.selection()
                .edit(
                        "Remove " + chain.stages().get(place).name(),
                        "",
                        address.chainWay(),
                        before -> before.minus(address.stageId()));
        Chain left = session.selection().chainAt(address.chainWay());
        if (!left.stages().isEmpty()) {
            select(
                    session,
                    address.chainWay(),
                    left.stages().get(Math.min(place, left.stages().size() - 1)).id());
        }
    }

    public static void duplicate(Session session) {
        StageAddress address = selected(session);
        if (address == null) {
            return;
        }
        Chain chain = session.selection().chainAt(address.chainWay());
        int place = chain.indexOf(address.stageId());
        Stage stage = chain.stages().get(place);
        String id = chain.freeId(stage.id());
        session.selection()
                .edit("Duplicate " + stage.name(), "", address.chainWay(), before -> before.plus(place + 1, stage));
        select(session, address.chainWay(), id);
    }

    /** Puts the selected stage, or with none selected the whole chain, on the clipboard as the text of a chain file. */
    public static void copy(Session session) {
        StageAddress address = selected(session);
        Chain chain = address == null
                ? session.selection().part().chain()
                : Chain.EMPTY.plus(0, session.selection().stage(address).orElseThrow());
        ChainFile file = new ChainFile(ChainFile.PART, null, chain, Map.of());
        ClipboardContent content = new ClipboardContent();
        content.putString(file.write());
        Clipboard.getSystemClipboard().setContent(content);
        session.say(address == null ? "Copied the chain." : "Copied the stage.");
    }

    /** Puts the stages of a copied text behind the selected stage, or at the end. */
    public static void paste(Session session) {
        String text = Clipboard.getSystemClipboard().getString();
        StageAddress address = selected(session);
        List<Step> way = address == null ? List.of() : address.chainWay();
        try {
            Chain pasted = ChainFile.read(text == null ? "" : text).chain();
            session.selection().edit("Paste", "", way, chain -> {
                Chain changed = chain;
                int place = address == null ? chain.stages().size() : chain.indexOf(address.stageId()) + 1;
                for (Stage stage : pasted.stages()) {
                    changed = changed.plus(place++, stage);
                }
                return changed;
            });
        } catch (FileException | IllegalArgumentException e) {
            session.say("What was copied is no stage or chain: " + e.getMessage());
        }
    }

    public static void move(Session session, int by) {
        StageAddress address = selected(session);
        if (address == null) {
            return;
        }
        session.selection()
                .edit(
                        by < 0 ? "Move up" : "Move down",
                        "",
                        address.chainWay(),
                        chain -> chain.moved(address.stageId(), chain.indexOf(address.stageId()) + by));
    }

    public static void toggle(Session session) {
        StageAddress address = selected(session);
        if (address != null) {
            session.selection()
                    .editStage(
                            "Switch on or off",
                            "",
                            address,
                            stage -> stage.isKnown() ? stage.with(EffectKind.ON, !stage.on()) : stage);
        }
    }

    /** Offers other effects for the place of the selected stage. */
    public static void replace(Session session, Node anchor) {
        StageAddress address = selected(session);
        if (address != null) {
            EffectMenu.showReplace(anchor, session, address);
        }
    }

    public static void fold(Session session) {
        StageAddress address = selected(session);
        if (address != null) {
            session.look().fold(address);
        }
    }

    /** Selects the stage above or below in the same chain, or the first. */
    public static void step(Session session, int by) {
        StageAddress address = selected(session);
        List<Step> way = address == null ? List.of() : address.chainWay();
        List<Stage> stages = session.selection().chainAt(way).stages();
        if (!stages.isEmpty()) {
            int now = address == null ? -by : session.selection().chainAt(way).indexOf(address.stageId());
            select(
                    session,
                    way,
                    stages.get(Math.max(0, Math.min(stages.size() - 1, now + by)))
                            .id());
        }
    }

    public static void select(Session session, List<Step> way, String id) {
        session.selection()
                .selected()
                .set(StageAddress.of(session.selection().partId().get(), way, id));
    }
}
