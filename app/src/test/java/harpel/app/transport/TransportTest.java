package harpel.app.transport;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.AdditionalMatchers.aryEq;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import harpel.app.look.Messages;
import harpel.engine.LiveStatus;
import harpel.piece.Piece;
import harpel.piece.Voice;
import harpel.port.OutputPort;
import harpel.port.Ports;
import harpel.testkit.RecordingPort;
import java.util.concurrent.Callable;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.mockito.stubbing.Answer;

/** What the window hears from the engine and its outputs. */
class TransportTest {
    private final Messages messages = new Messages();
    private final Ports ports = new Ports();
    private final Transport transport =
            new Transport(Piece.empty(), ports, java.util.List::of, System::nanoTime, messages);

    @AfterEach
    void close() {
        transport.close();
    }

    private static void await(Callable<Boolean> condition) throws Exception {
        long giveUp = System.nanoTime() + 20_000_000_000L;
        while (!condition.call()) {
            assertThat(System.nanoTime()).as("waited 20 s").isLessThan(giveUp);
            Thread.sleep(1);
        }
    }

    private Callable<Boolean> said(String words) {
        return () -> {
            transport.look();
            return messages.last().get().contains(words);
        };
    }

    @Test
    void aKeyIsHeardAndShownAndLeftAgain() throws Exception {
        RecordingPort port = new RecordingPort();
        transport.listen(port);
        transport.start();
        transport.press(60, 90);
        await(() -> !port.sent().isEmpty());
        await(transport::tracesWait);
        transport.traces();
        assertThat(transport.tracesWait()).as("taken").isFalse();
        transport.release(60);
        await(() -> transport.status().mode() == LiveStatus.Mode.STOPPED);
        assertThat(transport.droppedTraces()).isZero();
    }

    @Test
    void playGoesOnAndOffAndSilenceSaysWhatItDid() throws Exception {
        transport.start();
        transport.togglePlay();
        await(() -> transport.status().mode() == LiveStatus.Mode.PLAYING);
        transport.togglePlay();
        await(() -> transport.status().mode() == LiveStatus.Mode.STOPPED);
        transport.play();
        await(() -> transport.status().mode() == LiveStatus.Mode.PLAYING);
        transport.silence();
        await(() -> transport.status().mode() == LiveStatus.Mode.STOPPED);
        assertThat(messages.last().get()).startsWith("Silence: every note");
    }

    /** However fast it is gone from one part's sound to another's, each note that is tried ends. */
    @Test
    void soundsThatAreTriedEndWhicheverPartIsTriedNext() throws Exception {
        OutputPort one = mock(OutputPort.class);
        OutputPort other = mock(OutputPort.class);
        when(one.name()).thenReturn("one");
        when(other.name()).thenReturn("other");
        ports.add(Voice.builtIn("one"), one);
        ports.add(Voice.builtIn("other"), other);
        transport.start();
        transport.trySound("one", 60);
        verify(one, timeout(10_000)).send(aryEq(new byte[] {(byte) 0x90, 60, 90}), anyLong());
        transport.trySound("other", 64);
        verify(one, timeout(10_000)).send(aryEq(new byte[] {(byte) 0x80, 60, 64}), anyLong());
        transport.trySound("other", 67);
        verify(other, timeout(10_000)).send(aryEq(new byte[] {(byte) 0x80, 67, 64}), anyLong());
    }

    @Test
    void anOutputThatFailsIsNamedOnceAndSoIsItsReturn() throws Exception {
        // Set up before the sender uses it, and not again: that may be done on one thread only.
        AtomicBoolean unplugged = new AtomicBoolean(true);
        Answer<Void> answer = call -> {
            if (unplugged.get()) {
                throw new IllegalStateException("unplugged");
            }
            return null;
        };
        OutputPort port = mock(OutputPort.class);
        when(port.name()).thenReturn("Pier");
        doAnswer(answer).when(port).send(any(), anyLong());
        doAnswer(answer).when(port).reopen();
        ports.add(Voice.builtIn(Piece.empty().parts().get(0).id()), port);
        transport.start();
        transport.press(60, 90);
        await(
                said(
                        "“built-in sounds” failed: unplugged; it is tried again every two seconds. What it does not take is left out"));
        messages.say("");
        transport.look();
        assertThat(messages.last().get()).as("said once").isEmpty();
        unplugged.set(false);
        await(said("“built-in sounds” connected again."));
    }
}
