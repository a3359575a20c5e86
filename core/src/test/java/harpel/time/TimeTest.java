package harpel.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TimeTest {
    private static final long Q = Ticks.PER_QUARTER;

    /** Common practice: a note value lasts 60,000 / bpm × beats milliseconds; 0.75 of a beat at 120 bpm is 375 ms. */
    @ParameterizedTest
    @CsvSource({
        "120, 1/4, 500",
        "120, 0.75 beat, 375",
        "120, 1/8d, 375",
        "60, 1/16, 250",
        "90, 1/8t, 222.222",
        "100, 1/4d, 900"
    })
    void noteValuesLastMilliseconds(double bpm, String value, double ms) {
        TimeMap time = new TimeMap(TempoMap.of(bpm), MeterMap.FOUR_FOUR);
        long ticks = time.after(0, TimeValue.parse(value), 1);
        assertThat(time.tempo().nanosAt(ticks) / 1e6).isCloseTo(ms, within(0.04));
    }

    @Test
    void aTickAt120IsAThirtiethOfAMillisecond() {
        assertThat(TempoMap.of(120).nanosAt(1)).isCloseTo(32_552, within(1.0));
    }

    @Test
    void aTempoChangeCountsFromItsTick() {
        TempoMap tempo = new TempoMap(List.of(new TempoMap.Change(0, 60), new TempoMap.Change(4 * Q, 120)));
        assertThat(tempo.nanosAt(4 * Q)).isEqualTo(4e9);
        assertThat(tempo.nanosAt(6 * Q)).isEqualTo(5e9);
        assertThat(tempo.bpmAt(4 * Q - 1)).isEqualTo(60);
        assertThat(tempo.bpmAt(4 * Q)).isEqualTo(120);
    }

    /** A ramp from b to c over T quarters takes T ln(c/b) / (c − b) minutes: the mean of 1/tempo (calculus). */
    @Test
    void aRampGoesEvenlyFromTickToTick() {
        TempoMap tempo = new TempoMap(List.of(
                new TempoMap.Change(0, 60, true),
                new TempoMap.Change(8 * Q, 120),
                new TempoMap.Change(16 * Q, 90, true)));
        assertThat(tempo.nanosAt(8 * Q)).isCloseTo(8 * Math.log(2) / 60 * 60e9, within(1.0));
        assertThat(tempo.bpmAt(4 * Q)).isEqualTo(90);
        assertThat(tempo.bpmAt(20 * Q)).as("without a next one it stays").isEqualTo(90);
        assertThat(tempo.nanosAt(16 * Q) - tempo.nanosAt(8 * Q)).isCloseTo(4e9, within(1.0));
        for (long tick = 0; tick < 20 * Q; tick += 777) {
            assertThat(tempo.ticksAt(tempo.nanosAt(tick))).isCloseTo(tick, within(1e-4));
            // Small steps at the tempo of their middle come to the same.
            double step = tempo.nanosAt(tick + 2) - tempo.nanosAt(tick);
            assertThat(step).isCloseTo(2 * 60e9 / Q / tempo.bpmAt(tick + 1), within(1.0));
        }
        TempoMap later = new TimeMap(tempo, MeterMap.FOUR_FOUR).since(4 * Q).tempo();
        assertThat(later.nanosAt(10 * Q)).isCloseTo(tempo.nanosAt(14 * Q) - tempo.nanosAt(4 * Q), within(10.0));
    }

    @Test
    void fortyFiveMinutesAndALateChangeStayPositive() {
        TempoMap tempo = new TempoMap(List.of(new TempoMap.Change(0, 120), new TempoMap.Change(5400 * Q, 61)));
        assertThat(tempo.nanosAt(5400 * Q)).isCloseTo(2700e9, within(1.0));
        assertThat(tempo.nanosAt(5461 * Q)).isCloseTo(2760e9, within(1.0));
    }

    @Test
    void pairsOfSwingAreCountedAnewAtEachBarLine() {
        TimeMap time = new TimeMap(TempoMap.of(120), new MeterMap(List.of(new MeterMap.Change(0, 7, 8))));
        StepGrid grid = StepGrid.ofPiece(time, TimeValue.ofNote("1/8"), 75);
        long e = Q / 2;
        // The seventh eighth is the first of a pair without a second; the eighth begins the next bar.
        long[] expected = {0, e * 3 / 2, 2 * e, e * 7 / 2, 4 * e, e * 11 / 2, 6 * e, 7 * e, e * 17 / 2, 9 * e};
        for (int i = 0; i < expected.length; i++) {
            assertThat(grid.tickOf(i)).as("step %d", i).isEqualTo(expected[i]);
            assertThat(grid.indexAtOrAfter(expected[i])).isEqualTo(i);
        }
    }

    @Test
    void barsFollowTheMeter() {
        MeterMap meter = new MeterMap(List.of(new MeterMap.Change(0, 3, 4), new MeterMap.Change(6 * Q, 7, 8)));
        assertThat(meter.tickOfBar(2)).isEqualTo(6 * Q);
        assertThat(meter.tickOfBar(3)).isEqualTo(6 * Q + 7 * Q / 2);
        assertThat(meter.barAt(6 * Q - 1)).isEqualTo(1);
        assertThat(meter.placeAt(6 * Q + Q / 2)).hasToString("3 . 2");
        assertThat(meter.barLineAtOrAfter(1)).isEqualTo(3 * Q);
        assertThat(meter.barLineAtOrAfter(3 * Q)).isEqualTo(3 * Q);
    }

    /** Common practice: a bar of 4/4 holds 16 sixteenths. */
    @Test
    void gridStepsComeFromTheirIndexAndNeverDrift() {
        StepGrid grid = StepGrid.ofPiece(TimeMap.DEFAULT, TimeValue.parse("0.333 beat"), 50);
        assertThat(grid.tickOf(1_000_000)).isEqualTo(Math.round(1_000_000 * 0.333 * Q));
        StepGrid sixteenths = StepGrid.ofPiece(TimeMap.DEFAULT, TimeValue.parse("1/16"), 50);
        assertThat(sixteenths.tickOf(16)).isEqualTo(4 * Q);
    }

    @Test
    void swingMovesTheSecondOfEachPair() {
        StepGrid grid = StepGrid.ofPiece(TimeMap.DEFAULT, TimeValue.parse("1/8"), 75);
        assertThat(List.of(grid.tickOf(0), grid.tickOf(1), grid.tickOf(2), grid.tickOf(3)))
                .containsExactly(0L, Q * 3 / 4, Q, Q + Q * 3 / 4);
    }

    @Test
    void theGridBeginsAnewAtAChangeOfMeter() {
        MeterMap meter = new MeterMap(List.of(new MeterMap.Change(0, 7, 8), new MeterMap.Change(7 * Q / 2, 4, 4)));
        StepGrid grid = StepGrid.ofPiece(new TimeMap(TempoMap.of(120), meter), TimeValue.parse("1/4"), 50);
        assertThat(grid.tickOf(3)).isEqualTo(3 * Q);
        assertThat(grid.tickOf(4)).isEqualTo(7 * Q / 2);
        assertThat(grid.indexAtOrAfter(3 * Q + 1)).isEqualTo(4);
    }

    @Test
    void badMapsAreRefusedWithTheirValues() {
        assertThatThrownBy(() -> TempoMap.of(0)).hasMessageContaining("bpm but was 0");
        assertThatThrownBy(() -> MeterMap.Change.parse(0, "4/5")).hasMessageContaining("4/5");
        assertThatThrownBy(() -> TimeValue.parse("soon"))
                .hasMessageContaining("\"soon\"")
                .hasMessageContaining("35 ms");
    }

    @ParameterizedTest
    @CsvSource({
        "61440, 1 bar",
        "23040, 3/8 of a bar",
        "76800, 1 1/4 bars",
        "122880, 2 bars",
        "20480, 1/3 of a bar",
        "61441, 1.00 bars",
        "30720.5, 0.50 of a bar"
    })
    void barsAreSaidExactlyWhereMusiciansWould(double ticks, String words) {
        assertThat(Ticks.bars(ticks, 4 * Ticks.PER_QUARTER)).isEqualTo(words);
    }
}
