package harpel.chain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.effect.notes.Echo;
import harpel.testkit.Played;
import harpel.theory.Key;
import java.util.List;
import org.junit.jupiter.api.Test;

class ChainTest {
    private static final EffectKind ECHO = EffectCatalog.of("echo");
    private static final EffectKind TOUCH = EffectCatalog.of("touch");

    private static List<String> ids(Chain chain) {
        return chain.stages().stream().map(Stage::id).toList();
    }

    @Test
    void stagesGetIdsOfTheirOwn() {
        Chain chain = Chain.EMPTY.plus(0, ECHO).plus(1, ECHO).plus(0, ECHO).plus(1, TOUCH);
        assertThat(ids(chain)).containsExactly("echo-3", "touch", "echo", "echo-2");
        assertThat(chain.minus("echo").freeId("echo")).isEqualTo("echo");
        assertThat(chain.freeId("echo-2")).isEqualTo("echo-4");
    }

    @Test
    void twoStagesOfOneIdAreRefused() {
        Stage echo = Stage.of("echo", ECHO);
        assertThatThrownBy(() -> new Chain(List.of(echo, echo))).hasMessageContaining("\"echo\"");
        assertThatThrownBy(() -> Stage.of("Echo 2", ECHO)).hasMessageContaining("\"Echo 2\"");
    }

    @Test
    void aStageKeepsItsIdWhenItMoves() {
        Chain chain = Chain.EMPTY.plus(0, ECHO).plus(1, TOUCH).plus(2, ECHO);
        assertThat(ids(chain.moved("echo", 2))).containsExactly("touch", "echo-2", "echo");
        assertThat(ids(chain.moved("echo-2", -1))).containsExactly("echo-2", "echo", "touch");
        assertThat(ids(chain.moved("echo", 99))).containsExactly("touch", "echo-2", "echo");
    }

    @Test
    void aChainWithinABranchIsChanged() {
        Chain chain = Played.chain("{'split':[{'chain':[]},{'chain':[{'split':[{'chain':[{'effect':'echo'}]}]}]}]}");
        StageAddress address = StageAddress.parse("lead/split.2/split.1/echo");
        Chain changed = chain.within(
                address.chainWay(), inner -> inner.withStage(address.stageId(), echo -> echo.with(Echo.REPEATS, 7)));
        Chain innermost = changed.stages()
                .get(0)
                .branches()
                .get(1)
                .chain()
                .stages()
                .get(0)
                .branches()
                .get(0)
                .chain();
        assertThat(innermost.find("echo").orElseThrow().params().get(Echo.REPEATS))
                .isEqualTo(7);
        assertThat(changed.stages().get(0).branches().get(0))
                .isSameAs(chain.stages().get(0).branches().get(0));
    }

    @Test
    void aLabelIsTheStagesName() {
        Stage echo = Stage.of("echo", ECHO);
        assertThat(echo.name()).isEqualTo("Echo");
        assertThat(echo.with(EffectKind.LABEL, "Fog horn").name()).isEqualTo("Fog horn");
        assertThat(echo.with(EffectKind.ON, false).on()).isFalse();
    }

    @Test
    void everyKindIsFoundByItsIdAndFamily() {
        assertThat(EffectCatalog.kinds()).allSatisfy(kind -> {
            assertThat(EffectCatalog.find(kind.id())).contains(kind);
            assertThat(kind.id()).matches("[a-z][a-z-]*");
            assertThat(kind.words().describe(kind.spec().defaults(), Key.C_MAJOR, -1))
                    .isNotBlank();
        });
        assertThat(EffectCatalog.kinds())
                .extracting(kind -> kind.words().family())
                .isSorted();
        assertThatThrownBy(() -> EffectCatalog.of("theremin"))
                .hasMessageContaining("known are")
                .hasMessageContaining("echo");
    }
}
