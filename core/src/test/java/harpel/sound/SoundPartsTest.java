package harpel.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** What the sound thread is made of, each by itself. */
class SoundPartsTest {
    private static final double RATE = 44_100;

    /** A server that takes blocks: what is seen jumps by up to 10 ms, what is taken from it does not. */
    @Test
    void aClockOfFramesRunsEvenlyThroughWhatJumps() {
        FrameClock clock = new FrameClock(RATE, 0.002);
        Random random = new Random(4);
        double worst = 0;
        for (int i = 0; i < 5000; i++) {
            long now = i * 2_000_000L;
            double truth = now * RATE / 1e9;
            // Now and then others have the processor, and it lags by up to 0.2 s for a while.
            double lags = i > 300 && i % 700 < 20 ? RATE * 0.01 * (i % 700) : 0;
            clock.saw(now, truth + random.nextInt(441) - 220 - lags);
            if (i > 500) {
                worst = Math.max(worst, Math.abs(clock.at(now) - truth));
            }
        }
        assertThat(worst).as("within a millisecond").isLessThan(RATE / 1000);
        assertThat(clock.at(5_000_000_000L) - clock.at(4_000_000_000L)).isCloseTo(RATE, within(1e-3));
    }

    @Test
    void whatStaysFarOffIsBelievedAndAfterABreakAllBeginsAnew() {
        FrameClock clock = new FrameClock(RATE, 0.1);
        clock.saw(0, 100);
        assertThat(clock.at(1_000_000_000L)).isCloseTo(100 + RATE, within(1e-6));
        for (int i = 0; i < 3; i++) {
            long now = 1_000_000_000L + i * 100_000_000L;
            assertThat(clock.at(now)).as("not yet").isCloseTo(100 + RATE + i * RATE / 10, within(1e-3));
            clock.saw(now, 20_000 + i * RATE / 10);
        }
        assertThat(clock.at(1_200_000_000L)).isCloseTo(20_000 + RATE / 5, within(1e-6));
        clock.forget();
        clock.saw(2_000_000_000L, 5);
        assertThat(clock.at(2_000_000_000L)).isEqualTo(5);
    }

    /** A server puts silence in between and does not tell: what is heard comes later from then on. */
    @Test
    void soundThatBrokeOffIsCountedAndWhatOnlyLagsIsNot() {
        FrameClock clock = new FrameClock(RATE, 0.002);
        Random random = new Random(4);
        double missing = 0;
        for (int i = 0; i < 10_000; i++) {
            long now = i * 2_000_000L;
            double lags = i % 900 < 40 ? RATE * 0.2 : 0;
            missing += i == 4_100 ? RATE * 0.004 : 0;
            clock.saw(now, now * RATE / 1e9 * 1.0003 + random.nextInt(60) - lags - missing);
        }
        assertThat(clock.breaks()).isEqualTo(1);
        assertThat(clock.at(20_000_000_000L)).isCloseTo(20 * RATE * 1.0003 - missing, within(RATE / 500));
    }

    private static byte[] bytes(int... values) {
        byte[] bytes = new byte[values.length];
        for (int i = 0; i < values.length; i++) {
            bytes[i] = (byte) values[i];
        }
        return bytes;
    }

    private static List<String> until(Waiting waiting, long frame) {
        List<String> taken = new ArrayList<>();
        waiting.until(frame, (message, at) -> taken.add(HexFormat.of().formatHex(message) + " " + at));
        return taken;
    }

    @Test
    void messagesWaitForTheirFrameAndKeepTheirOrderWithinOne() {
        Waiting waiting = new Waiting();
        waiting.add(bytes(0x90, 64, 90), 300, 0);
        waiting.add(bytes(0x90, 60, 90), 100, 0);
        waiting.add(bytes(0x80, 60, 64), 100, 0);
        waiting.add(bytes(0x90, 62, 90), -50, 20);
        assertThat(until(waiting, 100)).as("what is late sounds next").containsExactly("903e5a 20");
        assertThat(until(waiting, 101)).containsExactly("903c5a 100", "803c40 100");
        assertThat(until(waiting, 1000)).containsExactly("90405a 300");
    }

    /** MIDI 1.0: controller 120 is All Sound Off, 123 All Notes Off. */
    @Test
    void silenceGoesBeforeAllAndWhatWaitedToStartNeverDoes() {
        Waiting waiting = new Waiting();
        waiting.add(bytes(0x90, 60, 90), 100, 0);
        waiting.add(bytes(0x91, 60, 90), 100, 0);
        waiting.add(bytes(0x80, 60, 64), 120, 0);
        waiting.add(bytes(0xC0, 7), 130, 0);
        waiting.add(bytes(0xB0, 120, 0), 500, 10);
        assertThat(until(waiting, 20)).as("at once").containsExactly("b07800 10");
        assertThat(until(waiting, 1000))
                .as("ends and sounds stay")
                .containsExactly("913c5a 100", "803c40 120", "c007 130");
        waiting.add(bytes(0x90, 60, 0), 100, 50);
        waiting.add(bytes(0xB0, 123, 0), 500, 60);
        assertThat(until(waiting, 1000))
                .as("a start of velocity 0 is an end")
                .containsExactly("b07b00 60", "903c00 100");
    }

    @Test
    void nothingLeavesAboveTheCeilingAndWhatIsSofterIsLeftAlone() {
        Limiter limiter = new Limiter(RATE);
        float[] soft = {0.5f, -0.5f, 0.8f, 0.1f};
        limiter.limit(soft, soft.length);
        assertThat(soft).containsExactly(0.5f, -0.5f, 0.8f, 0.1f);
        assertThat(limiter.reductionDb()).isZero();
        assertThat(limiter.takePeak()).isEqualTo(0.8f);
        float[] loud = new float[2000];
        Random random = new Random(5);
        for (int i = 0; i < loud.length; i++) {
            loud[i] = (random.nextFloat() * 2 - 1) * 8;
        }
        limiter.limit(loud, loud.length);
        for (float sample : loud) {
            assertThat(Math.abs(sample)).isLessThanOrEqualTo(Limiter.CEILING + 1e-6f);
        }
        assertThat(limiter.reductionDb()).isGreaterThan(10);
        float[] quiet = new float[2 * 44_100 * 2];
        limiter.limit(quiet, quiet.length);
        assertThat(limiter.reductionDb()).as("it comes back").isCloseTo(0, within(0.1));
    }

    @Test
    void delaysGrowToTheSafest() {
        assertThat(Delay.SHORT.safer()).isEqualTo(Delay.NORMAL);
        assertThat(Delay.SAFE.safer()).isEqualTo(Delay.VERY_SAFE);
        assertThat(Delay.VERY_SAFE.safer()).isEqualTo(Delay.VERY_SAFE);
        assertThat(Delay.VERY_SAFE.word()).isEqualTo("very-safe");
    }

    @Test
    void whatIsOpenedBeginsSoftlyAndIsAtItsLevelAfterTwoSeconds() {
        Limiter limiter = new Limiter(RATE);
        limiter.ease();
        float[] samples = new float[(int) (3 * RATE) * 2];
        Arrays.fill(samples, 0.5f);
        limiter.limit(samples, samples.length);
        assertThat(20 * Math.log10(samples[0] / 0.5)).isCloseTo(-18, within(0.1));
        assertThat(20 * Math.log10(samples[(int) RATE * 2] / 0.5)).isCloseTo(-9, within(0.2));
        assertThat(samples[(int) (2.1 * RATE) * 2]).isEqualTo(0.5f);
    }
}
