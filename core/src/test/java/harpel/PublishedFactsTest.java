package harpel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import harpel.effect.Pedal;
import harpel.event.Event;
import harpel.event.Message;
import harpel.event.NoteEnd;
import harpel.event.NoteStart;
import harpel.port.MidiBytes;
import harpel.theory.GeneralMidi;
import harpel.time.MeterMap;
import harpel.time.TempoMap;
import harpel.time.Ticks;
import harpel.time.TimeMap;
import harpel.time.TimeValue;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Published numbers, each with its source. */
class PublishedFactsTest {
    private static String hex(Event event) {
        return HexFormat.ofDelimiter(" ").withUpperCase().formatHex(MidiBytes.of(event));
    }

    /** MIDI 1.0 Detailed Specification, table of channel voice messages; n is the channel less one. */
    @Test
    void channelVoiceMessagesAreTheSpecificationsByteByByte() {
        for (int n = 0; n < 16; n++) {
            NoteStart note = NoteStart.played(0, 0, n, 60, 64);
            String nibble = Integer.toHexString(n).toUpperCase(java.util.Locale.ROOT);
            assertThat(hex(note)).isEqualTo("9" + nibble + " 3C 40");
            assertThat(hex(new NoteEnd(1, note, 64))).isEqualTo("8" + nibble + " 3C 40");
            assertThat(hex(Message.control(0, 0, n, 7, 127))).isEqualTo("B" + nibble + " 07 7F");
            assertThat(hex(Message.bend(0, 0, n, 8192))).as("the middle").isEqualTo("E" + nibble + " 00 40");
        }
    }

    /** MIDI 1.0: pitch bend is 14 bits, the low seven first; 2000H is the middle, 3FFFH the highest. */
    @ParameterizedTest
    @CsvSource({"0, E0 00 00", "1, E0 01 00", "127, E0 7F 00", "128, E0 00 01", "8192, E0 00 40", "16383, E0 7F 7F"})
    void bendsAreFourteenBits(int value, String bytes) {
        Message bend = Message.bend(0, 0, 0, value);
        assertThat(hex(bend)).isEqualTo(bytes);
        assertThat(bend.bend()).isEqualTo(value);
    }

    /** MIDI 1.0: controllers 64–69 are off at 0–63 and on at 64–127. */
    @ParameterizedTest
    @CsvSource({"0, false", "63, false", "64, true", "127, true"})
    void switchesTurnAtSixtyFour(int value, boolean down) {
        assertThat(Pedal.isDown(Message.control(0, 0, 0, 64, value))).isEqualTo(down);
    }

    /** MIDI 1.0 Detailed Specification, controller numbers. */
    @ParameterizedTest
    @CsvSource({
        "0, bank select",
        "1, modulation wheel",
        "2, breath",
        "7, volume",
        "10, pan",
        "11, expression",
        "64, sustain pedal",
        "100, 'registered parameter, fine'",
        "101, registered parameter",
        "6, data entry",
        "38, 'data entry, fine'",
        "120, all sound off",
        "121, reset all controllers",
        "123, all notes off"
    })
    void controllersHaveTheirPublishedNumbers(int number, String name) {
        assertThat(GeneralMidi.controller(number)).isEqualTo("controller " + number + " (" + name + ")");
    }

    /** General MIDI 1 percussion key map; written from memory, the sheet itself is not on this machine. */
    @ParameterizedTest
    @CsvSource({
        "35, Acoustic Bass Drum",
        "36, Bass Drum 1",
        "38, Acoustic Snare",
        "39, Hand Clap",
        "42, Closed Hi-Hat",
        "44, Pedal Hi-Hat",
        "46, Open Hi-Hat",
        "49, Crash Cymbal 1",
        "51, Ride Cymbal 1",
        "54, Tambourine",
        "56, Cowbell",
        "60, Hi Bongo",
        "69, Cabasa",
        "75, Claves",
        "76, Hi Wood Block",
        "80, Mute Triangle",
        "81, Open Triangle"
    })
    void percussionKeysHaveTheirPublishedNames(int key, String name) {
        assertThat(GeneralMidi.percussion(key)).contains(name);
    }

    @Test
    void percussionEndsWhereTheMapEnds() {
        assertThat(GeneralMidi.percussion(34)).isEmpty();
        assertThat(GeneralMidi.percussion(82)).isEmpty();
        assertThat(GeneralMidi.PERCUSSION_CHANNEL + 1).isEqualTo(10);
    }

    /** Delay times as printed in handbooks' tables: 60,000 / bpm × beats; common practice, no one source. */
    @ParameterizedTest
    @CsvSource({
        "60, 1/4, 1000",
        "60, 1/8, 500",
        "90, 1/4, 666.67",
        "90, 1/8d, 500",
        "100, 1/4, 600",
        "100, 1/8, 300",
        "100, 1/8d, 450",
        "100, 1/8t, 200",
        "100, 1/16, 150",
        "120, 1/1, 2000",
        "120, 1/2, 1000",
        "120, 1/4, 500",
        "120, 1/4d, 750",
        "120, 1/4t, 333.33",
        "120, 1/8, 250",
        "120, 1/8d, 375",
        "120, 1/8t, 166.67",
        "120, 1/16, 125",
        "120, 1/16d, 187.5",
        "120, 1/16t, 83.33",
        "120, 1/32, 62.5",
        "128, 1/8d, 351.56",
        "140, 1/4, 428.57",
        "140, 1/8, 214.29",
        "174, 1/16, 86.21"
    })
    void noteValuesHaveTheirDelayTimes(double bpm, String value, double ms) {
        TimeMap time = new TimeMap(TempoMap.of(bpm), MeterMap.FOUR_FOUR);
        long end = time.after(0, TimeValue.ofNote(value), 1);
        assertThat(time.tempo().nanosAt(end) / 1e6).isCloseTo(ms, within(0.04));
    }

    /** Common practice: a bar of 4/4 holds 8 eighths and 16 sixteenths; 0.75 of a beat is a dotted eighth. */
    @Test
    void barsHoldWhatTheyHold() {
        TimeMap time = TimeMap.DEFAULT;
        long bar = time.meter().tickOfBar(1);
        assertThat(time.after(0, TimeValue.ofNote("1/8"), 8)).isEqualTo(bar);
        assertThat(time.after(0, TimeValue.ofNote("1/16"), 16)).isEqualTo(bar);
        assertThat(time.after(0, TimeValue.parse("0.75 beat"), 1))
                .isEqualTo(time.after(0, TimeValue.ofNote("1/8d"), 1));
        assertThat(time.after(0, TimeValue.ofNote("1/4d"), 1)).isEqualTo(Ticks.PER_QUARTER * 3L / 2);
    }
}
