package harpel.port;

import harpel.event.Message;

/**
 * What MIDI messages are at an edge (MIDI 1.0): starts, ends, values of which only the latest counts, each with a slot of its own, and
 * whatever else there is.
 */
final class Slots {
    /** The slot of what is no value. */
    static final int NONE = -1;

    private static final int CHANNELS = 16;
    private static final int NUMBERS = 128;
    /** Voices: a channel and a pitch. */
    static final int VOICES = CHANNELS * NUMBERS;

    private static final int PRESSURES = VOICES;
    private static final int LIGHTS = 2 * VOICES;
    private static final int PROGRAMS = 3 * VOICES;
    private static final int TRANSPORT = PROGRAMS + 3 * CHANNELS;
    private static final int POSITION = TRANSPORT + 1;
    /** How many slots there are. */
    static final int COUNT = POSITION + 1;

    private Slots() {}

    static boolean isStart(int status, int data2) {
        return (status & 0xF0) == 0x90 && data2 > 0;
    }

    /** An end, also one that is written as a start with velocity 0. */
    static boolean isEnd(int status, int data2) {
        return (status & 0xF0) == 0x80 || (status & 0xF0) == 0x90 && data2 == 0;
    }

    /** 0–2047, by channel and pitch. */
    static int voice(int status, int data1) {
        return (status & 0x0F) << 7 | data1;
    }

    /** The slot of a value; {@link #NONE} for a note and whatever else is not one. */
    static int of(int status, int data1) {
        int channel = status & 0x0F;
        return switch (status < 0xF0 ? status & 0xF0 : status) {
            case Message.CONTROL_CHANGE -> voice(status, data1);
            case Message.POLY_PRESSURE -> PRESSURES + voice(status, data1);
            case Message.PROGRAM_CHANGE -> PROGRAMS + channel;
            case Message.CHANNEL_PRESSURE -> PROGRAMS + CHANNELS + channel;
            case Message.PITCH_BEND -> PROGRAMS + 2 * CHANNELS + channel;
            case 0xFA, 0xFB, 0xFC -> TRANSPORT;
            case 0xF2 -> POSITION;
            default -> NONE;
        };
    }

    /** The slot of a message that is no event of the music: a note of those is a light, of which the last colour counts, too. */
    static int ofPlain(byte[] message) {
        int status = message[0] & 0xFF;
        int kind = status & 0xF0;
        return kind == 0x90 || kind == 0x80
                ? LIGHTS + voice(status, message[1])
                : of(status, message.length > 1 ? message[1] : 0);
    }
}
