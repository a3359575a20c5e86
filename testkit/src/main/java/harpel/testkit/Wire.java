package harpel.testkit;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/** Reads MIDI messages as an instrument does, knowing nothing of Harpel's own events. */
public final class Wire {
    private Wire() {}

    /** Every note on as "pitch velocity". */
    public static List<String> starts(List<byte[]> messages) {
        List<String> starts = new ArrayList<>();
        for (byte[] message : messages) {
            if ((message[0] & 0xF0) == 0x90 && message[2] > 0) {
                starts.add(message[1] + " " + message[2]);
            }
        }
        return starts;
    }

    /** The notes that sound after all messages, as "channel/pitch". */
    public static Set<String> open(List<byte[]> messages) {
        Set<String> open = new TreeSet<>();
        for (byte[] message : messages) {
            String voice = (message[0] & 0x0F) + 1 + "/" + message[1];
            int kind = message[0] & 0xF0;
            if (kind == 0x90 && message[2] > 0) {
                open.add(voice);
            } else if (kind == 0x80 || kind == 0x90) {
                open.remove(voice);
            }
        }
        return open;
    }
}
