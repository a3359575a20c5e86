package harpel.clock;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The line through clocks: MIDI 1.0 has 24 a quarter, so that at 120 quarters a minute one comes every 20.8333 ms. */
class ClockFollowerTest {
    private static final double AT_120 = 60e9 / 120 / 24;
    private static final double MS = 1e6;

    private final ClockFollower follower = new ClockFollower(AT_120);
    private double at;
    private long sent;

    private void clock(double afterNanos) {
        at += afterNanos;
        sent++;
        follower.clock(Math.round(at));
    }

    private void clocks(int count, double period) {
        for (int i = 0; i < count; i++) {
            clock(period);
        }
    }

    private long counted() {
        return follower.index() + 1;
    }

    @ParameterizedTest
    @CsvSource({"20, 120", "60, 120", "120, 60", "120, 399", "300, 31"})
    void evenClocksAreFollowedExactlyFromAnyExpectation(double bpm, double expected) {
        ClockFollower one = new ClockFollower(60e9 / expected / 24);
        double period = 60e9 / bpm / 24;
        for (int i = 0; i < 48; i++) {
            one.clock(Math.round(i * period));
        }
        assertThat(one.index()).isEqualTo(47);
        assertThat(one.bpm()).isCloseTo(bpm, within(bpm * 1e-6));
        assertThat(one.period()).isCloseTo(period, within(1.0));
        assertThat(one.nanosOf(47)).isCloseTo(47 * period, within(2.0));
        assertThat(one.nanosOf(100)).isCloseTo(100 * period, within(100.0));
        assertThat(one.clockAt(Math.round(80.5 * period))).isCloseTo(80.5, within(1e-5));
        assertThat(one.lastNanos()).isEqualTo(Math.round(47 * period));
        assertThat(one.bpmOutside()).isZero();
    }

    @Test
    void beforeTheFirstClockItExpectsWhatItWasToldWithinWhatIsFollowed() {
        assertThat(follower.lastNanos()).isLessThan(-1_000_000_000_000L);
        assertThat(follower.period()).isEqualTo(AT_120);
        assertThat(follower.index()).isEqualTo(-1);
        assertThat(new ClockFollower(1).bpm()).isCloseTo(600, within(1e-6));
        assertThat(new ClockFollower(1e12).bpm()).isCloseTo(20 / 1.5, within(1e-6));
    }

    @Test
    void jitterDoesNotCount() {
        Random random = new Random(6);
        for (int i = 0; i < 400; i++) {
            double off = random.nextInt(8_000_001) - 4_000_000;
            follower.clock(Math.round(i * AT_120 + off));
            if (i > 190) {
                assertThat(follower.nanosOf(i)).isCloseTo(i * AT_120, within(1.5 * MS));
            }
        }
        assertThat(follower.index()).isEqualTo(399);
        assertThat(follower.bpm()).isCloseTo(120, within(0.2));
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 7})
    void clocksThatWereLostAreMadeUpFor(int lost) {
        clocks(96, AT_120);
        clock((lost + 1) * AT_120);
        clocks(6, AT_120);
        assertThat(counted()).isEqualTo(sent + lost);
        assertThat(follower.bpm()).isCloseTo(120, within(1e-3));
        clocks(200, AT_120);
        assertThat(counted()).isEqualTo(sent + lost);
        assertThat(follower.nanosOf(follower.index())).isCloseTo(at, within(0.1 * MS));
    }

    @Test
    void clocksThatAreHalfACloseStepLateAreNotLost() {
        clocks(96, AT_120);
        clock(1.5 * AT_120);
        clocks(3, AT_120);
        assertThat(counted()).as("what lies between two clocks is neither").isEqualTo(sent);
    }

    @ParameterizedTest
    @ValueSource(ints = {2, 6, 12, 24})
    void clocksThatCameTogetherAreCountedAndChangeNoTempo(int lump) {
        clocks(96, AT_120);
        double due = at;
        // So many wait somewhere and come together with the last of them.
        at = due + lump * AT_120;
        for (int i = 0; i < lump; i++) {
            sent++;
            follower.clock(Math.round(at) + i * 1000);
        }
        for (int i = 1; i <= 48; i++) {
            sent++;
            follower.clock(Math.round(due + (lump + i) * AT_120));
            assertThat(follower.bpm()).isCloseTo(120, within(2.0));
        }
        assertThat(counted()).isEqualTo(sent);
        assertThat(follower.nanosOf(follower.index())).isCloseTo(due + (lump + 48) * AT_120, within(2 * MS));
    }

    @ParameterizedTest
    @CsvSource({"90, 16", "125, 60", "180, 16", "60, 20", "240, 20"})
    void aNewTempoIsFoundWithinAQuarterOrAFewWhereItIsNear(double bpm, int clocks) {
        clocks(192, AT_120);
        clocks(clocks, 60e9 / bpm / 24);
        assertThat(follower.bpm()).isCloseTo(bpm, within(bpm * 0.02));
        clocks(192, 60e9 / bpm / 24);
        assertThat(follower.bpm()).isCloseTo(bpm, within(bpm * 1e-4));
        assertThat(counted()).isEqualTo(sent);
    }

    /** 20–400 quarters a minute are followed, and 3 % more is taken for jitter. */
    @ParameterizedTest
    @CsvSource({
        "15, 30, 15",
        "19.3, 30, 19.3",
        "19.5, 60, 0",
        "21, 60, 0",
        "411, 240, 0",
        "413, 240, 413",
        "500, 240, 500",
        "700, 300, 700",
        "1000, 400, 1000",
        "600, 23, 0"
    })
    void whatIsTooSlowOrTooFastIsSaidWhenItHasComeForAWhile(double bpm, int clocks, double said) {
        clocks(clocks, 60e9 / bpm / 24);
        assertThat(follower.bpmOutside()).isCloseTo(said, within(0.05 + said * 1e-4));
    }

    @Test
    void whatIsOutsideIsNotSaidBeforeItHasComeForTwoSeconds() {
        // 700 a minute: 280 clocks a second.
        double period = 60e9 / 700 / 24;
        clocks(150, period);
        assertThat(follower.bpmOutside()).isZero();
        clocks(100, period);
        assertThat(follower.bpmOutside())
                .as("192 of them are as long as it looks")
                .isCloseTo(700, within(0.1));
    }

    @Test
    void anotherExpectationHoldsUntilClocksSayMore() {
        follower.expect(60e9 / 60 / 24);
        clock(1e9);
        clock(60e9 / 60 / 24);
        assertThat(follower.bpm()).isCloseTo(60, within(1e-6));
        clocks(30, AT_120);
        assertThat(follower.bpm()).isCloseTo(120, within(2.0));
    }
}
