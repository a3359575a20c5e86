package harpel.event;

import java.util.Arrays;
import java.util.HexFormat;

/** Any other MIDI message: controllers, bend, pressure, program changes, system messages. Its bytes are never changed in place. */
public final class Message extends Event {
    public static final int POLY_PRESSURE = 0xA0;
    public static final int CONTROL_CHANGE = 0xB0;
    public static final int PROGRAM_CHANGE = 0xC0;
    public static final int CHANNEL_PRESSURE = 0xD0;
    public static final int PITCH_BEND = 0xE0;
    /** A pitch bend that bends nothing, and the highest: 14 bits (MIDI 1.0). */
    public static final int BEND_MIDDLE = 8192;

    public static final int BEND_MOST = 16383;
    public static final int VOLUME = 7;
    public static final int SUSTAIN = 64;
    public static final int ALL_SOUND_OFF = 120;
    public static final int ALL_NOTES_OFF = 123;

    private final byte[] bytes;

    /** @param bytes the whole message with its status byte, as on a cable */
    public Message(long tick, long arrival, byte... bytes) {
        super(tick, arrival);
        if (bytes.length == 0 || bytes[0] >= 0) {
            throw new IllegalArgumentException("a MIDI message begins with a status byte 80–FF but was "
                    + HexFormat.ofDelimiter(" ").formatHex(bytes));
        }
        this.bytes = bytes.clone();
    }

    public static Message control(long tick, long arrival, int channel, int controller, int value) {
        return new Message(tick, arrival, (byte) (CONTROL_CHANGE | channel), (byte) controller, (byte) value);
    }

    /** A pitch bend of 0–16383; the low seven bits go first (MIDI 1.0). */
    public static Message bend(long tick, long arrival, int channel, int value) {
        return new Message(tick, arrival, (byte) (PITCH_BEND | channel), (byte) (value & 0x7F), (byte) (value >> 7));
    }

    public boolean isBend() {
        return (status() & 0xF0) == PITCH_BEND;
    }

    /** The value of a pitch bend, 0–16383. */
    public int bend() {
        return data(2) << 7 | data(1);
    }

    /** A channel message on another channel; a system message as it is. */
    public Message onChannel(int channel) {
        if (status() >= 0xF0) {
            return this;
        }
        byte[] moved = bytes.clone();
        moved[0] = (byte) (status() & 0xF0 | channel);
        return new Message(tick(), arrival(), moved);
    }

    public byte[] bytes() {
        return bytes.clone();
    }

    public int status() {
        return bytes[0] & 0xFF;
    }

    /** A data byte, counted from 1; 0 where the message has none. */
    public int data(int number) {
        return number < bytes.length ? bytes[number] & 0xFF : 0;
    }

    public int length() {
        return bytes.length;
    }

    public boolean isController(int controller) {
        return (status() & 0xF0) == CONTROL_CHANGE && data(1) == controller;
    }

    /** Two messages are equal when they say the same at the same tick. */
    @Override
    public boolean equals(Object other) {
        return other instanceof Message message && message.tick() == tick() && Arrays.equals(message.bytes, bytes);
    }

    @Override
    public int hashCode() {
        return 31 * Long.hashCode(tick()) + Arrays.hashCode(bytes);
    }

    @Override
    public int channel() {
        return status() < 0xF0 ? status() & 0x0F : -1;
    }

    @Override
    int rank() {
        return 1;
    }

    @Override
    int pitchOrder() {
        return 0;
    }

    @Override
    public String toString() {
        return tick() + " message " + HexFormat.ofDelimiter(" ").formatHex(bytes);
    }
}
