package harpel.clock;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.testkit.Randoms;
import harpel.testkit.Tries;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import org.junit.jupiter.api.Test;

class AnchorTest {
    private static final int TRIES = 300;
    private static final long MS = 1_000_000;

    private final Anchor anchor = new Anchor();

    /** What is due at a moment is due then, and not a thousandth of a tick before. */
    @Test
    void aTickIsReachedAtItsMomentAndNotBefore() {
        Tries.of(TRIES, "moments of ticks", seed -> {
            Randoms randoms = new Randoms(seed);
            TempoMap tempo = TempoMap.of(randoms.between(4, 3_000));
            anchor.set(randoms.tick(1_000_000), randoms.tick(1_000_000_000));
            long tick = anchor.tick() + randoms.tick(1_000_000);
            long nanos = anchor.nanosAt(tick, tempo);
            assertThat(anchor.tickAt(nanos, tempo)).isEqualTo(tick);
            long early = 2 + (long) (tempo.nanosAt(1) / 1000);
            if (tick > anchor.tick()) {
                assertThat(anchor.tickAt(nanos - early, tempo)).isEqualTo(tick - 1);
            }
        });
    }

    @Test
    void aNudgeMovesWhatComesByItsTimeAndByAFifthOfASecondAtMost() {
        TempoMap tempo = TempoMap.of(60);
        anchor.set(0, 5 * MS);
        anchor.nudge(20 * MS);
        assertThat(anchor.nanosAt(Ticks.PER_QUARTER, tempo)).isEqualTo(1025 * MS);
        anchor.nudge(-3000 * MS);
        assertThat(anchor.nanosAt(Ticks.PER_QUARTER, tempo)).isEqualTo(825 * MS);
        anchor.nudge(Long.MAX_VALUE);
        assertThat(anchor.nanosAt(Ticks.PER_QUARTER, tempo)).isEqualTo(1025 * MS);
    }
}
