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
    /** The whole of a system exclusive message, or its beginning; and a part of one, as files write it. */
    public static final int SYSTEM_EXCLUSIVE = 0xF0;

    public static final int ESCAPE = 0xF7;
    /** A pitch bend that bends nothing, and the highest: 14 bits (MIDI 1.0). */
    public static final int BEND_MIDDLE = 8192;

    public static final int BEND_MOST = 16383;
    public static final int VOLUME = 7;
    /** Bank select, the upper and the lower seven bits. */
    public static final int BANK = 0;

    public static final int BANK_FINE = 32;
    public static final int SUSTAIN = 64;
    public static final int ALL_SOUND_OFF = 120;
    public static final int ALL_NOTES_OFF = 123;

    private final byte[] bytes;

    /** @param bytes the whole message with its status byte, as on a cable */
    public Message(long tick, long arrival, byte... bytes) {
        super(tick, arrival, MESSAGE);
        this.bytes = bytes.clone();
        check();
    }

    /** MIDI 1.0: a status byte, and as many data bytes 00–7F as it asks for. */
    private void check() {
        int kind = bytes.length == 0 || bytes[0] >= 0 ? 0 : status() < 0xF0 ? status() & 0xF0 : status();
        int data = switch (kind) {
            case POLY_PRESSURE, CONTROL_CHANGE, PITCH_BEND -> 2;
            case PROGRAM_CHANGE, CHANNEL_PRESSURE -> 1;
            case SYSTEM_EXCLUSIVE, ESCAPE -> bytes.length - 1;
            default -> -1;
        };
        boolean fits = data == bytes.length - 1;
        for (int i = 1; i < bytes.length && kind != ESCAPE; i++) {
            boolean end = kind == SYSTEM_EXCLUSIVE && i == bytes.length - 1 && bytes[i] == (byte) ESCAPE;
            fits &= bytes[i] >= 0 || end;
        }
        if (!fits) {
            String found = HexFormat.ofDelimiter(" ").withUpperCase().formatHex(bytes);
            throw new IllegalArgumentException(
                    "a MIDI message has a status byte A0–BF or E0–EF with two data bytes 00–7F behind it,"
                            + " C0–DF with one, or F0 … F7, as B0 40 7F, but was " + found
                            + (kind == 0x80 || kind == 0x90 ? "; starts and ends are notes, not messages" : ""));
        }
    }

    private Message(long tick, long arrival, Message same) {
        super(tick, arrival, MESSAGE);
        bytes = same.bytes;
    }

    /** The same message at another place. */
    public Message at(long tick, long arrival) {
        return new Message(tick, arrival, this);
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

    /** Messages of one arrival keep the order in which they were made. */
    @Override
    int pitchOrder() {
        return 0;
    }

    @Override
    public String toString() {
        return tick() + " message " + HexFormat.ofDelimiter(" ").formatHex(bytes);
    }
}
