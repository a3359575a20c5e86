package harpel.device;

import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;

import harpel.port.InputPort;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.InOrder;

/** The stand-in for a machine that sends its clock. Status bytes as in MIDI 1.0, system real time and song position. */
class SimulatedClockTest {
    private static final int WAIT = 5_000;

    private final InputPort port = mock(InputPort.class);
    private final SimulatedMachine.Device device = new SimulatedMachine().plugIn("Clock");
    private SimulatedClock clock;

    @BeforeEach
    void open() throws Exception {
        device.openInput(port);
        clock = new SimulatedClock(device);
    }

    @AfterEach
    void close() {
        clock.close();
    }

    @Test
    void clocksComeWithoutBeingStartedAndFallSilent() {
        clock.tempo(400);
        clock.jitter(2);
        verify(port, timeout(WAIT).atLeast(24)).offer(eq(0xF8), eq(0), eq(0), anyLong());
        clock.silent(true);
        // One may be on its way; then nothing comes but what it is told.
        clock.stop();
        verify(port, timeout(WAIT)).offer(eq(0xFC), anyInt(), anyInt(), anyLong());
    }

    @Test
    void itStartsStopsAndJumpsInOrder() {
        clock.begin();
        clock.stop();
        clock.position(300);
        clock.goOn();
        verify(port, timeout(WAIT)).offer(eq(0xFB), anyInt(), anyInt(), anyLong());
        InOrder order = inOrder(port);
        order.verify(port).offer(eq(0xFA), anyInt(), anyInt(), anyLong());
        order.verify(port).offer(eq(0xFC), anyInt(), anyInt(), anyLong());
        // 300 sixteenths: least significant 7 bits first.
        order.verify(port).offer(eq(0xF2), eq(44), eq(2), anyLong());
        order.verify(port).offer(eq(0xFB), anyInt(), anyInt(), anyLong());
    }

    @Test
    void whatIsOutOfRangeIsNamed() {
        assertThatThrownBy(() -> clock.tempo(10)).hasMessageContaining("20–400").hasMessageContaining("10");
        assertThatThrownBy(() -> clock.jitter(11)).hasMessageContaining("0–10 ms");
        assertThatThrownBy(() -> clock.position(16_384)).hasMessageContaining("0–16,383");
    }
}
