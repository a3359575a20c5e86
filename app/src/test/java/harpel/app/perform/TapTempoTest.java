package harpel.app.perform;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;

class TapTempoTest {
    private final TapTempo taps = new TapTempo();

    private OptionalDouble tapAt(double seconds) {
        return taps.tap(Math.round(seconds * 1e9));
    }

    @Test
    void theMiddleSpanCountsSoThatOneThatSlippedDoesNot() {
        assertThat(tapAt(0)).isEmpty();
        assertThat(tapAt(0.5)).isEmpty();
        assertThat(tapAt(1.0)).hasValue(120);
        tapAt(1.5);
        assertThat(tapAt(2.1)).as("late by a fifth").hasValue(120);
    }

    @Test
    void afterAPauseItBeginsAnewAndItKeepsToTheRange() {
        tapAt(0);
        tapAt(0.5);
        tapAt(1);
        assertThat(tapAt(9)).isEmpty();
        tapAt(9.05);
        assertThat(tapAt(9.1)).hasValue(400);
    }

    @Test
    void ofAnEvenNumberOfSpansTheTwoInTheMiddleCountAndATempoIsToldToATenth() {
        tapAt(0);
        tapAt(0.4);
        assertThat(tapAt(1.0)).as("spans of 0.4 and 0.6 s").hasValue(120);
        tapAt(1.61);
        assertThat(tapAt(2.23)).as("0.4, 0.6, 0.61, 0.62: 0.605 s").hasValue(99.2);
    }

    @Test
    void tapsThatAreTooSlowGiveTheSlowestTempo() {
        tapAt(0);
        tapAt(2.49);
        assertThat(tapAt(4.98)).hasValue(24.1);
        assertThat(tapAt(4.98)).as("two taps at one moment begin anew").isEmpty();
    }
}
