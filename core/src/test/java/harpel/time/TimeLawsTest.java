package harpel.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.testkit.Randoms;
import harpel.testkit.Tries;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class TimeLawsTest {
    private static final int TRIES = 300;

    @Test
    void ticksAndNanosAreInverse() {
        Tries.of(TRIES, "ticks and nanos", seed -> {
            Randoms randoms = new Randoms(seed);
            TempoMap tempo = randoms.time().tempo();
            long tick = randoms.tick(2_000_000);
            assertThat(tempo.ticksAt(tempo.nanosAt(tick))).isCloseTo(tick, within(1e-4));
        });
    }

    @Test
    void everyTickLiesInItsBar() {
        Tries.of(TRIES, "bars", seed -> {
            Randoms randoms = new Randoms(seed);
            MeterMap meter = randoms.time().meter();
            long tick = randoms.tick(3_000_000);
            long bar = meter.barAt(tick);
            assertThat(meter.tickOfBar(bar)).isLessThanOrEqualTo(tick);
            assertThat(meter.tickOfBar(bar + 1)).isGreaterThan(tick);
        });
    }

    /** Bars counted one after another, through thousands of changes of meter, some in the middle of a bar. */
    @Test
    void barsAreFoundThroughAnyNumberOfChanges() {
        Randoms randoms = new Randoms(5);
        List<MeterMap.Change> changes = new ArrayList<>();
        long tick = 0;
        for (int i = 0; i < 3000; i++) {
            changes.add(new MeterMap.Change(tick, randoms.between(2, 7), randoms.oneOf(List.of(4, 8))));
            tick += 1 + randoms.tick(4 * Ticks.PER_QUARTER * 4);
        }
        MeterMap meter = new MeterMap(changes);
        long bar = 0;
        for (int i = 0; i < changes.size(); i++) {
            long end = i + 1 < changes.size()
                    ? changes.get(i + 1).tick()
                    : changes.get(i).tick() + 1;
            for (long at = changes.get(i).tick(); at < end; at += changes.get(i).barTicks()) {
                assertThat(meter.tickOfBar(bar)).isEqualTo(at);
                assertThat(meter.barAt(at)).isEqualTo(bar);
                bar++;
            }
        }
    }

    @Test
    void theNextStepIsTheFirstAtOrAfter() {
        Tries.of(TRIES, "steps", seed -> {
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
        });
    }

    @Test
    void noStepIsShorterThanAHundredthOfAQuarter() {
        for (String pace : List.of("0.000001 beat", "1 tick", "0.01 ms")) {
            StepGrid grid = StepGrid.ofPiece(TimeMap.DEFAULT, TimeValue.parse(pace), 50);
            assertThat(grid.tickOf(100)).as(pace).isEqualTo(Ticks.PER_QUARTER);
        }
    }
}
