package harpel.app.document;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.app.look.Messages;
import harpel.chain.Branch;
import harpel.chain.Stage;
import harpel.chain.StageAddress;
import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.piece.Piece;
import harpel.piece.PieceEdit;
import java.util.List;
import org.junit.jupiter.api.Test;

class SelectionTest {
    private final Document document = new Document(Piece.empty(), new Messages());
    private final Selection selection = new Selection(document);

    private StageAddress add(String kind) {
        selection.edit(
                "Add " + kind, "", List.of(), chain -> chain.plus(chain.stages().size(), EffectCatalog.of(kind)));
        return StageAddress.of("part-1", List.of(), kind);
    }

    @Test
    void whatIsTakenAwayIsNotSelectedAnyMore() {
        StageAddress echo = add("echo");
        selection.selected().set(echo);
        add("strum");
        assertThat(selection.selected().get()).isEqualTo(echo);
        selection.edit("Remove", "", List.of(), chain -> chain.minus("echo"));
        assertThat(selection.selected().get()).isNull();
        assertThat(selection.stage(echo)).isEmpty();
        document.undo();
        assertThat(selection.stage(echo)).isPresent();
    }

    @Test
    void aPartThatIsGoneGivesWayToTheFirst() {
        document.apply(PieceEdit.of("Duplicate", before -> before.withDuplicate("part-1")));
        String second = document.piece().get().parts().get(1).id();
        selection.partId().set(second);
        assertThat(selection.part().id()).isEqualTo(second);
        document.undo();
        assertThat(selection.partId().get()).isEqualTo("part-1");
        assertThat(selection.part().id()).isEqualTo("part-1");
    }

    @Test
    void aStageIsEditedInItsOwnPartAndChosenInTheShownOneOnly() {
        StageAddress echo = add("echo");
        document.apply(PieceEdit.of("Duplicate", before -> before.withDuplicate("part-1")));
        String second = document.piece().get().parts().get(1).id();
        selection.selected().set(echo);
        selection.partId().set(second);
        assertThat(selection.selected().get()).isNull();
        selection.editStage("Switch off", "", echo, stage -> stage.with(EffectKind.ON, false));
        assertThat(document.piece().get().part("part-1").orElseThrow().chain().stages())
                .extracting(Stage::on)
                .containsExactly(false);
        assertThat(selection.part().chain().stages()).extracting(Stage::on).containsExactly(true);
    }

    @Test
    void aStageInABranchIsFoundAndEditedThere() {
        selection.editStage("Branches", "", add("split"), stage -> stage.withBranches(List.of(Branch.DRY, Branch.DRY)));
        List<StageAddress.Step> way = List.of(new StageAddress.Step("split", 2));
        selection.edit("Add", "", way, chain -> chain.plus(0, EffectCatalog.of("echo")));
        StageAddress inner = StageAddress.of("part-1", way, "echo");
        assertThat(selection.stage(inner).map(stage -> stage.kind().id())).contains("echo");
        assertThat(selection.chainAt(way).stages()).hasSize(1);
        assertThat(selection.chainAt(List.of(new StageAddress.Step("split", 1))).stages())
                .isEmpty();
        assertThat(selection.chainAt(List.of(new StageAddress.Step("split", 9))).stages())
                .as("there is no such branch")
                .isEmpty();
        selection.editStage("Rename", "", inner, stage -> stage.withId("bells"));
        assertThat(selection.stage(StageAddress.of("part-1", way, "bells")).map(Stage::id))
                .contains("bells");
        assertThat(selection.stage(inner)).isEmpty();
    }

    @Test
    void aDragIsOneStepBack() {
        StageAddress echo = add("echo");
        Stage before = selection.stage(echo).orElseThrow();
        selection.editStage("Move", "drag", echo, stage -> stage.with(EffectKind.ON, false));
        selection.editStage("Move", "drag", echo, stage -> stage.with(EffectKind.ON, true));
        selection.editStage("Move", "drag", echo, stage -> stage.with(EffectKind.ON, false));
        document.endGesture();
        assertThat(selection.stage(echo)).isNotEqualTo(java.util.Optional.of(before));
        document.undo();
        assertThat(selection.stage(echo)).contains(before);
    }

    @Test
    void theOtherChainIsHeardAndTheWholeChainSwitchedEachAsOneEdit() {
        add("echo");
        selection.hearOther();
        assertThat(document.undoLabel()).contains("Hear chain B");
        add("strum");
        selection.hearOther();
        assertThat(document.undoLabel()).contains("Hear chain A");
        assertThat(selection.chainAt(List.of()).find("strum")).isEmpty();
        assertThat(selection.chainAt(List.of()).find("echo")).isPresent();
        selection.switchChain();
        assertThat(selection.part().rack().off()).isTrue();
        assertThat(document.undoLabel()).contains("Switch the chain off");
        selection.switchChain();
        assertThat(selection.part().rack().off()).isFalse();
        document.undo();
        document.undo();
        assertThat(selection.part().rack().off()).isFalse();
    }
}
