package harpel.format.midi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import harpel.event.Event;
import harpel.event.EventOrder;
import harpel.format.FileException;
import harpel.format.midi.MidiFile.Note;
import harpel.testkit.Heard;
import harpel.testkit.Played;
import harpel.time.Ticks;
import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Track;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Checked against Standard MIDI Files 1.0: its table of variable-length numbers and its two example files. */
class SmfTest {
    private static final long Q = Ticks.PER_QUARTER;
    private static final String HEADER = "4D546864 00000006 0000 0001 0060 ";
    private static final String END = "00FF2F00";

    private static byte[] hex(String text) {
        return HexFormat.of().parseHex(text.replaceAll("\\s", ""));
    }

    /** A file of format 0 at 96 ticks around a track's events. */
    private static byte[] file(String events) {
        return file("0060", events);
    }

    /** @param division ticks to a quarter */
    private static byte[] file(String division, String events) {
        byte[] track = hex(events);
        return hex(HEADER.substring(0, HEADER.length() - 5) + division + "4D54726B"
                + String.format("%08X", track.length) + events);
    }

    /** Standard MIDI Files 1.0, "Variable-length quantity": the examples of the specification. */
    @ParameterizedTest
    @CsvSource({
        "00000000, 00",
        "00000040, 40",
        "0000007F, 7F",
        "00000080, 8100",
        "00002000, C000",
        "00003FFF, FF7F",
        "00004000, 818000",
        "00100000, C08000",
        "001FFFFF, FFFF7F",
        "00200000, 81808000",
        "08000000, C0808000",
        "0FFFFFFF, FFFFFF7F"
    })
    void variableLengthNumbers(String number, String bytes) throws FileException {
        long value = Long.parseLong(number, 16);
        assertThat(HexFormat.of().withUpperCase().formatHex(SmfWriter.variableLength(value)))
                .isEqualTo(bytes);
        // 3,840 ticks to a quarter, so that the largest is not too far away.
        MidiFile read = SmfReader.read(file("0F00", bytes + "FF2F00"));
        assertThat(read.endTick()).isEqualTo(value * (Q / 3840));
    }

    @Test
    void whatIsFartherAwayThanAPieceReachesIsRefusedAtItsByte() throws FileException {
        // The largest delta time of the specification at one tick to a quarter: an end after 268,435,455 quarters.
        assertThatThrownBy(() -> SmfReader.read(file("0001", "00903C5A FFFFFF7F803C40" + END)))
                .hasMessage("byte 26: expected an event within 1,000,000 quarters of the beginning but found one after"
                        + " 268,435,455");
        assertThat(SmfReader.read(file("0001", "00903C5A BD8440803C40" + END)).endTick())
                .isEqualTo(Ticks.FARTHEST);
    }

    @Test
    void manyStartsOfOneKeyWithoutAnEndAreEachEndedWithTheTrack() throws FileException {
        MidiFile read = SmfReader.read(file("01903C5A".repeat(5_000) + END));
        assertThat(read.notes()).hasSize(5_000).allMatch(note -> note.tick() + note.lengthTicks() >= read.endTick());
        assertThat(read.repairs()).containsExactly("5000 notes have no end in the file; ended at the end of the track");
    }

    @Test
    void aNumberThatDoesNotFitIsRefused() {
        assertThatThrownBy(() -> SmfWriter.variableLength(0x1000_0000L)).hasMessageContaining("10000000");
    }

    /** The example of the specification in format 0, with running status: 96 to a quarter, three channels. */
    private static final String EXAMPLE_0 = """
            4D546864 00000006 0000 0001 0060
            4D54726B 0000003B
            00 FF58 04 04021808
            00 FF51 03 07A120
            00 C0 05  00 C1 2E  00 C2 46
            00 92 30 60  00 3C 60
            60 91 43 40
            60 90 4C 20
            8140 82 30 40  00 3C 40
            00 81 43 40  00 80 4C 40
            00 FF2F00""";

    /** The same music in format 1. */
    private static final String EXAMPLE_1 = """
            4D546864 00000006 0001 0004 0060
            4D54726B 00000014 00 FF58 04 04021808  00 FF51 03 07A120  8300 FF2F00
            4D54726B 00000010 00 C0 05  8140 90 4C 20  8140 4C 00  00 FF2F00
            4D54726B 0000000F 00 C1 2E  60 91 43 40  8220 43 00  00 FF2F00
            4D54726B 00000015 00 C2 46  00 92 30 60  00 3C 60  8300 30 00  00 3C 00  00 FF2F00""";

    @Test
    void theSpecificationsExampleFiles() throws FileException {
        for (String example : List.of(EXAMPLE_0, EXAMPLE_1)) {
            MidiFile file = SmfReader.read(hex(example));
            assertThat(file.notes().stream().map(n ->
                            new long[] {n.tick() / Q, n.lengthTicks() / Q, n.channel(), n.pitch(), n.velocity()}))
                    .containsExactlyInAnyOrder(
                            new long[] {0, 4, 2, 0x30, 0x60},
                            new long[] {0, 4, 2, 0x3C, 0x60},
                            new long[] {1, 3, 1, 0x43, 0x40},
                            new long[] {2, 2, 0, 0x4C, 0x20});
            assertThat(file.messages()).hasSize(3);
            assertThat(file.endTick()).isEqualTo(4 * Q);
            assertThat(file.time().tempo().bpmAt(0)).isEqualTo(120);
            assertThat(file.repairs()).isEmpty();
        }
    }

    @Test
    void velocityZeroEndsANote() throws FileException {
        MidiFile file = SmfReader.read(file("00903C40 603C00" + END));
        assertThat(file.notes()).containsExactly(new Note(0, Q, 0, 60, 64, 64));
    }

    @Test
    void overlappingNotesOfOnePitchEndInTheOrderTheyBegan() throws FileException {
        MidiFile file = SmfReader.read(file("00903C40 60903C41 60803C00 60803C00" + END));
        assertThat(file.notes()).extracting(Note::lengthTicks).containsExactly(2 * Q, 2 * Q);
    }

    @Test
    void notesThatStartTogetherStandInTheOrderOfTheFileWhicheverEndsFirst() throws FileException {
        MidiFile file = SmfReader.read(file("00 90 4840  00 4040  60 4800  00 4340  60 4000  00 4300" + END));
        assertThat(file.notes().stream().map(Note::pitch)).containsExactly(0x48, 0x40, 0x43);
        assertThat(file.lines().get(0).notes()).isEqualTo(file.notes());
    }

    @Test
    void notesWithoutAnEndAndEndsWithoutANoteAreMendedAndSaid() throws FileException {
        MidiFile file = SmfReader.read(file("00903C40 00804040 60FF2F00"));
        assertThat(file.notes()).containsExactly(new Note(0, Q, 0, 60, 64, 64));
        assertThat(file.repairs()).hasSize(2).anyMatch(text -> text.startsWith("1 note has no end"));
    }

    /** What cannot be read names its byte and what was expected. The JDK's reader takes most of these in silence. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "4D546865 00000006 0000 0001 0060 | byte 0: expected \"MThd\"",
                "4D5468 | byte 0: expected a header chunk",
                "4D546864 00000004 0000 0001 | byte 4: expected a header length of 6",
                "4D546864 00000006 0003 0001 0060 | byte 8: expected format 0, 1 or 2 but found 3",
                "4D546864 00000006 0000 0002 0060 | byte 10: expected 1 track in format 0",
                "4D546864 00000006 0000 0001 0000 | byte 12: expected ticks to a quarter note",
                "4D546864 00000006 0000 0001 E700 | byte 12: expected SMPTE time",
                "4D546864 00000006 0000 0001 0060 | byte 14: expected 1 tracks, as the header says, but found 0",
                "4D546864 00000006 0000 0001 0060 4D54726B 00000010 00FF2F00 | byte 18: expected a chunk of 16 bytes",
                "4D546864 00000006 0000 0001 0060 4D54726B FFFFFFFF 00FF2F00 | byte 18: expected a chunk of 4294967295 bytes",
                "4D546864 00000006 0000 0001 0060 4D54726B 00000004 00FF2F00 4D54726B 00000004 00FF2F00 | byte 26: expected 1 tracks",
                "4D546864 00000006 0000 0001 0060 4D54726B 00000004 00FF2F00 4D54 | byte 26: expected a chunk's 8 byte header"
            })
    void brokenFilesNameTheirByte(String bytes, String message) {
        assertThatThrownBy(() -> SmfReader.read(hex(bytes)))
                .isInstanceOf(FileException.class)
                .hasMessageStartingWith(message);
    }

    /** The track's events begin at byte 22. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "00903C40 | byte 26: expected End of Track",
                "00903C80 00FF2F00 | byte 25: expected a data byte 00–7F but found 80",
                "003C40 00FF2F00 | byte 23: expected a status byte",
                "00903C40 00F0017F 003C40 00FF2F00 | byte 31: expected a status byte",
                "8180808000 00FF2F00 | byte 22: expected a variable-length number of at most 4 bytes",
                "00FF5103000000 00FF2F00 | byte 24: expected a tempo",
                "00FF510207A1 00FF2F00 | byte 24: expected 3 bytes in a tempo",
                "00FF580404080000 00FF2F00 | byte 24: expected a meter",
                "00F100 00FF2F00 | byte 23: expected a channel message",
                "00FF2F00 00903C40 | byte 26: expected the end of track 1",
                "00FF0320 41 00FF2F00 | byte 25: expected 32 bytes of a meta event",
                "00 | byte 22: expected an event after the delta time",
                "0090 | byte 24: expected a data byte"
            })
    void brokenTracksNameTheirByte(String events, String message) {
        assertThatThrownBy(() -> SmfReader.read(file(events)))
                .isInstanceOf(FileException.class)
                .hasMessageStartingWith(message);
    }

    @Test
    void everyTruncationOfAFileIsRefused() {
        byte[] whole = hex(EXAMPLE_1);
        for (int length = 0; length < whole.length; length++) {
            byte[] part = Arrays.copyOf(whole, length);
            assertThatThrownBy(() -> SmfReader.read(part))
                    .as("%d bytes", length)
                    .isInstanceOf(FileException.class);
        }
    }

    @Test
    void unknownChunksAndLongHeadersAreSkipped() throws FileException {
        MidiFile file = SmfReader.read(
                hex("4D546864 00000008 0000 0001 0060 ABCD 58585858 00000002 0102 4D54726B 00000004 00FF2F00"));
        assertThat(file.notes()).isEmpty();
    }

    @Test
    void smpteTimeCountsSeconds() throws FileException {
        // 25 frames of 40 units: a unit is a millisecond; a tempo says nothing here.
        MidiFile file = SmfReader.read(hex(
                "4D546864 00000006 0000 0001 E728 4D54726B 00000014" + "00FF5103030D40 00903C40 8768803C40 00FF2F00"));
        assertThat(file.time().tempo().nanosAt(file.notes().get(0).lengthTicks()))
                .isEqualTo(1e9);
    }

    @Test
    void patternsOfFormat2FollowOneAnotherByBars() throws FileException {
        String track = "4D54726B 0000000C 00903C40 60803C40 00FF2F00 ";
        MidiFile file = SmfReader.read(hex("4D546864 00000006 0002 0002 0060 " + track + track));
        assertThat(file.notes()).extracting(Note::tick).containsExactly(0L, 4 * Q);
    }

    @Test
    void aRiffWrappingIsOpened() throws FileException {
        byte[] inner = hex(EXAMPLE_0);
        String length = String.format("%08X", Integer.reverseBytes(inner.length));
        byte[] riff = hex("52494646 00000000 524D4944 64617461 " + length + EXAMPLE_0);
        assertThat(SmfReader.read(riff).notes()).hasSize(4);
    }

    private static byte[] written(int format) throws FileException {
        MidiFile example = SmfReader.read(hex(EXAMPLE_0));
        List<Event> events = new ArrayList<>(example.events());
        events.sort(EventOrder.INSTANCE);
        return SmfWriter.write(SmfForm.of(format), example.time(), example.metas(), events, example.printedEnd());
    }

    @Test
    void whatIsWrittenIsReadBack() throws FileException {
        for (int format : List.of(0, 1)) {
            MidiFile again = SmfReader.read(written(format));
            MidiFile example = SmfReader.read(hex(EXAMPLE_0));
            assertThat(again.notes()).containsExactlyInAnyOrderElementsOf(example.notes());
            assertThat(again.messages()).containsExactlyInAnyOrderElementsOf(example.messages());
            assertThat(again.time()).isEqualTo(example.time());
            assertThat(again.endTick()).isEqualTo(4 * Q);
        }
    }

    /** Standard MIDI Files 1.0, "Header Chunks": the division is ticks to a quarter; read by the JDK's own reader. */
    @ParameterizedTest
    @CsvSource({"24", "96", "480", "960", "15360", "32767"})
    void anyDivisionIsWritten(int division) throws Exception {
        List<Event> events = Played.through("{'effect':'transpose'}")
                .note("C4", 1, 0.5)
                .note("D4", 2.25, 1)
                .events(1);
        byte[] bytes = SmfWriter.write(new SmfForm(1, division), harpel.time.TimeMap.DEFAULT, List.of(), events, 4 * Q);
        Sequence sequence = MidiSystem.getSequence(new ByteArrayInputStream(bytes));
        assertThat(sequence.getResolution()).isEqualTo(division);
        Track track = sequence.getTracks()[1];
        assertThat(List.of(
                        track.get(0).getTick(),
                        track.get(1).getTick(),
                        track.get(2).getTick()))
                .containsExactly((long) division, Math.round(1.5 * division), Math.round(2.25 * division));
        assertThat(sequence.getTracks()[0].ticks()).isEqualTo(4L * division);
    }

    /** The JDK's own reader (java.desktop), an independent one, finds the same events in what Harpel writes. */
    @Test
    void theJdkReadsTheSame() throws Exception {
        List<Event> events = Played.through(
                        "{'effect':'arpeggio','pace':'1/16','octaves':3},{'effect':'echo','shift':1}")
                .chord("C3 E3 G3", 0, 16)
                .control(7, 90, 1)
                .events(4);
        byte[] bytes = SmfWriter.write(SmfForm.of(1), harpel.time.TimeMap.DEFAULT, List.of(), events, 16 * Q);
        Sequence sequence = MidiSystem.getSequence(new ByteArrayInputStream(bytes));
        assertThat(sequence.getResolution()).isEqualTo(960);
        List<String> read = new ArrayList<>();
        Track track = sequence.getTracks()[1];
        for (int i = 0; i < track.size(); i++) {
            MidiEvent event = track.get(i);
            if (event.getMessage() instanceof ShortMessage message && message.getCommand() == ShortMessage.NOTE_ON) {
                read.add(event.getTick() + " " + message.getData1() + " " + message.getData2());
            }
        }
        List<String> sent = Heard.of(events).stream()
                .map(note -> Math.round(note.beat() * 960) + " " + note.pitch() + " " + note.velocity())
                .toList();
        assertThat(read).hasSizeGreaterThan(100).containsExactlyElementsOf(sent);
    }

    @Test
    void notesThatFallTogetherOnTheCoarserTicksStayPaired() throws FileException {
        // Two notes of one pitch 4 of Harpel's ticks apart are one at 960; one that lasts 1 tick lasts 1 of the file's.
        List<Event> events = Played.through("")
                .note(60, 0, 1 / (double) Q, 50, 1)
                .note(60, 4 / (double) Q, 8 / (double) Q, 90, 1)
                .events(1);
        MidiFile file =
                SmfReader.read(SmfWriter.write(SmfForm.of(0), harpel.time.TimeMap.DEFAULT, List.of(), events, 4 * Q));
        assertThat(file.repairs()).isEmpty();
        assertThat(file.notes()).containsExactly(new Note(0, 16, 0, 60, 90, 64));
    }
}
