package harpel.format;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** A few of what {@link FilesSoak} tries 100,000 times. */
class BrokenFilesTest {
    private static final int SEEDS = 400;

    @ParameterizedTest
    @EnumSource(Broken.Kind.class)
    void whateverIsInAFileItIsReadOrRefusedInWords(Broken.Kind kind) {
        for (int seed = 1; seed <= SEEDS; seed++) {
            Broken.holds(kind, seed);
        }
    }
}
