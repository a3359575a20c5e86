package harpel.device;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.atLeastOnce;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import harpel.engine.LiveEngine;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.piece.Instrument;
import harpel.piece.Piece;
import harpel.piece.Preset;
import harpel.port.InputPort;
import harpel.port.MidiBytes;
import harpel.port.OutputPort;
import harpel.port.Ports;
import harpel.run.Tap;
import harpel.testkit.RecordingPort;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mockito.ArgumentCaptor;

class PortsTest {
    private static String hex(Event event) {
        return HexFormat.of().formatHex(MidiBytes.of(event));
    }

    /** MIDI 1.0 Detailed Specification: status bytes, channels in their low four bits, data bytes. */
    @Test
    void eventsAreMidi1Bytes() {
        NoteStart note = NoteStart.played(0, 0, 9, 36, 127);
        assertThat(hex(note)).isEqualTo("99247f");
        assertThat(hex(new NoteEnd(1, note, 64))).isEqualTo("892440");
        assertThat(hex(Message.control(0, 0, 2, 64, 127))).isEqualTo("b2407f");
    }

    @Test
    void anEventGoesToItsPortAlone() {
        OutputPort builtIn = mock(OutputPort.class);
        OutputPort cable = mock(OutputPort.class);
        Ports ports = new Ports(() -> 0, false);
        ports.add(Ports.BUILT_IN, builtIn);
        ports.add("Cable", cable);
        NoteStart note = NoteStart.played(0, 0, 0, 60, 90);
        ports.send(Ports.BUILT_IN, note, 5);
        ports.pump();
        verify(builtIn).send(eq(MidiBytes.of(note)), eq(5L));
        ports.send("Cable", note, 6);
        ports.pump();
        verify(cable).send(eq(MidiBytes.of(note)), eq(6L));
        verify(cable, times(1)).send(any(), anyLong());
        assertThat(ports.names()).containsExactly("", "Cable");
    }

    /** MIDI 1.0: All Notes Off is controller 123, All Sound Off 120. */
    @Test
    void silenceReachesEveryChannelOfEveryPort() {
        OutputPort port = mock(OutputPort.class);
        Ports ports = new Ports(() -> 0, false);
        ports.add("Cable", port);
        ports.silence();
        ports.pump();
        for (int channel = 0; channel < 16; channel++) {
            verify(port).send(eq(new byte[] {(byte) (0xB0 | channel), 123, 0}), anyLong());
            verify(port).send(eq(new byte[] {(byte) (0xB0 | channel), 120, 0}), anyLong());
        }
        ports.close();
        verify(port).close();
    }

    @Test
    void aDeviceGetsMessagesAndIsClosedAfterUse() throws Exception {
        MidiDevice device = mock(MidiDevice.class);
        Receiver receiver = mock(Receiver.class);
        when(device.getReceiver()).thenReturn(receiver);
        ReceiverPort port = ReceiverPort.open("Cable", device);
        port.send(new byte[] {(byte) 0x91, 60, 90}, 0);
        port.send(new byte[] {(byte) 0xF0, 0x7D, 1, (byte) 0xF7}, 0);
        ArgumentCaptor<MidiMessage> sent = ArgumentCaptor.forClass(MidiMessage.class);
        verify(receiver, atLeastOnce()).send(sent.capture(), eq(-1L));
        assertThat(sent.getAllValues().stream().map(message -> HexFormat.of().formatHex(message.getMessage())))
                .containsExactly("913c5a", "f07d01f7");
        port.close();
        verify(device).close();
        assertThat(port.name()).isEqualTo("Cable");
    }

    @Test
    void whatADeviceSendsReachesTheEngineButSystemMessagesDoNot() throws Exception {
        RecordingPort recording = new RecordingPort();
        Ports ports = new Ports();
        ports.addListener(recording);
        try (LiveEngine engine = new LiveEngine(Piece.empty(), ports, Tap.NONE)) {
            Receiver receiver = JavaDevices.receiver(engine.openInput("Cable"), System::nanoTime, () -> -1);
            receiver.send(new ShortMessage(ShortMessage.TIMING_CLOCK), -1);
            receiver.send(new ShortMessage(0x93, 60, 90), -1);
            engine.start();
            long giveUp = System.nanoTime() + 10_000_000_000L;
            while (recording.sent().size() < 16 && System.nanoTime() < giveUp) {
                Thread.onSpinWait();
            }
            // General MIDI 1: program 93 counted from 1, the first stand-in's.
            assertThat(recording.sent().get(0).message()).containsExactly(0xC0, 92);
            assertThat(recording.sent().get(15).message())
                    .as("behind the same for all channels but that of percussion")
                    .containsExactly(0x90, 60, 90);
        }
    }

    /** The Java platform's time stamps: microseconds since the device was opened, −1 where it has none. */
    @ParameterizedTest
    @CsvSource({"5000, 9000, 4", "-1, 9000, 0", "5000, -1, 0", "9500, 9000, 0", "0, 900000, 0"})
    void aKeyWasPlayedWhenItsDeviceSays(long stamp, long deviceNow, long agoMillis) throws Exception {
        InputPort port = new InputPort("Cable", () -> {});
        JavaDevices.receiver(port, () -> 1_000_000_000, () -> deviceNow).send(new ShortMessage(0x90, 60, 90), stamp);
        assertThat(port.poll().nanos()).isEqualTo(1_000_000_000 - agoMillis * 1_000_000);
    }

    /** MIDI 1.0 Detailed Specification, "Bank Select": controllers 0 and 32, then the program change. */
    @Test
    void aSoundOfAnotherBankIsToldWithItsBankAndBackAgain() {
        RecordingPort recording = new RecordingPort();
        Ports ports = new Ports(() -> 0, false);
        ports.addListener(recording);
        Piece strange = Piece.empty()
                .withPart(
                        "part-1",
                        part -> part.withVoice(
                                part.voice().withSound("Tide organ").withPreset(new Preset(5 * 128 + 2, 3))));
        try (LiveEngine engine = new LiveEngine(strange, ports, Tap.NONE)) {
            engine.start();
            told(ports, recording, 15 * 3);
            engine.take(
                    harpel.plan.Program.of(strange.withPart("part-1", part -> part.withSound("Felt piano"))),
                    List.of());
            told(ports, recording, 15 * 6);
        }
        assertThat(recording.sent().stream()
                        .map(sent -> HexFormat.of().formatHex(sent.message()))
                        .filter(message -> message.charAt(1) == '0')
                        .limit(6))
                .containsExactly("b00005", "b02002", "c003", "b00000", "b02000", "c000");
    }

    private static void told(Ports ports, RecordingPort recording, int messages) {
        long giveUp = System.nanoTime() + 10_000_000_000L;
        while (recording.sent().size() < messages && System.nanoTime() < giveUp) {
            ports.pump();
        }
        assertThat(recording.sent()).hasSizeGreaterThanOrEqualTo(messages);
    }

    /** General MIDI 1: programs 1–128. */
    @Test
    void everyInstrumentHasItsProgram() {
        assertThat(Instrument.all()).allMatch(one -> one.program() >= 0 && one.program() <= 127);
        assertThat(Instrument.named("Round bass").program()).isEqualTo(33);
        assertThat(Instrument.named("Nothing of that name"))
                .isEqualTo(Instrument.all().get(0));
        assertThat(Instrument.every().stream().map(one -> one.name().toLowerCase(Locale.ROOT)))
                .doesNotHaveDuplicates();
    }
}
