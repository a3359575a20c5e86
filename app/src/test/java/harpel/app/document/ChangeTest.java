package harpel.app.document;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.chain.Branch;
import harpel.chain.Chain;
import harpel.chain.Stage;
import harpel.effect.EffectCatalog;
import harpel.effect.route.Split;
import harpel.effect.shape.Touch;
import harpel.piece.Piece;
import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;

/** What a view has to draw anew: nothing but values where only those have changed. */
class ChangeTest {
    private static final String PART = "part-1";
    private final Piece piece = Piece.empty().withPart(PART, part -> part.withChain(chain()));

    private static Chain chain() {
        return Chain.EMPTY
                .plus(0, EffectCatalog.of("split"))
                .plus(1, EffectCatalog.of("touch"))
                .withStage("split", stage -> stage.withBranches(List.of(Branch.DRY, Branch.DRY)));
    }

    private boolean onlyValues(UnaryOperator<Chain> edit) {
        Piece after = piece.withPart(PART, part -> part.withChain(edit.apply(part.chain())));
        assertThat(after).isNotEqualTo(piece);
        return Change.of(piece, after).onlyValues(PART);
    }

    private static UnaryOperator<Chain> branches(UnaryOperator<Branch> change) {
        return chain -> chain.withStage("split", stage -> {
            List<Branch> branches = new java.util.ArrayList<>(stage.branches());
            branches.set(0, change.apply(branches.get(0)));
            return stage.withBranches(branches);
        });
    }

    @Test
    void aValueIsAValueAndABranchThatTakesOthersIsAnotherShape() {
        assertThat(onlyValues(chain -> chain.withStage("touch", (Stage stage) -> stage.with(Touch.FIXED, 40))))
                .isTrue();
        assertThat(onlyValues(branches(branch ->
                        new Branch(branch.takes().with(Split.FROM_CHANNEL, 3), branch.chain(), branch.unknown()))))
                .isFalse();
        assertThat(onlyValues(branches(branch -> new Branch(
                        branch.takes(), branch.chain().plus(0, EffectCatalog.of("echo")), branch.unknown()))))
                .isFalse();
        assertThat(onlyValues(chain -> chain.minus("touch"))).isFalse();
    }
}
