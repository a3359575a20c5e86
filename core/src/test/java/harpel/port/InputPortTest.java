package harpel.port;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import harpel.port.InputPort.Played;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Test;

/** What comes in at an edge: nothing that began is left without its end, and what cannot be carried is left out in a known order. */
class InputPortTest {
    private static final int START = 0x90;
    private static final int END = 0x80;
    private static final int CONTROL = 0xB0;

    private final InputPort port = new InputPort("Hand", () -> {});

    private List<Played> all() {
        List<Played> all = new ArrayList<>();
        for (Played one = port.poll(); one != null; one = port.poll()) {
            all.add(one);
        }
        return all;
    }

    @Test
    void behindAFloodTheLatestOfEachControllerComesInItsPlaceAndEveryEndDoes() {
        port.offer(START, 60, 90, 0);
        for (int i = 0; i < 10_000; i++) {
            port.offer(CONTROL, 1, i % 128, 1);
        }
        port.offer(CONTROL, 64, 127, 2);
        port.offer(START, 61, 90, 3);
        port.offer(CONTROL, 64, 0, 4);
        port.offer(END, 60, 64, 5);
        port.offer(CONTROL, 1, 99, 6);
        assertThat(port.leftOut())
                .as("nothing but controllers that later ones outdate")
                .isZero();
        List<Played> all = all();
        assertThat(all).hasSizeLessThan(EdgeQueue.ROOM_FOR_VALUES + 10);
        assertThat(all.subList(all.size() - 4, all.size()))
                .extracting(Played::status, Played::data1, Played::data2)
                .containsExactly(
                        tuple(START, 61, 90), tuple(CONTROL, 64, 0), tuple(END, 60, 64), tuple(CONTROL, 1, 99));
    }

    @Test
    void startsThatFindNoRoomAreCountedAndTheirEndsLeftOut() {
        for (int i = 0; i < 2 * EdgeQueue.ROOM; i++) {
            port.offer(START | i % 16, i / 16 % 128, 90, i);
        }
        assertThat(port.leftOut()).isEqualTo(EdgeQueue.ROOM);
        for (int voice = 0; voice < 2048; voice++) {
            port.offer(END | voice % 16, voice / 16, 64, 0);
        }
        assertThat(all().stream().filter(Played::isRelease)).hasSize(2048);
        assertThat(port.leftOut()).isEqualTo(EdgeQueue.ROOM);
    }

    @Test
    void anEndGoesWhereItsStartWent() {
        port.offer(START, 60, 90, 0);
        port.intercept((status, data1, data2) -> InputPort.Interceptor.MINE);
        port.hearOnly(5);
        port.offer(START, 61, 90, 1);
        port.offer(END, 60, 64, 2);
        port.offer(END, 61, 64, 3);
        assertThat(all()).extracting(Played::data1).containsExactly(60, 60);
    }

    @Test
    void aPadThatPlaysAnotherPitchIsKnownByItsKey() {
        port.intercept((status, data1, data2) -> data1 + 12);
        port.offer(START, 36, 90, 0);
        port.offer(END, 36, 64, 1);
        assertThat(all()).extracting(Played::data1, Played::key).containsExactly(tuple(48, 36), tuple(36, 36));
    }

    @Test
    void nothingBeginsWhileItIsShut() {
        port.offer(START, 60, 90, 0);
        port.offer(CONTROL, 64, 0, 1);
        port.shut(true);
        port.offer(START, 61, 90, 2);
        port.offer(END, 60, 64, 3);
        assertThat(all()).extracting(Played::data1).containsExactly(64, 60);
    }

    /** Two threads, 300,000 messages: every key that was taken is let go of, and each controller ends where it was left. */
    @Test
    void noReleaseIsLostBetweenTwoThreads() throws InterruptedException {
        AtomicBoolean done = new AtomicBoolean();
        Thread hand = new Thread(() -> {
            for (int i = 0; i < 100_000; i++) {
                port.offer(START, i % 128, 90, i);
                port.offer(CONTROL, i % 100, i % 128, i);
                port.offer(END, i % 128, 64, i);
            }
            for (int i = 0; i < 100; i++) {
                port.offer(CONTROL, i, i, 0);
            }
            done.set(true);
        });
        hand.start();
        boolean[] down = new boolean[128];
        int[] controls = new int[100];
        int slow = 0;
        while (!done.get() || !port.isEmpty()) {
            Played one = port.poll();
            if (one == null) {
                Thread.onSpinWait();
                continue;
            }
            if (one.isPress()) {
                assertThat(down[one.data1()]).isFalse();
                down[one.data1()] = true;
            } else if (one.isRelease()) {
                down[one.data1()] = false;
            } else {
                controls[one.data1()] = one.data2();
            }
            if (++slow % 20_000 == 0) {
                // Time for the other side to run it over.
                Thread.sleep(5);
            }
        }
        hand.join();
        assertThat(down).containsOnly(false);
        for (int i = 0; i < 100; i++) {
            assertThat(controls[i]).isEqualTo(i);
        }
    }

    @Test
    void oneChannelAloneIsHeardAndTheOthersAreTakenToNobody() {
        port.hearOnly(3);
        assertThat(port.offer(START, 60, 90, 7))
                .as("not left out, only not heard")
                .isTrue();
        assertThat(port.offer(START | 2, 61, 90, 8)).isTrue();
        assertThat(port.offer(CONTROL | 1, 7, 90, 9)).isTrue();
        assertThat(port.offer(0xF8, 0, 0, 10)).as("a clock is on no channel").isTrue();
        assertThat(port.nextNanos()).isEqualTo(8);
        assertThat(all()).extracting(Played::status).containsExactly(START | 2, 0xF8);
        assertThat(port.nextNanos()).isEqualTo(Long.MAX_VALUE);
        assertThat(port.activeNanos()).isEqualTo(10);
        port.hearOnly(0);
        port.offer(START, 60, 90, 11);
        assertThat(all()).hasSize(1);
    }

    @Test
    void whoTakesIsWokenByEachMessageAndAnEndThatIsTheControllersIsNotPlayed() {
        List<String> woken = new ArrayList<>();
        InputPort own = new InputPort("Pads", () -> woken.add("woken"));
        own.intercept((status, data1, data2) -> data1 < 40 ? InputPort.Interceptor.MINE : data1);
        assertThat(own.offer(START, 36, 90, 0)).isTrue();
        assertThat(own.offer(END, 36, 90, 0)).isTrue();
        assertThat(own.isEmpty()).isTrue();
        assertThat(own.offer(START, 50, 90, 0)).isTrue();
        assertThat(own.offer(END, 50, 90, 0)).isTrue();
        assertThat(own.offer(END, 51, 90, 0))
                .as("of a key that was down before")
                .isTrue();
        assertThat(own.poll().isPress()).isTrue();
        assertThat(own.poll().isRelease()).isTrue();
        assertThat(own.poll().data1()).isEqualTo(51);
        assertThat(woken).hasSize(5);
    }

    @Test
    void itSaysWhenItIsFullAndAnEndOfNothingFindsNoRoomThen() {
        for (int i = 0; i < EdgeQueue.ROOM; i++) {
            assertThat(port.offer(0xF8, 0, 0, i)).isTrue();
        }
        assertThat(port.offer(START, 60, 90, 0)).isFalse();
        assertThat(port.offer(END, 60, 64, 0)).as("it never began").isFalse();
        assertThat(port.offer(CONTROL, 7, 1, 0)).as("it waits aside").isTrue();
        assertThat(port.leftOut()).isEqualTo(1);
    }

    @Test
    void theWindowsOwnWaysInAreNoDevices() {
        assertThat(port.isDevice()).isTrue();
        assertThat(port.name()).isEqualTo("Hand");
        assertThat(InputPort.toPart("bass")).isEqualTo("part:bass");
        assertThat(new InputPort(InputPort.KEYS, () -> {}).isDevice()).isFalse();
        assertThat(new InputPort(InputPort.AUDITION, () -> {}).isDevice()).isFalse();
        assertThat(new InputPort(InputPort.toPart("bass"), () -> {}).isDevice()).isFalse();
    }
}
