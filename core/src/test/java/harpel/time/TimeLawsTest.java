package harpel.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.testkit.Randoms;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

class TimeLawsTest {
    @Property(tries = 300)
    void ticksAndNanosAreInverse(@ForAll long seed) {
        Randoms randoms = new Randoms(seed);
        TempoMap tempo = randoms.time().tempo();
        long tick = randoms.tick(2_000_000);
        assertThat(tempo.ticksAt(tempo.nanosAt(tick))).isCloseTo(tick, within(1e-4));
    }

    @Property(tries = 300)
    void everyTickLiesInItsBar(@ForAll long seed) {
        Randoms randoms = new Randoms(seed);
        MeterMap meter = randoms.time().meter();
        long tick = randoms.tick(3_000_000);
        long bar = meter.barAt(tick);
        assertThat(meter.tickOfBar(bar)).isLessThanOrEqualTo(tick);
        assertThat(meter.tickOfBar(bar + 1)).isGreaterThan(tick);
    }

    @Property(tries = 300)
    void theNextStepIsTheFirstAtOrAfter(@ForAll long seed) {
        Randoms randoms = new Randoms(seed);
        TimeMap time = randoms.time();
        TimeValue pace = TimeValue.parse(randoms.oneOf(List.of("1/16", "1/8t", "0.333 beat", "35 ms", "1/8d")));
        StepGrid grid = StepGrid.ofPiece(time, pace, randoms.between(50, 75));
        long tick = randoms.tick(400_000);
        long index = grid.indexAtOrAfter(tick);
        assertThat(grid.tickOf(index)).isGreaterThanOrEqualTo(tick);
        if (index > 0) {
            assertThat(grid.tickOf(index - 1)).isLessThan(tick);
        }
    }
}
