package harpel.sound;

import harpel.event.Message;
import java.util.Comparator;
import java.util.PriorityQueue;
import java.util.function.BiConsumer;

/** Messages that wait for their frame, in the order in which they sound; of one frame as they came. Owned by the sound thread. */
final class Waiting {
    private record One(byte[] message, long frame, long order) {
        int channel() {
            return message[0] & 0x0F;
        }
    }

    static boolean isStart(byte[] message) {
        return (message[0] & 0xF0) == 0x90 && message[2] > 0;
    }

    private static boolean isControl(byte[] message, int number) {
        return (message[0] & 0xF0) == Message.CONTROL_CHANGE && message[1] == number;
    }

    static boolean silences(byte[] message) {
        return isControl(message, Message.ALL_SOUND_OFF);
    }

    private final PriorityQueue<One> queue =
            new PriorityQueue<>(Comparator.comparingLong(One::frame).thenComparingLong(One::order));
    private long order;

    /**
     * Puts a message where it sounds. One that silences a channel goes before all else, and what waits to start there never does.
     *
     * @param next the first frame that is not rendered yet
     */
    void add(byte[] message, long frame, long next) {
        One one = new One(message, Math.max(frame, next), order++);
        if (silences(message) || isControl(message, Message.ALL_NOTES_OFF)) {
            queue.removeIf(waiting -> isStart(waiting.message) && waiting.channel() == one.channel());
            queue.add(new One(message, next, one.order));
        } else {
            queue.add(one);
        }
    }

    /** Whether something sounds before a frame. */
    boolean isBefore(long frame) {
        return !queue.isEmpty() && queue.peek().frame < frame;
    }

    /** Hands on what sounds before a frame. */
    void until(long frame, BiConsumer<byte[], Long> taker) {
        while (isBefore(frame)) {
            One one = queue.poll();
            taker.accept(one.message, one.frame);
        }
    }
}
