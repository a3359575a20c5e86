package harpel.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The synthesizer of one part: exact to the frame also after it slept, silent within a block, and it tells of voices it took. */
class PartSoundTest {
    private static final int RATE = 44_100;
    private static final int BLOCK = 93;
    private static final byte CLAVES = 75;
    private static final byte DRUM_START = (byte) 0x99;

    private PartSound part;
    private long written;
    /** The first frame that is louder than −40 dB in what was rendered last; −1 for none. */
    private long onset;

    private float last;

    @BeforeEach
    void open() throws IOException {
        part = new PartSound("strokes", RATE, BLOCK, null, 64, (one, timed) -> {});
    }

    @AfterEach
    void close() throws IOException {
        part.free();
    }

    private static byte[] bytes(int status, int first, int second) {
        return new byte[] {(byte) status, (byte) first, (byte) second};
    }

    private void render(double seconds) throws IOException {
        onset = -1;
        for (long end = written + (long) (seconds * RATE); written < end; written += BLOCK) {
            float[] sum = new float[BLOCK * Synth.CHANNELS];
            part.render(sum, written, 0.99f);
            last = 0;
            for (int i = 0; i < sum.length; i++) {
                last = Math.max(last, Math.abs(sum[i]));
                if (onset < 0 && Math.abs(sum[i]) > 0.01f) {
                    onset = written + i / Synth.CHANNELS;
                }
            }
        }
    }

    /** Where a stroke begins that is due at a frame. */
    private long stroke(long frame) throws IOException {
        part.add(bytes(DRUM_START, CLAVES, 110), frame, written);
        part.add(bytes(0x89, CLAVES, 64), frame + 4000, written);
        render(2.5);
        return onset;
    }

    @Test
    void aNoteSoundsAtItsFrameWhereverThatLiesAndHoweverLongItWasQuiet() throws IOException {
        // The engine runs long before a part comes.
        written = 1_000_000L * BLOCK;
        long first = written + 1000;
        long rise = stroke(first) - first;
        assertThat(rise).as("from due to heard").isBetween(0L, 400L);
        for (int after : new int[] {1, 46, 92, 93, 700, 44_101}) {
            render(after / (double) RATE);
            long due = written + after;
            assertThat(stroke(due) - due).isCloseTo(rise, within(3L));
        }
    }

    @Test
    void aPartThatIsQuietSleepsUntilItsNextNoteAndNotBefore() throws IOException {
        assertThat(part.isAsleep()).isTrue();
        part.add(bytes(0x90, 60, 110), 0, 0);
        render(3);
        assertThat(part.isAsleep()).as("while a key is held").isFalse();
        part.add(bytes(0x80, 60, 64), written, written);
        render(8);
        assertThat(part.isAsleep()).isTrue();
        assertThat(part.peak()).isZero();
    }

    @Test
    void silenceIsSilenceAtTheEndOfABlockAndTheNextNoteIsHeard() throws IOException {
        for (int pitch = 40; pitch < 80; pitch += 4) {
            part.add(bytes(0x90, pitch, 120), 0, 0);
        }
        render(0.5);
        assertThat(last).isGreaterThan(0.05f);
        assertThat(part.peak()).isGreaterThan(0.05f);
        part.add(bytes(0xB0, 120, 0), written + 10_000, written);
        render(BLOCK / (double) RATE);
        render(BLOCK / (double) RATE);
        assertThat(last).isZero();
        assertThat(part.peak()).isZero();
        render(0.3);
        assertThat(last).as("the hall, too").isZero();
        part.add(bytes(0x90, 60, 120), written, written);
        render(0.1);
        assertThat(last).isGreaterThan(0.005f);
    }

    @Test
    void aNoteThatTakesAVoiceIsCounted() throws IOException {
        for (int i = 0; i < 30; i++) {
            part.add(bytes(0x90, 30 + i, 60), i, 0);
        }
        render(0.2);
        assertThat(part.takenVoices()).isZero();
        for (int i = 0; i < 70; i++) {
            part.add(bytes(0x91, 30 + i, 60), written, written);
        }
        render(0.1);
        assertThat(part.takenVoices()).isPositive();
    }

    @Test
    void aPartThatIsGoneRingsOnForAWhileAndIsOver() throws IOException {
        part.add(bytes(0x90, 60, 120), 0, 0);
        render(0.2);
        part.close();
        assertThat(part.isOver()).isFalse();
        render(6);
        assertThat(part.isOver()).isTrue();
    }
}
