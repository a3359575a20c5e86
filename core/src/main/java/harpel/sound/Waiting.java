package harpel.sound;

import java.util.Comparator;
import java.util.PriorityQueue;
import java.util.function.BiConsumer;

/** Messages that wait for their frame, in the order in which they sound; of one frame as they came. Owned by the sound thread. */
final class Waiting {
    private record One(byte[] message, long frame, long order) {
        /** MIDI 1.0: All Sound Off is controller 120, All Notes Off 123. */
        boolean silences() {
            return (message[0] & 0xF0) == 0xB0 && (message[1] == 120 || message[1] == 123);
        }

        boolean isStart() {
            return (message[0] & 0xF0) == 0x90 && message[2] > 0;
        }

        int channel() {
            return message[0] & 0x0F;
        }
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
        if (one.silences()) {
            queue.removeIf(waiting -> waiting.isStart() && waiting.channel() == one.channel());
            queue.add(new One(message, next, one.order));
        } else {
            queue.add(one);
        }
    }

    /** Hands on what sounds before a frame. */
    void until(long frame, BiConsumer<byte[], Long> taker) {
        while (!queue.isEmpty() && queue.peek().frame < frame) {
            One one = queue.poll();
            taker.accept(one.message, one.frame);
        }
    }
}
