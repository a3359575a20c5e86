package harpel.engine;

import harpel.effect.EffectCatalog;
import harpel.effect.EffectKind;
import harpel.testkit.Laws;
import harpel.testkit.Tries;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicContainer;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;

/** The laws over every kind in the catalog: a kind that is added is covered by itself. Fixed seeds and fresh ones; a name has the seed. */
public class LawsTest {
    private static final List<String> TRIED_MORE = List.of(
            "everyStartGetsOneEndUnderAnyEdits",
            "twoChainsMayTakeTurnsAtAnyTime",
            "cuttingTimeIntoOtherBlocksChangesNothing");
    private static final int TRIES = Integer.getInteger("laws.tries", 4);
    private static final int MORE = Integer.getInteger("laws.tries", 12);

    /** Some kinds alone where what is looked at is not the kinds, such as the engine; all where it is empty. */
    private static final List<String> KINDS = Arrays.stream(
                    System.getProperty("laws.kinds", "").split(","))
            .filter(kind -> !kind.isEmpty())
            .toList();

    @TestFactory
    Stream<DynamicContainer> laws() {
        return EngineLaws.all().entrySet().stream()
                .map(law -> DynamicContainer.dynamicContainer(
                        law.getKey(),
                        EffectCatalog.kinds().stream()
                                .filter(kind -> KINDS.isEmpty() || KINDS.contains(kind.id()))
                                .map(kind -> tries(law, kind))));
    }

    private static DynamicTest tries(Map.Entry<String, Laws.Law> law, EffectKind kind) {
        int most = TRIED_MORE.contains(law.getKey()) ? MORE : TRIES;
        // Every script starts in a world of its own, which takes longer than all the rest of a try.
        int tries = kind == EffectCatalog.of("script") ? Math.round(most / 3f) + 1 : most;
        return DynamicTest.dynamicTest(
                kind.id(),
                () -> Tries.of(
                        tries, law.getKey() + " " + kind, seed -> law.getValue().holds(kind, seed)));
    }
}
