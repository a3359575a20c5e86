package harpel.port;

import static org.assertj.core.api.Assertions.assertThat;

import harpel.port.EdgeQueue.Entry;
import harpel.port.EdgeQueue.Kind;
import harpel.testkit.Randoms;
import harpel.testkit.Tries;
import java.util.ArrayDeque;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/** The queue at an edge beside a model of it, and the slots by which values outdate one another. */
class EdgeQueueTest {
    /** What a queue of that order of leaving out does, written down as plainly as can be. */
    private static final class Model {
        private final ArrayDeque<Long> queue = new ArrayDeque<>();
        private final Map<Integer, Long> aside = new TreeMap<>();
        private long order;
        private long leftOut;

        boolean offer(Kind kind, int slot) {
            order++;
            aside.remove(slot);
            int room = kind == Kind.VALUE ? 1024 : kind == Kind.OTHER ? 4096 : 8192;
            if (queue.size() < room) {
                queue.add(order);
                return true;
            }
            if (slot >= 0) {
                aside.put(slot, order);
                return true;
            }
            leftOut++;
            return false;
        }

        long first() {
            long first = queue.isEmpty() ? Long.MAX_VALUE : queue.peek();
            for (long one : aside.values()) {
                first = Math.min(first, one);
            }
            return first;
        }

        void take(long taken) {
            if (!aside.values().remove(taken)) {
                assertThat(queue.poll()).isEqualTo(taken);
            }
        }
    }

    @Test
    void whatComesOutIsWhatWentInInItsOrderButForWhatIsLeftOut() {
        Tries.of(12, "an edge's queue", seed -> {
            Randoms randoms = new Randoms(seed);
            EdgeQueue<Integer> queue = new EdgeQueue<>();
            Model model = new Model();
            for (int round = 0; round < 40; round++) {
                Kind kind = randoms.oneOf(java.util.List.of(Kind.values()));
                for (int i = randoms.between(1, 900); i > 0; i--) {
                    Kind now = randoms.oneIn(9) ? randoms.oneOf(java.util.List.of(Kind.values())) : kind;
                    if (now == Kind.END && model.queue.size() >= 8_000) {
                        now = Kind.OTHER;
                    }
                    int slot = now == Kind.VALUE ? randoms.between(0, 40) : Slots.NONE;
                    assertThat(queue.offer(i, now, slot)).isEqualTo(model.offer(now, slot));
                    assertThat(queue.lastOrder()).isEqualTo(model.order);
                }
                assertThat(queue.leftOut()).isEqualTo(model.leftOut);
                assertThat(queue.hasRoom()).isEqualTo(model.queue.size() < 4096);
                for (int i = randoms.between(0, 1_500); i > 0 && model.first() < Long.MAX_VALUE; i--) {
                    assertThat(queue.isEmpty()).isFalse();
                    assertThat(queue.peek().order()).isEqualTo(model.first());
                    Entry<Integer> taken = queue.poll();
                    assertThat(taken.order()).isEqualTo(model.first());
                    model.take(taken.order());
                }
                assertThat(queue.isEmpty()).isEqualTo(model.first() == Long.MAX_VALUE);
            }
            while (model.first() < Long.MAX_VALUE) {
                long order = queue.poll().order();
                assertThat(order).isEqualTo(model.first());
                model.take(order);
            }
            assertThat(queue.poll()).isNull();
            assertThat(queue.peek()).isNull();
            assertThat(queue.isEmpty()).isTrue();
        });
    }

    /** MIDI 1.0: which messages there are, on 16 channels. */
    @Test
    void eachValueHasASlotOfItsOwnAndNotesHaveNone() {
        Set<Integer> slots = new HashSet<>();
        int values = 0;
        for (int channel = 0; channel < 16; channel++) {
            for (int number = 0; number < 128; number++) {
                slots.add(Slots.of(0xA0 | channel, number));
                slots.add(Slots.of(0xB0 | channel, number));
                slots.add(Slots.ofPlain(new byte[] {(byte) (0x90 | channel), (byte) number, 5}));
                assertThat(Slots.ofPlain(new byte[] {(byte) (0x80 | channel), (byte) number, 0}))
                        .as("a light that goes out is the same light")
                        .isEqualTo(Slots.ofPlain(new byte[] {(byte) (0x90 | channel), (byte) number, 5}));
                assertThat(Slots.of(0x90 | channel, number)).isEqualTo(Slots.NONE);
                assertThat(Slots.of(0x80 | channel, number)).isEqualTo(Slots.NONE);
                assertThat(Slots.voice(0x90 | channel, number)).isEqualTo(channel * 128 + number);
                values += 3;
            }
            for (int kind : new int[] {0xC0, 0xD0, 0xE0}) {
                slots.add(Slots.of(kind | channel, channel));
                assertThat(Slots.of(kind | channel, 99)).isEqualTo(Slots.of(kind | channel, 0));
                values++;
            }
        }
        slots.add(Slots.of(0xFA, 0));
        slots.add(Slots.of(0xF2, 0));
        assertThat(slots).hasSize(values + 2).allMatch(slot -> slot >= 0 && slot < Slots.COUNT);
        assertThat(Slots.of(0xFC, 0)).isEqualTo(Slots.of(0xFA, 0)).isEqualTo(Slots.of(0xFB, 0));
        assertThat(Slots.of(0xF8, 0)).isEqualTo(Slots.NONE);
        assertThat(Slots.ofPlain(new byte[] {(byte) 0xF8})).isEqualTo(Slots.NONE);
        assertThat(Slots.ofPlain(new byte[] {(byte) 0xB3, 7, 1})).isEqualTo(Slots.of(0xB3, 7));
    }

    @Test
    void aStartWithVelocityNothingIsAnEnd() {
        assertThat(Slots.isStart(0x93, 1)).isTrue();
        assertThat(Slots.isStart(0x93, 0)).isFalse();
        assertThat(Slots.isStart(0x83, 1)).isFalse();
        assertThat(Slots.isEnd(0x93, 0)).isTrue();
        assertThat(Slots.isEnd(0x93, 1)).isFalse();
        assertThat(Slots.isEnd(0x83, 99)).isTrue();
        assertThat(Slots.isEnd(0xB3, 0)).isFalse();
    }
}
